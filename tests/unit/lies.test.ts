import { expect } from 'chai';
import fc from '../property';
import { Chain } from '../../src/core/chain/chain';
import type { Model } from '../../src/core/cladding/model';
import { cornerTaken, numberOfCorner } from '../../src/core/cladding/lie';
import type { ElementShape } from '../../src/core/part/element-table';
import { placesOf, trianglesOf } from '../../src/core/part/places';
import { partSchema, type PartDefinition } from '../../src/core/project/part-definition';
import type { Project } from '../../src/core/project/schema';
import { cellsOf } from '../../src/core/schedule/column';
import { makeSchedule } from '../../src/core/schedule/table';
import { count, projectOf, sheet } from '../faces';

/** A block on one side of its first edge, unlike its own mirror image, with as many turns of itself as are drawn. */
const hook: PartDefinition = partSchema.parse({
	id: 'hook',
	label: 'Hook',
	role: 'structure',
	use: 'tests',
	anchor: { kind: 'ring', corners: 4 },
	inputs: [
		{ name: 'reach', label: 'Reach', kind: 'length', default: 300, min: 1, max: 900, scope: 'per piece' }
	],
	limits: [],
	steps: [
		{ name: 'out', do: 'lift', of: 'corner1', by: 'reach', along: 'normal' },
		{ name: 'along', do: 'line', from: 'corner1', to: 'corner2' },
		{ name: 'third', do: 'point on path', path: 'along', ratio: '0.3', from: 'start' },
		{ name: 'arm', do: 'line', from: 'out', to: 'third' },
		{
			name: 'bar',
			do: 'bar',
			path: 'arm',
			profile: { shape: 'box', width: '40 mm', depth: '20 mm' },
			facing: 'normal'
		},
		{ name: 'inner', do: 'inset', ring: 'cell', by: '100 mm' },
		{ name: 'sheet', do: 'plate', ring: 'inner', thickness: '10 mm', side: 'in' }
	],
	elements: [
		{ name: 'arm', label: 'Arm', category: 'bar', of: ['bar'], material: 'aluminium' },
		{ name: 'sheet', label: 'Sheet', category: 'plate', of: ['sheet'], material: 'aluminium' }
	],
	measures: []
});
const variants = [{ id: 'h', name: 'h', part: 'hook', values: {} }];
const project = (put: object, more: object = {}, across = 1, up = 1): Project =>
	projectOf(
		sheet(across * 2000, up * 1000),
		count(across, up),
		{ rules: [{ id: 'all', put: { variant: 'h', values: {}, ...put } }], ...more } as never,
		{ variants, parts: [hook] }
	);
async function made(given: Project): Promise<Model> {
	const model = await new Chain().run(given);
	expect(model.problems).to.deep.equal([]);
	return model;
}
const groupsOf = (model: Model) => model.zones[0]!.model!.groups;

/** Places of all elements of one piece (mm), sorted, rounded to a micron. */
function places(model: Model, site = 0): number[][] {
	const found: number[][] = [];
	for (const { group } of groupsOf(model)) {
		const row = [...group.sites].indexOf(site);
		if (row < 0) continue;
		for (const table of group.run.elements)
			for (let k = 0; k < table.count; k++)
				if (table.row[k] === row) {
					const xyz = placesOf(table.shape, k);
					for (let v = 0; v < xyz.length; v += 3) found.push([xyz[v]!, xyz[v + 1]!, xyz[v + 2]!]);
				}
	}
	return found;
}
const sorted = (points: readonly (readonly number[])[]) =>
	points.map((p) => p.map((value) => (Math.round(value * 100) / 100 + 0).toFixed(2)).join(' ')).sort();
/** The room in a closed mesh, positive where it looks outward (mm³). */
function roomIn(shape: ElementShape, instance: number): number {
	const xyz = placesOf(shape, instance);
	const triangles = trianglesOf(shape, instance);
	let room = 0;
	for (let t = 0; t < triangles.length; t += 3) {
		const [a, b, c] = [0, 1, 2].map((k) => 3 * triangles[t + k]!) as [number, number, number];
		room +=
			(xyz[a]! * (xyz[b + 1]! * xyz[c + 2]! - xyz[b + 2]! * xyz[c + 1]!) -
				xyz[a + 1]! * (xyz[b]! * xyz[c + 2]! - xyz[b + 2]! * xyz[c]!) +
				xyz[a + 2]! * (xyz[b]! * xyz[c + 1]! - xyz[b + 1]! * xyz[c]!)) /
			6;
	}
	return room;
}

