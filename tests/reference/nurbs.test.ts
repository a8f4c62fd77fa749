import { expect } from 'chai';
import { basisTable } from '../../src/core/geometry/basis';
import { evaluateCurve } from '../../src/core/geometry/curve';
import { evaluateGrid, placeAt, surfaceArea, type Surface } from '../../src/core/geometry/surface';
import { onlyFace, revolved, sheet } from '../faces';
import { rationalSurfaceDerivatives, toVerb } from '../verb';

const near = (actual: number, expected: number, tolerance = 1e-9) =>
	expect(Math.abs(actual - expected), `${actual} against ${expected}`).to.be.at.most(tolerance);

describe('B-splines against the textbook', () => {
	it('basis functions: Piegl & Tiller, The NURBS Book, Ex 2.3 (from memory)', () => {
		const { values, first } = basisTable(Float64Array.of(0, 0, 0, 1, 2, 3, 4, 4, 5, 5, 5), 2, [2.5], 0);
		expect(first[0]).to.equal(2);
		expect([...values]).to.deep.equal([1 / 8, 6 / 8, 1 / 8]);
	});

	it('rational curve: the same, Ex 4.1 (from memory)', () => {
		const weights = [1, 4, 1, 1, 1];
		const points = [
			[0, 0],
			[1, 1],
			[3, 2],
			[4, 1],
			[5, -1]
		];
		const net = points.flatMap(([x, y], k) => [x! * weights[k]!, y! * weights[k]!, 0, weights[k]!]);
		const curve = { degree: 2, knots: Float64Array.of(0, 0, 0, 1, 2, 3, 3, 3), net: Float64Array.from(net) };
		const [x, y] = evaluateCurve(curve, [1]).points;
		near(x!, 7 / 5);
		near(y!, 6 / 5);
	});

	it('rational surface: the same, Ex 4.3 (from memory, recomputed)', () => {
		// Only the nine control points that count at (5/2, 1) matter; the others are put to rest.
		const surface: Surface = {
			degreeU: 2,
			degreeV: 2,
			knotsU: Float64Array.of(0, 0, 0, 1, 2, 3, 4, 4, 5, 5, 5),
			knotsV: Float64Array.of(0, 0, 0, 1, 2, 3, 3, 3),
			countU: 8,
			countV: 5,
			net: new Float64Array(4 * 8 * 5).fill(1)
		};
		const active = [
			[
				[0, 2, 4, 1],
				[0, 6, 4, 2],
				[0, 2, 0, 1]
			],
			[
				[4, 6, 8, 2],
				[12, 24, 12, 6],
				[4, 6, 0, 2]
			],
			[
				[4, 2, 4, 1],
				[8, 6, 4, 2],
				[4, 2, 0, 1]
			]
		];
		active.forEach((row, i) => row.forEach((p, j) => surface.net.set(p, 4 * ((1 + j) * 8 + 2 + i))));
		const [x, y, z] = evaluateGrid(surface, [2.5], [1]).points;
		near(x!, 2);
		near(y!, 98 / 27);
		near(z!, 68 / 27);
	});

	it('quarter circle: closed form', () => {
		const arc = (weights: number[]) => ({
			degree: 2,
			knots: Float64Array.of(0, 0, 0, 1, 1, 1),
			net: Float64Array.from(
				[
					[1, 0],
					[1, 1],
					[0, 1]
				].flatMap(([x, y], k) => [x! * weights[k]!, y! * weights[k]!, 0, weights[k]!])
			)
		});
		const half = evaluateCurve(arc([1, Math.SQRT1_2, 1]), [0.5]).points;
		near(half[0]!, Math.SQRT1_2, 1e-12);
		near(half[1]!, Math.SQRT1_2, 1e-12);
		const other = evaluateCurve(arc([1, 1, 2]), [0.5]).points;
		near(other[0]!, 0.6, 1e-12);
		near(other[1]!, 0.8, 1e-12);
	});
});

