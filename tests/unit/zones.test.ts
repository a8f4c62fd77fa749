import { expect } from 'chai';
import fc from '../property';
import { Chain } from '../../src/core/chain/chain';
import type { ZoneModel } from '../../src/core/cladding/model';
import { layoutFigures } from '../../src/core/schedule/layout-figures';
import { massSchema } from '../../src/core/project/form-schema';
import { nodeRows } from '../../src/core/schedule/nodes';
import { addressesOf, layoutReport } from '../../src/lib/state/layout-report';
import type { FaceView } from '../../src/lib/worker/views';
import { count, projectOf, sheet } from '../faces';

const variants = [{ id: 'f', name: 'f', part: 'framed-glass', values: {} }];
const put = { variant: 'f', values: {} };
async function zoneOf(
	zone: Parameters<typeof projectOf>[2],
	grid = count(8, 6),
	rest: Parameters<typeof projectOf>[3] = {}
): Promise<{ zone: ZoneModel | null; problem: string | undefined }> {
	const model = await new Chain().run(projectOf(sheet(8000, 6000), grid, zone, { variants, ...rest }));
	return { zone: model.zones[0]!.model, problem: model.problems[0]?.text };
}

describe('rules that take every so many', () => {
	it('of cells make a chequerboard, of bays and courses stripes (by enumeration)', async () => {
		for (const [by, step, from, wanted] of [
			['cells', 2, 1, 24],
			['cells', 2, 2, 24],
			['bays', 3, 1, 3 * 6],
			['bays', 3, 3, 2 * 6],
			['courses', 4, 2, 8 * 2]
		] as const) {
			const { zone } = await zoneOf({ rules: [{ id: 'r', every: { by, step, from }, put }] });
			expect(zone!.assignments[0]!.taken[0], `${by} ${step} ${from}`).to.equal(wanted);
		}
		const { zone } = await zoneOf({ rules: [{ id: 'r', every: { by: 'cells', step: 2, from: 1 }, put }] });
		const { cells } = zone!.faces[0]!;
		// No two neighbours across or up.
		const taken = new Set<string>();
		for (let c = 0; c < cells.count; c++)
			if (zone!.assignments[0]!.rule[c] === 0) taken.add(`${cells.bay[c]} ${cells.course[c]}`);
		for (const name of taken) {
			const [bay, course] = name.split(' ').map(Number) as [number, number];
			expect(taken.has(`${bay + 1} ${course}`) || taken.has(`${bay} ${course + 1}`)).to.equal(false);
		}
	});

	it('slots are taken by their name; one that is not there is told with those that are', async () => {
		const { zone } = await zoneOf({
			pattern: { kind: 'truncated square' },
			rules: [{ id: 'r', slot: 'square', put }]
		});
		expect(zone!.assignments[0]!.taken[0]).to.equal(9 * 7);
		const { problem } = await zoneOf({ rules: [{ id: 'r', slot: 'square', put }] });
		expect(problem).to.equal('the pattern has no slot "square"; it has rectangle');
		const wrong = await zoneOf({ rules: [{ id: 'r', every: { by: 'cells', step: 0, from: 1 }, put }] });
		expect(wrong.problem).to.match(/every 0 from 1 cannot be/);
	});
});

