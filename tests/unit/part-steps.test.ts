import { expect } from 'chai';
import fc from '../property';
import { checkPart, compilePart } from '../../src/core/part/compile/compile';
import { loadSolids } from '../../src/core/geometry/solid/library';
import { PartError } from '../../src/core/part/compile/fault';
import { inspectPart } from '../../src/core/part/inspect';
import { shippedParts } from '../../src/core/part/kit';
import { freshName, renamed } from '../../src/core/part/rename';
import type { PartDefinition, PartInputForm } from '../../src/core/project/part-definition';
import type { Vector } from '../../src/core/geometry/vector';
import { cornersOf, runOnce, triedPart } from '../trial-run';

type Steps = PartInputForm['steps'];
const CELL: Vector[] = [
	[0, 0, 0],
	[2000, 0, 0],
	[2000, 0, 1000],
	[0, 0, 1000]
];

const element = (...of: string[]): PartInputForm['elements'] => [
	{ name: 'thing', label: 'Thing', category: 'other', of, material: 'steel' }
];
const measured = (steps: Steps, value: string, points = CELL, kind: 'length' | 'area' | 'angle' = 'length') =>
	runOnce(triedPart(steps, { measures: [{ name: 'it', label: 'It', kind, value }] }), points).results.get(
		'it'
	)![0]!;
const faultsOf = (definition: PartDefinition, library: readonly PartDefinition[] = []): string =>
	checkPart(definition, 4, library)
		.faults.map(({ step, text }) => `${step}: ${text}`)
		.join('\n');

before(loadSolids);

describe('points and lines of a part', () => {
	it('on a bent path by length, from either end', () => {
		const steps: Steps = [
			{ name: 'bent', do: 'path', through: ['corner1', 'corner2', 'corner3'] },
			{ name: 'on', do: 'point on path', path: 'bent', distance: '2300 mm' },
			{ name: 'back', do: 'point on path', path: 'bent', distance: '300 mm', from: 'end' },
			{ name: 'half', do: 'middle', of: 'bent' }
		];
		expect(measured(steps, 'distance(corner2, on)')).to.be.closeTo(300, 1e-9);
		expect(measured(steps, 'distance(corner3, back)')).to.be.closeTo(300, 1e-9);
		expect(measured(steps, 'distance(corner1, half)')).to.be.closeTo(1500, 1e-9);
	});

	it('a crossing is half way where lines miss each other, and tells by how much', () => {
		const steps: Steps = [
			{ name: 'high', do: 'lift', of: 'corner3', by: '100 mm', along: 'normal' },
			{ name: 'low', do: 'lift', of: 'corner1', by: '100 mm', along: 'normal' },
			{ name: 'one', do: 'line', from: 'low', to: 'high' },
			{ name: 'other', do: 'line', from: 'corner2', to: 'corner4' },
			{ name: 'where', do: 'crossing', first: 'one', second: 'other' },
			{ name: 'base', do: 'foot', of: 'where', on: 'plane' }
		];
		expect(measured(steps, 'miss(one, other)')).to.be.closeTo(100, 1e-9);
		expect(measured(steps, 'distance(where, base)')).to.be.closeTo(50, 1e-9);
		expect(measured(steps, 'distance(base, centre)')).to.be.closeTo(0, 1e-9);
	});

	it('shift, foot and circle in the plane of the cell', () => {
		const steps: Steps = [
			{ name: 'aside', do: 'shift', of: 'centre', right: '300 mm', up: '-100 mm', plane: 'plane' },
			{ name: 'base', do: 'foot', of: 'aside', on: 'edge1' },
			{ name: 'round', do: 'circle', plane: 'plane', diameter: '400 mm', pieces: 96 },
			{ name: 'tip', do: 'corner', of: 'round', number: 1 }
		];
		expect(measured(steps, 'distance(aside, base)')).to.be.closeTo(400, 1e-9);
		expect(measured(steps, 'distance(corner1, base)')).to.be.closeTo(1300, 1e-9);
		expect(measured(steps, 'distance(tip, centre)')).to.be.closeTo(200, 1e-9);
		const polygon = 96 * 0.5 * 200 ** 2 * Math.sin((2 * Math.PI) / 96);
		expect(measured(steps, 'area(round)', CELL, 'area')).to.be.closeTo(polygon, 1e-6);
	});

	it('rounded corners are arcs: their length is that of a quarter circle each', () => {
		const steps: Steps = [{ name: 'soft', do: 'rounded', ring: 'cell', radius: '200 mm', pieces: 24 }];
		const exact = 2 * (1600 + 600) + 2 * Math.PI * 200;
		expect(measured(steps, 'length(soft)') / exact).to.be.closeTo(1, 1e-3);
		const large: Steps = [{ name: 'soft', do: 'rounded', ring: 'cell', radius: '600 mm' }];
		const run = runOnce(
			triedPart([...large, { name: 'p', do: 'plate', ring: 'soft', thickness: '5 mm', side: 'in' }], {
				elements: element('p')
			}),
			CELL
		);
		expect(run.flagTexts.join()).to.match(/radius of soft is too large for an edge/);
		expect(run.elements.every(({ count }) => count === 0)).to.equal(true);
	});

	it('a smooth path goes through its points; corners cut away leave a ring of less area', () => {
		const steps: Steps = [
			{ name: 'wave', do: 'path', through: ['corner1', 'corner2', 'corner3', 'corner4'], runs: 'smooth' },
			{ name: 'second', do: 'corner', of: 'wave', number: 9 },
			{ name: 'cut', do: 'smooth', of: 'cell', times: 1 }
		];
		expect(measured(steps, 'distance(second, corner2)')).to.be.closeTo(0, 1e-9);
		// Chaikin takes a sixteenth of the parallelogram of the edges at each of four corners, half of it each.
		expect(measured(steps, 'area(cut)', CELL, 'area')).to.be.closeTo(2e6 * (1 - 4 / 32), 1e-6);
	});

	it('aligned opposite edges keep a line parallel on a parallelogram', () => {
		const skew: Vector[] = [
			[0, 0, 0],
			[1500, 0, 200],
			[1900, 0, 1300],
			[400, 0, 1100]
		];
		const steps: Steps = [
			{ name: 'left', do: 'point on path', path: 'edge4_aligned', ratio: '0.3' },
			{ name: 'right', do: 'point on path', path: 'edge2', ratio: '0.3' },
			{ name: 'across', do: 'direction', from: 'left', to: 'right' },
			{ name: 'foot_way', do: 'direction', from: 'corner1', to: 'corner2' }
		];
		expect(measured(steps, 'angle(across, foot_way)', skew, 'angle')).to.be.closeTo(0, 1e-9);
	});

	it('one of two by a condition, point by point', () => {
		const steps: Steps = [
			{ name: 'which', do: 'choose', when: 'area > 1 m * 1 m', then: 'corner3', otherwise: 'corner1' }
		];
		expect(measured(steps, 'distance(which, corner3)')).to.equal(0);
		const small = CELL.map(([x, y, z]): Vector => [x / 4, y, z / 4]);
		expect(measured(steps, 'distance(which, corner1)', small)).to.equal(0);
	});
});

