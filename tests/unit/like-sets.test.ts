import { expect } from 'chai';
import fc from '../property';
import { add, cross, dot, scale, unit, type Vector } from '../../src/core/geometry/vector';
import { differenceOf, ringsOf, type Rings } from '../../src/core/like/rings';
import { Chain } from '../../src/core/chain/chain';
import { kindsOf, type Kinds } from '../../src/core/like/kinds';
import { likeSets } from '../../src/core/like/sets';
import { atOnce } from '../../src/core/units/steps';
import type { ZoneInput } from '../../src/core/project/schema';
import { cellsOf } from '../../src/core/schedule/column';
import { makeSchedule } from '../../src/core/schedule/table';
import { count, projectOf, revolved, sheet } from '../faces';

/** Rings given by their corners. */
function ringsFrom(all: readonly (readonly Vector[])[]): Rings {
	const corners = all[0]!.length;
	const positions = Float64Array.from(all.flat(2));
	const start = Uint32Array.from({ length: all.length + 1 }, (_, k) => corners * k);
	const nodes = Uint32Array.from({ length: corners * all.length }, (_, k) => k);
	return ringsOf({ start, corners: nodes }, positions, Uint32Array.from(all.keys()), corners);
}

/** The sets of rings whose pairs differ by half the tolerance at most, looked for among all pairs. */
function byAllPairs(rings: Rings, tolerance: number, mirrored: boolean): number[] {
	const set = Array.from({ length: rings.count }, (_, k) => k);
	for (let a = 0; a < rings.count; a++)
		for (let b = 0; b < a; b++)
			if (differenceOf(rings, a, b, Infinity, mirrored) <= tolerance / 2 && set[a] !== set[b]) {
				const [from, to] = [Math.max(set[a]!, set[b]!), Math.min(set[a]!, set[b]!)];
				for (const [k, one] of set.entries()) if (one === from) set[k] = to;
			}
	return set;
}

const number = fc.double({ min: -1, max: 1, noNaN: true });
const direction = fc
	.tuple(number, number, number)
	.filter((one) => Math.hypot(...one) > 0.1)
	.map((one) => unit(one as Vector));
/** A way to lie anywhere: turned about an axis, moved, seen from another corner on. */
const lie = fc.record({
	axis: direction,
	angle: fc.double({ min: 0, max: 6.3, noNaN: true }),
	to: fc.tuple(number, number, number),
	from: fc.nat(9)
});
type Lie = typeof lie extends fc.Arbitrary<infer L> ? L : never;

/** About an axis by an angle (Rodrigues). */
const turnedBy = (p: Vector, axis: Vector, angle: number): Vector =>
	add(
		add(scale(p, Math.cos(angle)), scale(cross(axis, p), Math.sin(angle))),
		scale(axis, dot(axis, p) * (1 - Math.cos(angle)))
	);
const laid = (ring: readonly Vector[], { axis, angle, to, from }: Lie): Vector[] => {
	const moved = ring.map((p) => add(turnedBy(p, axis, angle), scale(to as Vector, 20_000)));
	const first = from % ring.length;
	return [...moved.slice(first), ...moved.slice(0, first)];
};
/** Its mirror image, run so that it is seen from outside again. */
const mirrorOf = (ring: readonly Vector[]): Vector[] => ring.map(([x, y, z]): Vector => [-x, y, z]).reverse();

/** A ring about a circle, its corners moved a little. */
const ring = (corners: number, off: number) =>
	fc.array(fc.tuple(number, number, number), { minLength: corners, maxLength: corners }).map((moves) =>
		moves.map(([x, y, z], k): Vector => {
			const turn = (2 * Math.PI * k) / corners;
			return [1000 * Math.cos(turn) + off * x, 800 * Math.sin(turn) + off * y, 0.3 * off * z];
		})
	);