describe('how a part lies on its cell', () => {
	it('takes every corner once, the other way round where it is flipped or mirrored but not both', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: 3, max: 9 }),
				fc.nat(8),
				fc.boolean(),
				fc.boolean(),
				(corners, turn, flip, mirror) => {
					const lie = { turn: turn % corners, flip, mirror };
					const taken = Array.from({ length: corners }, (_, k) => cornerTaken(lie, corners, k));
					expect([...taken].sort((a, b) => a - b)).to.deep.equal(taken.map((_, k) => k));
					taken.forEach((corner, k) => expect(numberOfCorner(lie, corners, corner)).to.equal(k + 1));
					const way = (taken[1]! - taken[0]! + corners) % corners;
					expect(way).to.equal(flip !== mirror ? corners - 1 : 1);
				}
			)
		);
		// Its foot stays the foot: corners 1 and 2 change places.
		const mirrored = { turn: 0, flip: false, mirror: true };
		expect([0, 1, 2, 3].map((k) => cornerTaken(mirrored, 4, k))).to.deep.equal([1, 0, 3, 2]);
	});

	it('mirrored, flipped and turned pieces are the images of the one that is drawn, outward and as heavy', async () => {
		// One cell, 2 m by 1 m, in the plane y = 0; its middle is at x = 1000, z = 500.
		const drawn = places(await made(project({})));
		const images: [object, (p: readonly number[]) => number[]][] = [
			[{ mirror: true }, ([x, y, z]) => [2000 - x!, y!, z!]],
			[{ flip: true }, ([x, y, z]) => [2000 - x!, -y!, z!]],
			[{ flip: true, mirror: true }, ([x, y, z]) => [x!, -y!, z!]],
			[{ turn: 2 }, ([x, y, z]) => [2000 - x!, y!, 1000 - z!]],
			[{ turn: 2, mirror: true }, ([x, y, z]) => [x!, y!, 1000 - z!]],
			[{ turn: -2, flip: true }, ([x, y, z]) => [x!, -y!, 1000 - z!]]
		];
		for (const [put, image] of images) {
			const model = await made(project(put));
			expect(sorted(places(model)), JSON.stringify(put)).to.deep.equal(sorted(drawn.map(image)));
			for (const { group } of groupsOf(model))
				for (const table of group.run.elements)
					for (let k = 0; k < table.count; k++) {
						const room = roomIn(table.shape, k);
						expect(room, JSON.stringify(put)).to.be.above(0);
						expect(room / table.volume[k]!).to.be.closeTo(1, 1e-4);
					}
		}
	});

	it('goes by drivers and formulas: every other one turned inside out, bays turned one after another', async () => {
		const chequered = await made(project({ flip: 'mod(course + bay, 2) == 0' }, {}, 4, 3));
		const flipped = groupsOf(chequered).filter(({ group }) => group.lie.flip);
		expect(flipped.reduce((sum, { group }) => sum + group.sites.length, 0)).to.equal(6);
		const { cells } = chequered.zones[0]!.model!.faces[0]!;
		for (const { group } of flipped)
			for (const c of group.sites) expect((cells.course[c]! + cells.bay[c]!) % 2).to.equal(0);
		const turned = await made(
			project({ turn: { is: 'alternates', values: [0, 1, 2, 3, 4], by: 'bays' } }, {}, 5, 1)
		);
		const turnOf = new Map(
			groupsOf(turned).flatMap(({ group }) => [...group.sites].map((c) => [c, group.lie.turn] as const))
		);
		expect([0, 1, 2, 3, 4].map((c) => turnOf.get(c))).to.deep.equal([0, 1, 2, 3, 0]);
		const { problems } = await new Chain().run(project({ turn: 'area' }));
		expect(problems.map(({ at }) => at)).to.deep.equal(['zones/z/rules/all/put/turn']);
	});

	it('by hand: some cells with another value or lie, as the rules say otherwise, and so when the rule changes', async () => {
		const site = (course: number, bay: number) => ({ id: `m.wall/C0${course}/B0${bay}/1`, place: null });
		const exceptions = [
			{
				id: 'deep',
				put: { as: 'the rules say', values: { reach: '700 mm', nothing: '1 mm' }, mirror: true },
				sites: [site(1, 2), site(2, 3)]
			}
		];
		const model = await made(project({ values: { reach: '400 mm' } }, { exceptions }, 4, 3));
		const { cells } = model.zones[0]!.model!.faces[0]!;
		const reach = new Map<number, number>();
		for (const { group, clause } of groupsOf(model)) {
			expect(clause.kind).to.equal('rule');
			group.sites.forEach((c, row) => reach.set(c, group.perPiece.get('reach')![row]!));
			expect(group.lie.mirror).to.equal(group.perPiece.get('reach')![0] === 700);
		}
		for (let c = 0; c < cells.count; c++) {
			const isChosen =
				(cells.course[c] === 1 && cells.bay[c] === 2) || (cells.course[c] === 2 && cells.bay[c] === 3);
			expect(reach.get(c)).to.equal(isChosen ? 700 : 400);
		}
		// They stay the rule's: counted there, and following what it puts.
		expect([...model.zones[0]!.model!.assignments[0]!.taken]).to.deep.equal([12]);
	});

	it('a schedule tells it where any lies otherwise than as it was drawn, and has no column for it where none does', async () => {
		const lies = async (put: object) =>
			makeSchedule(await made(project(put, {}, 2)), 'structure').columns.find(({ key }) => key === 'lies');
		expect(await lies({})).to.equal(undefined);
		const mirrored = await lies({ mirror: { is: 'alternates', values: ['false', 'true'], by: 'bays' } });
		expect(cellsOf(mirrored!)).to.deep.equal(['', 'opposite hand']);
	});
});