describe('solids of a part', () => {
	const volume = (steps: Steps, of: string, points = CELL) =>
		runOnce(triedPart(steps, { elements: element(of) }), points).elements[0]!.volume[0]!;

	it('a pyramid holds a third of its base times its height, before the cell or behind it', () => {
		for (const by of ['600 mm', '-600 mm'])
			expect(
				volume(
					[
						{ name: 'peak', do: 'lift', of: 'centre', by, along: 'normal' },
						{ name: 'body', do: 'pyramid', ring: 'cell', to: 'peak' }
					],
					'body'
				)
			).to.be.closeTo((2e6 * 600) / 3, 1);
	});

	it('a body between a ring and its shrunk copy is a frustum: h/3 (A + a + √(Aa))', () => {
		const steps: Steps = [
			{ name: 'small', do: 'shrink', ring: 'cell', to: 'centre', ratio: '0.5' },
			{ name: 'top', do: 'lift', of: 'small', by: '300 mm', along: 'normal' },
			{ name: 'body', do: 'body', foot: 'cell', head: 'top' }
		];
		expect(volume(steps, 'body')).to.be.closeTo(100 * (2e6 + 5e5 + 1e6), 1);
	});

	it('a plate round an opening: area times thickness', () => {
		const steps: Steps = [
			{ name: 'hole', do: 'inset', ring: 'cell', by: '100 mm' },
			{ name: 'sheet', do: 'plate', ring: 'cell', opening: 'hole', thickness: '10 mm', side: 'both' }
		];
		expect(volume(steps, 'sheet')).to.be.closeTo((2e6 - 1800 * 800) * 10, 1e-3);
	});

	it('round tubes along a straight line and a circle: Pappus', () => {
		const ring = (joints: 'mitred' | 'swept', path: Steps): Steps => [
			...path,
			{
				name: 'tube',
				do: 'bar',
				path: 'run',
				profile: { shape: 'round', diameter: '40 mm', wall: '5 mm' },
				facing: 'normal',
				joints
			}
		];
		const section = (Math.PI / 4) * (40 ** 2 - 30 ** 2);
		const straight: Steps = [{ name: 'run', do: 'line', from: 'corner1', to: 'corner2' }];
		expect(volume(ring('swept', straight), 'tube')).to.be.closeTo(section * 2000, 1e-2);
		const circle: Steps = [{ name: 'run', do: 'circle', plane: 'plane', diameter: '800 mm', pieces: 96 }];
		// 96 straight pieces are shorter than the circle by (π/96)²/6.
		expect(volume(ring('mitred', circle), 'tube') / (section * Math.PI * 800)).to.be.closeTo(1, 2e-4);
	});

	it('mitres lie in the plane that halves the corner, for any corner', () => {
		fc.assert(
			fc.property(
				fc.double({ min: -0.9, max: 2.4, noNaN: true }),
				fc.double({ min: 700, max: 2500, noNaN: true }),
				(angle, size) => {
					const corners: Vector[] = [
						[0, 0, 0],
						[size, 0, 0],
						[size + 900 * Math.cos(angle), 0, 900 * Math.sin(angle)],
						[0, 0, 5000]
					];
					const run = runOnce(
						triedPart(
							[
								{ name: 'run', do: 'path', through: ['corner1', 'corner2', 'corner3'] },
								{
									name: 'bars',
									do: 'bar',
									path: 'run',
									profile: { shape: 'box', width: '50 mm', depth: '80 mm' },
									facing: 'normal'
								}
							],
							{ elements: element('bars') }
						),
						corners
					);
					const half = angle / 2;
					// The plane through corner 2 that both bars are cut by; its normal is between their directions.
					const mesh = cornersOf(run.elements[0]!, 0);
					const off = (v: number) =>
						(mesh[3 * v]! - size) * Math.cos(half) + mesh[3 * v + 2]! * Math.sin(half);
					// Head of the first bar: corners 4 to 7; foot of the second: 8 to 11.
					for (const v of [4, 5, 6, 7, 8, 9, 10, 11]) expect(off(v)).to.be.closeTo(0, 2e-3);
				}
			),
			{ numRuns: 100 }
		);
	});

	it('a section of its own outline: its area times the length; one that runs clockwise is refused', () => {
		const steps = (outline: [number, number][]): Steps => [
			{ name: 'axis', do: 'line', from: 'corner1', to: 'corner2' },
			{ name: 'bar', do: 'bar', path: 'axis', profile: { shape: 'own', outline }, facing: 'normal' }
		];
		const ell: [number, number][] = [
			[0, 0],
			[60, 0],
			[60, 10],
			[10, 10],
			[10, 60],
			[0, 60]
		];
		expect(volume(steps(ell), 'bar')).to.be.closeTo((600 + 500) * 2000, 1e-2);
		expect(faultsOf(triedPart(steps(ell.toReversed())))).to.match(/step bar: the outline runs clockwise/);
	});

	it('no piece weighs less than nothing, however bent its cell is: what comes out inside out is not made', () => {
		const at = fc.integer({ min: -1000, max: 1000 });
		const corner = fc.tuple(at, at, at).map(([x, y, z]): Vector => [x, y, z]);
		const cells = fc.tuple(corner, corner, corner, corner);
		const parts = shippedParts.filter(({ id }) =>
			['framed-glass', 'deep-window', 'bowed-panel', 'folded-hood', 'pyramid'].includes(id)
		);
		expect(parts.length).to.equal(5);
		let lost = 0;
		fc.assert(
			fc.property(fc.constantFrom(...parts), cells, (part, points) => {
				const { elements, flagTexts } = runOnce(part, points);
				for (const { volume } of elements) for (const one of volume) expect(one).to.be.at.least(-1);
				if (flagTexts.some((text) => text.includes('inside out'))) {
					lost++;
					expect(elements.every(({ count }) => count === 0)).to.equal(true);
				}
			}),
			{ numRuns: 600 }
		);
		expect(lost).to.be.greaterThan(0);
	});

	it('flags, not wrong numbers: an inset too wide, a bar shorter than its setbacks, a re-entrant ring', () => {
		const flagsOf = (steps: Steps, of: string, points = CELL) => {
			const run = runOnce(triedPart(steps, { elements: element(of) }), points);
			for (const table of run.elements) expect([...table.volume].every(Number.isFinite)).to.equal(true);
			return run.flagTexts.join('; ');
		};
		const plate = (ring: string): Steps => [{ name: 'p', do: 'plate', ring, thickness: '5 mm', side: 'in' }];
		expect(flagsOf([{ name: 'in', do: 'inset', ring: 'cell', by: '600 mm' }, ...plate('in')], 'p')).to.match(
			/inset in would cross itself/
		);
		expect(
			flagsOf(
				[
					{
						name: 'p',
						do: 'bar',
						path: 'edge2',
						profile: { shape: 'box', width: '20 mm', depth: '20 mm' },
						facing: 'normal',
						start_setback: '700 mm',
						end_setback: '400 mm'
					}
				],
				'p'
			)
		)
			.to.match(/cuts leave nothing of a bar/)
			.and.not.match(/inside out/);
		const arrow: Vector[] = [CELL[0]!, CELL[1]!, [300, 0, 300], CELL[3]!];
		expect(flagsOf(plate('cell'), 'p', arrow)).to.match(/cell has a re-entrant corner/);
		expect(
			flagsOf([{ name: 's', do: 'shrink', ring: 'cell', to: 'centre', ratio: '1.2' }, ...plate('s')], 'p')
		).to.match(/ratio of s is outside 0 to 1/);
	});
});

