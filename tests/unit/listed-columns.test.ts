import { expect } from 'chai';
import { Chain } from '../../src/core/chain/chain';
import { NOTHING_NAMED } from '../../src/core/named/named-values';
import type { OwnColumn } from '../../src/core/project/schedules-schema';
import { cellOf, cellsOf, columnOf, numberHead, textHead, type Cell } from '../../src/core/schedule/column';
import { nameOfColumn, ownColumns } from '../../src/core/schedule/own-columns';
import { queryRows, totalsOf, type Listed, type Query } from '../../src/core/schedule/query';
import { makeSchedule } from '../../src/core/schedule/table';
import { count, projectOf, sheet } from '../faces';
import fc from '../property';

const EVERYTHING: Query = { filters: [], sort: null, groupBy: null };

/** A list of one column of words and one of numbers. */
function listOf(words: readonly Cell[], sizes: readonly Cell[]): Listed & { readonly name: string } {
	const columns = [
		columnOf(textHead('mark', 'Mark'), words),
		columnOf(numberHead('area', 'Area', 'area', true), sizes)
	];
	return {
		name: 'panels',
		rows: words.length,
		heads: columns,
		column: (key) => columns.find((one) => one.key === key)
	};
}
const anyCells = fc.array(
	fc.tuple(
		fc.oneof(
			fc.constantFrom('C2', 'C10', 'c2', 'C02', '', 'É1', 'e1', 'GR-C01-B10', 'GR-C01-B9', '7', '١٢'),
			fc.string({ maxLength: 6 })
		),
		fc.option(fc.oneof(fc.double({ noNaN: true }), fc.constantFrom(0, -0, 1, -1, 2 ** 40)), { nil: null })
	),
	{ maxLength: 60 }
);

describe('columns of lists', () => {
	it('give back what was put in, and nothing where nothing was', () => {
		fc.assert(
			fc.property(anyCells, (rows) => {
				const list = listOf(
					rows.map(([word]) => word),
					rows.map(([, size]) => size)
				);
				expect(cellsOf(list.column('mark')!)).to.deep.equal(rows.map(([word]) => word));
				expect(cellsOf(list.column('area')!)).to.deep.equal(rows.map(([, size]) => size));
			})
		);
	});

	it('hold more different words than are looked for among those before', () => {
		const words = Array.from({ length: 10_000 }, (_, k) => `M-${k % 7000}`);
		const column = columnOf(textHead('mark', 'Mark'), words);
		expect(cellOf(column, 9_999)).to.equal('M-2999');
		const list = {
			...listOf(
				words,
				words.map(() => 1)
			),
			column: () => column
		};
		expect(queryRows(list, { ...EVERYTHING, groupBy: 'mark' })).to.have.length(7000);
	});

	it('numbers sort as a plain comparison has them, either way, those that are missing last', () => {
		fc.assert(
			fc.property(anyCells, fc.boolean(), (rows, descending) => {
				const list = listOf(
					rows.map(() => ''),
					rows.map(([, size]) => size)
				);
				const [all] = queryRows(list, { ...EVERYTHING, sort: { key: 'area', descending } });
				const sign = descending ? -1 : 1;
				const wanted = rows
					.map(([, size], row) => ({ size, row }))
					.sort((a, b) =>
						a.size === null || b.size === null
							? Number(a.size === null) - Number(b.size === null) || a.row - b.row
							: sign * (a.size - b.size) || a.row - b.row
					);
				expect([...all!.rows]).to.deep.equal(wanted.map(({ row }) => row));
			})
		);
	});

	it('words sort with numbers in them as numbers, the empty ones last either way; equal ones stay as they came', () => {
		const words = ['C10', '', 'C2', 'c02', 'É2', 'C2', 'e10', 'B99', 'C'];
		const list = listOf(
			words,
			words.map(() => 0)
		);
		const sorted = (descending: boolean) =>
			Array.from(
				queryRows(list, { ...EVERYTHING, sort: { key: 'mark', descending } })[0]!.rows,
				(row) => words[row]
			);
		expect(sorted(false)).to.deep.equal(['B99', 'C', 'C2', 'C2', 'c02', 'C10', 'É2', 'e10', '']);
		expect(sorted(true).at(-1)).to.equal('');
		expect(sorted(true).slice(0, -1)).to.deep.equal(sorted(false).slice(0, -1).reverse());
	});

	it('filters keep what a look at every row keeps, wherever in it the words begin', () => {
		fc.assert(
			fc.property(anyCells, fc.string({ minLength: 1, maxLength: 3 }), (rows, value) => {
				const list = listOf(
					rows.map(([word]) => word),
					rows.map(([, size]) => size)
				);
				const kept = (filter: Query['filters'][number]) => [
					...queryRows(list, { ...EVERYTHING, filters: [filter] })[0]!.rows
				];
				const which = (holds: (word: string, size: number | null) => boolean) =>
					rows.flatMap(([word, size], row) => (holds(word, size) ? [row] : []));
				expect(kept({ key: 'mark', is: 'contains', value })).to.deep.equal(
					which((word) => word.toLowerCase().includes(value.toLowerCase()))
				);
				expect(kept({ key: 'mark', is: 'equal', value })).to.deep.equal(which((word) => word === value));
				expect(kept({ key: 'area', is: 'at least', value: 0 })).to.deep.equal(
					which((_, size) => size !== null && size >= 0)
				);
				// What is not said yet keeps all.
				expect(kept({ key: 'mark', is: 'contains', value: '' })).to.have.length(rows.length);
			})
		);
	});

	it('groups hold every row once, and their sums are the whole', () => {
		fc.assert(
			fc.property(anyCells, (rows) => {
				const list = listOf(
					rows.map(([word]) => word.slice(0, 1)),
					rows.map(([, size]) => (size === null ? null : Math.sign(size)))
				);
				const groups = queryRows(list, { ...EVERYTHING, groupBy: 'mark' });
				const all = groups.flatMap((group) => [...group.rows]);
				expect(all.sort((a, b) => a - b)).to.deep.equal(rows.map((_, row) => row));
				expect(new Set(groups.map(({ label }) => label)).size).to.equal(groups.length);
				const whole = totalsOf(list, Uint32Array.from(all)).area!;
				expect(groups.reduce((sum, { totals }) => sum + totals.area!, 0)).to.be.closeTo(whole, 1e-9);
			})
		);
	});
});

