import { expect } from 'chai';
import fc from '../property';
import { distanceTo } from '../../src/core/geometry/nearest';
import { evaluateGrid, type Surface } from '../../src/core/geometry/surface';
import { ellipseChain } from '../../src/core/geometry/path';
import { evenPoints } from '../../src/core/geometry/even-points';
import { movedForm } from '../../src/core/mass/move';
import { massAtLevels, massFaces } from '../../src/core/mass/faces';
import type { Form, Level, Mass, OutlineDefinition } from '../../src/core/project/form-schema';
import { readProject } from '../../src/core/project/read';
import { DOCUMENT_VERSION } from '../../src/core/project/schema';
import { ProblemError, type Problem } from '../../src/core/units/problem';

const massOf = (form: Form, faces: Mass['faces'] = []): Mass => ({
	id: 'm',
	name: 'Mass',
	form,
	faces,
	evened: null,
	trims: []
});
function problemOf(form: Form): Problem {
	try {
		massFaces(massOf(form));
	} catch (error) {
		if (error instanceof ProblemError) return error.problem;
		throw error;
	}
	throw new Error('no problem was found');
}
const tower: Extract<Form, { kind: 'twisted' }> = {
	kind: 'twisted',
	outline: { shape: 'polygon', sides: 4, radius: 9000, rounding: 0 },
	at: [0, 0],
	foot: 0,
	head: 60000,
	twist: 90,
	taper: 0.8
};
const hall: Extract<Form, { kind: 'prism' }> = {
	kind: 'prism',
	outline: {
		shape: 'drawn',
		points: [
			[0, 0],
			[20000, 0],
			[20000, 8000],
			[8000, 8000],
			[8000, 14000],
			[0, 14000]
		],
		joins: 'line',
		mirrored: false,
		rounding: 0
	},
	at: [0, 0],
	foot: 0,
	head: 6000,
	curved: []
};
/** Points of a face at its four corners: foot left, foot right, head right, head left. */
function cornersOf(mass: Mass, name: string): number[][] {
	const { surface } = massFaces(mass).find((face) => face.name === name)!;
	const ends = (knots: Float64Array) => [knots[0]!, knots.at(-1)!];
	const { points } = evaluateGrid(surface, ends(surface.knotsU), ends(surface.knotsV));
	return [0, 1, 3, 2].map((k) => Array.from(points.subarray(3 * k, 3 * k + 3), (value) => Math.round(value)));
}

