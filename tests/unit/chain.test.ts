import { expect } from 'chai';
import fc from '../property';
import { readFileSync } from 'node:fs';
import { bookOf } from '../../src/core/drawing/book';
import { Chain } from '../../src/core/chain/chain';
import { cellAddress, edgeAddress } from '../../src/core/cladding/address';
import type { Model } from '../../src/core/cladding/model';
import { NO_CELL } from '../../src/core/pattern/edges';
import { applyEdits } from '../../src/core/project/commands';
import { readProjectText } from '../../src/core/project/read';
import type { Form, PathDefinition } from '../../src/core/project/form-schema';
import type { PatternChoice, Project, Spacing } from '../../src/core/project/schema';
import { shippedParts } from '../../src/core/part/kit';
import { placesOf } from '../../src/core/part/places';
import { shippedMaterials } from '../../src/core/part/materials';
import type { PartDefinition } from '../../src/core/project/part-definition';
import { pieceQuantities } from '../../src/core/cladding/quantities';
import { failedRows, flagTexts } from '../../src/core/schedule/pieces';
import { swapPart, swapPieces } from '../../src/core/cladding/swap';
import { queryRows } from '../../src/core/schedule/query';
import { scheduleNames } from '../../src/core/project/schedules-schema';
import { cellsOf } from '../../src/core/schedule/column';
import { isGathered, makeSchedule } from '../../src/core/schedule/table';
import { summarise } from '../../src/core/schedule/summary';
import { modelMessage, type GroupView } from '../../src/lib/worker/views';
import { count, projectOf, revolved, sheet } from '../faces';
import { triedPart } from '../trial-run';

const demo = readProjectText(readFileSync(new URL('../lido.json', import.meta.url), 'utf8'));
const set = (project: Project, path: string, value: unknown) =>
	applyEdits(project, [{ do: 'set', path, value }]).project;

const radius = fc.integer({ min: 1500, max: 9000 });
const form: fc.Arbitrary<Form> = fc.oneof(
	fc.tuple(radius, radius, radius, fc.integer({ min: 60, max: 360 })).map(([a, b, c, turn]) =>
		revolved(
			[
				[a, 0],
				[Math.max(b, 1500), 4000],
				[c, 9000]
			],
			'line',
			turn
		)
	),
	fc.tuple(radius, radius).map(([w, h]) => sheet(w, h)),
	fc.array(fc.integer({ min: -900, max: 900 }), { minLength: 9, maxLength: 9 }).map((z): Form => ({
		kind: 'lofted',
		between: 'smooth',
		sections: [0, 1, 2].map((s) => ({
			joins: 'smooth',
			closed: false,
			points: [0, 1, 2].map((k) => [k * 5000, s * 4000, 5000 + z[3 * s + k]!] as [number, number, number])
		}))
	})),
	fc
		.tuple(radius, fc.integer({ min: -90, max: 90 }), fc.integer({ min: 50, max: 130 }))
		.map(([r, twist, taper]): Form => ({
			kind: 'twisted',
			outline: { shape: 'polygon', sides: 3 + (r % 4), radius: r, rounding: r % 3 ? 0 : r / 10 },
			at: [0, 0],
			foot: 0,
			head: 30000,
			twist,
			taper: taper / 100
		})),
	fc.tuple(radius, radius, radius).map(([a, b, c]): Form => ({
		kind: 'dome',
		at: [100, 200],
		foot: 3000,
		radii: [a, b, c],
		cut: (a % 3) * 0.2 * c
	})),
	fc.tuple(radius, radius, fc.integer({ min: 1, max: 2500 })).map(([w, l, rise]): Form => ({
		kind: 'vaulted',
		profile: {
			points: [
				[-w, 0],
				[w, 0]
			],
			joins: [{ arc: Math.min(rise, w) }],
			mirrored: false
		},
		at: [0, 0],
		foot: 0,
		direction: 20,
		length: l
	})),
	fc.array(fc.integer({ min: -600, max: 600 }), { minLength: 16, maxLength: 16 }).chain((z) =>
		fc.constantFrom('control' as const, 'through' as const).map((points): Form => ({
			kind: 'net',
			points,
			degrees: [3, 2],
			rows: [0, 1, 2, 3].map((j) =>
				[0, 1, 2, 3].map((i) => [i * 4000, j * 3000, 4000 + z[4 * j + i]!] as [number, number, number])
			)
		}))
	),
	fc.tuple(radius, radius).map(([w, d]): Form => ({
		kind: 'waves',
		from: [0, 0],
		size: [w, d],
		foot: 4000,
		height: '300 mm * sin(57 deg * x / span) + 200 mm * cos(57 deg * y / span)',
		values: [{ id: 'span', value: '1200 mm' }]
	}))
);
const spacing = fc.oneof(
	fc.integer({ min: 2, max: 9 }).map((n) => ({ by: 'count' as const, count: 2 * n })),
	fc.integer({ min: 400, max: 1400 }).map((size) => ({ by: 'at most' as const, size }))
);
const pattern: fc.Arbitrary<PatternChoice> = fc.oneof(
	fc.constant({ kind: 'rectangles' as const }),
	fc.constant({ kind: 'diamonds' as const }),
	fc
		.constantFrom('rising', 'falling', 'alternating', 'shorter')
		.map((diagonal) => ({ kind: 'triangles' as const, diagonal: diagonal as 'rising' }))
);
const clad = {
	rules: [
		{
			id: 'r',
			muted: false,
			cells: 'all' as const,
			corners: 'any' as const,
			courses: null,
			put: { variant: 'f', values: {} }
		}
	],
	runs: [
		{
			id: 'l',
			muted: false,
			lines: ['bay' as const, 'course' as const, 'diagonal' as const, 'rim' as const],
			variant: 'b'
		}
	]
};
const variants = [
	{ id: 'f', name: 'f', part: 'framed-glass', values: {} },
	{ id: 'b', name: 'b', part: 'box-mullion', values: {} }
];

