import { expect } from 'chai';
import { readFileSync } from 'node:fs';
import * as webIfc from 'web-ifc';
import { Chain } from '../../src/core/chain/chain';
import type { Model } from '../../src/core/cladding/model';
import { writeIfc } from '../../src/core/exchange/ifc/write';
import { drawingFonts } from '../../src/cli/fonts';
import { quickPacking } from '../../src/cli/packing';
import { formats } from '../../src/core/exchange/formats';
import { readProjectText } from '../../src/core/project/read';
import type { Project, ZoneInput } from '../../src/core/project/schema';
import { cellsOf } from '../../src/core/schedule/column';
import { makeSchedule } from '../../src/core/schedule/table';
import { count, projectOf, sheet } from '../faces';

const load = async (file: string) =>
	new Chain().run(readProjectText(readFileSync(new URL(file, import.meta.url), 'utf8')));

/** Points of pieces by address, as the schedule lists them. */
function listed(model: Model): Map<string, { node: string; at: number[] }[]> {
	const { columns, rows } = makeSchedule(model, 'anchors');
	const column = (key: string) => cellsOf(columns.find((one) => one.key === key)!);
	const [address, point, node, x, y, z] = ['address', 'point', 'node', 'x', 'y', 'z'].map(column);
	const pieces = new Map<string, { node: string; at: number[] }[]>();
	for (let row = 0; row < rows; row++) {
		const known = pieces.get(String(address![row])) ?? [];
		// They are counted from 1, and follow one another.
		expect(point![row]).to.equal(known.length + 1);
		known.push({ node: String(node![row]), at: [x!, y!, z!].map((axis) => Number(axis[row])) });
		pieces.set(String(address![row]), known);
	}
	return pieces;
}

async function oneSheet(
	part: string,
	zone: Partial<Omit<ZoneInput, 'settingOut'>>,
	joint = 0
): Promise<Model> {
	const variants: Project['variants'] = [{ id: 'v', name: 'One', part, values: {} }];
	const model = await new Chain().run(
		projectOf(sheet(4000, 2000), { ...count(2, 2), joint }, zone, { variants })
	);
	expect(model.problems).to.deep.equal([]);
	return model;
}
const onAllCells = [{ id: 'all', put: { variant: 'v', values: {} } }];

