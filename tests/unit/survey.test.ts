import { expect } from 'chai';
import { readFileSync } from 'node:fs';
import { siteSetOf } from '../../src/core/cladding/sites';
import { Chain } from '../../src/core/chain/chain';
import { readPoints } from '../../src/core/exchange/csv/read-points';
import { readProject, readProjectText } from '../../src/core/project/read';
import type { Project } from '../../src/core/project/schema';
import { cellsMeasured, fitTo } from '../../src/core/survey/fit';
import { matchPoints } from '../../src/core/survey/match';
import fc from '../property';

const small = readProjectText(
	readFileSync(new URL('../../docs/examples/small.json', import.meta.url), 'utf8')
);
const zonesOf = async (project: Project) => {
	const { zones, problems } = await new Chain().run(project);
	expect(problems.filter(({ remark }) => !remark)).to.deep.equal([]);
	return zones.map(({ id, model }) => ({ id, faces: model!.faces }));
};
const withMoves = (project: Project, faces: object[]) =>
	readProject({
		...project,
		zones: project.zones.map((zone) => ({ ...zone, moves: [{ id: 'survey', aim: 'survey', faces }] }))
	});

describe('measured points', () => {
	it('are read with their unit and by whatever their heads are called; what is wrong is told with its line', () => {
		const { names, at } = readPoints([
			['Level (m)', 'Northing_mm', 'remark', 'E [cm]'],
			['3,5', '1 200', 'P1', -4],
			['', '', '', ''],
			[0, '12.5', '', '1e2']
		]);
		expect(names).to.deep.equal(['P1', 'line 4']);
		expect([...at]).to.deep.equal([-40, 1200, 3500, 1000, 12.5, 0]);
		expect([
			...readPoints([
				['x', 'y', 'elevation'],
				[1, 2, 3]
			]).at
		]).to.deep.equal([1, 2, 3]);
		for (const [lines, sentence] of [
			[[], /no column is headed x, y, z; its first line is to be like/],
			[[['point', 'x', 'z']], /no column is headed y/],
			[[['point', 'x', 'y', 'z']], /no points in it, only heads/],
			[
				[
					['p', 'x', 'y', 'z'],
					['a', 1, 2, 3],
					['b', 1, 'two', 3]
				],
				/line 3: y is “two”/
			],
			[
				[
					['p', 'x (m)', 'y', 'z'],
					['a', 1e9, 2, 3]
				],
				/line 2: x \(m\) is “1000000000”; a number of up to 100 km/
			]
		] as const)
			expect(() => readPoints(lines)).to.throw(sentence);
	});

	it('find their nodes however they are mixed and called; those of no node, or of two, are told', async () => {
		const zones = await zonesOf(small);
		const [{ faces }] = zones as [(typeof zones)[number]];
		const [face] = faces as [(typeof faces)[number]];
		const count = face.grid.positions.length / 3;
		fc.assert(
			fc.property(
				fc.shuffledSubarray(
					Array.from({ length: count }, (_, k) => k),
					{ minLength: 1 }
				),
				fc.array(fc.double({ min: -25, max: 25, noNaN: true }), {
					minLength: 3 * count,
					maxLength: 3 * count
				}),
				fc.boolean(),
				(nodes, off, named) => {
					const at = Float64Array.from(
						nodes.flatMap((node) =>
							[0, 1, 2].map((a) => face.grid.positions[3 * node + a]! + off[3 * node + a]!)
						)
					);
					const { address } = siteSetOf(face, 'node');
					const names = nodes.map((node, k) => (named ? `wall/${address(node)}` : `P${k}`));
					const matched = matchPoints(zones, { names, at }, 50);
					expect(matched.count).to.equal(nodes.length);
					nodes.forEach((node, k) => expect(matched.of[0]![0]![node]).to.equal(k));
				}
			),
			{ numRuns: 40 }
		);
		const [a, b] = [0, 1].map((node) => [...face.grid.positions.subarray(3 * node, 3 * node + 3)]);
		const middle = a!.map((one, k) => (one + b![k]!) / 2);
		const at = Float64Array.from([...a!, a![0]! + 30, a![1]!, a![2]!, ...middle, 0, 0, 90_000].flat());
		const odd = matchPoints(zones, { names: ['at', 'beside', 'between', 'far'], at }, 900);
		expect([odd.count, odd.twice, odd.between, odd.nothing]).to.deep.equal([1, [1], [2], [3]]);
	});

	it('fitted to, the model stands where it was measured, once and again; nodes that were not measured stay', async () => {
		const [{ faces }] = (await zonesOf(small)) as [Awaited<ReturnType<typeof zonesOf>>[number]];
		const [face] = faces as [(typeof faces)[number]];
		const { positions } = face.grid;
		const count = positions.length / 3;
		const measured = (shift: number) =>
			Float64Array.from(positions, (value, k) => value + shift * Math.sin(7 * k + shift));
		const every = new Int32Array(count).map((_, node) => (node % 3 === 0 ? -1 : node));
		const first = fitTo([face], [every], measured(12), null);
		expect(first.ahead).to.be.closeTo(first.furthest, 1e-3);
		expect(first.moved).to.equal([...every].filter((point) => point >= 0).length);
		const once = withMoves(small, [...first.faces]);
		const [{ faces: after }] = (await zonesOf(once)) as [Awaited<ReturnType<typeof zonesOf>>[number]];
		const check = (now: Float64Array, at: Float64Array) => {
			for (let k = 0; k < now.length; k++)
				expect(now[k], `${k}`).to.be.closeTo(every[Math.floor(k / 3)]! < 0 ? positions[k]! : at[k]!, 1e-3);
		};
		check(after[0]!.grid.positions, measured(12));
		// Measured again later: the moves of before are in the new ones, which tell what they were found for.
		const second = fitTo(after, [every], measured(-5), once.zones[0]!.moves[0]!);
		const twice = withMoves(small, [...second.faces]);
		const model = await new Chain().run(twice);
		check(model.zones[0]!.model!.faces[0]!.grid.positions, measured(-5));
		expect(model.problems.filter(({ text }) => text.includes('survey'))).to.deep.equal([]);
		expect(
			fitTo(model.zones[0]!.model!.faces, [every], measured(-5), twice.zones[0]!.moves[0]!).ahead
		).to.be.below(1e-3);
		const { away } = cellsMeasured(model.zones[0]!.model!.faces[0]!, every, measured(-5));
		expect(Math.max(...away)).to.be.below(1e-3);
		// On other steps they mean nothing, and that is said.
		const other = {
			...twice,
			zones: twice.zones.map((zone) => ({
				...zone,
				settingOut: { ...zone.settingOut, up: { by: 'count', count: 3 } }
			}))
		};
		const { problems } = await new Chain().run(readProject(other));
		expect(problems.map(({ text }) => text).join()).to.contain('nothing is moved. Bring the survey in again');
	});

	it('cell by cell: by how much corners are away, and sides and diagonals are others than made', async () => {
		const [{ faces }] = (await zonesOf(small)) as [Awaited<ReturnType<typeof zonesOf>>[number]];
		const [face] = faces as [(typeof faces)[number]];
		const { positions } = face.grid;
		const all = new Int32Array(positions.length / 3).map((_, node) => node);
		// All of it a little further along: nothing is another size.
		const moved = Float64Array.from(positions, (value, k) => value + [30, -40, 0][k % 3]!);
		const whole = cellsMeasured(face, all, moved);
		expect([...whole.away].every((way) => Math.abs(way - 50) < 1e-9)).to.equal(true);
		expect(Math.max(...whole.change)).to.be.below(1e-9);
		// One corner out along the bottom line: the side there is longer by so much.
		const corner = face.cells.corners[face.cells.start[0]!]!;
		const one = Float64Array.from(positions);
		one[3 * corner] = one[3 * corner]! - 8;
		const { away, change } = cellsMeasured(face, all, one);
		expect(away[0]).to.be.closeTo(8, 1e-9);
		expect(change[0]).to.be.within(7, 8 + 1e-9);
		// Only one corner of each was measured: how far it is, and nothing of sides.
		const few = new Int32Array(all.length).fill(-1);
		few[corner] = corner;
		expect(cellsMeasured(face, few, one).change.every(Number.isNaN)).to.equal(true);
	});
});
