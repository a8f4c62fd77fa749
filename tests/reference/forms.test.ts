import { expect } from 'chai';
import { evaluateCurvature, principal } from '../../src/core/geometry/curvature';
import { evaluateGrid, surfaceArea } from '../../src/core/geometry/surface';
import { massFaces } from '../../src/core/mass/faces';
import type { Form, OutlineDefinition } from '../../src/core/project/form-schema';
import { onlyFace } from '../faces';

const facesOf = (form: Form) =>
	massFaces({ id: 'm', name: 'Mass', form, faces: [], evened: null, trims: [] });
/** Of the skin; caps have a check of their own. */
const skinOf = (form: Form) => facesOf(form).filter((face) => face.name !== 'cap');
const areaOf = (form: Form) => skinOf(form).reduce((sum, face) => sum + surfaceArea(face.surface), 0);
const close = (value: number, wanted: number, relative: number) =>
	expect(Math.abs(value / wanted - 1), `${value} against ${wanted}`).to.be.below(relative);
const inner = Array.from({ length: 7 }, (_, k) => 0.05 + (0.9 * k) / 6);

describe('areas of forms against closed forms', () => {
	it('dome: a sphere cap of R10 h4 has 2πRh (page of values: 251.3274123)', () => {
		const cap: Form = { kind: 'dome', at: [3, -2], foot: 1, radii: [10, 10, 10], cut: 6 };
		close(areaOf(cap), 251.3274122872, 1e-9);
	});
	it('dome: a half ellipsoid of revolution (oblate), 2πa²·(1 + (1−e²)/e·artanh e)/2', () => {
		const [a, c] = [9, 5];
		const e = Math.sqrt(1 - (c / a) ** 2);
		const whole = 2 * Math.PI * a * a * (1 + ((1 - e * e) / e) * Math.atanh(e));
		close(areaOf({ kind: 'dome', at: [0, 0], foot: 0, radii: [a, a, c], cut: 0 }), whole / 2, 1e-8);
	});
	it('vault: an arc of span 8 and rise 2 run over 11: R·φ·length', () => {
		const radius = (4 * 4 + 2 * 2) / (2 * 2);
		const turn = 4 * Math.atan(2 / 4);
		const vault: Form = {
			kind: 'vaulted',
			profile: {
				points: [
					[-4, 0],
					[4, 0]
				],
				joins: [{ arc: 2 }],
				mirrored: false
			},
			at: [5, 5],
			foot: 2,
			direction: 33,
			length: 11
		};
		close(areaOf(vault), radius * turn * 11, 1e-9);
	});
	it('frustum: a tapered circle r5 → r3 over 4 (112.3970357), exact without twist', () => {
		const tapered: Form = {
			kind: 'twisted',
			outline: { shape: 'circle', radius: 5 },
			at: [0, 0],
			foot: 0,
			head: 4,
			twist: 0,
			taper: 0.6
		};
		close(areaOf(tapered), 112.3970357, 1e-9);
	});
	it('torus part: an arc profile about an axis, Pappus: R·turn·arc length', () => {
		// Half the tube circle r1.5 about R5, outer side: centroid at R + 2r/π.
		const part: Form = {
			kind: 'revolved',
			axis: [0, 0],
			foot: 0,
			profile: {
				points: [
					[5, -1.5],
					[5, 1.5]
				],
				joins: [{ arc: -1.5 }]
			},
			from: 10,
			turn: 200
		};
		const turn = (200 * Math.PI) / 180;
		close(areaOf(part), turn * (5 + (2 * 1.5) / Math.PI) * Math.PI * 1.5, 1e-9);
	});
	it('hypar: a net of degree 1 through the corners of z = xy (1.2807892752734)', () => {
		const hypar: Form = {
			kind: 'net',
			degrees: [1, 1],
			points: 'control',
			rows: [
				[
					[0, 0, 0],
					[1, 0, 0]
				],
				[
					[0, 1, 0],
					[1, 1, 1]
				]
			]
		};
		close(areaOf(hypar), 1.2807892752734, 1e-9);
	});
	it('catenoid: cosh revolved, |z| ≤ 1 (17.6773033201), a spline through 33 points', () => {
		const points = Array.from({ length: 33 }, (_, k): [number, number] => {
			const z = -1 + k / 16;
			return [Math.cosh(z), z];
		});
		const catenoid: Form = {
			kind: 'revolved',
			axis: [0, 0],
			foot: 0,
			profile: { points, joins: 'smooth' },
			from: 0,
			turn: 360
		};
		close(areaOf(catenoid), 17.6773033201, 1e-5);
	});
	it('paraboloid: z = x² + y² as waves follows its formula to the tolerance it states', () => {
		// In metres on the unit square: ∫∫ √(1 + 4x² + 4y²), by Gauss quadrature with 8 by 8 points here.
		const [face] = facesOf({
			kind: 'waves',
			from: [0, 0],
			size: [1000, 1000],
			foot: 0,
			height: '(x * x + y * y) / one',
			values: [{ id: 'one', value: '1000 mm' }]
		});
		expect(face!.deviation).to.be.below(0.1);
		const at = [0.1834346424956498, 0.525532409916329, 0.7966664774136267, 0.9602898564975363];
		const weight = [0.362683783378362, 0.3137066458778873, 0.2223810344533745, 0.1012285362903763];
		const nodes = at.flatMap((x, k) => [
			{ at: (1 - x) / 2, weight: weight[k]! / 2 },
			{ at: (1 + x) / 2, weight: weight[k]! / 2 }
		]);
		let wanted = 0;
		for (const u of nodes)
			for (const v of nodes) wanted += u.weight * v.weight * Math.sqrt(1 + 4 * u.at ** 2 + 4 * v.at ** 2);
		close(surfaceArea(face!.surface) / 1e6, wanted, 1e-5);
	});
	it('helicoid: one side of a thin twisted strip, ∫√(1 + r²)dr·turn (computed)', () => {
		// A rectangle 2 by 0.002 about its middle, one full turn over 2π of height: c = 1, |r| ≤ 1.
		const strip: Form = {
			kind: 'twisted',
			outline: { shape: 'rectangle', width: 2000, depth: 0.02, rounding: 0 },
			at: [0, 0],
			foot: 0,
			head: 2000 * Math.PI,
			twist: 360,
			taper: 1
		};
		const sides = facesOf(strip).map((face) => surfaceArea(face.surface) / 1e6);
		// Both halves of the strip: twice the area of r in 0..1, 7.2117997242.
		close(Math.max(...sides), 2 * 7.2117997242, 1e-5);
	});
	it('prism: walls are the plan’s length times the height; a rounded corner is a quarter circle', () => {
		const hall: Form = {
			kind: 'prism',
			outline: { shape: 'rectangle', width: 30, depth: 12, rounding: 0 },
			at: [4, 5],
			foot: 2,
			head: 9,
			curved: []
		};
		close(areaOf(hall), 2 * (30 + 12) * 7, 1e-12);
		const rounded: Form = { ...hall, outline: { shape: 'rectangle', width: 30, depth: 12, rounding: 3 } };
		close(areaOf(rounded), (2 * (24 + 6) + 2 * Math.PI * 3) * 7, 1e-9);
		expect(facesOf(hall).map((face) => face.name)).to.deep.equal(['south', 'east', 'north', 'west', 'cap']);
		expect(facesOf(rounded).map((face) => face.name)).to.deep.equal(['shell', 'cap']);
	});
});