describe('groups of steps', () => {
	it('for each edge: points gathered to a ring, one element of many instances', () => {
		const definition = triedPart(
			[
				{
					name: 'around',
					do: 'each',
					over: 'edges',
					of: 'cell',
					steps: [
						{ name: 'tip', do: 'point on path', path: 'edge', ratio: '0.5' },
						{ name: 'ball', do: 'sphere', centre: 'tip', diameter: '(turn + 1) * 10 mm' }
					],
					elements: [
						{ name: 'balls', label: 'Balls', category: 'connector', of: ['ball'], material: 'steel' }
					],
					gathers: [{ name: 'tips', of: 'tip', as: 'ring' }]
				}
			],
			{ measures: [{ name: 'it', label: 'It', kind: 'area', value: 'area(tips)' }] }
		);
		const run = runOnce(definition, CELL);
		expect(run.results.get('it')![0]).to.be.closeTo(1e6, 1e-6);
		expect(run.elements.map(({ turn }) => turn[0])).to.deep.equal([0, 1, 2, 3]);
		expect(run.elements.map(({ volume }) => volume[0]! / (Math.PI / 6))).to.satisfy((sizes: number[]) =>
			sizes.every((size, k) => Math.abs(size - (10 * (k + 1)) ** 3) < 1e-6)
		);
	});

	it('what is gathered of a step that cannot be made, or of too few turns, is told and harms nothing below', () => {
		const gathering = (of: string, path: string) =>
			triedPart([
				{ name: 'ends', do: 'path', through: ['corner1', 'corner2'] },
				{
					name: 'around',
					do: 'each',
					over: 'edges',
					of,
					steps: [{ name: 'tip', do: 'point on path', path, ratio: '0.5' }],
					elements: [],
					gathers: [{ name: 'tips', of: 'tip', as: 'ring' }]
				},
				{ name: 'pane', do: 'plate', ring: 'tips', thickness: '6 mm', side: 'in' }
			]);
		expect(faultsOf(gathering('cell', 'edge'))).to.equal('');
		expect(faultsOf(gathering('cell', 'edge9'))).to.match(
			/step tip: "edge9" is not known.*\nstep pane: "tips" is not known/
		);
		expect(faultsOf(gathering('ends', 'edge'))).to.match(
			/step around: "tips" would be a ring of 1; 3 points are needed/
		);
	});

	it('cases: what is covered twice, or not at all, is told with its range', () => {
		const cases = (...ranges: [from: string | null, below: string | null][]) =>
			faultsOf(
				triedPart(
					[
						{
							name: 'states',
							do: 'cases',
							of: 'share',
							cases: ranges.map(([from, below]) => ({
								...(from && { from }),
								...(below && { below }),
								steps: [],
								elements: []
							}))
						}
					],
					{
						inputs: [
							{ name: 'share', label: 'Share', kind: 'ratio', default: 0.5, min: 0, max: 1, scope: 'shared' }
						]
					}
				)
			);
		expect(cases([null, '0.5'], ['0.5', null])).to.equal('');
		expect(cases(['0', '0.5'], ['0.5', '1.01'])).to.equal('');
		expect(cases([null, '0.4'], ['0.5', null])).to.match(/nothing is made from 0.4 to below 0.5/);
		expect(cases([null, '0.6'], ['0.5', null])).to.match(/two cases cover 0.5 to below 0.6/);
		expect(cases(['0.1', null])).to.match(/nothing is made below 0.1/);
		expect(cases([null, '1'])).to.match(/nothing is made from 1 on, up to 1/);
		expect(cases(['0.7', '0.2'])).to.match(/from 0.7 to below 0.2 is empty/);
		expect(cases([null, 'share'])).to.match(/the ends of a case are fixed values/);
	});

	it('a part within itself is refused, straight and round about; unknown ones and inputs by name', () => {
		const using = (id: string, other: string, values = {}): PartDefinition => ({
			...triedPart([{ name: 'sub', do: 'part', part: other, on: ['cell'], values }]),
			id
		});
		expect(faultsOf(using('a', 'a'), [using('a', 'a')])).to.match(/within itself: a → a/);
		const library = [using('a', 'b'), using('b', 'a')];
		expect(faultsOf(library[0]!, library)).to.match(/within itself: a → b → a/);
		expect(faultsOf(using('a', 'none'), [])).to.match(/"none" is not in the kit/);
		expect(faultsOf(using('a', 'flat-panel', { colour: '1' }), shippedParts)).to.match(
			/Flat panel has no input "colour"; it has joint/
		);
	});

	it('a sub-part makes what it makes alone on the same points, its inputs bound to formulas', () => {
		const whole = triedPart(
			[
				{
					name: 'sub',
					do: 'part',
					part: 'framed-glass',
					on: ['cell'],
					values: { frame_width: 'w / 2', joint: '0 mm', frame_material: 'metal' }
				}
			],
			{
				inputs: [
					{ name: 'w', label: 'W', kind: 'length', default: 120, min: 0, max: 500, scope: 'shared' },
					{ name: 'metal', label: 'Metal', kind: 'material', default: 'steel', scope: 'shared' }
				],
				measures: [{ name: 'it', label: 'It', kind: 'area', value: 'sub_clear_area' }]
			}
		);
		const run = runOnce(whole, CELL);
		const framed = shippedParts.find(({ id }) => id === 'framed-glass')!;
		const alone = runOnce(framed, CELL, { frame_width: 60, joint: 0 });
		expect(run.results.get('it')![0]).to.be.closeTo(alone.results.get('clear_area')![0]!, 1e-6);
		expect(run.elements.map(({ volume }) => volume[0])).to.deep.equal(
			alone.elements.map(({ volume }) => volume[0])
		);
	});

	it('sub-parts stand on points, in chains and between two rings, as they do alone', () => {
		const up: Steps = [{ name: 'far', do: 'lift', of: 'cell', by: '400 mm', along: 'normal' }];
		const made = (part: string, on: string[]) => {
			const whole = triedPart([...up, { name: 'sub', do: 'part', part, on, values: {} }], {
				measures: []
			});
			return { faults: faultsOf(whole, shippedParts), whole };
		};
		const volumes = (definition: PartDefinition, points: readonly Vector[]) =>
			runOnce(definition, points).elements.flatMap(({ volume }) => [...volume]);
		// The cell faces −y, so that what is lifted along its normal lies before it.
		const far = CELL.map(([x, y, z]): Vector => [x, y - 400, z]);
		const alone = (id: string) => shippedParts.find((one) => one.id === id)!;
		const cases: [part: string, on: string[], points: Vector[]][] = [
			['woven-tube', ['corner1', 'corner3', 'corner4'], [CELL[0]!, CELL[2]!, CELL[3]!]],
			['hollow-block', ['cell', 'far'], [...CELL, ...far]],
			['spaced-sleeve', ['corner1', 'corner2'], [CELL[0]!, CELL[1]!]]
		];
		for (const [id, on, points] of cases) {
			const { faults, whole } = made(id, on);
			expect(faults, id).to.equal('');
			const wanted = volumes(alone(id), points);
			expect(wanted.length, id).to.be.above(0);
			volumes(whole, CELL).forEach((volume, k) => expect(volume / wanted[k]!, id).to.be.closeTo(1, 1e-6));
		}
		// A ball at a point: what a node has beside its place, its edges, may be left out.
		const { whole, faults } = made('node-ball', ['corner2']);
		expect(faults).to.equal('');
		const ball = runOnce(whole, CELL).elements[0]!;
		const corners = cornersOf(ball, 0);
		const middle = [0, 1, 2].map((a) => {
			const values = [...corners].filter((_, k) => k % 3 === a);
			return (Math.min(...values) + Math.max(...values)) / 2;
		});
		middle.forEach((value, a) => expect(value).to.be.closeTo(CELL[1]![a]!, 0.01));
		// Too few are told in words.
		expect(made('woven-tube', ['corner1']).faults).to.match(
			/Woven tube needs two points or more; 1 is given/
		);
		expect(made('hollow-block', ['cell']).faults).to.match(
			/Hollow block needs two rings of 4 corners; 4 are given/
		);
	});

	it('a name that the turns of a group need cannot be an input', () => {
		const definition = triedPart([{ name: 'row', do: 'repeat', times: '3', steps: [], elements: [] }], {
			inputs: [{ name: 'turn', label: 'Turn', kind: 'ratio', default: 0, scope: 'shared' }]
		});
		expect(faultsOf(definition)).to.match(/"turn" is what the steps within know their turn by/);
	});
});