describe('columns of a project\u2019s own', () => {
	const list = listOf(['A', 'B', 'C'], [2e6, null, 0]);
	const formula = (id: string, text: string): OwnColumn => ({
		id,
		title: id,
		list: 'panels',
		by: { is: 'formula', formula: text }
	});
	const filled = (...columns: OwnColumn[]) => ownColumns(list, columns, [], NOTHING_NAMED);

	it('are reckoned of the others, of those before them too; a value that is missing stays missing', () => {
		const [price, twice, dear] = filled(
			formula('price', 'area / (1 m * 1 m) * 240'),
			formula('twice', '2 * price'),
			formula('dear', 'price > 100')
		);
		expect(cellsOf(price!.make())).to.deep.equal([480, null, 0]);
		expect(cellsOf(twice!.make())).to.deep.equal([960, null, 0]);
		expect(cellsOf(dear!.make())).to.deep.equal(['yes', 'no', 'no']);
		const [inverse] = filled(formula('inverse', '1 / price * 1'));
		expect(inverse!.problem).to.match(/price/);
	});

	it('a division by nought is no value; a unit that no column is in is told, and what would be', () => {
		const [each, odd] = filled(formula('each', '1 m * 1 m / area'), formula('odd', '1 kg / area'));
		expect(cellsOf(each!.make())).to.deep.equal([0.5, null, null]);
		expect(cellsOf(odd!.make())).to.deep.equal(['', '', '']);
		expect(odd!.problem).to.match(/which no column is in; divide by a unit/);
	});

	it('stand in lists beside those of the model: by hand under the address, from a table by mark or address', async () => {
		const rows = [
			['Z-C01-B01', 7],
			['Z-C02-B02', 9]
		] as unknown as [string][];
		const named = { id: 'batch', kind: 'table' as const, columns: [{ id: 'crate', label: 'Crate' }] };
		const tables = [
			{ ...named, name: 'Batches', by: 'mark' as const, rows },
			{
				...named,
				id: 'where',
				name: 'Where',
				by: 'address' as const,
				rows: [['m.wall/C01/B02/1', 4]] as never
			}
		];
		const own = (id: string, by: OwnColumn['by']): OwnColumn => ({ id, title: id, list: 'panels', by });
		const columns = [
			own('crate', { is: 'table', table: 'batch', column: 'crate' }),
			own('place', { is: 'table', table: 'where', column: 'crate' }),
			own('gone', { is: 'table', table: 'batch', column: 'nothing' }),
			own('maker', {
				is: 'hand',
				holds: 'text',
				values: [{ id: 'z/m.wall/C02/B01/1', value: 'the second' }]
			})
		];
		const variants = [{ id: 'v', name: 'One', part: 'flat-panel', values: {} }];
		const rules = [{ id: 'all', put: { variant: 'v', values: {} } }];
		const project = projectOf(
			sheet(4000, 2000),
			count(2, 2),
			{ rules },
			{ variants, tables, schedules: { layouts: [], columns } }
		);
		const panels = makeSchedule(await new Chain().run(project), 'panels');
		const values = (key: string) => cellsOf(panels.column(`own ${key}`)!);
		expect(cellsOf(panels.column('mark')!)[0]).to.match(/C01-B01$/);
		expect(values('place')).to.deep.equal([null, 4, null, null]);
		expect(values('maker')).to.deep.equal(['', '', 'the second', '']);
		expect(panels.problems).to.deep.equal([
			{ key: 'own gone', problem: 'the table Batches has no column nothing' }
		]);
		expect(values('crate')).to.deep.equal([7, null, null, 9]);
	});

	it('columns whose keys are no words are called by their titles', () => {
		expect(nameOfColumn({ key: 'set Depth length', title: 'Depth of the hood' })).to.equal(
			'depth_of_the_hood'
		);
		expect(nameOfColumn({ key: 'own price', title: 'What it costs' })).to.equal('price');
	});
});