function expectFinite(model: Model): void {
	for (const { model: zone } of model.zones) {
		for (const face of zone!.faces)
			for (const column of [face.grid.positions, face.grid.normals, ...Object.values(face.measures)])
				expect(column.every(Number.isFinite)).to.equal(true);
		for (const { group } of zone!.groups)
			for (const table of group.run.elements)
				for (const column of [
					table.volume,
					table.area,
					table.length,
					...Array.from({ length: table.count }, (_, k) => placesOf(table.shape, k))
				])
					expect((column as Float64Array).every(Number.isFinite)).to.equal(true);
	}
	const text = JSON.stringify(summarise(model));
	expect(text).to.not.match(/null(?!,"flags")/);
}

describe('any sensible project', () => {
	it('builds without NaN; edges, addresses and areas are whole', async () => {
		await fc.assert(
			fc.asyncProperty(form, spacing, spacing, pattern, async (mass, across, up, choice) => {
				const project = projectOf(
					mass,
					{ across: across as Spacing & typeof across, up: up as Spacing & typeof up },
					{ pattern: choice, ...clad },
					{ variants }
				);
				const model = await new Chain().run(project);
				if (model.problems.length) {
					// The only thing that may be wrong with these is an odd ring.
					expect(model.problems[0]!.text).to.match(/closed ring/);
					expect(model.problems[0]!.fixes).to.have.length(2);
					return;
				}
				expectFinite(model);
				const { cells, edges, measures } = model.zones[0]!.model!.faces[0]!;
				const addresses = new Set(Array.from({ length: cells.count }, (_, c) => cellAddress('f', cells, c)));
				expect(addresses.size).to.equal(cells.count);
				const sides = Array.from({ length: cells.count }, (_, c) => cells.start[c + 1]! - cells.start[c]!);
				let twice = 0;
				for (let e = 0; e < edges.count; e++) twice += edges.right[e] === NO_CELL ? 1 : 2;
				expect(twice).to.equal(sides.reduce((a, b) => a + b, 0));
				const bars = model.zones[0]!.model!.groups.filter(({ group }) => group.over === 'line');
				expect(bars.reduce((sum, { group }) => sum + group.sites.length, 0)).to.equal(edges.count);
				if (mass.kind === 'ruled') {
					const sum = measures.area.reduce((a, b) => a + b, 0);
					expect(sum / model.zones[0]!.model!.faces[0]!.area()).to.be.closeTo(1, 1e-9);
				}
			}),
			{ numRuns: 60 }
		);
	});

	it('keeps every address when a value changes that has nothing to do with the grid', async () => {
		const addressesOf = (model: Model) =>
			(model.zones[0]!.model?.faces ?? []).flatMap((face) => [
				...Array.from({ length: face.cells.count }, (_, c) => cellAddress(face.address, face.cells, c)),
				...Array.from({ length: face.edges.count }, (_, e) => edgeAddress(face.address, face.edges, e))
			]);
		const unrelated = fc.constantFrom<[string, unknown]>(
			['variants/f/values', { frame_width: 33, recess: 5 }],
			['zones/z/rules', []],
			['zones/z/runs/l/lines', ['rim']],
			['zones/z/name', 'Another name'],
			['display', 'ft-in'],
			['levels', [{ id: 'roof', name: 'Roof', height: 12000 }]]
		);
		await fc.assert(
			fc.asyncProperty(form, spacing, pattern, unrelated, async (mass, up, choice, [path, value]) => {
				const grid = { across: count(12, 1).across, up: up as Spacing & typeof up };
				const project = projectOf(mass, grid, { pattern: choice, ...clad }, { variants });
				const chain = new Chain();
				const before = addressesOf(await chain.run(project));
				expect(addressesOf(await chain.run(set(project, path, value)))).to.deep.equal(before);
				expect(addressesOf(await new Chain().run(set(project, path, value)))).to.deep.equal(before);
			}),
			{ numRuns: 25 }
		);
	});
});

