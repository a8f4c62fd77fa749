import { expect } from 'chai';
import { Chain } from '../../src/core/chain/chain';
import { cellsOf } from '../../src/core/schedule/column';
import { makeSchedule } from '../../src/core/schedule/table';
import { summarise } from '../../src/core/schedule/summary';
import type { Project, ZoneInput } from '../../src/core/project/schema';
import { count, projectOf, sheet } from '../faces';

async function modelOf(part: string, zone: Partial<Omit<ZoneInput, 'settingOut'>>) {
	const variants: Project['variants'] = [{ id: 'v', name: 'One', part, values: {} }];
	const model = await new Chain().run(projectOf(sheet(4000, 2000), count(2, 2), zone, { variants }));
	expect(model.problems).to.deep.equal([]);
	return model;
}

describe('what schedules count', () => {
	it('sleeves in the bar list have their length: that of the tube, not of the line', async () => {
		const runs = [{ id: 'r', lines: ['bay' as const, 'course' as const, 'rim' as const], variant: 'v' }];
		const model = await modelOf('spaced-sleeve', { runs });
		const bars = makeSchedule(model, 'bars');
		const column = (key: string) => cellsOf(bars.columns.find((one) => one.key === key)!);
		expect(bars.rows).to.equal(12);
		expect(column('length').every((mm) => Math.abs(Number(mm) - 400) < 1e-6)).to.equal(true);
		expect(summarise(model).bars.length_m).to.be.closeTo(12 * 0.4, 1e-9);
		// A round tube of 48 by 4 mm, of steel of 7850 kg/m³.
		const kg = (Math.PI / 4) * (0.048 ** 2 - 0.04 ** 2) * 0.4 * 7850;
		for (const mass of column('mass')) expect(Number(mass)).to.be.closeTo(kg, kg * 1e-6);
	});

	it('a frame has a row for each bar, as a shop cuts them, with marks of their own; all add up to the piece', async () => {
		const model = await modelOf('framed-glass', {
			rules: [{ id: 'all', put: { variant: 'v', values: {} } }]
		});
		const list = makeSchedule(model, 'elements');
		const column = (key: string) => cellsOf(list.columns.find((one) => one.key === key)!);
		// Four cells of 2 by 1 m: four bars and a pane each.
		expect(list.rows).to.equal(4 * 5);
		const bars = column('length')
			.map(Number)
			.filter((mm) => mm > 0);
		expect(bars.length).to.equal(16);
		const joint = Number(
			model.zones[0]!.model!.groups[0]!.group.ready.part.inputs.find(({ name }) => name === 'joint')!.default
		);
		const wanted = [2000 - 2 * joint, 1000 - 2 * joint];
		for (const mm of bars)
			expect(
				wanted.some((one) => Math.abs(one - mm) < 1e-6),
				String(mm)
			).to.equal(true);
		expect(new Set(column('mark')).size).to.equal(list.rows);
		const kg = column('mass').reduce<number>((sum, one) => sum + Number(one), 0);
		expect(kg).to.be.closeTo(summarise(model).mass_kg, 1e-6);
	});

	it('structure hung on cells is structure: no panel, with a list of its own', async () => {
		const rules = [{ id: 'all', put: { variant: 'v', values: {} } }];
		const model = await modelOf('truss-cell', { rules, layer: { depth: '-600 mm' } });
		const { panels, structure, frame_length_m } = summarise(model);
		expect(panels).to.equal(0);
		expect(frame_length_m).to.equal(0);
		expect(makeSchedule(model, 'panels').rows).to.equal(0);
		const list = makeSchedule(model, 'structure');
		expect(structure.count).to.equal(4);
		expect(list.rows).to.equal(4);
		const lengths = cellsOf(list.columns.find(({ key }) => key === 'length')!).map(Number);
		expect(lengths.every((mm) => mm > 0)).to.equal(true);
		expect(structure.length_m).to.be.closeTo(lengths.reduce((a, b) => a + b, 0) / 1000, 1e-6);
		const made = cellsOf(makeSchedule(model, 'elements').columns.find(({ key }) => key === 'mass')!);
		expect(made.reduce<number>((sum, kg) => sum + Number(kg), 0)).to.be.closeTo(
			summarise(model).mass_kg,
			1e-6
		);
	});
});