describe('pieces along a path', () => {
	const along = (spaced: 'at most' | 'exactly', spacing: string, through = ['corner1', 'corner2']) =>
		triedPart(
			[
				{ name: 'way', do: 'path', through },
				{
					name: 'fins',
					do: 'along',
					path: 'way',
					spaced,
					spacing,
					steps: [{ name: 'ball', do: 'sphere', centre: 'from', diameter: 'length(piece) / 10' }],
					elements: [
						{ name: 'balls', label: 'Balls', category: 'connector', of: ['ball'], material: 'steel' }
					]
				}
			],
			{ measures: [{ name: 'how_many', label: 'How many', kind: 'count', value: 'fins_count' }] }
		);
	/** Where the balls are, and how big. */
	const balls = (definition: PartDefinition) => {
		const run = runOnce(definition, CELL);
		const table = run.elements[0]!;
		expect(run.results.get('how_many')![0]).to.equal(table.count);
		return Array.from({ length: table.count }, (_, n) => {
			const corners = cornersOf(table, n);
			const at = (a: number) => {
				const values = [...corners].filter((_, k) => k % 3 === a);
				return {
					middle: (Math.min(...values) + Math.max(...values)) / 2,
					size: Math.max(...values) - Math.min(...values)
				};
			};
			return { x: at(0).middle, z: at(2).middle, size: at(2).size };
		});
	};

	it('at most: all alike, as many as are needed; a whole number of them is not one too many', () => {
		for (const [spacing, count] of [
			['500 mm', 4],
			['499 mm', 5],
			['2000 mm / 3', 3],
			['9 m', 1]
		] as const) {
			const found = balls(along('at most', spacing));
			expect(found, spacing).to.have.length(count);
			found.forEach(({ x }, k) => expect(x).to.be.closeTo((2000 / count) * k, 0.05));
		}
	});

	it('exactly: from the start, what is left over stays free; none where not one fits', () => {
		const found = balls(along('exactly', '600 mm'));
		expect(found.map(({ x }) => Math.round(x))).to.deep.equal([0, 600, 1200]);
		expect(balls(along('exactly', '0.5 m'))).to.have.length(4);
		expect(balls(along('exactly', '2001 mm'))).to.have.length(0);
	});

	it('goes round the bends of a path, by its length', () => {
		// 2 000 along the foot and 1 000 up: pieces of 750.
		const found = balls(along('at most', '800 mm', ['corner1', 'corner2', 'corner3']));
		expect(found.map(({ x, z }) => [Math.round(x), Math.round(z)])).to.deep.equal([
			[0, 0],
			[750, 0],
			[1500, 0],
			[2000, 250]
		]);
	});

	it('a spacing of nothing is told, and makes no piece', () => {
		const run = runOnce(along('at most', 'length(way) * 0'), CELL);
		expect(run.flagTexts.join()).to.match(/the spacing of fins is nothing or less/);
		expect(run.elements.every(({ count }) => count === 0)).to.equal(true);
		expect(faultsOf(along('exactly', '3 kg'))).to.match(/step fins: /);
	});

	it('a new name for the step is followed by what it tells', () => {
		const again = renamed(along('at most', '500 mm'), 'fins', 'blades');
		expect(again.measures[0]!.value).to.equal('blades_count');
		expect(checkPart(again, 4, []).faults).to.deep.equal([]);
	});
});