describe('the demo project', () => {
	it('has nothing to complain of, and every schedule is in building order with its own marks', async () => {
		const model = await new Chain().run(demo);
		expect(model.problems).to.deep.equal([]);
		expectFinite(model);
		for (const name of scheduleNames.filter((one) => !isGathered(one))) {
			const schedule = makeSchedule(model, name);
			const column = (key: string) => cellsOf(schedule.columns.find((one) => one.key === key)!);
			// A piece has as many points as it has.
			if (name !== 'anchors') expect(new Set(column('mark')).size).to.equal(schedule.rows);
			// Points between grid lines have none; they come after the others.
			if (name === 'nodes') continue;
			const places = column('zone').map(
				(zone, r) =>
					demo.zones.findIndex((one) => one.name === zone) * 1e6 +
					Number(column('course')[r]) * 1e3 +
					Number(column('bay')[r])
			);
			for (let r = 1; r < places.length; r++) expect(places[r]!).to.be.at.least(places[r - 1]!);
		}
	});

	it('elements are listed by themselves and come to what their pieces do; measures of parts are columns', async () => {
		const model = await new Chain().run(demo);
		const schedules = new Map(scheduleNames.map((name) => [name, makeSchedule(model, name).columns]));
		const column = (name: 'elements' | 'panels' | 'bars' | 'blades', key: string) =>
			cellsOf(schedules.get(name)!.find((one) => one.key === key)!);
		const addresses = column('elements', 'address') as string[];
		const masses = column('elements', 'mass') as number[];
		const byPiece = new Map<string, number>();
		addresses.forEach((address, r) => byPiece.set(address, (byPiece.get(address) ?? 0) + masses[r]!));
		for (const name of ['panels', 'bars'] as const)
			column(name, 'address').forEach((address, r) =>
				expect(byPiece.get(String(address))!).to.be.closeTo(Number(column(name, 'mass')[r]), 1e-6)
			);
		// A blade is an element; the list of blades is a part of that of elements.
		const kinds = column('elements', 'category');
		expect(kinds.filter((kind) => kind === 'blade').length).to.equal(column('blades', 'mark').length);
		// As they are ordered: the variants of the demo say these sizes.
		const stocks = new Set(column('elements', 'stock'));
		expect([...stocks]).to.include.members([
			'hollow box 60 × 140 × 4',
			'hollow box 44 × 90 × 3',
			'flat 28 × 190'
		]);
		const glass = column('elements', 'material').map((material, r) =>
			material === 'Glass' ? column('elements', 'thickness')[r] : null
		);
		expect(new Set(glass.filter((mm) => mm !== null))).to.deep.equal(new Set([24, 16]));
		// Framed glass measures its clear opening: never more than the cell.
		const areas = column('panels', 'area') as number[];
		const clear = column('panels', 'measure Clear opening area') as (number | null)[];
		expect(clear.filter((value) => value !== null).length).to.be.above(700);
		clear.forEach((value, r) => expect(value ?? 0).to.be.below(areas[r]!));
	});

	it('groups of a schedule hold every row once and their totals add up', async () => {
		const schedule = makeSchedule(await new Chain().run(demo), 'panels');
		const whole = queryRows(schedule, { filters: [], sort: null, groupBy: null })[0]!;
		const groups = queryRows(schedule, {
			filters: [],
			sort: { key: 'area', descending: true },
			groupBy: 'course'
		});
		expect(groups.reduce((sum, group) => sum + group.rows.length, 0)).to.equal(schedule.rows);
		expect(groups.reduce((sum, group) => sum + group.totals['mass']!, 0)).to.be.closeTo(
			whole.totals['mass']!,
			1e-6
		);
		const areas = cellsOf(schedule.columns.find((one) => one.key === 'area')!) as number[];
		for (const group of groups)
			for (let k = 1; k < group.rows.length; k++)
				expect(areas[group.rows[k]!]!).to.be.at.most(areas[group.rows[k - 1]!]!);
		const edge = queryRows(schedule, {
			filters: [{ key: 'cell', is: 'contains', value: 'edge' }],
			sort: null,
			groupBy: null
		})[0]!;
		const { zones } = summarise(await new Chain().run(demo));
		expect(edge.rows.length).to.equal(zones.reduce((sum, zone) => sum + zone.cells.edge, 0));
	});
});

