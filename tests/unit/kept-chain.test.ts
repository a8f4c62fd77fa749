import { expect } from 'chai';
import fc from '../property';
import { Cancelled, Chain } from '../../src/core/chain/chain';
import { applyEdits } from '../../src/core/project/commands';
import type { Edit } from '../../src/core/project/edits';
import { CommandError, DocumentError } from '../../src/core/project/faults';
import { Files } from '../../src/core/project/files';
import { readProject } from '../../src/core/project/read';
import type { Project } from '../../src/core/project/schema';
import { count, projectOf, sheet } from '../faces';
import { contentOf, difference } from '../same-model';
import { sideThreads } from '../side-line';

/** A hall whose sides meet, a net, levels, a guide: enough that every stage has something to keep. */
const start = readProject({
	format: 'zygaster project',
	version: 8,
	id: '6a1f4d0e-90f0-4e55-9a0d-0d1f0e2f7a11',
	name: 'Kept',
	named: [{ id: 'storey', value: '3 m' }],
	levels: [
		{ id: 'one', name: 'One', height: 3000 },
		{ id: 'top', name: 'Top', height: 6000 }
	],
	masses: [
		{
			id: 'hall',
			name: 'Hall',
			form: {
				kind: 'prism',
				outline: { shape: 'rectangle', width: 9000, depth: 6000, rounding: 0 },
				at: [0, 0],
				foot: 0,
				head: { level: 'top', plus: 0 },
				curved: []
			}
		},
		{
			id: 'net',
			name: 'Net',
			form: {
				kind: 'net',
				rows: [0, 1, 2, 3].map((j) => [0, 1, 2, 3].map((i) => [3000 * i, 20_000, 2000 * j]))
			}
		}
	],
	guides: [{ id: 'tide', name: 'Tide', on: 'space', points: [[0, 0, 9000]], joins: 'line', closed: false }],
	variants: [
		{ id: 'glass', name: 'Glass', part: 'framed-glass' },
		{ id: 'blades', name: 'Blades', part: 'blade-stack' },
		{ id: 'sheet', name: 'Sheet', part: 'pierced-sheet' },
		{ id: 'post', name: 'Post', part: 'box-mullion' },
		{ id: 'ball', name: 'Ball', part: 'node-ball' },
		{ id: 'rope', name: 'Rope', part: 'woven-tube' }
	],
	zones: [
		{
			id: 'walls',
			code: 'W',
			name: 'Walls',
			faces: ['south', 'east'].map((face) => ({ mass: 'hall', face })),
			settingOut: { across: { by: 'count', count: 4 }, up: { by: 'count', count: 3 } },
			pattern: { kind: 'rectangles' },
			rules: [{ id: 'all', put: { variant: 'glass' } }],
			runs: [{ id: 'posts', lines: ['bay', 'rim'], variant: 'post' }]
		},
		{
			id: 'veil',
			code: 'V',
			name: 'Veil',
			faces: [{ mass: 'net', face: 'skin' }],
			settingOut: { across: { by: 'at most', size: 1500 }, up: { by: 'at most', size: 1500 } },
			pattern: { kind: 'diamonds' },
			rules: [{ id: 'all', put: { variant: 'glass' } }]
		},
		...Object.entries({
			back: { is: 'layer', of: 'veil', depth: '-400 mm' },
			ties: { is: 'web', from: 'veil', to: 'back', bars: ['upright', 'diagonal'] },
			rail: { is: 'path', along: { is: 'rim', of: 'walls', side: 'head' } },
			ropes: { is: 'chains', of: 'back', through: { by: 'steps', from: [1, 1], step: [1, 1] }, over: 30 }
		}).map(([id, on]) => ({
			id,
			code: id.toUpperCase(),
			name: id,
			on,
			faces: [],
			settingOut: { across: { by: 'at most', size: 2000 }, up: { by: 'count', count: 1 } },
			pattern: { kind: 'rectangles' },
			runs: [
				{ id: 'posts', lines: ['bay', 'upright', 'gap'], variant: 'post' },
				...(id === 'rail' || id === 'ropes'
					? [{ id: 'rope', over: 'chains', lines: [], variant: 'rope' }]
					: [])
			]
		}))
	]
});

const zoneIds = fc.constantFrom('walls', 'veil');
const set = (path: string, value: unknown): Edit => ({ do: 'set', path, value });
const to =
	(key: string) =>
	([zone, value]: [string, unknown]): Edit =>
		set(`zones/${zone}/${key}`, value);