describe('what an element is cut from', () => {
	it('is told as it is made, held values too, and not where nothing is said', () => {
		const stockOf = (
			steps: Steps,
			of: string,
			rest: Parameters<typeof triedPart>[1] = {},
			thickness?: string
		) => {
			const thing = { ...element(of)![0]!, ...(thickness && { thickness }) };
			const { stock } = runOnce(triedPart(steps, { ...rest, elements: [thing] }), CELL).elements[0]!;
			return stock && [stock.shape, ...stock.sizes.map((column) => column[0])];
		};
		const sheet: Steps = [{ name: 's', do: 'flat sheet', ring: 'cell' }];
		expect(stockOf(sheet, 's')).to.equal(null);
		expect(stockOf(sheet, 's', {}, '3 mm')).to.deep.equal(['plate', 3]);
		const held = {
			inputs: [
				{
					name: 'w',
					label: 'W',
					kind: 'length' as const,
					default: 120,
					min: 0,
					max: 500,
					scope: 'shared' as const
				}
			],
			limits: [{ of: 'w', at_most: '80 mm', then: 'hold' as const, says: 'held' }]
		};
		const bar: Steps = [
			{
				name: 'b',
				do: 'bar',
				path: 'edge1',
				profile: { shape: 'tube', width: 'w', depth: '140 mm', wall: '4 mm' },
				facing: 'normal'
			}
		];
		expect(stockOf(bar, 'b', held)).to.deep.equal(['tube', 80, 140, 4]);
	});
});

