import { expect } from 'chai';
import Module from 'manifold-3d';
import fc from '../property';
import { Chain } from '../../src/core/chain/chain';
import type { FaceModel, ZoneModel } from '../../src/core/cladding/model';
import type { PieceGroup } from '../../src/core/cladding/pieces';
import { kindOf } from '../../src/core/cladding/address';
import type { Form, TrimDefinition, TrimOf } from '../../src/core/project/form-schema';
import type { Variant, ZoneInput } from '../../src/core/project/schema';
import { flagSentence } from '../../src/core/units/flag';
import { count, projectOf, revolved } from '../faces';
import { cornersOf, facesOf, volumeWithin } from '../trial-run';

/** A level sheet at z 4000, its outside up. */
const deck = (width = 12000, depth = 9000): Form => ({
	kind: 'net',
	degrees: [1, 1],
	points: 'control',
	rows: [0, depth].map((y) => [
		[0, y, 4000],
		[width, y, 4000]
	])
});
const outline = (part: Partial<TrimOf<'outline'>>): TrimDefinition => ({
	by: 'outline',
	id: 't',
	within: 1,
	face: 'skin',
	keep: 'outside',
	outline: { shape: 'circle', radius: 2100 },
	at: [6000, 4500, 0],
	turn: 0,
	direction: [0, 0, 1],
	...part
});
const THICKNESS = 12;
const sheetOf = (part: string, values: Variant['values'] = {}): Variant => ({
	id: 'v',
	name: 'v',
	part,
	values
});
const plate = sheetOf('flat-panel', { joint: 0, thickness: THICKNESS });

async function clad(
	form: Form,
	trims: TrimDefinition[],
	variant: Variant,
	put: object = { cut: 'clip' },
	grid = count(8, 6),
	zone: Partial<ZoneInput> = {}
): Promise<ZoneModel> {
	const rules = [{ id: 'r', put: { variant: 'v', ...put } }];
	const project = projectOf(form, grid, { rules, ...zone } as never, { variants: [variant] });
	const masses = [{ ...project.masses[0]!, trims }];
	const model = await new Chain().run({ ...project, masses });
	expect(model.problems.filter(({ remark }) => !remark)).to.deep.equal([]);
	return model.zones[0]!.model!;
}
const groupsOf = ({ groups }: ZoneModel): PieceGroup[] => groups.map(({ group }) => group);
const clippedOf = (zone: ZoneModel) => groupsOf(zone).filter(({ left }) => left);
const cutCells = ({ cells }: FaceModel) =>
	Array.from({ length: cells.count }, (_, c) => c).filter((c) => kindOf(cells, c) === 'cut');

/** Volumes by the site that they stand on. */
function volumes(groups: readonly PieceGroup[]): Map<number, number> {
	const sums = new Map<number, number>();
	for (const { sites, run } of groups)
		for (const { row, volume } of run.elements)
			row.forEach((r, k) => sums.set(sites[r]!, (sums.get(sites[r]!) ?? 0) + volume[k]!));
	return sums;
}
/** Every mesh of groups. */
const meshesOf = (groups: readonly PieceGroup[]) =>
	groups.flatMap(({ run }) =>
		run.elements.flatMap((table) =>
			Array.from({ length: table.count }, (_, k) => ({
				corners: cornersOf(table, k),
				triangles: facesOf(table, k),
				volume: table.volume[k]!
			}))
		)
	);
/** Every side of a mesh's triangles is one of another's, the other way round. */
function isClosed(triangles: readonly number[]): boolean {
	const open = new Set<string>();
	for (let t = 0; t < triangles.length; t += 3)
		for (let k = 0; k < 3; k++) {
			const [a, b] = [triangles[t + k]!, triangles[t + ((k + 1) % 3)]!];
			if (!open.delete(`${b} ${a}`)) open.add(`${a} ${b}`);
		}
	return open.size === 0;
}