describe('rings that are alike', () => {
	it('wherever they lie and whichever corner they begin at; a mirror image only where it counts', () => {
		for (const corners of [3, 4, 5, 6, 7])
			fc.assert(
				fc.property(ring(corners, 300), lie, (shape, how) => {
					const rings = ringsFrom([shape, laid(shape, how), laid(mirrorOf(shape), how)]);
					expect(differenceOf(rings, 0, 1, Infinity, false)).to.be.below(1e-6);
					expect(differenceOf(rings, 0, 2, Infinity, true)).to.be.below(1e-6);
					const apart = differenceOf(rings, 0, 2, Infinity, false);
					expect(differenceOf(rings, 2, 0, Infinity, false)).to.be.closeTo(apart, 1e-9);
				}),
				{ numRuns: 60 }
			);
		// A parallelogram leans one way; its mirror image leans the other, and a kite's does not.
		const leaning: Vector[] = [
			[0, 0, 0],
			[2000, 0, 0],
			[2600, 1000, 0],
			[600, 1000, 0]
		];
		const kite: Vector[] = [
			[0, 0, 0],
			[700, 900, 0],
			[0, 2500, 0],
			[-700, 900, 0]
		];
		const warped: Vector[] = kite.map(([x, y], k) => [x, y, k % 2 ? 40 : -40]);
		for (const [shape, least, most] of [
			[leaning, 300, Infinity],
			[kite, 0, 1e-6],
			// Warped as it is, its own mirror image lies on it too: across its long diagonal.
			[warped, 0, 1e-6]
		] as const) {
			const rings = ringsFrom([shape, mirrorOf(shape)]);
			const apart = differenceOf(rings, 0, 1, Infinity, false);
			expect(apart).to.be.within(least, most);
			expect(differenceOf(rings, 0, 1, Infinity, true)).to.be.below(1e-6);
		}
		// Bulging to the other side it is another piece.
		const inward: Vector[] = warped.map(([x, y, z]) => [x, y, -z]);
		expect(differenceOf(ringsFrom([warped, inward]), 0, 1, Infinity, true)).to.be.above(30);
	});

	it('any two of a set are within the tolerance; two within half of it are never split, but where a row had to be cut', () => {
		const some = fc.tuple(fc.constantFrom(3, 4, 5), fc.constantFrom(2, 10, 40)).chain(([corners, off]) =>
			fc.record({
				shapes: fc.array(ring(corners, off), { minLength: 2, maxLength: 24 }),
				lies: fc.array(lie, { minLength: 24, maxLength: 24 }),
				tolerance: fc.constantFrom(0.5, 2, 7, 20),
				mirrored: fc.boolean()
			})
		);
		fc.assert(
			fc.property(some, ({ shapes, lies, tolerance, mirrored }) => {
				const rings = ringsFrom(shapes.map((shape, k) => laid(shape, lies[k]!)));
				const { set, sizes, spread } = atOnce(likeSets(rings, tolerance, mirrored));
				const off = (a: number, b: number) => differenceOf(rings, a, b, Infinity, mirrored);
				const rows = byAllPairs(rings, tolerance, mirrored);
				const isSpread = (row: number) => {
					const own = [...rows.keys()].filter((k) => rows[k] === row);
					return own.some((a) => own.some((b) => off(a, b) > tolerance));
				};
				for (let a = 0; a < rings.count; a++)
					for (let b = 0; b < a; b++) {
						const together = set[a] === set[b];
						if (together) expect(off(a, b)).to.be.at.most(tolerance * (1 + 1e-9));
						// Without such a row sets are what looking at all pairs finds.
						if (!isSpread(rows[a]!) && !isSpread(rows[b]!))
							expect(together, `${a} and ${b}`).to.equal(rows[a] === rows[b]);
					}
				expect([...sizes].reduce((sum, size) => sum + size, 0)).to.equal(rings.count);
				expect([...sizes]).to.deep.equal([...sizes].sort((a, b) => b - a));
				for (const [k, one] of set.entries())
					expect(off(set.indexOf(one), k)).to.be.at.most(spread[one]! + 1e-9);
			}),
			{ numRuns: 300 }
		);
	});

	it('a row that changes little by little is cut into as few as its ends ask for, and no more than twice as many', () => {
		const row = Array.from({ length: 400 }, (_, k): Vector[] => [
			[0, 0, 0],
			[1000 + 0.25 * k, 0, 0],
			[1000 + 0.25 * k, 800, 0],
			[0, 800, 0]
		]);
		const { sizes, spread } = atOnce(likeSets(ringsFrom(row), 5, false));
		// From 1000 to 1100 mm by 5 mm: the diagonals change by less than the edges do.
		expect(sizes.length).to.be.within(20, 40);
		expect(Math.max(...spread)).to.be.at.most(5);
	});
});

describe('kinds of pieces', () => {
	const rules: ZoneInput['rules'] = [{ id: 'rest', put: { variant: 'two' } }];
	const variants = [
		{ id: 'one', name: 'One', part: 'flat-panel', values: {} },
		{ id: 'two', name: 'Two', part: 'flat-panel', values: { thickness: 6 } }
	];
	const like = { tolerance: 1, mirrored: 'apart' } as const;

	it('an even wall is of one kind, of two where other parts are put, of more where values are set piece by piece', async () => {
		const kinds = async (zone: Partial<ZoneInput>) => {
			const project = projectOf(sheet(8000, 4000), count(4, 2), zone, { variants });
			const model = await new Chain().run(project);
			expect(model.problems).to.deep.equal([]);
			return atOnce(kindsOf(model, like));
		};
		const names = ({ kinds: all }: Kinds) => all.map(({ name, size, variant }) => [name, size, variant]);
		expect(names(await kinds({}))).to.deep.equal([['A1', 8, null]]);
		expect(names(await kinds({ rules: [rules[0]!] }))).to.deep.equal([['A1', 8, 'two']]);
		const bySize = await kinds({
			rules: [{ id: 'r', put: { variant: 'two', turn: { is: 'alternates', values: [0, 2], by: 'bays' } } }]
		});
		// Turned by halves they are other pieces: what is on them lies otherwise.
		expect(names(bySize)).to.deep.equal([
			['A1', 4, 'two'],
			['A2', 4, 'two']
		]);
	});

	it('a vase has as many kinds as courses, whichever bay; a schedule tells of each', async () => {
		const vase = revolved(
			[
				[5200, 0],
				[3900, 4700],
				[5000, 9000]
			],
			'smooth'
		);
		const project = projectOf(vase, count(24, 7), { rules: [rules[0]!] }, { variants, like });
		const model = await new Chain().run(project);
		const { kinds, of } = atOnce(kindsOf(model, like));
		expect(kinds.map(({ size }) => size)).to.deep.equal(Array.from({ length: 7 }, () => 24));
		const { cells } = model.zones[0]!.model!.faces[0]!;
		for (let c = 0; c < cells.count; c++)
			for (let d = 0; d < c; d++)
				expect(of[0]![0]![c] === of[0]![0]![d]).to.equal(cells.course[c] === cells.course[d]);
		const column = makeSchedule(model, 'panels').columns.find(({ key }) => key === 'kind')!;
		expect(new Set(cellsOf(column)).size).to.equal(7);
	});
});