const spacing = fc.oneof(
	fc.integer({ min: 1, max: 7 }).map((count) => ({ by: 'count', count })),
	fc.integer({ min: 900, max: 3000 }).map((size) => ({ by: 'at most', size }))
);
const values = fc.dictionary(
	fc.constantFrom('joint', 'frame_width', 'blades', 'angle'),
	fc.integer({ min: 2, max: 40 })
);
const put = fc.oneof(
	fc.constant('open'),
	fc
		.constantFrom('glass', 'glass', 'glass', 'blades', 'post', 'sheet')
		.map((variant) => ({ variant, values: {} }))
);
const cell = fc
	.tuple(
		fc.constantFrom('hall.south', 'hall.east', 'net.skin'),
		fc.integer({ min: 1, max: 4 }),
		fc.integer({ min: 1, max: 5 })
	)
	.map(([face, course, bay]) => ({
		id: `${face}/C0${course}/B0${bay}/1`,
		place: [0.2 * bay, 0.25 * course]
	}));

const kinds: readonly fc.Arbitrary<Edit>[] = [
	fc.tuple(zoneIds, spacing).map(to('settingOut/across')),
	fc
		.tuple(
			zoneIds,
			fc.oneof(
				spacing,
				fc.integer({ min: 1, max: 2 }).map((each) => ({ by: 'levels', each }))
			)
		)
		.map(to('settingOut/up')),
	fc
		.tuple(zoneIds, fc.constantFrom('true length', 'belt line', 'own parameter', 'level planes', 'geodesics'))
		.map(to('settingOut/along')),
	fc.tuple(zoneIds, fc.constantFrom(0, 12)).map(to('settingOut/joint')),
	fc.tuple(zoneIds, fc.constantFrom([0, 0, 1], [0.4, 0, 1], [-0.7, 0.3, 1])).map(([zone, planes]) =>
		set(`zones/${zone}/settingOut`, {
			across: { by: 'count', count: 6 },
			up: { by: 'count', count: 5 },
			along: 'level planes',
			planes
		})
	),
	fc
		.tuple(
			zoneIds,
			fc.constantFrom(
				{ kind: 'rectangles' },
				{ kind: 'diamonds' },
				{ kind: 'triangles', diagonal: 'shorter' },
				{ kind: 'running bond', offset: 0.5, way: 'back and forth' },
				{ kind: 'voronoi', seed: 1, count: 12 },
				{
					kind: 'voronoi',
					count: 10,
					margin: 30,
					size: { is: 'follows', field: 'distance.tide', from: [0, 'storey'], to: [1, 0.3] },
					sheet: { per: { bays: 2, courses: 3 } }
				}
			)
		)
		.map(to('pattern')),
	fc
		.tuple(
			zoneIds,
			fc.constantFrom(null, { depth: '-400 mm' }, { depth: '-1 m + distance.tide / 20', shifted: true })
		)
		.map(to('layer')),
	fc
		.tuple(zoneIds, fc.constantFrom(null, { under: 900_000, put: 'merge' }, { under: 900_000, put: 'open' }))
		.map(to('slivers')),
	fc.tuple(zoneIds, put).map(to('rules/all/put')),
	fc.tuple(zoneIds, fc.boolean()).map(to('rules/all/muted')),
	fc.tuple(zoneIds, fc.constantFrom(null, { step: 2, from: 1, by: 'cells' })).map(to('rules/all/every')),
	fc
		.tuple(
			zoneIds,
			fc.array(
				fc.constantFrom(
					{ is: 'range', field: 'height', at_least: null, at_most: 'storey' },
					{ is: 'range', field: 'area', at_least: 1e6, at_most: null },
					{ is: 'range', field: 'distance.tide', at_least: null, at_most: 6000 },
					{ is: 'range', field: 'from_rim', at_least: 2, at_most: null },
					{ is: 'chance', share: 0.6, seed: 2 },
					{ is: 'looks', towards: 'south', within: 60 },
					{ is: 'levels', above: 'one', below: null },
					{ is: 'formula', formula: 'height < storey or bay > 2' }
				),
				{ maxLength: 3 }
			),
			fc.constantFrom('all', 'any', 'none')
		)
		.map(([zone, of, is]) => set(`zones/${zone}/rules/all/where`, { is, of })),
	fc
		.tuple(
			zoneIds,
			fc.constantFrom(
				{},
				{ angle: { is: 'follows', field: 'height', from: [0, 'storey'], to: [0, 60] } },
				{
					angle: { is: 'follows', field: 'distance.tide', from: [0, 9000], to: [60, 0], outside: 'flagged' }
				},
				{ angle: { is: 'alternates', values: [10, '20 deg'], by: 'bays' } },
				{ angle: { is: 'chance', to: [0, 45], seed: 4 } },
				{ angle: '10 deg * height / storey' }
			)
		)
		.map(([zone, values]) => set(`zones/${zone}/rules/all/put`, { variant: 'blades', values })),
	fc.integer({ min: 2, max: 6 }).map((metres) => set('named/storey/value', `${metres} m`)),
	fc.tuple(zoneIds, fc.constantFrom(null, 2000, 4500)).map(([zone, most]) =>
		set(`zones/${zone}/runs`, [
			{
				id: 'posts',
				lines: ['bay', 'course'],
				where: { is: 'all', of: [{ is: 'range', field: 'height', at_least: null, at_most: most }] },
				variant: 'post'
			}
		])
	),
	fc
		.tuple(
			zoneIds,
			fc.array(
				fc.record({
					id: fc.constantFrom('a', 'b'),
					put,
					sites: fc.uniqueArray(cell, { maxLength: 6, selector: ({ id }) => id })
				}),
				{ maxLength: 2 }
			)
		)
		.map(to('exceptions')),
	fc
		.tuple(
			zoneIds,
			fc.constantFrom(
				[],
				[{ id: 'balls', variant: 'ball' }],
				[{ id: 'balls', variant: 'ball', nodes: 'rim' }]
			)
		)
		.map(to('nodes')),
	fc.tuple(fc.constantFrom('veil', 'back'), fc.boolean()).map(to('meetsWebs')),
	fc
		.constantFrom([], [{ id: 'balls', variant: 'ball', values: { takes_bars: true } }])
		.map((nodes) => set('zones/back/nodes', nodes)),
	fc
		.tuple(zoneIds, fc.subarray(['bay', 'course', 'diagonal', 'rim']))
		.map(([zone, lines]) => set(`zones/${zone}/runs`, [{ id: 'posts', lines, variant: 'post' }])),
	// Two clauses whose bars end at each other's, or go through.
	fc
		.tuple(zoneIds, fc.constantFrom('mitred', 'butted', null), fc.constantFrom('mitred', null))
		.map(([zone, first, second]) => {
			const ends = (is: string | null) =>
				is && { is, ...(is === 'butted' && { through: 'bay' }), others: true };
			return set(`zones/${zone}/runs`, [
				{ id: 'posts', lines: ['bay'], variant: 'post', ends: ends(first) },
				{ id: 'rails', lines: ['course', 'rim'], variant: 'post', ends: ends(second) }
			]);
		}),
	fc.subarray(['south', 'east', 'north', 'west'], { minLength: 1 }).map((faces) =>
		set(
			'zones/walls/faces',
			faces.map((face) => ({ mass: 'hall', face }))
		)
	),
	fc
		.tuple(fc.constantFrom('-400 mm', '-1 m + distance.tide / 20', '250 mm'), fc.boolean(), zoneIds)
		.map(([depth, shifted, of]) => set('zones/back/on', { is: 'layer', of, depth, shifted })),
	fc
		.subarray(['upright', 'diagonal'])
		.map((bars) => set('zones/ties/on', { is: 'web', from: 'veil', to: 'back', bars })),
	fc
		.constantFrom(
			{ is: 'rim', of: 'walls', side: 'left' },
			{ is: 'rim', of: 'veil', side: 'foot' },
			{ is: 'line', of: 'back', along: 'course', number: 2 },
			{ is: 'guide', guide: 'tide' },
			{ is: 'guide', guide: 'tide', towards: { of: 'veil', share: 0.5 } }
		)
		.chain((along) =>
			fc
				.constantFrom('with the face', 'upright')
				.map((turned) => set('zones/rail/on', { is: 'path', along, lift: 100, turned }))
		),
	fc
		.tuple(fc.integer({ min: 1, max: 4 }), fc.integer({ min: -1, max: 2 }), fc.constantFrom('veil', 'back'))
		.map(([from, step, of]) =>
			set('zones/ropes/on', {
				is: 'chains',
				of,
				through: { by: 'steps', from: [from, 1], step: [step, 1] },
				copies: { count: 3, by: 40, about: [0, 0], mirrored: true },
				over: 30
			})
		),
	fc.integer({ min: 3500, max: 9000 }).map((height) => set('levels/top/height', height)),
	fc.integer({ min: 1000, max: 3400 }).map((height) => set('levels/one/height', height)),
	fc.integer({ min: 4000, max: 12_000 }).map((width) => set('masses/hall/form/outline/width', width)),
	fc
		.tuple(
			fc.integer({ min: 0, max: 3 }),
			fc.integer({ min: 0, max: 3 }),
			fc.integer({ min: -900, max: 900 })
		)
		.map(([i, j, out]) => set(`masses/net/form/rows/${j}/${i}/1`, 20_000 + out)),
	fc.constantFrom(null, 400).map((within) => set('masses/net/evened', within)),
	fc.integer({ min: 0, max: 9000 }).map((x) => set('guides/tide/points/0/0', x)),
	fc
		.tuple(fc.constantFrom('glass', 'blades'), values)
		.map(([id, value]) => set(`variants/${id}/values`, value)),
	fc
		.constantFrom('framed-glass', 'flat-panel')
		.map((part) => set('variants/glass', { id: 'glass', name: 'Glass', part, values: {} })),
	fc.constantFrom('walls', 'veil').map((id): Edit => ({ do: 'move', path: `zones/${id}`, index: 0 }))
];