describe('bad forms are refused at their clause, in words', () => {
	const cases: [string, Form, string, RegExp][] = [
		[
			'a crossing outline',
			{
				...hall,
				outline: {
					...hall.outline,
					points: [
						[0, 0],
						[9000, 0],
						[0, 9000],
						[9000, 9000]
					]
				} as OutlineDefinition
			},
			'masses/m/form/outline',
			/crosses itself near x/
		],
		[
			'too round',
			{ ...hall, outline: { shape: 'rectangle', width: 8000, depth: 3000, rounding: 2000 } },
			'masses/m/form/outline/rounding',
			/at most 1.500 mm fits/
		],
		[
			'a side that is nothing beside the others',
			{ ...hall, outline: { shape: 'rectangle', width: 1e-9, depth: 3500, rounding: 0 } },
			'masses/m/form/outline/width',
			/0\.01 mm or more is accepted/
		],
		['a head below its foot', { ...hall, head: -3 }, 'masses/m/form/head', /not above the foot/],
		[
			'a swollen side that is not there',
			{ ...hall, curved: [{ id: 'up', out: 300 }] },
			'masses/m/form/curved/up',
			/the sides are south, east 1, north 1/
		],
		[
			'a twist that folds',
			{
				...tower,
				head: 3000,
				outline: { shape: 'polygon', sides: 3, radius: 9000, rounding: 0 },
				twist: 1000
			},
			'masses/m/form/twist',
			/folds the skin down: at 0 % .* lean 89° from upright/
		],
		['a taper to nothing', { ...tower, taper: 0 }, 'masses/m/form/taper', /has to stay above 0/],
		[
			'a curve of values out of order',
			{
				...tower,
				twist: [
					[0, 0],
					[0.6, 20],
					[0.4, 30],
					[1, 40]
				]
			},
			'masses/m/form/twist',
			/have to rise/
		],
		[
			'a cut that misses',
			{ kind: 'dome', at: [0, 0], foot: 0, radii: [5000, 5000, 3000], cut: 3000 },
			'masses/m/form/cut',
			/between -3000 and 3000/
		],
		[
			'rows of different length',
			{
				kind: 'net',
				degrees: [1, 1],
				points: 'control',
				rows: [
					[
						[0, 0, 0],
						[1, 0, 0]
					],
					[[0, 1, 0]]
				]
			},
			'masses/m/form/rows/1',
			/row 2 has 1 points and row 1 has 2/
		],
		[
			'too few for the degree',
			{
				kind: 'net',
				degrees: [3, 1],
				points: 'control',
				rows: [
					[
						[0, 0, 0],
						[1, 0, 0]
					],
					[
						[0, 1, 0],
						[1, 1, 0]
					]
				]
			},
			'masses/m/form/rows',
			/at least 4 are needed/
		],
		[
			'a pole',
			{ kind: 'waves', from: [0, 0], size: [9000, 9000], foot: 0, height: '3000 mm * 1 mm / x', values: [] },
			'masses/m/form/height',
			/no usable value at x 0/
		],
		[
			'an unknown name',
			{ kind: 'waves', from: [0, 0], size: [9000, 9000], foot: 0, height: 'rise * 2', values: [] },
			'masses/m/form/height',
			/rise/
		],
		[
			'sections inside out',
			{
				kind: 'lofted',
				between: 'smooth',
				sections: [0, 1].map((k) => ({
					joins: 'line' as const,
					closed: true,
					points: (k
						? [
								[0, 0, 9],
								[0, 5, 9],
								[5, 0, 9]
							]
						: [
								[0, 0, 0],
								[5, 0, 0],
								[0, 5, 0]
							]) as [number, number, number][]
				}))
			},
			'masses/m/form/sections/1',
			/turn inside out/
		],
		[
			'a flat vault',
			{
				kind: 'vaulted',
				profile: {
					points: [
						[0, 0],
						[5000, 0]
					],
					joins: 'line',
					mirrored: false
				},
				at: [0, 0],
				foot: 0,
				direction: 0,
				length: 0
			},
			'masses/m/form/length',
			/more than 0 mm/
		]
	];
	for (const [what, form, at, says] of cases)
		it(what, () => {
			const problem = problemOf(form);
			expect(problem.at).to.equal(at);
			expect(problem.text).to.match(says);
		});
});

