import { expect } from 'chai';
import fc from '../property';
import { Chain } from '../../src/core/chain/chain';
import type { Model, ZoneModel } from '../../src/core/cladding/model';
import { loadSolids } from '../../src/core/geometry/solid/library';
import { placesOf, trianglesOf } from '../../src/core/part/places';
import { zoneSchema, type Project, type ZoneInput } from '../../src/core/project/schema';
import { count, projectOf, sheet } from '../faces';
import { contentOf } from '../same-model';
import { teller } from '../teller';
import { volumeWithin } from '../trial-run';

const [WIDTH, HEIGHT, DEPTH] = [6000, 4000, 900];
const [GRID_TUBE, WEB_TUBE] = [90, 60];

/** Tubes of sixteen sides have the section of a round one: they are wider across their corners. */
const ROUND = 1.013;

/** A wall, a grid behind it, and the bars between them; parts on the nodes of both grids. */
function truss(
	bays: number,
	courses: number,
	{
		shifted,
		bars,
		meetsWebs
	}: { shifted: boolean; bars: readonly ('upright' | 'diagonal')[]; meetsWebs: boolean }
): Project {
	const all = ['bay', 'course', 'rim'] as const;
	const runs: ZoneInput['runs'] = [{ id: 'bars', lines: [...all], variant: 'grid' }];
	const nodes: ZoneInput['nodes'] = [{ id: 'n', variant: 'tell' }];
	const project = projectOf(
		sheet(WIDTH, HEIGHT),
		count(bays, courses),
		{ runs, nodes, meetsWebs },
		{
			variants: [
				{ id: 'tell', name: 'Tell', part: 'teller', values: {} },
				{ id: 'cast', name: 'Cast', part: 'cast-node', values: {} },
				{ id: 'ball', name: 'Ball', part: 'node-ball', values: { takes_bars: true, diameter: 10 } },
				{ id: 'grid', name: 'Grid', part: 'tube-edge', values: { diameter: GRID_TUBE, back: 0 } },
				{ id: 'web', name: 'Web', part: 'tube-edge', values: { diameter: WEB_TUBE, back: 0 } }
			]
		}
	);
	const [front] = project.zones;
	const other = (id: string, more: object) =>
		zoneSchema.parse({ ...front, id, code: id.toUpperCase(), name: id, faces: [], ...more });
	return {
		...project,
		parts: [teller],
		zones: [
			front!,
			other('low', { on: { is: 'layer', of: front!.id, depth: `-${DEPTH} mm`, shifted } }),
			other('web', {
				on: { is: 'web', from: front!.id, to: 'low', bars },
				runs: [{ id: 'web', lines: ['upright', 'diagonal'], variant: 'web' }],
				nodes: []
			})
		]
	};
}

/** The same with other parts on the nodes of both grids. */
const withNodes = (project: Project, variant: string): Project => ({
	...project,
	zones: project.zones.map((zone) => ({ ...zone, nodes: zone.nodes.map((one) => ({ ...one, variant })) }))
});

const zoneAt = ({ zones, problems }: Model, k: number): ZoneModel => {
	expect(problems).to.deep.equal([]);
	return zones[k]!.model!;
};
/** How many lines meet at each node that carries a part, and a measure of the part. */
const told = ({ groups }: ZoneModel, name = 'all_widths') =>
	groups
		.filter(({ group }) => group.over === 'node')
		.flatMap(({ group }) =>
			Array.from(group.run.results.get(name)!, (value) => ({ lines: group.corners, value }))
		);
const counts = (zone: ZoneModel) => {
	const found: Record<number, number> = {};
	for (const { lines } of told(zone)) found[lines] = (found[lines] ?? 0) + 1;
	return found;
};
const linesOf = ({ faces }: ZoneModel) => faces[0]!.edges.count;

