import { expect } from 'chai';
import { Chain } from '../../src/core/chain/chain';
import type { Model, ZoneModel } from '../../src/core/cladding/model';
import { findClashes } from '../../src/core/clash/find';
import { distance, pointAt } from '../../src/core/geometry/vector';
import type { Form } from '../../src/core/project/form-schema';
import { readProject } from '../../src/core/project/read';
import type { Project } from '../../src/core/project/schema';
import { count, projectOf, revolved, sheet } from '../faces';

/** A truss of tubes: a wall's grid, one behind it, and the web between them. */
const [BAYS, COURSES, STEP, DEPTH] = [6, 4, 1500, 1000];
const [CHORD, WEB] = [120, 60];
const tube = {
	id: 'tube',
	label: 'Tube',
	role: 'mullion',
	use: 'Carries what stands before it.',
	limits: [],
	measures: [],
	anchor: { kind: 'pair' },
	inputs: [
		{ name: 'material', label: 'Material', kind: 'material', default: 'steel', scope: 'shared' },
		{ name: 'diameter', label: 'Diameter', kind: 'length', default: 60, scope: 'shared' }
	],
	steps: [
		{
			name: 'pipe',
			do: 'bar',
			path: 'line',
			profile: { shape: 'round', diameter: 'diameter' },
			facing: 'normal',
			placed: 'middle'
		}
	],
	elements: [{ name: 'pipe', label: 'Pipe', category: 'bar', of: ['pipe'], material: 'material' }]
};
const variant = (id: string, diameter: number) => ({ id, name: id, part: 'tube', values: { diameter } });
const chords = { id: 'c', lines: ['bay', 'course', 'rim'], variant: 'chord', ends: { is: 'mitred' } };

interface Truss {
	readonly ends: object | null;
	readonly bars?: readonly string[];
	readonly shifted?: boolean;
	readonly chord?: number;
	readonly chordEnds?: object | null;
	readonly bays?: number;
}
function trussOf(
	form: Form,
	{ ends, bars = ['upright'], shifted = false, chord, chordEnds, bays = BAYS }: Truss
): Project {
	const grid = count(bays, COURSES);
	const top = { ...chords, ...(chordEnds !== undefined && { ends: chordEnds }) };
	const project = projectOf(form, grid, { runs: [top] } as never, {
		parts: [tube] as never,
		variants: [variant('chord', chord ?? CHORD), variant('web', WEB)]
	});
	const behind = (id: string, on: object, runs: readonly object[]) => ({
		id,
		code: id.toUpperCase(),
		name: id,
		faces: [],
		settingOut: grid,
		pattern: { kind: 'rectangles' },
		on,
		runs
	});
	return readProject({
		...project,
		zones: [
			behind('web', { is: 'web', from: 'z', to: 'low', bars }, [
				{ id: 'w', lines: bars, variant: 'web', ends }
			]),
			project.zones[0]!,
			behind('low', { is: 'layer', of: 'z', depth: `-${DEPTH} mm`, shifted }, [top])
		]
	} as never);
}

async function modelOf(project: Project, chain = new Chain()): Promise<Model> {
	const model = await chain.run(project);
	expect(model.problems.filter(({ remark }) => !remark)).to.deep.equal([]);
	return model;
}
const zoneOf = (model: Model, id: string): ZoneModel => model.zones.find((zone) => zone.id === id)!.model!;
/** Each bar of a zone with its length and that of its line. */
const barsOf = ({ faces, groups }: ZoneModel) =>
	groups.flatMap(({ group, face }) =>
		group.run.elements.flatMap(({ row, length }) =>
			Array.from(length, (own, k) => {
				const { edges, grid } = faces[face]!;
				const line = group.sites[row[k]!]!;
				const [from, to] = [edges.from[line]!, edges.to[line]!];
				return { own, line: distance(pointAt(grid.positions, from), pointAt(grid.positions, to)) };
			})
		)
	);