describe('faces', () => {
	it('a polygonal plan gives one face per side, whose shared rims are the same line', () => {
		const faces = massFaces(massOf(tower));
		expect(faces.map((face) => face.name)).to.deep.equal(['side 1', 'side 2', 'side 3', 'side 4', 'cap']);
		for (let k = 0; k < 4; k++) {
			const [here, next] = [faces[k]!.surface, faces[(k + 1) % 4]!.surface];
			const vs = [0, 0.3, 0.77, 1];
			const right = evaluateGrid(here, [1], vs).points;
			const left = evaluateGrid(next, [0], vs).points;
			right.forEach((value, n) => expect(value).to.be.closeTo(left[n]!, 1e-6));
		}
	});
	it('outside looks away from the middle, whichever way an outline is drawn', () => {
		const reversed = {
			...hall.outline,
			points: [...(hall.outline as { points: [number, number][] }).points].reverse()
		};
		for (const outline of [hall.outline, reversed as OutlineDefinition])
			for (const [name, axis, sign] of [
				['south', 1, -1],
				['east 1', 0, 1],
				['west', 0, -1]
			] as const) {
				const { surface } = massFaces(massOf({ ...hall, outline })).find((face) => face.name === name)!;
				const { du, dv } = evaluateGrid(surface, [0.5], [0.5]);
				const normal = [0, 1, 2].map(
					(a) => du[(a + 1) % 3]! * dv[(a + 2) % 3]! - du[(a + 2) % 3]! * dv[(a + 1) % 3]!
				);
				expect(Math.sign(normal[axis]!), name).to.equal(sign);
			}
	});
	it('a quarter turn counts the corners on and keeps outside; turning outside mirrors them', () => {
		const plain = cornersOf(massOf(hall), 'south');
		const turned = (corner: number, outside: 'as drawn' | 'turned' = 'as drawn') =>
			cornersOf(massOf(hall, [{ id: 'south', outside, corner }]), 'south');
		for (let k = 0; k < 4; k++) expect(turned(k)).to.deep.equal([0, 1, 2, 3].map((n) => plain[(n + k) % 4]));
		expect(turned(0, 'turned')).to.deep.equal([1, 0, 3, 2].map((n) => plain[n]));
	});
	it('a swollen side keeps its rims and reaches out by what was said', () => {
		const [flat, round] = [hall, { ...hall, curved: [{ id: 'south', out: 900 }] }].map((form) =>
			cornersOf(massOf(form), 'south')
		);
		expect(round).to.deep.equal(flat);
		const { surface } = massFaces(massOf({ ...hall, curved: [{ id: 'south', out: 900 }] }))[0]!;
		expect(evaluateGrid(surface, [0.5], [0.5]).points[1]).to.be.closeTo(-900, 1e-9);
	});
	it('a net passes through its points when it is asked to', () => {
		fc.assert(
			fc.property(
				fc.array(fc.integer({ min: -900, max: 900 }), { minLength: 20, maxLength: 20 }),
				fc.constantFrom(1, 2, 3),
				fc.constantFrom(1, 2, 3),
				(z, p, q) => {
					const rows = [0, 1, 2, 3].map((j) =>
						[0, 1, 2, 3, 4].map((i) => [i * 3000, j * 2500, z[5 * j + i]!] as [number, number, number])
					);
					const { surface } = massFaces(
						massOf({ kind: 'net', degrees: [p, q], points: 'through', rows })
					)[0]!;
					const fine = Array.from({ length: 241 }, (_, k) => k / 240);
					const { points } = evaluateGrid(surface, fine, fine);
					for (const target of rows.flat()) {
						let nearest = Infinity;
						for (let k = 0; k < points.length; k += 3)
							nearest = Math.min(
								nearest,
								Math.hypot(points[k]! - target[0], points[k + 1]! - target[1], points[k + 2]! - target[2])
							);
						// As near as the samples lie.
						expect(nearest).to.be.below(80);
					}
					for (const [u, v, row, column] of [
						[0, 0, 0, 0],
						[1, 0, 0, 4],
						[1, 1, 3, 4],
						[0, 1, 3, 0]
					] as const)
						evaluateGrid(surface, [u], [v]).points.forEach((value, a) =>
							expect(value).to.be.closeTo(rows[row]![column]![a]!, 1e-6)
						);
				}
			),
			{ numRuns: 20 }
		);
	});
});

describe('a moved form', () => {
	it('has the same faces somewhere else', () => {
		const forms: Form[] = [
			hall,
			tower,
			{ kind: 'dome', at: [1, 2], foot: 0, radii: [5000, 4000, 3000], cut: 500 },
			{
				kind: 'waves',
				from: [10, 20],
				size: [9000, 8000],
				foot: 0,
				height: '300 mm * sin(1 deg * x / 100 mm)',
				values: []
			},
			{
				kind: 'revolved',
				axis: [3, 4],
				foot: 0,
				profile: {
					points: [
						[3000, 0],
						[2000, 4000]
					],
					joins: 'line'
				},
				from: 0,
				turn: 200
			},
			{
				kind: 'vaulted',
				profile: {
					points: [
						[-4000, 0],
						[4000, 0]
					],
					joins: [{ arc: 1500 }],
					mirrored: false
				},
				at: [0, 0],
				foot: 0,
				direction: 30,
				length: 9000
			}
		];
		for (const form of forms) {
			const [before, after] = [form, movedForm(form, [7000, -300])].map((one) => massFaces(massOf(one)));
			before!.forEach((face, k) => {
				const samples = [face, after![k]!].map(({ surface }) => {
					const at = (knots: Float64Array) =>
						[0.2, 0.7].map((t) => knots[0]! + t * (knots.at(-1)! - knots[0]!));
					return evaluateGrid(surface, at(surface.knotsU), at(surface.knotsV)).points;
				});
				samples[0]!.forEach((value, n) =>
					expect(samples[1]![n]! - value).to.be.closeTo([7000, -300, 0][n % 3]!, 1e-6)
				);
			});
		}
	});
});