describe('the points that pieces hang on', () => {
	it('rebuild the corners of every panel, in the order that the part counts them, with marks of nodes that are there', async () => {
		const model = await load('../lido.json');
		const pieces = listed(model);
		const nodes = makeSchedule(model, 'nodes');
		const known = new Set(cellsOf(nodes.columns.find(({ key }) => key === 'mark')!));
		let checked = 0;
		for (const { model: zone } of model.zones)
			for (const { face: f, group } of zone!.groups) {
				const face = zone!.faces[f]!;
				const { over, sites, lie, left } = group;
				if (over !== 'cell' || face.joint > 0 || lie.flip || lie.mirror || left) continue;
				for (const site of sites) {
					const ring = face.cells.corners.subarray(face.cells.start[site]!, face.cells.start[site + 1]!);
					const corner = (k: number) => {
						const node = ring[(k + lie.turn) % ring.length]!;
						return [0, 1, 2].map((a) => face.grid.positions[3 * node + a]!);
					};
					const address = makeAddress(zone!.zone.id, face.address, face.cells, site);
					const points = pieces.get(address)!;
					expect(points, address).to.have.length(ring.length);
					for (const [k, { node, at }] of points.entries()) {
						expect(known.has(node), node).to.equal(true);
						for (let a = 0; a < 3; a++) expect(at[a]).to.be.closeTo(corner(k)[a]!, 1e-6);
					}
					checked++;
				}
			}
		expect(checked).to.be.greaterThan(300);
	});

	it('a turned piece begins at another corner; a joint moves its points off the nodes; a space has those behind', async () => {
		const plain = await oneSheet('framed-glass', { rules: onAllCells });
		const turned = await oneSheet('framed-glass', {
			rules: [{ id: 'all', put: { variant: 'v', values: {}, turn: 1 } }]
		});
		const [first, then] = [[...listed(plain).values()][0]!, [...listed(turned).values()][0]!];
		expect(then.map(({ node }) => node)).to.deep.equal(
			[...first.slice(1), first[0]!].map(({ node }) => node)
		);

		// Of the opposite hand it goes round the other way, its foot still the foot.
		const mirrored = await oneSheet('framed-glass', {
			rules: [{ id: 'all', put: { variant: 'v', values: {}, mirror: true } }]
		});
		expect([...listed(mirrored).values()][0]).to.deep.equal([1, 0, 3, 2].map((k) => first[k]!));

		// The sides of its cells are square: half the joint from both.
		const jointed = [...listed(await oneSheet('framed-glass', { rules: onAllCells }, 20)).values()][0]!;
		for (const [k, { node, at }] of jointed.entries()) {
			expect(node).to.equal(first[k]!.node);
			expect(Math.hypot(...at.map((value, a) => value - first[k]!.at[a]!))).to.be.closeTo(
				10 * Math.SQRT2,
				1e-6
			);
		}

		const space = [
			...listed(await oneSheet('hollow-block', { rules: onAllCells, layer: { depth: '-600 mm' } }))
		];
		for (const [, points] of space) {
			expect(points).to.have.length(8);
			for (const [k, { node, at }] of points.slice(4).entries()) {
				expect(node).to.equal(`${points[k]!.node} behind`);
				expect(Math.hypot(...at.map((value, a) => value - points[k]!.at[a]!))).to.be.closeTo(600, 1e-6);
			}
		}
	});

	it('joined bars have their two ends, however many lines they lie on', async () => {
		const joined = { stock: 6000, within: 5, staggered: false };
		const model = await oneSheet('box-mullion', {
			runs: [{ id: 'r', lines: ['course' as const], variant: 'v', joined }]
		});
		const bars = [...listed(model).values()];
		expect(bars).to.have.length(1);
		expect(bars[0]).to.have.length(2);
		const [from, to] = bars[0]!.map(({ at }) => at) as [number[], number[]];
		expect(Math.hypot(...to.map((value, a) => value - from[a]!))).to.be.closeTo(4000, 1e-6);
	});

	it('stand in JSON and, read with web-ifc, in IFC as the schedule lists them', async () => {
		const model = await load('../../docs/examples/small.json');
		const pieces = listed(model);
		const json = JSON.parse(
			(await formats
				.find(({ id }) => id === 'placing')!
				.write({
					released: null,
					fonts: drawingFonts,
					packing: quickPacking,
					model,
					project: model.project,
					at: '2026-11-29T10:00:00'
				})) as string
		) as { unit: string; pieces: { address: string; points: { node: string; at: number[] }[] }[] };
		expect(json.unit).to.equal('mm');
		expect(new Map(json.pieces.map(({ address, points }) => [address, points]))).to.deep.equal(pieces);

		const api = new webIfc.IfcAPI();
		await api.Init();
		const file = api.OpenModel(Buffer.concat(writeIfc(model, '2026-11-29T10:00:00')));
		let found = 0;
		const sets = api.GetLineIDsWithType(file, webIfc.IFCPROPERTYSET);
		for (let k = 0; k < sets.size(); k++) {
			const set = api.GetLine(file, sets.get(k), true) as {
				Name: { value: string };
				HasProperties: {
					Name: { value: string };
					NominalValue?: { value: string };
					ListValues?: { value: string | number }[];
				}[];
			};
			if (set.Name.value !== 'Zygaster_Piece') continue;
			const property = (name: string) => set.HasProperties.find(({ Name }) => Name.value === name)!;
			const points = pieces.get(property('Address').NominalValue!.value)!;
			expect(property('AnchorNodes').ListValues!.map(({ value }) => value)).to.deep.equal(
				points.map(({ node }) => node)
			);
			const places = property('AnchorCoordinates').ListValues!.map(({ value }) => Number(value));
			for (const [n, value] of points.flatMap(({ at }) => at).entries())
				expect(places[n]).to.be.closeTo(value, 1e-6);
			found++;
		}
		expect(found).to.equal(pieces.size);
		api.CloseModel(file);
	});
});

/** The address of a cell, from the words of page 2: zone, mass and face, course, bay, slot. */
function makeAddress(
	zone: string,
	face: string,
	{ course, bay, slot }: { course: ArrayLike<number>; bay: ArrayLike<number>; slot: ArrayLike<number> },
	c: number
): string {
	const two = (n: number) => String(n).padStart(2, '0');
	return `${zone}/${face}/C${two(course[c]!)}/B${two(bay[c]!)}/${slot[c]}`;
}