describe('exceptions after a change of layout', () => {
	it('whose address is gone go to the cell at their place, each cell once; those without a place wait', async () => {
		await fc.assert(
			fc.asyncProperty(
				fc.integer({ min: 1, max: 8 }),
				fc.integer({ min: 1, max: 6 }),
				fc.integer({ min: 2, max: 7 }),
				async (bay, course, bays) => {
					const id = `m.wall/C0${course}/B0${bay}/1`;
					const place: [number, number] = [(bay - 0.5) / 8, (course - 0.5) / 6];
					const lost = { id: 'm.wall/C01/B99/1', put: 'open' as const };
					const { zone } = await zoneOf(
						{ rules: [{ id: 'r', put }], exceptions: [{ id, place, put: 'open' }, lost] },
						count(bays, 6)
					);
					const { exception, moved, waiting } = zone!.assignments[0]!;
					const c = exception.indexOf(0);
					const { cells } = zone!.faces[0]!;
					expect(c).to.be.at.least(0);
					expect(waiting).to.deep.equal([lost.id]);
					expect(cells.course[c]).to.equal(course);
					if (bay <= bays) expect([cells.bay[c], moved.size]).to.deep.equal([bay, 0]);
					else {
						expect(moved.get(id)).to.equal(`m.wall/C0${course}/B0${cells.bay[c]}/1`);
						expect(Math.abs((cells.bay[c]! - 0.5) / bays - place[0])).to.be.at.most(0.5 / bays + 1e-9);
					}
				}
			),
			{ numRuns: 40 }
		);
	});

	it('the report counts addresses kept, new and gone', async () => {
		const [before, after] = [await zoneOf({}), await zoneOf({}, count(7, 8))];
		const view = ({ zone }: { zone: ZoneModel | null }, serial: number) => ({
			id: 'z',
			faces: zone!.faces.map((face) => ({ ...face, serial }) as unknown as FaceView),
			assignments: zone!.assignments
		});
		const [one, two] = [view(before, 1), view(after, 2)];
		expect(layoutReport(addressesOf(one), addressesOf(two), two)).to.deep.equal({
			zone: 'z',
			kept: 7 * 6,
			fresh: 7 * 2,
			gone: 6,
			moved: 0,
			waiting: 0
		});
		expect(layoutReport(addressesOf(one), addressesOf(one), one)).to.equal(null);
	});
});

describe('what a layout comes to', () => {
	it('figures of a sheet of 8 by 6 cells by hand; unlike cells are counted apart', async () => {
		const { zone } = await zoneOf({});
		expect(layoutFigures(zone!.faces)).to.deep.include({
			cells: { whole: 48, edge: 0, cut: 0, strip: 0 },
			edges: 8 * 7 + 9 * 6,
			kindsOfCells: 1
		});
		const { lineLength, smallestArea } = layoutFigures(zone!.faces);
		expect(lineLength).to.be.closeTo(8 * 7 * 1000 + 9 * 6 * 1000, 1e-3);
		expect(smallestArea).to.be.closeTo(1e6, 1e-3);
		// Diamonds: whole ones, halves on the sides, halves at foot and head, and quarters are four kinds at most.
		const diamonds = await zoneOf({ pattern: { kind: 'diamonds' } });
		expect(layoutFigures(diamonds.zone!.faces).kindsOfCells).to.be.within(2, 4);
	});

	it('setting-out points: every node once, with its lines, place and a normal of length 1', async () => {
		const { zone } = await zoneOf({});
		const rows = nodeRows(zone!, 0);
		expect(rows.length).to.equal(9 * 7);
		expect(new Set(rows.map(({ address }) => address)).size).to.equal(rows.length);
		for (const { point, normal, bay, course } of rows) {
			expect(point[0]).to.be.closeTo(1000 * (bay! - 1), 1e-3);
			expect(point[2]).to.be.closeTo(1000 * (course! - 1), 1e-3);
			expect(Math.hypot(...normal)).to.be.closeTo(1, 1e-12);
		}
	});
});