describe('surfaces against verb-nurbs', () => {
	it('points and first derivatives agree to 1e-9 of the size', () => {
		const { surface } = onlyFace(
			revolved(
				[
					[5.2, 0],
					[4.3, 2.3],
					[3.9, 4.7],
					[5, 9]
				],
				'smooth'
			)
		);
		const data = toVerb(surface);
		const us = [0, 0.03, 0.25, 0.4999, 0.61, 0.87, 1];
		const vs = [0, 0.11, 0.34, 0.5, 0.78, 0.999];
		const ours = evaluateGrid(surface, us, vs);
		vs.forEach((v, j) =>
			us.forEach((u, i) => {
				const theirs = rationalSurfaceDerivatives(data, u, v, 1);
				const o = 3 * (j * us.length + i);
				for (let k = 0; k < 3; k++) {
					near(ours.points[o + k]!, theirs[0]![0]![k]!);
					near(ours.du[o + k]!, theirs[1]![0]![k]!, 1e-8);
					near(ours.dv[o + k]!, theirs[0]![1]![k]!, 1e-8);
				}
				// One place by itself is the same to the last bit.
				const alone = placeAt(surface, u, v);
				expect([alone.point, alone.du, alone.dv].map((one) => [...one])).to.deep.equal(
					[ours.points, ours.du, ours.dv].map((all) => [...all.subarray(o, o + 3)])
				);
			})
		);
	});
});

describe('areas of closed forms', () => {
	const areaOf = (form: Parameters<typeof onlyFace>[0]) => surfaceArea(onlyFace(form).surface);

	it('cylinder r4 h9: 2πrh', () =>
		near(
			areaOf(
				revolved([
					[4, 0],
					[4, 9]
				])
			),
			226.1946710584651,
			1e-6
		));
	it('frustum r5 r3 h4: π(r+R)s', () =>
		near(
			areaOf(
				revolved([
					[5, 0],
					[3, 4]
				])
			),
			112.3970357,
			1e-6
		));
	it('half a cylinder is half its area', () =>
		near(
			areaOf(
				revolved(
					[
						[4, 0],
						[4, 9]
					],
					'line',
					180
				)
			),
			113.09733552923255,
			1e-6
		));
	it('flat sheet 12 by 5', () => near(areaOf(sheet(12, 5)), 60, 1e-9));

	it('hypar z = xy on the unit square: √3/3 + 4/3 asinh(1/√2) − π/18', () => {
		const hypar = areaOf({
			kind: 'ruled',
			foot: {
				points: [
					[0, 0, 0],
					[1, 0, 0]
				],
				joins: 'line',
				closed: false
			},
			head: {
				points: [
					[0, 1, 0],
					[1, 1, 1]
				],
				joins: 'line',
				closed: false
			}
		});
		near(hypar, 1.2807892752734, 1e-9);
	});

	/** Splined profiles converge to the true meridian; the natural ends keep the order below four. */
	const converges = (name: string, exact: number, profile: (t: number) => [number, number]) =>
		it(`${name}: order above 2.5, and below 1e-6 at 64 points`, () => {
			const error = (n: number) => {
				const points = Array.from({ length: n + 1 }, (_, k) => profile(k / n));
				return Math.abs(areaOf(revolved(points, 'smooth')) / exact - 1);
			};
			const [coarse, fine] = [error(32), error(64)];
			expect(fine).to.be.below(1e-6);
			expect(Math.log2(coarse / fine), 'order').to.be.above(2.5);
		});
	const cap = Math.acos(6 / 10);
	converges(
		'sphere cap R10 h4: 2πRh',
		251.3274123,
		(t) =>
			[10 * Math.sin(cap * (1 - t)), 10 * Math.cos(cap * (1 - t))].map((x, k) =>
				k === 0 ? Math.max(0, x) : x
			) as [number, number]
	);
	converges('torus R5 r1.5: Pappus', 296.088132, (t) => [
		5 + 1.5 * Math.cos(2 * Math.PI * t),
		1.5 * (t === 1 ? 0 : Math.sin(2 * Math.PI * t))
	]);
});