describe('curvature against closed forms', () => {
	const sampled = (form: Form) => {
		const { surface } = onlyFace(form);
		const scale = (knots: Float64Array) => inner.map((t) => knots[0]! + t * (knots.at(-1)! - knots[0]!));
		return evaluateCurvature(surface, scale(surface.knotsU), scale(surface.knotsV));
	};
	it('sphere: K = 1/R², |H| = 1/R everywhere, to 1e-6', () => {
		const { gaussian, mean } = sampled({ kind: 'dome', at: [0, 0], foot: 0, radii: [8, 8, 8], cut: -2 });
		for (const k of gaussian) close(k, 1 / 64, 1e-6);
		for (const h of mean) close(Math.abs(h), 1 / 8, 1e-6);
	});
	it('cylinder: K = 0, H = 1/2R bending away from its outside', () => {
		const { gaussian, mean } = sampled({
			kind: 'revolved',
			axis: [2, 3],
			foot: 0,
			profile: {
				points: [
					[4, 0],
					[4, 9]
				],
				joins: 'line'
			},
			from: 0,
			turn: 360
		});
		for (const k of gaussian) expect(Math.abs(k)).to.be.below(1e-9);
		for (const h of mean) close(h, -1 / 8, 1e-6);
		expect(principal(0, -1 / 8)).to.deep.equal([-1 / 4, 0]);
	});
	it('hypar z = xy: K = −1/(1 + x² + y²)²', () => {
		const { gaussian, points } = sampled({
			kind: 'net',
			degrees: [1, 1],
			points: 'control',
			rows: [
				[
					[0, 0, 0],
					[1, 0, 0]
				],
				[
					[0, 1, 0],
					[1, 1, 1]
				]
			]
		});
		gaussian.forEach((k, n) => close(k, -1 / (1 + points[3 * n]! ** 2 + points[3 * n + 1]! ** 2) ** 2, 1e-6));
	});
	it('torus: K = cos t / r(R + r cos t)', () => {
		const { gaussian, points } = sampled({
			kind: 'revolved',
			axis: [0, 0],
			foot: 0,
			profile: {
				points: [
					[5, -1.5],
					[5, 1.5]
				],
				joins: [{ arc: -1.5 }]
			},
			from: 0,
			turn: 360
		});
		gaussian.forEach((k, n) => {
			const rho = Math.hypot(points[3 * n]!, points[3 * n + 1]!);
			close(k, (rho - 5) / 1.5 / (1.5 * rho), 1e-6);
		});
	});
});