describe('limits', () => {
	it('flag what is measured, and cannot hold it', () => {
		const part = (then: 'flag' | 'hold', at_most: string) =>
			triedPart([], {
				measures: [{ name: 'slant', label: 'Slant', kind: 'length', value: 'distance(corner1, corner3)' }],
				limits: [{ of: 'slant', at_most, then, says: 'more than the lorry takes' }]
			});
		// The diagonal of 2 000 by 1 000 is 2 236.
		expect(runOnce(part('flag', '2200 mm'), CELL).flagTexts).to.deep.equal([
			'Slant: more than the lorry takes (2 236.1 mm; at most 2 200 mm)'.replace(/(\d) (\d)/g, '$1\u202f$2')
		]);
		expect(runOnce(part('flag', '2240 mm'), CELL).flagTexts).to.deep.equal([]);
		expect(faultsOf(part('hold', '2200 mm'))).to.match(/measure slant: what is measured cannot be held/);
		expect(faultsOf(part('flag', '3 kg'))).to.match(/measure slant: /);
		const nowhere = { ...part('flag', '1 m'), measures: [] };
		expect(faultsOf(nowhere)).to.match(/"slant" is not an input, a number or a measure of this part/);
	});
});

describe('flags are rows', () => {
	const depth = {
		name: 'depth',
		label: 'Depth',
		kind: 'length' as const,
		default: 300,
		min: 0,
		max: 900,
		scope: 'shared' as const
	};
	const told = (part: ReturnType<typeof triedPart>) => runOnce(part, CELL).told;

	it('with a permanent code, whose they are, the value and its bound; of a held one the value asked for', () => {
		const part = triedPart([{ name: 'gap', do: 'number', value: 'depth / 2' }], {
			inputs: [depth],
			limits: [
				{ of: 'depth', at_most: '120 mm', then: 'hold', says: 'deeper than its frame' },
				{ of: 'gap', at_least: '100 mm', then: 'flag', says: 'too little to reach in' }
			]
		});
		expect(told(part)).to.deep.equal([
			{
				code: 'part.limit',
				level: 'held',
				subject: 'Depth',
				says: 'Depth: deeper than its frame',
				kind: 'length',
				value: 300,
				bound: 120
			},
			{
				code: 'part.limit',
				level: 'flagged',
				subject: 'gap',
				says: 'gap: too little to reach in',
				kind: 'length',
				value: 60,
				bound: 100
			}
		]);
		expect(runOnce(part, CELL).flagTexts).to.deep.equal([
			'Depth: deeper than its frame (300 mm was asked for, 120 mm is used)',
			'gap: too little to reach in (60 mm; at least 100 mm)'
		]);
	});

	it('where a step is made many times, or a flag is raised in two places, there is no one value to tell', () => {
		const limits = [{ of: 'gap', at_least: '100 mm', then: 'flag' as const, says: 'too little' }];
		const within = triedPart(
			[
				{
					name: 'often',
					do: 'repeat',
					times: '3',
					index: 'k',
					steps: [{ name: 'gap', do: 'number', value: '10 mm * k' }],
					elements: []
				}
			],
			{ limits: [] }
		);
		expect(told({ ...within, limits })).to.deep.equal([
			{
				code: 'part.limit',
				level: 'flagged',
				subject: 'gap',
				says: 'gap: too little',
				kind: null,
				value: null,
				bound: null
			}
		]);
	});

	it('have a failed one for a piece that cannot be made', () => {
		const part = triedPart([{ name: 'pane', do: 'plate', ring: 'cell', thickness: '0 mm', side: 'out' }]);
		expect(told(part).map(({ code, level }) => [code, level])).to.deep.include(['part.nothing', 'failed']);
	});
});