describe('lists of what stands for many pieces', () => {
	it('kinds, materials and rules come to what the pieces do', async () => {
		const variants = [{ id: 'v', name: 'One', part: 'framed-glass', values: {} }];
		const rules = [{ id: 'all', put: { variant: 'v', values: {} } }];
		const project = projectOf(sheet(6000, 2000), count(3, 2), { rules }, { variants });
		const model = await new Chain().run(project);
		const sum = (name: 'panels' | 'elements' | 'kinds' | 'materials' | 'rules', key: string) => {
			const column = makeSchedule(model, name).column(key)!;
			return cellsOf(column).reduce<number>((all, one) => all + Number(one ?? 0), 0);
		};
		const kinds = makeSchedule(model, 'kinds');
		// Six cells of 2 by 1 m: one kind.
		expect(kinds.rows).to.equal(1);
		expect(cellOf(kinds.column('pieces')!, 0)).to.equal(6);
		expect(cellOf(kinds.column('edges')!, 0)).to.match(/^(2000\.0 \+ 1000\.0|1000\.0 \+ 2000\.0)/);
		expect(String(cellOf(kinds.column('address')!, 0)).split('; ')).to.have.length(6);
		expect(cellOf(kinds.column('picture')!, 0)).to.match(/^M[\d. ]+(L[\d. ]+){3}Z$/);
		for (const name of ['kinds', 'materials', 'rules', 'elements'] as const)
			expect(sum(name, 'mass'), name).to.be.closeTo(sum('panels', 'mass'), 1e-6);
		expect(sum('kinds', 'area')).to.be.closeTo(12e6, 1);
		expect(sum('materials', 'elements')).to.equal(makeSchedule(model, 'elements').rows);
		expect(sum('materials', 'length')).to.be.closeTo(sum('elements', 'length'), 1e-6);
		expect(cellsOf(makeSchedule(model, 'rules').column('clause')!)).to.deep.equal(['rule 1']);
	});

	it('mitred bars that meet square are cut at 45°, at both ends; those that nothing is cut from say nothing', async () => {
		const variants = [{ id: 's', name: 's', part: 'cap-strip', values: {} }];
		const cuts = async (ends: object | null) => {
			const runs = [{ id: 'r', lines: ['rim'], variant: 's', ends }] as never;
			const project = projectOf(sheet(2000, 1000), count(1, 1), { runs }, { variants });
			const bars = makeSchedule(await new Chain().run(project), 'bars');
			return ['start', 'end'].flatMap((key) => cellsOf(bars.column(key)!));
		};
		expect(await cuts({ is: 'mitred' })).to.deep.equal(new Array(8).fill('45.0°'));
		expect(await cuts({ is: 'set back', by: 50 })).to.deep.equal(new Array(8).fill('square'));
		expect(await cuts(null)).to.deep.equal(new Array(8).fill(''));
	});
});