describe('parts clipped where trims cut their cells', () => {
	it('plates on a level sheet come to their cells’ area times their thickness, whatever cuts them', async () => {
		await fc.assert(
			fc.asyncProperty(
				fc.constantFrom('rectangle', 'circle', 'inside'),
				fc.integer({ min: 900, max: 3300 }),
				fc.integer({ min: 2500, max: 9500 }),
				fc.integer({ min: 1500, max: 7500 }),
				fc.integer({ min: 0, max: 89 }),
				fc.constantFrom('rectangles', 'diamonds', 'herringbone', 'running bond'),
				async (shape, size, x, y, turn, pattern) => {
					const cut = outline({
						outline:
							shape === 'rectangle'
								? { shape: 'rectangle', width: size, depth: 0.7 * size, rounding: 0 }
								: { shape: 'circle', radius: size },
						keep: shape === 'inside' ? 'inside' : 'outside',
						at: [x, y, 0],
						turn
					});
					const zone = await clad(deck(), [cut], plate, undefined, undefined, {
						pattern: { kind: pattern } as never
					});
					const face = zone.faces[0]!;
					const made = volumes(groupsOf(zone));
					for (const c of cutCells(face)) {
						const wanted = THICKNESS * face.measures.area[c]!;
						// A clip of less than a millionth of the whole is nothing.
						expect(made.get(c) ?? 0).to.be.closeTo(wanted, 1e-4 * wanted + 30);
					}
				}
			),
			{ numRuns: 40 }
		);
	});

	it('are cut on bent faces too, where corners of what is left lie in a line: each of them, and closed', async () => {
		const shell = revolved(
			[
				[4700, 0],
				[8900, 4000],
				[6000, 9000]
			],
			'smooth',
			300
		);
		const cut = fc.record({
			at: fc.tuple(fc.integer({ min: -1500, max: 1500 }), fc.integer({ min: 1500, max: 7500 })),
			size: fc.integer({ min: 400, max: 1900 }),
			kind: fc.constantFrom('running bond', 'hexagons', 'triangles', 'diamonds'),
			along: fc.constantFrom('true length' as const, 'level planes' as const, 'geodesics' as const)
		});
		await fc.assert(
			fc.asyncProperty(cut, async ({ at: [x, z], size, kind, along }) => {
				const hole = outline({
					outline: { shape: 'ellipse', width: 2 * size, depth: 1.4 * size },
					at: [x, 0, z],
					face: 'shell',
					direction: [0, 1, 0]
				});
				const grid = { ...count(28, 14), along };
				const zone = await clad(shell, [hole], plate, undefined, grid, { pattern: { kind } as never });
				const told = clippedOf(zone).flatMap(({ flags }) => flags.all().map(({ code }) => code));
				expect(told).to.not.include('piece.not-closed');
				for (const { triangles } of meshesOf(clippedOf(zone))) expect(isClosed(triangles)).to.equal(true);
				// Cells that are cut lie on the face, plates in the plane of the whole cell.
				const sum = (values: Iterable<number>) => [...values].reduce((all, one) => all + one, 0);
				const made = sum(volumes(groupsOf(zone)).values());
				expect(made / sum(zone.faces[0]!.measures.area)).to.be.closeTo(THICKNESS, 0.02 * THICKNESS);
			}),
			{ numRuns: 40 }
		);
	});

	it('blades, frames and glass stay closed, say their own volume, and leave a round opening free', async () => {
		const R = 2100;
		for (const part of ['blade-stack', 'framed-glass', 'pinwheel', 'hollow-block']) {
			const zone = await clad(deck(), [outline({})], sheetOf(part), undefined, undefined, {
				layer: { depth: '-300 mm', shifted: false }
			} as never);
			const meshes = meshesOf(clippedOf(zone));
			expect(meshes.length, part).to.be.at.least(12);
			for (const { corners, triangles, volume } of meshes) {
				expect(isClosed(triangles), part).to.equal(true);
				expect(volumeWithin(corners, triangles)).to.be.closeTo(volume, 2e-4 * volume + 1);
				const { origin } = zone.faces[0]!;
				for (let k = 0; k < corners.length; k += 3) {
					const away = Math.hypot(corners[k]! + origin[0] - 6000, corners[k + 1]! + origin[1] - 4500);
					// The curve of the opening is within 1 mm of the circle.
					expect(away).to.be.greaterThan(R - 1.01);
				}
			}
		}
	});

	it('are what the library of solids leaves of the whole part outside a drill through all', async () => {
		const solids = await Module();
		solids.setup();
		const { Manifold, Mesh } = solids;
		const whole = await clad(deck(), [], sheetOf('framed-glass'), {});
		const zone = await clad(deck(), [outline({})], sheetOf('framed-glass'));
		const circle = Array.from({ length: 720 }, (_, k): [number, number] => [
			6000 + 2100 * Math.cos((k * Math.PI) / 360),
			4500 + 2100 * Math.sin((k * Math.PI) / 360)
		]);
		const drill = Manifold.extrude([circle], 4000).translate([0, 0, 2000]);
		const { origin } = whole.faces[0]!;
		let wanted = 0;
		for (const { corners, triangles } of meshesOf(groupsOf(whole))) {
			const mesh = new Mesh({
				numProp: 3,
				vertProperties: corners.map((value, k) => value + origin[k % 3]!),
				triVerts: Uint32Array.from(triangles)
			});
			wanted += Manifold.ofMesh(mesh).subtract(drill).volume();
		}
		const made = [...volumes(groupsOf(zone)).values()].reduce((a, b) => a + b, 0);
		expect(made).to.be.closeTo(wanted, 1e-4 * wanted);
	});

	it('of a cylinder with an opening in its side come to what is left of its surface', async () => {
		const opening = outline({
			outline: { shape: 'circle', radius: 1900 },
			at: [0, 0, 3500],
			face: 'shell',
			direction: [1, 0, 0]
		});
		const drum = revolved([
			[9000, 0],
			[9000, 7000]
		]);
		const zone = await clad(drum, [opening], plate, undefined, count(40, 7));
		const face = zone.faces[0]!;
		const cut = cutCells(face);
		expect(cut.length).to.be.greaterThan(8);
		const made = volumes(clippedOf(zone));
		const sum = (of: (c: number) => number) => cut.reduce((total, c) => total + of(c), 0);
		// Flat plates behind the chords: their middles lie 6 mm nearer to the axis, 0.07 % of the radius.
		expect(sum((c) => made.get(c) ?? 0)).to.be.closeTo(
			sum((c) => THICKNESS * face.measures.area[c]!),
			4e-3 * sum((c) => THICKNESS * face.measures.area[c]!)
		);
		const { origin } = face;
		for (const { corners } of meshesOf(clippedOf(zone)))
			for (let k = 0; k < corners.length; k += 3) {
				if (corners[k]! + origin[0] < 0) continue;
				const away = Math.hypot(corners[k + 1]! + origin[1], corners[k + 2]! + origin[2] - 3500);
				// On the chord of a bay and behind it by the thickness, along normals that lean together: 40 mm of 9 m.
				expect(away).to.be.greaterThan(1900 - 1 - (1900 * 40) / 9000);
			}
	});

	it('keep address and stock; their share of the whole is told, and what is nearly nothing is flagged', async () => {
		// The edge of the opening is 8 mm inside a row of cells 1500 mm wide.
		const cut = outline({
			outline: { shape: 'rectangle', width: 3000, depth: 2984, rounding: 0 },
			at: [6000, 4500, 0]
		});
		const zone = await clad(deck(), [cut], plate);
		const [group] = clippedOf(zone);
		const face = zone.faces[0]!;
		expect([...group!.sites]).to.deep.equal(cutCells(face));
		expect(Math.max(...group!.left!)).to.be.lessThan(1);
		group!.left!.forEach((left, row) =>
			expect(left).to.be.closeTo(face.cells.share[group!.sites[row]!]!, 1e-6)
		);
		expect(group!.run.elements[0]!.stock!.sizes[0]![0]).to.equal(THICKNESS);
		// What limits say of pieces so small is another matter.
		const flags = group!.flags.all().filter(({ code }) => code !== 'limit.beyond');
		const told = flags.map(flagSentence);
		expect(told).to.deep.equal(Array.from({ length: told.length }, () => 'the trim leaves only 1 % of it'));
		expect(told).to.have.length(4);
	});

	it('of which nothing is left are not made, and it is said', async () => {
		// Of the cells at the corners a strip of 8 mm is left, and the joint is 10.
		const cut = outline({
			outline: { shape: 'rectangle', width: 3000, depth: 2984, rounding: 0 },
			at: [6000, 4500, 0]
		});
		const zone = await clad(deck(), [cut], sheetOf('flat-panel', { joint: 10 }));
		const [group] = clippedOf(zone);
		const lost = group!.flags.failed();
		expect(lost).to.have.length(4);
		for (const row of lost) {
			expect(group!.left![row]).to.equal(0);
			expect(group!.flags.of(row).map(flagSentence)).to.deep.equal(['the trim leaves nothing of it']);
		}
		expect(volumes([group!]).size).to.equal(group!.sites.length - 4);
	});

	it('leave what adapts as it was, and go back to it', async () => {
		const adapted = await clad(deck(), [outline({})], plate, {});
		expect(clippedOf(adapted)).to.have.length(0);
		const louvers = await clad(deck(), [outline({})], sheetOf('blade-stack'), {});
		const clipped = await clad(deck(), [outline({})], sheetOf('blade-stack'));
		expect(louvers.assignments[0]!.untaken).to.be.greaterThan(4);
		expect(clipped.assignments[0]!.untaken).to.equal(0);
	});
});