describe('a rebuilt curve', () => {
	it('of a circle goes through even points on it and tells how far it is from it', () => {
		const circle = ellipseChain([5000, 5000]);
		const { points, deviation } = evenPoints(circle, 12, true);
		points.forEach((p, k) => {
			expect(Math.hypot(p[0], p[1])).to.be.closeTo(5000, 1);
			const angle = Math.atan2(p[1], p[0]) - (k * Math.PI) / 6;
			expect(Math.abs(Math.sin(angle))).to.be.below(1e-3);
		});
		// The farthest a periodic cubic through 12 points gets from the circle, well below a millimetre per metre.
		expect(deviation).to.be.within(0.1, 5);
		expect(evenPoints(circle, 40, true).deviation).to.be.below(deviation);
	});
});

describe('levels', () => {
	const levels: Level[] = [
		{ id: 'deck', name: 'Deck', height: 4200 },
		{ id: 'eaves', name: 'Eaves', height: 9000 }
	];
	it('heights follow their level, so much above or below', () => {
		const form: Form = { ...hall, foot: { level: 'deck', plus: -200 }, head: { level: 'eaves', plus: 0 } };
		const at = (list: Level[]) => massAtLevels(massOf(form), list).form as typeof hall;
		expect(at(levels)).to.include({ foot: 4000, head: 9000 });
		expect(at(levels.map((one) => ({ ...one, height: one.height + 500 })))).to.include({
			foot: 4500,
			head: 9500
		});
	});
	it('a level that is gone is named, with those there are', () => {
		const form: Form = { ...hall, head: { level: 'crown', plus: 0 } };
		expect(() => massAtLevels(massOf(form), levels)).to.throw(
			ProblemError,
			/"crown" does not exist; known: Deck, Eaves/
		);
	});
});

describe('documents of version 4', () => {
	it('are given an id, the same for the same name; one that is there stays', () => {
		const old = (more: object) =>
			readProject({ format: 'zygaster project', version: 4, name: 'Old', ...more });
		expect(old({}).id).to.equal(old({ levels: [{ id: 'deck', name: 'Deck', height: 3000 }] }).id);
		expect(old({}).id).to.not.equal(old({ name: 'Other' }).id);
		const id = '3e0e7d0c-2b7f-4c59-9a66-1d0a4b1f7c22';
		expect(old({ id }).id).to.equal(id);
	});
});

describe('documents of version 3', () => {
	it('are brought up to date: the section of a bar, within groups too', () => {
		const bar = {
			do: 'bar',
			path: 'line',
			facing: 'normal',
			placed: 'behind',
			width: '50 mm',
			depth: '90 mm'
		};
		const project = readProject({
			format: 'zygaster project',
			version: 3,
			name: 'Old',
			parts: [
				{
					id: 'own',
					label: 'Own',
					role: 'mullion',
					use: '',
					anchor: { kind: 'pair' },
					inputs: [],
					limits: [],
					steps: [
						{ name: 'a', ...bar, wall: '4 mm' },
						{ name: 'row', do: 'repeat', times: '2', steps: [{ name: 'b', ...bar }], elements: [] }
					],
					elements: [],
					measures: []
				}
			]
		});
		const [first, second] = project.parts[0]!.steps;
		expect(first).to.deep.include({
			profile: { shape: 'tube', width: '50 mm', depth: '90 mm', wall: '4 mm' }
		});
		expect((second as { steps: unknown[] }).steps[0]).to.deep.include({
			profile: { shape: 'box', width: '50 mm', depth: '90 mm' }
		});
	});
});

describe('documents of version 1', () => {
	it('are brought up to date: outside by face, addresses with their mass', () => {
		const project = readProject({
			format: 'zygaster project',
			version: 1,
			name: 'Old',
			masses: [
				{
					id: 'drum',
					name: 'Drum',
					outside: 'turned',
					form: {
						kind: 'revolved',
						profile: {
							points: [
								[3000, 0],
								[3000, 4000]
							],
							joins: 'line'
						}
					}
				}
			],
			zones: [
				{
					id: 'z',
					code: 'Z',
					name: 'Zone',
					faces: [{ mass: 'drum', face: 'shell' }],
					settingOut: { across: { by: 'count', count: 12 }, up: { by: 'count', count: 3 } },
					pattern: { kind: 'rectangles' },
					exceptions: [{ id: 'shell/C01/B02/1', put: 'open' }]
				}
			]
		});
		expect(project.version).to.equal(DOCUMENT_VERSION);
		expect(project.masses[0]!.faces).to.deep.equal([{ id: 'shell', outside: 'turned', corner: 0 }]);
		expect(project.zones[0]!.exceptions[0]!.sites).to.deep.equal([
			{ id: 'drum.shell/C01/B02/1', place: null }
		]);
	});
});