describe('the chain between runs', () => {
	it('recomputes only what hangs below an edit, and keeps addresses', async () => {
		const chain = new Chain();
		const before = await chain.run(demo);
		const after = await chain.run(set(demo, 'variants/framed-roof/values', { frame_width: 65 }));
		const groupsOf = (model: Model) => model.zones.flatMap((zone) => zone.model!.groups);
		const changed = groupsOf(after).filter((group, k) => group.serial !== groupsOf(before)[k]!.serial);
		expect(changed.map((group) => group.group.ready.variant.id)).to.deep.equal(['framed-roof']);
		// A value is a column: nothing has been compiled for it.
		const programs = (model: Model) => groupsOf(model).map(({ group }) => group.program);
		programs(after).forEach((program, k) => expect(program).to.equal(programs(before)[k]));
		expect(after.zones[0]!.model!.faces[0]).to.equal(before.zones[0]!.model!.faces[0]);
		const other = await chain.run(set(demo, 'zones/street/settingOut/up/count', 5));
		expect(other.zones[0]!.model!.faces[0]).to.equal(before.zones[0]!.model!.faces[0]);
		expect(other.zones[1]!.model!.faces[0]).to.not.equal(before.zones[1]!.model!.faces[0]);
	});

	it('a part that stands within another is made anew there too when it changes', async () => {
		const pinwheel = shippedParts.find(({ id }) => id === 'pinwheel')!;
		const project = projectOf(
			sheet(4000, 3000),
			count(4, 3),
			{
				rules: [{ id: 'r', put: { variant: 'twin', values: {} } }],
				pattern: { kind: 'rectangles' }
			},
			{ variants: [{ id: 'twin', name: 'twin', part: 'twin-pinwheel', values: {} }] }
		);
		const chain = new Chain();
		const massOf = (model: Model) =>
			model.zones[0]!.model!.groups.reduce(
				(sum, { group }) => sum + pieceQuantities(group).mass.reduce((a, b) => a + b, 0),
				0
			);
		const before = massOf(await chain.run(project));
		const inputs = pinwheel.inputs.map((input) => (input.name === 'bar' ? { ...input, default: 15 } : input));
		const after = massOf(await chain.run({ ...project, parts: [{ ...pinwheel, inputs }] }));
		expect(before).to.be.above(0);
		expect(after).to.be.below(before);
	});

	it('a swapped part keeps its places and the values that both have, and says what is dropped', async () => {
		const chain = new Chain();
		const before = await chain.run(demo);
		const variant = demo.variants.find(({ id }) => id === 'framed-bronze')!;
		const [from, to] = ['framed-glass', 'deep-window'].map((id) =>
			shippedParts.find((one) => one.id === id)!
		);
		const swap = swapPart(demo, variant, from!, to!);
		expect(swap.kept).to.deep.equal(['Frame depth', 'Frame material']);
		expect(swap.dropped).to.deep.equal(['Frame width']);
		const swapped = applyEdits(demo, swap.edits).project;
		expect(swapped.variants.find(({ id }) => id === variant.id)!.values).to.deep.equal({
			frame_depth: 80,
			frame_material: 'bronze'
		});
		const after = await chain.run(swapped);
		expect(after.problems).to.deep.equal([]);
		const anchors = (model: Model) =>
			model.zones.flatMap((zone) =>
				zone
					.model!.groups.filter(({ group }) => group.ready.variant.id === variant.id)
					.map(({ group }) => [...group.sites])
			);
		expect(anchors(after)).to.deep.equal(anchors(before));
	});

	it('some pieces get another part by a variant with the values that both have, made once and used again', () => {
		const variant = demo.variants.find(({ id }) => id === 'framed-bronze')!;
		const [from, to] = ['framed-glass', 'deep-window'].map((id) =>
			shippedParts.find((one) => one.id === id)!
		) as [PartDefinition, PartDefinition];
		const first = swapPieces(demo, variant, { depth: '100 mm', frame_width: '40 mm' }, from, to);
		expect(first.isNew).to.equal(true);
		expect(demo.variants.some(({ id }) => id === first.variant.id)).to.equal(false);
		expect(first.variant).to.include({ name: variant.name, part: 'deep-window' });
		expect(first.variant.values).to.deep.equal({ frame_depth: 80, frame_material: 'bronze' });
		// The other part has no frame width, and framed glass has no depth piece by piece.
		expect(first.values).to.deep.equal({});
		const given = applyEdits(demo, [
			{ do: 'insert', path: 'variants', index: 0, value: first.variant }
		]).project;
		const again = swapPieces(given, variant, {}, from, to);
		expect([again.isNew, again.variant.id]).to.deep.equal([false, first.variant.id]);
	});

	it('a piece that cannot be made stays: counted, flagged, its cell standing in its place', async () => {
		// Insets that cross in the shorter bays only.
		const part = triedPart(
			[
				{ name: 'in', do: 'inset', ring: 'cell', by: '500 mm' },
				{ name: 'sheet', do: 'plate', ring: 'in', thickness: '5 mm', side: 'in' }
			],
			{ elements: [{ name: 's', label: 'S', category: 'plate', of: ['sheet'], material: 'steel' }] }
		);
		const project = projectOf(
			sheet(5000, 3000),
			{ across: { by: 'list', sizes: [1500, 900], start: 'left' }, up: { by: 'count', count: 2 } },
			{ rules: [{ id: 'r', put: { variant: 'v', values: {} } }] },
			{ parts: [part], variants: [{ id: 'v', name: 'v', part: part.id, values: {} }] }
		);
		const model = await new Chain().run(project);
		const zone = model.zones[0]!.model!;
		const { group } = zone.groups[0]!;
		const short = Array.from(group.sites.keys()).filter(
			(row) => zone.faces[0]!.measures.area[group.sites[row]!]! < 1.4e6
		);
		expect(short.length).to.be.within(2, group.sites.length - 2);
		expect(failedRows(group)).to.deep.equal(short);
		const made = new Set(group.run.elements.flatMap(({ row }) => [...row]));
		expect([...group.sites.keys()].filter((row) => !made.has(row))).to.deep.equal(short);
		for (const row of short) expect(flagTexts(group, row).join()).to.match(/would cross itself/);
		expect(makeSchedule(model, 'panels').rows).to.equal(group.sites.length);
		// The interface draws these cells.
		const [view] = modelMessage(model, new Set(), 0).zones[0]!.groups;
		expect([...(view as GroupView).failed]).to.deep.equal(short.map((row) => group.sites[row]!));
	});

	it('a material of the project stands in the place of one that ships: mass and glass follow it', async () => {
		const zone = (rest: Partial<Project>) =>
			projectOf(
				sheet(4000, 3000),
				count(4, 3),
				{ rules: [{ id: 'r', put: { variant: 'v', values: {} } }] },
				{ variants: [{ id: 'v', name: 'v', part: 'flat-panel', values: { sheet: 'glass' } }], ...rest }
			);
		const of = async (project: Project) => {
			const { groups } = (await new Chain().run(project)).zones[0]!.model!;
			const { mass, glassArea } = pieceQuantities(groups[0]!.group);
			return [mass[0]!, glassArea[0]!];
		};
		const glass = shippedMaterials.find(({ id }) => id === 'glass')!;
		const [mass, area] = (await of(zone({}))) as [number, number];
		expect(area).to.be.above(0);
		const heavy = await of(zone({ materials: [{ ...glass, density: 5000, glass: false }] }));
		expect(heavy[0]! / mass).to.be.closeTo(2, 1e-9);
		expect(heavy[1]).to.equal(0);
		const unknown = zone({});
		unknown.variants[0]!.values = { sheet: 'felt' };
		const { problems } = await new Chain().run(unknown);
		expect(problems[0]!.text).to.match(/the material "felt" is not known; known: glass, /);
	});

	it('a moved form keeps its cells and edges, unless the pattern looks at lengths', async () => {
		const mass = (height: number): Form =>
			revolved(
				[
					[4000, 0],
					[3500, height]
				],
				'line'
			);
		for (const [pattern, kept] of [
			[{ kind: 'triangles', diagonal: 'alternating' }, true],
			[{ kind: 'triangles', diagonal: 'shorter' }, false]
		] as const) {
			const chain = new Chain();
			const zone = count(12, 4);
			const faceOf = async (height: number) =>
				(await chain.run(projectOf(mass(height), zone, { pattern }))).zones[0]!.model!.faces[0]!;
			const [before, after] = [await faceOf(3000), await faceOf(5000)];
			expect(after.grid.positions).to.not.deep.equal(before.grid.positions);
			expect(after.cells === before.cells && after.edges === before.edges).to.equal(kept);
			expect(after.measures).to.not.equal(before.measures);
		}
	});

	it('a clause that cannot be keeps the last good model and names its place, with a way out', async () => {
		const chain = new Chain();
		await chain.run(demo);
		const { points: skins } = (demo.masses[0]!.form as { sections: PathDefinition[] } & Form).sections[0]!;
		const cases: [string, unknown, string, RegExp][] = [
			['zones/plunge/settingOut/across/count', 0, 'zones/plunge/settingOut/across', /0 bays cannot be made/],
			[
				'zones/plunge/settingOut/across',
				{ by: 'count', count: 25 },
				'zones/plunge/pattern',
				/25 does not. 24 and 26 do/
			],
			['masses/drum/form/profile/points/2/0', -50, 'masses/drum/form/profile', /beyond the axis/],
			[
				'masses/gull/form/sections/3/points',
				skins.map(([x, y, z]) => [x, y - 9000, z]),
				'masses/gull/form/sections/3',
				/order|turns back/
			],
			[
				'variants/framed-bronze/part',
				'framed-glas',
				'variants/framed-bronze',
				/"framed-glas" is not in the kit; known: .*framed-glass/
			],
			[
				'variants/framed-bronze/values',
				{ frame_widht: 3 },
				'variants/framed-bronze/values',
				/no input "frame_widht"/
			],
			[
				'zones/street/rules/upper/put/values',
				{ angle: 'area + 1 deg' },
				'zones/street/rules/upper/put/values',
				/mixes an area with an angle/
			]
		];
		for (const [path, value, at, sentence] of cases) {
			const model = await chain.run(set(demo, path, value));
			const problem = model.problems.find((one) => one.at === at);
			expect(problem?.text, `${path}: ${JSON.stringify(model.problems)}`).to.match(sentence);
			expect(model.zones.every((zone) => zone.model)).to.equal(true);
			expect(model.zones.some((zone) => zone.behind)).to.equal(true);
		}
	});

	it('rules: first match wins, a part passes over cells it cannot take, an exception overrides', async () => {
		const rules = [
			{ ...clad.rules[0]!, id: 'blades', put: { variant: 'k', values: {} } },
			{ ...clad.rules[0]!, id: 'open', cells: 'edge' as const, put: 'open' as const }
		];
		const kit = [...variants, { id: 'k', name: 'k', part: 'blade-stack', values: {} }];
		const project = projectOf(
			sheet(8000, 6000),
			count(8, 6),
			{
				pattern: { kind: 'diamonds' },
				rules,
				exceptions: [
					{ id: 'm.wall/C02/B02/2', put: 'open' },
					{ id: 'm.wall/C99/B01/1', put: 'open' }
				]
			},
			{ variants: kit }
		);
		const { assignments, groups } = (await new Chain().run(project)).zones[0]!.model!;
		const [assignment] = assignments;
		const cells = (await new Chain().run(project)).zones[0]!.model!.faces[0]!.cells;
		const whole = cells.kind.filter((kind) => kind === 0).length;
		const hit = [...assignment!.exception].filter((one) => one >= 0).length;
		expect([...assignment!.passed]).to.deep.equal([cells.count - whole, 0]);
		expect(assignment!.taken[0]! + hit + assignment!.taken[1]! + assignment!.untaken).to.equal(cells.count);
		expect(assignment!.waiting).to.include('m.wall/C99/B01/1');
		expect(groups.reduce((sum, group) => sum + group.group.sites.length, 0)).to.equal(assignment!.taken[0]);
	});

	it('an exception whose part cannot hang on its cell is a flag on that piece alone, or told where there is none', async () => {
		const kit = [
			...variants,
			{ id: 'k', name: 'k', part: 'blade-stack', values: {} },
			{ id: 'm', name: 'm', part: 'box-mullion', values: {} }
		];
		const [triangle, diamond, left] = ['m.wall/C01/B01/1', 'm.wall/C02/B03/1', 'm.wall/C01/B03/1'];
		const put = (variant: string) => ({ variant, values: {} });
		const projectWith = (exceptions: object[]) =>
			projectOf(
				sheet(8000, 6000),
				count(8, 6),
				{ pattern: { kind: 'diamonds' }, rules: clad.rules, exceptions } as object,
				{ variants: kit }
			);
		const plain = await new Chain().run(projectWith([]));
		const model = await new Chain().run(
			projectWith([
				{ id: triangle, put: put('k') },
				{ id: diamond, put: put('m') }
			])
		);
		const piecesOf = ({ zones }: typeof model) =>
			zones[0]!.model!.groups.reduce((sum, { group }) => sum + group.sites.length, 0);
		expect(model.zones[0]!.behind).to.equal(false);
		expect(model.problems).to.deep.equal([]);
		expect(piecesOf(model)).to.equal(piecesOf(plain));
		const said = model.zones[0]!.model!.groups.flatMap(({ group }) => group.flags.all());
		expect(said.every(({ code }) => code === 'exception.unfit')).to.equal(true);
		expect(said.map(({ says }) => says).sort()).to.deep.equal([
			`the exception at ${triangle} puts Blade stack, which hangs on cells of 4 corners, and this one has 3`,
			`the exception at ${diamond} puts Box mullion, which hangs on lines, not on cells`
		]);
		// Where the rules leave the cell open there is no piece that could be flagged.
		const open = projectWith([{ id: left, put: put('m') }]);
		const rules = [{ ...open.zones[0]!.rules[0]!, put: 'open' as const }];
		const told = await new Chain().run({ ...open, zones: [{ ...open.zones[0]!, rules }] });
		expect(told.problems).to.deep.equal([
			{
				at: 'zones/z/exceptions',
				text: `the exception at ${left} puts Box mullion, which hangs on lines, not on cells; it stays open`,
				remark: true
			}
		]);
		expect(told.zones[0]!.behind).to.equal(false);
	});
});