describe('sections of a loft correspond', () => {
	const lofted = (outlines: OutlineDefinition[], height: number, turns: number[] = []): Form => ({
		kind: 'lofted',
		between: 'straight',
		sections: outlines.map((outline, k) => ({
			outline,
			at: [0, 0],
			height: k * height,
			turn: turns[k] ?? 0,
			scale: [1, 1]
		}))
	});
	it('rectangles of unlike proportions: corner to corner, four flat trapeziums', () => {
		const [a, b, h] = [[10, 4], [3, 6], 8] as const;
		const rectangle = ([width, depth]: readonly [number, number]): OutlineDefinition => ({
			shape: 'rectangle',
			width,
			depth,
			rounding: 0
		});
		const pair = (k: 0 | 1) => {
			const across = (a[1 - k]! - b[1 - k]!) / 2;
			return (a[k]! + b[k]!) * Math.hypot(h, across);
		};
		close(areaOf(lofted([rectangle(a), rectangle(b)], h)), pair(0) + pair(1), 1e-9);
	});
	it('a circle and a polygon of any number of sides: every line goes up in one direction', () => {
		for (const sides of [3, 4, 5, 8])
			for (const rounding of [0, 1]) {
				const polygon: OutlineDefinition = { shape: 'polygon', sides, radius: 5, rounding };
				const face = facesOf(lofted([{ shape: 'circle', radius: 7 }, polygon], 9))[0]!;
				const us = Array.from({ length: 41 }, (_, k) => k / 41);
				const { points } = evaluateGrid(face.surface, us, [0, 1]);
				us.forEach((_, k) => {
					const [foot, head] = [k, us.length + k].map((n) =>
						Math.atan2(points[3 * n + 1]!, points[3 * n]!)
					) as [number, number];
					const apart = Math.abs(Math.atan2(Math.sin(head - foot), Math.cos(head - foot)));
					expect(apart, `${sides} sides, line ${k}`).to.be.below(0.3);
				});
			}
	});
	it('a turned section still twists the skin by as much', () => {
		const circle: OutlineDefinition = { shape: 'circle', radius: 7 };
		const face = facesOf(lofted([circle, { ...circle, radius: 5 }], 30, [0, 60]))[0]!;
		const { points } = evaluateGrid(face.surface, [0.125], [0, 1]);
		expect(Math.atan2(points[4]!, points[3]!) - Math.atan2(points[1]!, points[0]!)).to.be.closeTo(
			Math.PI / 3,
			1e-9
		);
	});
});
