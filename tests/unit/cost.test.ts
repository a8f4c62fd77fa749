import { expect } from 'chai';
import { Chain } from '../../src/core/chain/chain';
import { costOf } from '../../src/core/cost/cost';
import type { Rate } from '../../src/core/project/rates-schema';
import { readProject } from '../../src/core/project/read';
import { cladFigures } from '../../src/core/schedule/clad-figures';
import { summarise } from '../../src/core/schedule/summary';
import { cellsOf } from '../../src/core/schedule/column';
import { makeSchedule } from '../../src/core/schedule/table';
import { atOnce } from '../../src/core/units/steps';
import { count, projectOf, sheet } from '../faces';

const rate = (id: string, more: Partial<Rate>): Partial<Rate> => ({ id, rate: 1, per: 'mass', ...more });

/** Two zones of panes with bars on a sheet of 6 m by 7.2 m; one divided otherwise. */
async function modelWith(rates: readonly Partial<Rate>[]) {
	const clad = {
		rules: [{ id: 'r', put: { variant: 'pane', values: {} } }],
		runs: [{ id: 'l', lines: ['bay'], variant: 'bar' }]
	} as Parameters<typeof projectOf>[2];
	const one = projectOf(sheet(6000, 7200), count(4, 2), clad, {
		variants: [
			{ id: 'pane', name: 'pane', part: 'flat-panel', values: { sheet: 'glass', thickness: 10 } },
			{ id: 'bar', name: 'bar', part: 'box-mullion', values: {} }
		]
	});
	const other = {
		...one.zones[0]!,
		id: 'y',
		code: 'Y',
		settingOut: { ...one.zones[0]!.settingOut, ...count(5, 2) }
	};
	const project = readProject({ ...one, zones: [...one.zones, other], cost: { currency: '€', rates } });
	return new Chain().run(project);
}

describe('Cost', () => {
	it('of m², m, kg and pieces is what the schedules add up to, times the rates', async () => {
		const model = await modelWith([
			rate('area', { material: 'glass', per: 'area', rate: 100 }),
			rate('length', { material: 'aluminium', per: 'length', rate: 10 }),
			rate('mass', { rate: 2 }),
			rate('panes', { part: 'flat-panel', per: 'piece', rate: 50 }),
			rate('all', { per: 'piece', rate: 0.5 })
		]);
		const { total, rates, zones } = atOnce(costOf(model));
		const { columns } = makeSchedule(model, 'elements');
		const column = (key: string) => cellsOf(columns.find((one) => one.key === key)!);
		const sum = (key: string, of: string) =>
			column(key).reduce(
				(all: number, value, row) => all + (column('material')[row] === of ? Number(value) : 0),
				0
			);
		const { mass_kg, panels, bars } = summarise(model);
		expect(rates.get('area')!.amount).to.be.closeTo(sum('area', 'Glass') / 1e6, 1e-9);
		expect(rates.get('length')!.amount).to.be.closeTo(sum('length', 'Aluminium') / 1000, 1e-9);
		expect(rates.get('mass')!.amount).to.be.closeTo(mass_kg, 1e-3);
		expect(rates.get('panes')).to.deep.equal({ amount: panels, cost: 50 * panels });
		expect(rates.get('all')!.amount).to.equal(panels + bars.count);
		const costs = [...rates.values()].reduce((all, { cost }) => all + cost, 0);
		expect(total).to.be.closeTo(costs, 1e-6);
		expect([...zones.values()].reduce((all, one) => all + one, 0)).to.be.closeTo(total, 1e-6);
	});

	it('of a kind counts once, in the zone where it comes first; muted rates count nothing', async () => {
		const model = await modelWith([
			rate('kinds', { per: 'kind', rate: 7 }),
			rate('muted', { per: 'piece', rate: 1000, muted: true })
		]);
		const { total, zones, rates } = atOnce(costOf(model));
		// All eight panes of one zone are alike, and all ten of the other.
		expect(rates.get('kinds')).to.deep.equal({ amount: 2, cost: 14 });
		expect(total).to.equal(14);
		expect([...zones]).to.deep.equal([
			['z', 7],
			['y', 7]
		]);
		expect(rates.has('muted')).to.equal(false);
	});

	it('figures to compare are those of the first zone', async () => {
		const model = await modelWith([rate('panes', { part: 'flat-panel', per: 'piece', rate: 50 })]);
		const figures = atOnce(cladFigures(model));
		expect(figures).to.include({ pieces: 8 + 6, waiting: 0, kinds: 1, flagged: 0, cost: 400 });
		expect(figures.barLength).to.be.closeTo(6 * 3.6, 1e-6);
	});

	it('rates below nought are refused with what is accepted', () => {
		const one = projectOf(sheet(1000, 1000), count(1, 1));
		expect(() => readProject({ ...one, cost: { rates: [rate('r', { rate: -1 })] } })).to.throw(
			'a rate of 0 or more'
		);
	});
});