describe('the project that is shipped', () => {
	it('has nothing to complain of, and shows what can be done: conditions, drivers, sun, a picture, a guide, nodes', async () => {
		const text = readFileSync(new URL('../../demo/tidal-lido.json', import.meta.url), 'utf8');
		const shipped = readProjectText(text);
		const model = await new Chain().run(shipped);
		expect(model.problems).to.deep.equal([]);
		for (const { model: zone } of model.zones) {
			for (const { untaken } of zone!.assignments) expect(untaken).to.equal(0);
			// Every clause comes to something.
			zone!.zone.rules.forEach(({ id }, k) => {
				const cells = zone!.assignments.reduce((sum, { taken }) => sum + taken[k]!, 0);
				expect(cells, id).to.be.above(0);
			});
			for (const run of zone!.zone.runs) {
				const on = zone!.groups.filter(({ clause }) => clause.kind === 'run' && clause.run.id === run.id);
				expect(on.length, run.id).to.be.above(0);
			}
		}
		// Of the sheet that is laid out by hand what is measured in; its views of the whole take their time.
		const { drawings } = shipped;
		const sheets = drawings.sheets.map((one) => ({
			...one,
			views: one.views.filter(({ of }) => of.shows === 'unrolled')
		}));
		const measured = { ...model, project: { ...model.project, drawings: { ...drawings, sheets } } };
		const own = bookOf(measured, '2026-11-30').filter(({ group }) => group === 'own');
		expect(own.length).to.equal(1);
		const { views, lost } = own[0]!.layout!();
		expect([views.map(({ fault }) => fault), lost]).to.deep.equal([[null], []]);
		const used = new Set(
			model.zones.flatMap(({ model: zone }) => zone!.groups.map(({ group }) => group.ready.part.id))
		);
		expect([...used].sort()).to.deep.equal([
			'blade-stack',
			'bowed-panel',
			'box-mullion',
			'cap-strip',
			'deep-window',
			'flat-panel',
			'folded-hood',
			'framed-glass',
			'hollow-block',
			'node-ball',
			'perforated-sheet',
			'pierced-sheet',
			'pinwheel',
			'pyramid',
			'ring-opening',
			'solid-spandrel',
			'spaced-sleeve',
			'split-panel',
			'standing-post',
			'sun-hood',
			'tee-mullion',
			'truss-cell',
			'tube-edge',
			'twin-pinwheel',
			'upright-fins',
			'woven-tube'
		]);
		for (const named of [
			'keeps out',
			'hours_of_sun',
			'picture.ripples',
			'distance.swim_line',
			'slope',
			'"levels"'
		])
			expect(text).to.include(named);
	});
});
