import { expect } from 'chai';
import { Chain } from '../../src/core/chain/chain';
import type { ZoneModel } from '../../src/core/cladding/model';
import { kindOf } from '../../src/core/cladding/address';
import type { PatternChoice, ZoneInput } from '../../src/core/project/schema';
import { cellsOf as listed } from '../../src/core/schedule/column';
import { makeSchedule } from '../../src/core/schedule/table';
import { projectOf, sheet } from '../faces';

const glass = { id: 'glass', name: 'Glass', part: 'framed-glass', values: {} };
/** 10 m by 5 m in steps of 1.5 m and 1.2 m: six whole bays and one of 1 m, four whole courses and one of 0.2 m. */
async function wall(zone: Partial<Omit<ZoneInput, 'settingOut'>>) {
	const project = projectOf(
		sheet(10_000, 5000),
		{
			across: { by: 'exact size', size: 1500, start: 'left' },
			up: { by: 'exact size', size: 1200, start: 'foot' }
		},
		zone,
		{ variants: [glass] }
	);
	const model = await new Chain().run(project);
	expect(model.problems).to.deep.equal([]);
	return model;
}
const cellsOf = ({ faces }: ZoneModel) => {
	const [{ cells, measures }] = faces as [ZoneModel['faces'][number]];
	return Array.from({ length: cells.count }, (_, c) => ({
		kind: kindOf(cells, c),
		bay: cells.bay[c]!,
		course: cells.course[c]!,
		share: cells.share[c]!,
		area: measures.area[c]!
	}));
};

describe('end strips of exact sizes', () => {
	for (const pattern of [
		{ kind: 'rectangles' },
		{ kind: 'triangles', diagonal: 'rising' },
		{ kind: 'triangles', diagonal: 'alternating' }
	] as PatternChoice[])
		it(`${Object.values(pattern).join(' ')}: their cells are strip cells, their share is that of their area`, async () => {
			const cells = cellsOf((await wall({ pattern })).zones[0]!.model!);
			const whole = Math.max(...cells.map(({ area }) => area));
			for (const { kind, bay, course, share, area } of cells) {
				expect(kind).to.equal(bay === 7 || course === 5 ? 'strip' : 'whole');
				expect(share).to.be.closeTo(area / whole, 1e-9);
			}
		});

	it('rules pick them, slivers are found among them, the schedule tells them from edge cells', async () => {
		const rules = [
			{ id: 'open', cells: 'strip' as const, put: 'open' as const },
			{ id: 'all', put: { variant: 'glass', values: {} } }
		];
		const model = await wall({ rules });
		expect([...model.zones[0]!.model!.assignments[0]!.taken]).to.deep.equal([4 + 7, 24]);
		const other = await wall({ rules: [rules[1]!], slivers: { under: 250_000, put: 'flag' } });
		const panels = makeSchedule(other, 'panels');
		const column = (key: string) => listed(panels.columns.find((one) => one.key === key)!);
		expect(column('cell').filter((kind) => kind === 'strip').length).to.equal(11);
		// 1 m by 0.2 m is the only one under a quarter of a square metre.
		expect(column('flags').filter((text) => /sliver/.test(String(text))).length).to.equal(1);
		expect(column('share').at(-1)).to.be.closeTo((1000 / 1500) * (200 / 1200), 1e-9);
	});

	it('a rule for whole cells takes them too, unless one for strips comes first', async () => {
		const whole = { id: 'whole', cells: 'whole' as const, put: { variant: 'glass', values: {} } };
		const strips = { id: 'strips', cells: 'strip' as const, put: 'open' as const };
		const taken = async (rules: ZoneInput['rules']) => [
			...(await wall({ rules })).zones[0]!.model!.assignments[0]!.taken
		];
		expect(await taken([whole])).to.deep.equal([35]);
		expect(await taken([strips, whole])).to.deep.equal([11, 24]);
	});

	it('a step that becomes whole or not by another size is told again, though the counts stay', async () => {
		const chain = new Chain();
		const at = async (size: number) => {
			const project = projectOf(sheet(10_000, 5000), {
				across: { by: 'exact size', size, start: 'left' },
				up: { by: 'count', count: 2 }
			});
			return cellsOf((await chain.run(project)).zones[0]!.model!).filter(({ kind }) => kind === 'strip')
				.length;
		};
		expect(await at(1000)).to.equal(0);
		expect(await at(1080)).to.equal(2);
		expect(await at(1000)).to.equal(0);
	});
});