/** After how many pieces of work a run is given up; most go on to their end. */
const givenUp = fc.oneof({ weight: 9, arbitrary: fc.constant(null) }, { weight: 1, arbitrary: fc.nat(6) });

/** A long day: what one edit sets up stands until others have moved all that it hangs on. */
const session = fc.array(fc.tuple(fc.oneof(...kinds), givenUp), { minLength: 110, maxLength: 110 });

describe('a chain that keeps what it made', () => {
	it('gives the model that a fresh one gives, bit for bit, after any edits, with runs given up between', async () => {
		let standing = 0;
		await fc.assert(
			fc.asyncProperty(session, async (steps) => {
				// What it keeps is made in threads beside it; the fresh one makes all of it itself.
				const chain = new Chain(new Files(), 0, sideThreads(1));
				await chain.run(start);
				let project: Project = start;
				for (const [one, givenUpAfter] of steps) {
					try {
						// As a page sends it: a copy, of which nothing is what it was.
						project = structuredClone(applyEdits(project, [one]).project);
					} catch (error) {
						if (!(error instanceof CommandError || error instanceof DocumentError)) throw error;
					}
					if (givenUpAfter !== null) {
						let left = givenUpAfter;
						const step = () => {
							if (left-- === 0) throw new Cancelled();
						};
						await chain.run(project, { step }).catch((error: unknown) => {
							if (!(error instanceof Cancelled)) throw error;
						});
						continue;
					}
					const [kept, fresh] = [await chain.run(project), await new Chain().run(project)];
					expect(difference(contentOf(kept), contentOf(fresh))).to.equal(null);
					standing += kept.zones.filter(({ behind }) => !behind).length;
				}
			}),
			// A day is not made shorter by trying: the difference says where to look.
			{ numRuns: 2, endOnFailure: true }
		);
		// Most of what was tried could be made.
		expect(standing).to.be.greaterThan(150);
	}).timeout(240_000);
});