describe('changing a part', () => {
	it('a name changes wherever it is used: every part of the kit makes the same afterwards', () => {
		for (const one of shippedParts) {
			if (one.anchor.kind !== 'ring') continue;
			const before = runOnce(one, CELL);
			const names = [...one.steps.map(({ name }) => name), ...one.inputs.map(({ name }) => name)];
			const after = runOnce(
				names.reduce((changed, name) => renamed(changed, name, `${name}_x`), one),
				CELL
			);
			expect(
				after.elements.map(({ volume }) => [...volume]),
				one.label
			).to.deep.equal(before.elements.map(({ volume }) => [...volume]));
			expect([...after.results.values()]).to.deep.equal([...before.results.values()]);
		}
	});

	it('what only looks like the name stays: materials, texts for people, words of the language', () => {
		const part = triedPart(
			[
				{ name: 'end', do: 'number', value: 'mode == steel ? 2 : 1' },
				{ name: 'side', do: 'edge', of: 'cell', number: 1 },
				{ name: 'here', do: 'point on path', path: 'side', ratio: '0.5', from: 'end' },
				{ name: 'pane', do: 'plate', ring: 'cell', thickness: '5 mm * end', side: 'out' }
			],
			{
				inputs: [
					{
						name: 'mode',
						label: 'steel',
						kind: 'choice',
						default: 'steel',
						options: [{ name: 'steel', label: 'steel' }],
						scope: 'shared'
					},
					{ name: 'other', label: 'Other', kind: 'material', default: 'steel', scope: 'shared' }
				],
				limits: [{ of: 'end', at_most: 'end + 1', then: 'flag', says: 'the end' }],
				elements: [{ name: 'sheet', label: 'end', category: 'plate', of: ['pane'], material: 'steel' }]
			}
		);
		const end = renamed(part, 'end', 'factor');
		expect(end.steps[0]!.name).to.equal('factor');
		expect(end.steps[2]).to.include({ from: 'end' });
		expect(end.steps[3]).to.include({ thickness: '5 mm * factor' });
		expect(end.limits[0]).to.include({ of: 'factor', at_most: 'factor + 1', says: 'the end' });
		expect(end.elements[0]).to.include({ label: 'end' });
		const steel = renamed(part, 'steel', 'iron');
		expect(steel.inputs[0]).to.include({ default: 'iron', label: 'steel' });
		expect(steel.inputs[0]!.options).to.deep.equal([{ name: 'iron', label: 'steel' }]);
		expect(steel.steps[0]).to.include({ value: 'mode == iron ? 2 : 1' });
		expect(steel.inputs[1]).to.include({ default: 'steel' });
		expect(steel.elements[0]).to.include({ material: 'steel' });
	});

	it('a fresh name is none of the part’s', () => {
		const framed = shippedParts.find(({ id }) => id === 'framed-glass')!;
		expect(freshName(framed, 'opening')).to.equal('opening_2');
		expect(freshName(framed, 'something')).to.equal('something');
	});

	it('a muted step is passed over, and those that need it say so', () => {
		const steps: Steps = [
			{ name: 'in', do: 'inset', ring: 'cell', by: '50 mm', muted: true },
			{ name: 'p', do: 'plate', ring: 'in', thickness: '5 mm', side: 'in' }
		];
		expect(faultsOf(triedPart(steps))).to.match(/step p: "in" is muted/);
		expect(() => compilePart(triedPart(steps), 4)).to.throw(PartError);
	});

	it('inspection tells what every step makes and sees, and where it lies', () => {
		const framed = shippedParts.find(({ id }) => id === 'framed-glass')!;
		const { steps, faults } = inspectPart(framed, 4, shippedParts);
		expect(faults).to.deep.equal([]);
		expect(steps.get('opening')).to.include({ makes: 'ring of 4', is: 'ring' });
		expect(steps.get('opening')!.points).to.have.length(4);
		expect([...steps.get('opening')!.sees.keys()]).to.include.members(['cell', 'outline', 'joint']);
		expect(steps.get('outline')!.sees.has('opening')).to.equal(false);
		expect(steps.get('frame')).to.include({ makes: '4 solids', is: 'solid' });
	});
});