/** How deep a web's bars reach into others and into each other, those that hang on the same node too: of each pair (mm). */
async function depthsOfWeb(model: Model): Promise<readonly number[]> {
	const apart = {
		...model,
		zones: model.zones.map((zone) => ({
			...zone,
			model: {
				...zone.model!,
				groups: zone.model!.groups.map((one) => ({ ...one, group: { ...one.group, over: 'cell' as const } }))
			}
		}))
	};
	const { depth, one, other, zone, looked } = await findClashes(apart, 1);
	expect(looked).to.be.greaterThan(100);
	const isWeb = (piece: number) => model.zones[zone[piece]!]!.id === 'web';
	return [...depth].filter((_, k) => isWeb(one[k]!) || isWeb(other[k]!));
}
/** A tube is drawn with so many flat sides, and with the area of the round one: its corners are so much further out. */
const SIDES = 16;
const DRAWN = Math.sqrt((2 * Math.PI) / SIDES / Math.sin((2 * Math.PI) / SIDES));
const WALL = sheet(BAYS * STEP, COURSES * STEP);

describe('ends of bars in space', () => {
	it('uprights end at the sides of the tubes they stand between, whichever zone is said first', async () => {
		for (const ends of [
			{ is: 'mitred', others: true },
			{ is: 'butted', through: 'bay', others: true }
		]) {
			const own = barsOf(zoneOf(await modelOf(trussOf(WALL, { ends })), 'web'));
			expect(own).to.have.length((BAYS + 1) * (COURSES + 1));
			for (const { own: length } of own) {
				expect(length).to.be.at.least(DEPTH - DRAWN * CHORD - 0.01);
				expect(length).to.be.at.most(DEPTH - DRAWN * CHORD * Math.cos(Math.PI / SIDES));
			}
		}
		for (const ends of [null, { is: 'mitred', others: false }])
			for (const { own, line } of barsOf(zoneOf(await modelOf(trussOf(WALL, { ends })), 'web')))
				expect(own).to.be.closeTo(line, 0.01);
	});

	it('set back they end so far along their own way before the node, diagonals as well as uprights', async () => {
		const ends = { is: 'set back', by: 85, others: true };
		const own = barsOf(zoneOf(await modelOf(trussOf(WALL, { ends, bars: ['upright', 'diagonal'] })), 'web'));
		expect(new Set(own.map(({ line }) => Math.round(line))).size).to.equal(2);
		for (const { own: length, line } of own) expect(length).to.be.closeTo(line - 170, 0.02);
	});

	it('diagonals of a double-layer grid end at its chords and at each other: nothing is there twice', async () => {
		const vault = revolved(
			[
				[9000, 0],
				[8000, 3000],
				[6500, 5500]
			],
			'smooth'
		);
		for (const [form, bays] of [
			[WALL, BAYS],
			[vault, 20]
		] as const) {
			const truss = { bars: ['diagonal'], shifted: true, bays } as const;
			const before = await depthsOfWeb(await modelOf(trussOf(form, { ...truss, ends: null })));
			const after = await depthsOfWeb(
				await modelOf(trussOf(form, { ...truss, ends: { is: 'mitred', others: true } }))
			);
			// Before, every bar is in the way of others; what is left is where chords of a round mass are mitred.
			expect(before.length).to.be.greaterThan(500);
			expect(Math.max(...before)).to.be.greaterThan(60);
			expect(after.length).to.be.lessThan(before.length / 50);
			expect(Math.max(0, ...after)).to.be.lessThan(8);
		}
	});

	it('in a chain that is kept they follow the tubes of the grids: wider chords leave shorter bars', async () => {
		const chain = new Chain();
		const ends = { is: 'mitred', others: true };
		const lengths: number[] = [];
		for (const chord of [120, 200, 120]) {
			const model = await modelOf(trussOf(WALL, { ends, chord }), chain);
			lengths.push(barsOf(zoneOf(model, 'web'))[0]!.own);
		}
		const [narrow, wide, again] = lengths;
		expect(narrow! - wide!).to.be.closeTo(80, 2);
		expect(again).to.equal(narrow);
	});

	it('chords that end at others themselves go on for the web all the same', async () => {
		const ends = { is: 'mitred', others: true };
		const [plain, ended] = await Promise.all(
			[{ is: 'mitred' }, { is: 'mitred', others: true }].map(async (chordEnds) =>
				barsOf(zoneOf(await modelOf(trussOf(WALL, { ends, chordEnds })), 'web')).map(({ own }) => own)
			)
		);
		expect(ended).to.deep.equal(plain);
	});
});
