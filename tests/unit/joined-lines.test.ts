import { expect } from 'chai';
import fc from '../property';
import { Chain } from '../../src/core/chain/chain';
import type { ZoneModel } from '../../src/core/cladding/model';
import { pointAt } from '../../src/core/geometry/vector';
import type { Form } from '../../src/core/project/form-schema';
import { plainPatterns } from '../../src/core/project/pattern-schema';
import type { PatternChoice } from '../../src/core/project/schema';
import { count, projectOf, revolved, sheet } from '../faces';

const bar = { id: 'bar', name: 'bar', part: 'box-mullion', values: {} };
const joined = { stock: 6000, within: 5, staggered: true };

async function zoneOf(
	form: Form,
	across: number,
	up: number,
	how: object | null,
	pattern: PatternChoice = { kind: 'rectangles' },
	lines = ['bay', 'course', 'diagonal', 'rim']
): Promise<ZoneModel> {
	const runs = [{ id: 'r', lines, variant: 'bar', joined: how }];
	const project = projectOf(form, count(across, up), { pattern, runs } as never, { variants: [bar] });
	const { zones, problems } = await new Chain().run(project);
	expect(problems.filter(({ remark }) => !remark)).to.deep.equal([]);
	return zones[0]!.model!;
}
const groupOf = ({ groups }: ZoneModel) => groups.map(({ group }) => group);
/** Cut lengths that the part itself reports. */
const lengthsOf = (zone: ZoneModel) =>
	groupOf(zone).flatMap(({ run }) => [...(run.results.get('cut_length') ?? [])]);
const sum = (values: readonly number[]) => values.reduce((a, b) => a + b, 0);

describe('lines joined to bars of a stock length', () => {
	it('of a flat sheet: the metres are the same, no bar is longer than its stock, every line is in one bar', async () => {
		await fc.assert(
			fc.asyncProperty(
				fc.constantFrom(...plainPatterns),
				fc.integer({ min: 2, max: 9 }),
				fc.integer({ min: 2, max: 7 }),
				fc.integer({ min: 2500, max: 9000 }),
				fc.boolean(),
				async (kind, across, up, stock, staggered) => {
					const form = sheet(1200 * across, 1300 * up);
					const single = await zoneOf(form, across, up, null, { kind });
					const long = await zoneOf(form, across, up, { stock, within: 1, staggered }, { kind });
					expect(sum(lengthsOf(long))).to.be.closeTo(sum(lengthsOf(single)), 1e-3);
					// A single line may be longer than the stock.
					const most = Math.max(stock, ...lengthsOf(single));
					for (const length of lengthsOf(long)) expect(length).to.be.at.most(most + 1e-6);
					const taken = groupOf(long)
						.flatMap(({ bars }) => bars!.flat())
						.sort((a, b) => a - b);
					expect(taken).to.deep.equal(Array.from({ length: single.faces[0]!.edges.count }, (_, e) => e));
				}
			),
			{ numRuns: 25 }
		);
	});

	it('takes as few as go into a line: 12 m of steps of 1 m in bars of 5 m are 5, 5 and 2', async () => {
		const zone = await zoneOf(
			sheet(12_000, 2000),
			12,
			2,
			{ ...joined, stock: 5000, staggered: false },
			undefined,
			['course']
		);
		expect(lengthsOf(zone).map(Math.round)).to.deep.equal([5000, 5000, 2000]);
	});

	it('staggered, every other row begins with half a bar', async () => {
		const zone = await zoneOf(sheet(12_000, 3000), 12, 3, { ...joined, stock: 4000 }, undefined, ['course']);
		const byRow = new Map<number, number[]>();
		const [group] = groupOf(zone);
		const { edges } = zone.faces[0]!;
		lengthsOf(zone).forEach((length, k) => {
			const course = edges.course[group!.sites[k]!]!;
			byRow.set(course, [...(byRow.get(course) ?? []), Math.round(length)]);
		});
		expect([...byRow.values()]).to.deep.equal([
			[4000, 4000, 4000],
			[2000, 4000, 4000, 2000]
		]);
	});

	it('ends a bar where the line has left its chord: on a ring of 5 m radius within 20 mm', async () => {
		const ring = revolved([
			[5000, 0],
			[5000, 3000]
		]);
		const within = 20;
		const zone = await zoneOf(ring, 72, 3, { stock: 20_000, within, staggered: false }, undefined, [
			'course'
		]);
		const { edges, grid } = zone.faces[0]!;
		const [group] = groupOf(zone);
		for (const lines of group!.bars!) {
			const nodes = [edges.from[lines[0]!]!, ...lines.map((e) => edges.to[e]!)];
			const [first, last] = [pointAt(grid.positions, nodes[0]!), pointAt(grid.positions, nodes.at(-1)!)];
			const chord = Math.hypot(last[0] - first[0], last[1] - first[1]);
			// The rise of an arc over its chord.
			const rise = 5000 - Math.sqrt(5000 ** 2 - (chord / 2) ** 2);
			expect(rise).to.be.at.most(within + 1e-6);
			// One line more would have been too many, but where the ring comes round.
			if (lines !== group!.bars!.at(-1)) expect(lines.length).to.be.at.most(2);
		}
	});

	it('lines longer than the stock stay whole, and are told with the stock that would do', async () => {
		const runs = [{ id: 'r', lines: ['course'], variant: 'bar', joined: { ...joined, stock: 900 } }];
		const project = projectOf(sheet(3600, 2000), count(3, 2), { runs } as never, { variants: [bar] });
		const { problems } = await new Chain().run(project);
		expect(problems).to.have.length(1);
		expect(problems[0]).to.include({ at: 'zones/z/runs/r/joined/stock', remark: true });
		expect(problems[0]!.text).to.match(/^3 lines are longer than the stock; bars of 1\s200 mm would do$/);
	});
});