describe('guides', () => {
	const guides = [
		{
			id: 'g',
			name: 'G',
			on: 'map' as const,
			mass: 'm',
			face: 'wall',
			points: [[1300, 2500]] as [number, number][]
		},
		{ id: 's', name: 'S', on: 'space' as const, points: [[4000, 0, 3000]] as [number, number, number][] }
	];
	it('start lines lie at them, and scattered cells shrink near them', async () => {
		const at = (guide: string) => ({
			across: { by: 'exact size' as const, size: 1000, start: { guide } },
			up: { by: 'count' as const, count: 3 }
		});
		const made = async (guide: string) => {
			const project = projectOf(sheet(8000, 6000), at(guide), {}, { guides: guides as never });
			const { grid } = (await new Chain().run(project)).zones[0]!.model!.faces[0]!;
			return Array.from({ length: grid.columns }, (_, i) => grid.positions[3 * i]!);
		};
		// 1300 mm to the right of the middle, at 4000: a line at 5300.
		expect((await made('g')).some((x) => Math.abs(x - 5300) < 0.1)).to.equal(true);
		expect((await made('s')).some((x) => Math.abs(x - 4000) < 0.1)).to.equal(true);
		const near = { guide: 's', shrink: 0.5, grow: 0, round: 0.5, reach: 2500 };
		const pattern = {
			kind: 'voronoi' as const,
			seed: 2,
			count: 60,
			evening: 2,
			smallest: 0,
			margin: 0,
			near
		};
		const { zone, problem } = await zoneOf({ pattern }, count(8, 6), { guides: guides as never });
		expect(problem).to.equal(undefined);
		const { measures, cells } = zone!.faces[0]!;
		// Near the guide cells have rounded corners and less area; far from it they are as they were.
		let [close, far] = [0, 0];
		for (let c = 0; c < cells.count; c++) {
			const off = Math.hypot(measures.centre[3 * c]! - 4000, measures.centre[3 * c + 2]! - 3000);
			const corners = cells.start[c + 1]! - cells.start[c]!;
			if (off < 1000) close = Math.max(close, corners);
			if (off > 3000) far = Math.max(far, corners);
		}
		expect(close).to.be.above(2 * far);
		const shrunk = async (values: object) =>
			(
				await zoneOf({ pattern: { ...pattern, near: { ...near, ...values } } }, undefined, {
					guides: guides as never
				})
			).problem;
		expect(await shrunk({ shrink: 1.2 })).to.match(
			/cells that shrink by 1.2 cannot be made; 0 to 0.95 is accepted/
		);
		expect(await shrunk({ round: -0.1 })).to.match(
			/cells that round by −0.1 cannot be made; 0 to 1 is accepted/
		);
		expect(await shrunk({ grow: 9 })).to.match(/cells that grow by 9 cannot be made; 0 to 4 is accepted/);
		// Laid larger near it: the face stays covered, and the cells stay as many.
		const sizes = async (grow: number) => {
			const larger = { ...pattern, count: 300, evening: 6, near: { ...near, shrink: 0, round: 0, grow } };
			const { zone: laid } = await zoneOf({ pattern: larger }, count(8, 6), { guides: guides as never });
			const face = laid!.faces[0]!;
			const sums = { close: [0, 0], far: [0, 0] } as Record<'close' | 'far', [number, number]>;
			let whole = 0;
			for (let c = 0; c < face.cells.count; c++) {
				const [x, z] = [face.measures.centre[3 * c]!, face.measures.centre[3 * c + 2]!];
				const off = Math.hypot(x - 4000, z - 3000);
				whole += face.measures.area[c]!;
				const sum = off < 900 ? sums.close : off > 3000 ? sums.far : null;
				if (!sum) continue;
				sum[0] += face.measures.area[c]!;
				sum[1]++;
			}
			expect(face.cells.count).to.equal(300);
			expect(whole).to.be.closeTo(8000 * 6000, 1);
			return sums.close[0] / sums.close[1] / (sums.far[0] / sums.far[1]);
		};
		// Twice and a half as long, by the square as large, of which the evening leaves some.
		const [even, grown] = [await sizes(0), await sizes(1.5)];
		expect(grown / even).to.be.within(1.6, 6.25);
		const gone = await zoneOf({ pattern: { ...pattern, near: { ...near, guide: 'x' } } });
		expect(gone.problem).to.match(/the guide "x" does not exist/);
	});
});

describe('a face without a size', () => {
	it('is told so, also where its knots lie as near as numbers can', async () => {
		const net = [0, 0, 0, 1, 6000, 0, 0, 1, 0, 0, 4000, 1, 6000, 0, 4000, 1];
		const patch = (knotsU: number[], points = net) => ({
			name: 'f',
			degrees: [1, 1],
			knotsU,
			knotsV: [0, 0, 1, 1],
			net: points,
			ends: []
		});
		const told = async (face: object) => {
			const form = { kind: 'imported', source: 'x.stp', faces: [face] };
			const masses = [massSchema.parse({ id: 'm', name: 'M', form })];
			const { problems } = await new Chain().run({ ...projectOf(sheet(6000, 4000), count(3, 3)), masses });
			for (const { text } of problems) expect(text).to.not.include('NaN');
			return problems[0]!.text;
		};
		expect(await told(patch([0, 0, 5e-324, 1]))).to.equal('the knots across of f have no length');
		const three = [
			0, 0, 0, 1, 3000, 0, 0, 1, 6000, 0, 0, 1, 0, 0, 4000, 1, 3000, 0, 4000, 1, 6000, 0, 4000, 1
		];
		expect(await told(patch([0, 0, 1e-300, 1, 1], three))).to.match(/lie too near together at 3/);
	});
});