describe('parts on nodes meet the bars of webs', () => {
	before(loadSolids);

	it('of a double layer as many as counting gives, with the widths of all of them', async () => {
		const model = await new Chain().run(truss(5, 4, { shifted: true, bars: ['diagonal'], meetsWebs: true }));
		const [front, low] = [zoneAt(model, 0), zoneAt(model, 1)];
		// Four webs at inner nodes of the front, two on its rim, one at its corners.
		expect(counts(front)).to.deep.equal({ 8: 4 * 3, 5: 2 * 4 + 2 * 3, 3: 4 });
		// Behind every node stands in the middle of a cell: four webs each.
		expect(counts(low)).to.deep.equal({ 8: 3 * 2, 7: 2 * 3 + 2 * 2, 6: 4 });
		for (const { lines, value } of [...told(front), ...told(low)]) {
			const webs = { 8: 4, 7: 4, 6: 4, 5: 2, 3: 1 }[lines]!;
			expect(value / ROUND).to.be.closeTo(webs * WEB_TUBE + (lines - webs) * GRID_TUBE, 0.1);
		}
		// From a node to the middle of a step: half a bay, half a course, and the depth.
		const span = Math.hypot(WIDTH / 10, HEIGHT / 8, DEPTH);
		for (const { value } of told(low, 'longest'))
			expect(value).to.be.closeTo(Math.max(span, WIDTH / 5), 1e-6);
	});

	it('only where that is asked for: else the nodes are as they are without webs', async () => {
		const options = { shifted: false, bars: ['upright', 'diagonal'], meetsWebs: false } as const;
		const model = await new Chain().run(truss(5, 4, options));
		// Uprights stand square to the face, where its normal says nothing of how they are turned: they are made all the same.
		expect(zoneAt(model, 2).groups.flatMap(({ group }) => group.flags.failed())).to.deep.equal([]);
		expect(counts(zoneAt(model, 0))).to.deep.equal({ 4: 4 * 3, 3: 2 * 4 + 2 * 3, 2: 4 });
		const { zones, ...rest } = truss(5, 4, options);
		const alone = await new Chain().run({ ...rest, zones: zones.slice(0, 1) });
		expect(told(zoneAt(model, 0))).to.deep.equal(told(zoneAt(alone, 0)));
	});

	it('every line of a web ends once at each of its sides (property)', async () => {
		await fc.assert(
			fc.asyncProperty(
				fc.integer({ min: 2, max: 6 }),
				fc.integer({ min: 2, max: 6 }),
				fc.boolean(),
				fc.subarray(['upright', 'diagonal'] as const, { minLength: 1 }),
				async (bays, courses, shifted, bars) => {
					if (shifted && !bars.includes('diagonal')) return;
					const model = await new Chain().run(truss(bays, courses, { shifted, bars, meetsWebs: true }));
					const web = linesOf(zoneAt(model, 2));
					for (const k of [0, 1]) {
						const zone = zoneAt(model, k);
						const ends = told(zone).reduce((sum, { lines }) => sum + lines, 0);
						expect(ends).to.equal(2 * linesOf(zone) + web);
					}
				}
			),
			{ numRuns: 25 }
		);
	});

	it('castings take webs too: their arms reach to where the two that are nearest in space are clear, and are closed', async () => {
		for (const shifted of [true, false]) {
			const bars = shifted ? (['diagonal'] as const) : (['upright', 'diagonal'] as const);
			const model = await new Chain().run(withNodes(truss(5, 4, { shifted, bars, meetsWebs: true }), 'cast'));
			let made = 0;
			for (const k of [0, 1])
				for (const { group } of zoneAt(model, k).groups) {
					if (group.over !== 'node') continue;
					expect(group.flags.failed()).to.deep.equal([]);
					for (const table of group.run.elements)
						for (let n = 0; n < table.count; n++, made++)
							expect(
								volumeWithin(placesOf(table.shape, n), trianglesOf(table.shape, n)) / table.volume[n]!
							).to.be.closeTo(1, 1e-3);
				}
			expect(made).to.equal(6 * 5 + (shifted ? 5 * 4 : 6 * 5));
		}
	});

	it('a ball is as large as the bar needs that is nearest to another in space: by hand on a truss of cubes', async () => {
		const [bays, courses] = [WIDTH / DEPTH, HEIGHT / DEPTH].map(Math.round) as [number, number];
		const project = truss(bays, courses, { shifted: false, bars: ['diagonal'], meetsWebs: true });
		const zone = zoneAt(await new Chain().run(withNodes(project, 'ball')), 0);
		const [bay, course] = [WIDTH / bays, HEIGHT / courses];
		for (const { lines, value } of told(zone, 'needed_diameter')) {
			if (lines !== 8) continue;
			// Four of the grid, and four that go back behind them: each leans from its own by the slope of its step.
			const least = Math.min(Math.atan(DEPTH / bay), Math.atan(DEPTH / course));
			expect(value / ROUND).to.be.closeTo(GRID_TUBE / Math.sin(least / 2), 1);
		}
		expect(told(zone, 'needed_diameter').some(({ lines }) => lines === 8)).to.equal(true);
	});

	it('a change of the web changes what stands where its bars end; a kept chain is as a fresh one', async () => {
		const project = truss(4, 3, { shifted: false, bars: ['upright', 'diagonal'], meetsWebs: true });
		const chain = new Chain();
		const before = told(zoneAt(await chain.run(project), 0));
		const thick = project.variants.map((one) =>
			one.id === 'web' ? { ...one, values: { ...one.values, diameter: 2 * WEB_TUBE } } : one
		);
		const edits: Project[] = [
			{ ...project, variants: thick },
			{ ...project, zones: [...project.zones].reverse() },
			{ ...project, zones: project.zones.slice(0, 2) },
			truss(4, 3, { shifted: true, bars: ['diagonal'], meetsWebs: true })
		].map((one) => ({ ...one, id: project.id }));
		const kept: Model[] = [];
		for (const edit of edits) {
			kept.push(await chain.run(edit));
			expect(contentOf(kept.at(-1)!)).to.deep.equal(contentOf(await new Chain().run(edit)));
		}
		const after = told(zoneAt(kept[0]!, 0));
		after.forEach(({ lines, value }, k) => {
			const grid = 2 * GRID_TUBE * ROUND;
			const many = (lines * GRID_TUBE * ROUND - before[k]!.value) / ((GRID_TUBE - WEB_TUBE) * ROUND);
			expect(many).to.be.closeTo(Math.round(many), 1e-3);
			// An upright and at least one diagonal, beside two lines of the grid or more.
			expect(Math.round(many)).to.be.within(1, lines - 2);
			expect(value)
				.to.be.above(grid)
				.and.closeTo(before[k]!.value + many * WEB_TUBE * ROUND, 0.1);
		});
	});
});