describe('evening', () => {
	/** A profile whose own parameter bunches up: points crowd at the foot. */
	const bunched: Form = {
		kind: 'net',
		degrees: [3, 3],
		points: 'control',
		rows: [0, 400, 900, 9000].map((y, j) =>
			[0, 300, 700, 12000].map((x, i): [number, number, number] => [x, y, 120 * ((i + j) % 2)])
		)
	};
	const evened = (within: number) => massFaces({ ...massOf(bunched), evened: within })[0]!;

	it('equal steps of the parameters become about equal lengths', () => {
		const spread = (surface: Surface) => {
			const steps = Array.from({ length: 9 }, (_, k) => k / 8);
			const { points } = evaluateGrid(surface, steps, [0.5]);
			const chords = steps
				.slice(1)
				.map((_, k) => Math.hypot(...[0, 1, 2].map((a) => points[3 * k + 3 + a]! - points[3 * k + a]!)));
			return Math.max(...chords) / Math.min(...chords);
		};
		expect(spread(massFaces(massOf(bunched))[0]!.surface)).to.be.above(4);
		expect(spread(evened(5).surface)).to.be.below(1.2);
	});

	/** A waisted ring, whose seam is nothing special. */
	const ring: Form = {
		kind: 'revolved',
		axis: [0, 0],
		foot: 0,
		profile: {
			points: [
				[5200, 0],
				[3900, 4700],
				[5000, 9000]
			],
			joins: 'smooth'
		},
		from: 0,
		turn: 360
	};
	for (const [what, form, bounds] of [
		['a net', bunched, [8, 5]],
		['a ring', ring, [5, 0.5]]
	] as const)
		it(`never moves a point of ${what} further than it reports, and no further than was asked`, () => {
			for (const within of bounds) {
				const face = massFaces({ ...massOf(form), evened: within })[0]!;
				const bound = face.deviation!;
				expect(bound).to.be.at.most(within);
				const steps = Array.from({ length: 120 }, (_, k) => k / 120 + 0.003);
				const fine = Array.from({ length: 81 }, (_, k) => k / 80);
				const places = evaluateGrid(face.original!, fine, fine).points;
				const { points } = evaluateGrid(face.surface, steps, [0.07, 0.31, 0.5, 0.83]);
				let most = 0;
				for (let n = 0; n < points.length; n += 3) {
					const p = [points[n]!, points[n + 1]!, points[n + 2]!] as const;
					let start: [number, number] = [0, 0];
					let least = Infinity;
					for (let k = 0; k < places.length / 3; k++) {
						const far = Math.hypot(
							places[3 * k]! - p[0],
							places[3 * k + 1]! - p[1],
							places[3 * k + 2]! - p[2]
						);
						if (far < least) [least, start] = [far, [fine[k % 81]!, fine[Math.floor(k / 81)]!]];
					}
					most = Math.max(most, distanceTo(face.original!, p, start, face.closedAcross));
				}
				expect(most).to.be.at.most(bound);
				// The bound says something: it is not far above what happens.
				expect(most).to.be.above(bound / 4);
			}
		});

	it('says the least that can be met when it cannot', () => {
		const corner: Form = {
			kind: 'ruled',
			foot: {
				points: [
					[0, 0, 0],
					[5000, 0, 0],
					[5000, 5000, 0]
				],
				joins: 'line',
				closed: false
			},
			head: {
				points: [
					[0, 0, 3000],
					[5000, 0, 3000],
					[5000, 5000, 3000]
				],
				joins: 'line',
				closed: false
			}
		};
		expect(() => massFaces({ ...massOf(corner), evened: 0.5 })).to.throw(
			ProblemError,
			/wall cannot be evened to within 0.5 mm; .* mm is the least/
		);
	});
});