describe('a model that was made', () => {
	it('stays as it is while others are made after it, in memory that is used again', async () => {
		const chain = new Chain();
		const made = await chain.run(start);
		const before = structuredClone(contentOf(made));
		for (const width of [9100, 8800, 6000, 12_000]) {
			const wider = applyEdits(start, [set('masses/hall/form/outline/width', width)]).project;
			// Others are made beside it too, of the same parts.
			await Promise.all([chain.run(wider), new Chain().run(wider)]);
			expect(difference(contentOf(made), before), `${width}`).to.equal(null);
		}
	});
});

describe('a changed condition', () => {
	it('remakes pieces where cells changed their rule, and nowhere else', async () => {
		// 64 courses of 64 bays are four chunks of sixteen courses.
		const wall = (low: number): Project =>
			projectOf(
				sheet(64_000, 64_000),
				count(64, 64),
				{
					rules: [
						['low', low],
						['middle', 40],
						['high', 64]
					].map(([id, most]) => ({
						id,
						where: { is: 'all', of: [{ is: 'range', field: 'course', at_least: null, at_most: most }] },
						put: { variant: 'p', values: {} }
					}))
				} as never,
				{ variants: [{ id: 'p', name: 'p', part: 'flat-panel', values: {} }] }
			);
		const chain = new Chain();
		const groupsOf = async (low: number) => {
			const { problems, zones } = await chain.run(wall(low));
			expect(problems).to.deep.equal([]);
			return new Map(
				zones[0]!.model!.groups.map(({ clause, group, serial }) => [
					`${clause.kind === 'rule' ? clause.rule.id : ''} ${Math.floor(group.sites[0]! / 1024)}`,
					{ serial, pieces: group.sites.length }
				])
			);
		};
		const before = await groupsOf(8);
		const after = await groupsOf(9);
		const remade = [...after].filter(([key, { serial }]) => before.get(key)?.serial !== serial);
		// A course of the first chunk went from the second rule to the first.
		expect(remade.map(([key]) => key).sort()).to.deep.equal(['low 0', 'middle 0']);
		expect([...after.values()].reduce((sum, { pieces }) => sum + pieces, 0)).to.equal(4096);
		// Where every cell keeps its rule nothing is made at all.
		const same = await groupsOf(9.5);
		for (const [key, { serial }] of same) expect(serial, key).to.equal(after.get(key)!.serial);
	});
});
