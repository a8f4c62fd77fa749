import { expect } from 'chai';
import { readFileSync } from 'node:fs';
import { Chain } from '../../src/core/chain/chain';
import type { Model } from '../../src/core/cladding/model';
import { scheduleCsv } from '../../src/core/exchange/csv/write';
import { readEdited } from '../../src/core/exchange/values/read-edited';
import { cellsOf } from '../../src/core/schedule/column';
import { makeSchedule } from '../../src/core/schedule/table';
import Papa from 'papaparse';
import { readProjectText } from '../../src/core/project/read';
import type { Project } from '../../src/core/project/schema';
import { count, projectOf, sheet } from '../faces';
import fc from '../property';

async function wall(): Promise<Model> {
	const variants: Project['variants'] = [
		{ id: 'clear', name: 'Clear', part: 'framed-glass', values: {} },
		{ id: 'blades', name: 'Blades', part: 'blade-stack', values: {} },
		{ id: 'bar', name: 'Bar', part: 'box-mullion', values: {} }
	];
	const rules = [{ id: 'all', put: { variant: 'blades', values: { angle: '20 deg + 5 deg * bay' } } }];
	const model = await new Chain().run(projectOf(sheet(4000, 2000), count(4, 2), { rules }, { variants }));
	expect(model.problems).to.deep.equal([]);
	return model;
}
/** The list as somebody has it in a spreadsheet. */
const listOf = (model: Model) =>
	Papa.parse<string[]>(scheduleCsv(makeSchedule(model, 'louvers').columns)).data;

describe('edited lists of pieces', () => {
	let model: Model;
	before(async () => (model = await wall()));

	it('as it was written, a list changes nothing; values that are driven are columns of it', () => {
		const lines = listOf(model);
		expect(lines[0]).to.include('Angle (deg)');
		const { rows, pieces, unknown, refused, left } = readEdited(lines, model, 'louvers');
		expect(rows).to.equal(8);
		expect({ pieces, unknown, refused, left }).to.deep.equal({
			pieces: [],
			unknown: [],
			refused: [],
			left: []
		});
	});

	it('columns that are written by hand come back: what is new, what is otherwise, what was taken away', async () => {
		const hand = (
			id: string,
			title: string,
			holds: 'text' | 'number',
			values: { id: string; value: string | number }[]
		) => ({
			id,
			title,
			list: 'louvers' as const,
			by: { is: 'hand' as const, holds, values }
		});
		const [first, second] = cellsOf(makeSchedule(model, 'louvers').column('address')!).map(String);
		const columns = [
			hand('maker', 'Maker', 'text', [
				{ id: first!, value: 'the first' },
				{ id: second!, value: 'the second' }
			]),
			hand('crate', 'Crate', 'number', [])
		];
		const own: Model = { ...model, project: { ...model.project, schedules: { layouts: [], columns } } };
		const lines = listOf(own).map((line) => [...line] as (string | number)[]);
		const at = (title: string) => lines[0]!.indexOf(title);
		lines[1]![at('Maker')] = '';
		lines[2]![at('Crate')] = 7;
		lines[3]![at('Crate')] = 'many';
		const { pieces, refused, left } = readEdited(lines, own, 'louvers');
		expect(left).to.deep.equal([]);
		expect(pieces.map(({ own: written }) => written)).to.deep.equal([{ maker: '' }, { crate: 7 }]);
		expect(refused).to.have.length(1);
		expect(refused[0]).to.match(/Crate holds numbers, not "many"/);
	});

	it('what is edited is told piece by piece, as formulas the document keeps', () => {
		const lines = listOf(model).map((line) => [...line] as (string | number)[]);
		const at = (title: string) => lines[0]!.indexOf(title);
		lines[1]![at('Angle (deg)')] = 40;
		lines[2]![at('Variant')] = 'Clear';
		const { pieces, refused } = readEdited(lines, model, 'louvers');
		expect(refused).to.deep.equal([]);
		expect(pieces).to.have.length(2);
		expect(pieces[0]!.values).to.deep.equal({ angle: '40 deg' });
		expect(pieces[0]!.address).to.equal(String(lines[1]![at('Address')]));
		expect(pieces[1]!.variant).to.equal('clear');
		expect(pieces[1]!.said).to.deep.equal(['Blades to Clear']);
	});

	it('whatever angles are typed: each comes back as it was typed, or is refused by name', () => {
		const marks = cellsOf(makeSchedule(model, 'louvers').columns.find(({ key }) => key === 'mark')!);
		fc.assert(
			fc.property(
				fc.array(fc.double({ min: -400, max: 400, noNaN: true }), { minLength: 8, maxLength: 8 }),
				(angles) => {
					const lines = [['Mark', 'Angle'], ...angles.map((angle, k) => [marks[k]!, angle])];
					const { pieces, refused, rows } = readEdited(lines, model, 'louvers');
					expect(rows).to.equal(8);
					for (const [k, angle] of angles.entries()) {
						const mark = String(marks[k]);
						const piece = pieces.find((one) => one.mark === mark);
						const isRefused = refused.some((text) => text.startsWith(`${mark}: `));
						if (piece) expect(parseFloat(piece.values['angle']!)).to.be.closeTo(angle, 1e-9);
						// Neither taken nor refused is what stands already: 25, 30, 35, 40 degrees.
						else if (!isRefused) expect(Math.abs(angle - (20 + 5 * ((k % 4) + 1)))).to.be.lessThan(0.006);
					}
				}
			)
		);
	});

	it('wrong, double and missing marks, text for numbers, values of other parts: each is said, the rest is taken', () => {
		const marks = cellsOf(makeSchedule(model, 'louvers').columns.find(({ key }) => key === 'mark')!).map(
			String
		);
		const lines = [
			['mark', 'ANGLE (rad)', 'Area (m2)', 'Colour of the day', 'Variant'],
			[marks[0], 0.7, 3, 'red', ''],
			[marks[0], 0.8, '', '', ''],
			['XX-C01-B01', 0.7, '', '', ''],
			[marks[1], 'steep', '', '', ''],
			[marks[2], '', '', '', 'Nothing'],
			[marks[3], '', '', '', 'Bar'],
			[marks[4], '35 deg', '', '', ''],
			['Total', '', 4, '', '']
		];
		const { rows, pieces, unknown, refused, left } = readEdited(lines, model, 'louvers');
		expect(rows).to.equal(7);
		expect(unknown).to.deep.equal(['XX-C01-B01']);
		expect(pieces.map(({ mark }) => mark)).to.deep.equal([marks[0], marks[4]]);
		expect(parseFloat(pieces[0]!.values['angle']!)).to.be.closeTo((0.7 * 180) / Math.PI, 1e-9);
		expect(refused.join('\n')).to.match(/stands in the list twice/);
		expect(refused.join('\n')).to.match(/Angle cannot be "steep"/);
		expect(refused.join('\n')).to.match(/no variant is called Nothing/);
		expect(refused.join('\n')).to.match(/Bar does not fit a cell of 4 corners/);
		expect(left).to.deep.equal([
			'Area differs from the model in 1 row; it is reckoned, and cannot be set',
			'Colour of the day is no column of this list and no value of its parts'
		]);
	});

	it('an address names a piece as its mark does, and a piece counts once whatever it is called by', () => {
		const { columns } = makeSchedule(model, 'louvers');
		const [marks, addresses] = ['mark', 'address'].map((key) =>
			cellsOf(columns.find((one) => one.key === key)!).map(String)
		) as [string[], string[]];
		const { pieces, refused } = readEdited(
			[
				['Address', 'Angle'],
				[addresses[5], 50],
				[marks[5], 60]
			],
			model,
			'louvers'
		);
		expect(pieces.map(({ address, values }) => [address, values['angle']])).to.deep.equal([
			[addresses[5], '50 deg']
		]);
		expect(refused).to.have.length(1);
	});

	it('a whole project: what is only opened and saved changes nothing, list by list', async () => {
		const lido = readFileSync(new URL('../lido.json', import.meta.url), 'utf8');
		const whole = await new Chain().run(readProjectText(lido));
		let all = 0;
		for (const name of ['panels', 'louvers', 'structure'] as const) {
			const lines = Papa.parse<string[]>(scheduleCsv(makeSchedule(whole, name).columns)).data;
			if (lines.length < 2) continue;
			const { rows, pieces, unknown, refused, left } = readEdited(lines, whole, name);
			expect([pieces, unknown, refused, left], name).to.deep.equal([[], [], [], []]);
			all += rows;
		}
		expect(all).to.be.greaterThan(750);
	});

	it('what is put beside others is known, and said to be set by its rule', async () => {
		const { project } = model;
		const [zone] = project.zones as [Project['zones'][number]];
		const also = { ...zone.rules[0]!, id: 'twice', also: true };
		const doubled = await new Chain().run({ ...project, zones: [{ ...zone, rules: [...zone.rules, also] }] });
		const { columns, rows } = makeSchedule(doubled, 'louvers');
		expect(rows).to.equal(16);
		const marks = cellsOf(columns.find(({ key }) => key === 'mark')!).map(String);
		const beside = marks.find((mark) => mark.endsWith('+twice'))!;
		const untouched = readEdited(listOf(doubled), doubled, 'louvers');
		expect([untouched.pieces, untouched.unknown, untouched.refused]).to.deep.equal([[], [], []]);
		const { pieces, unknown, refused } = readEdited(
			[
				['Mark', 'Angle'],
				[beside, 50]
			],
			doubled,
			'louvers'
		);
		expect([pieces, unknown]).to.deep.equal([[], []]);
		expect(refused[0]).to.match(/beside others.*set by its clause/);
	});

	it('what is no such list is refused in words', () => {
		expect(() => readEdited([], model, 'louvers')).to.throw(/no rows/);
		expect(() => readEdited([['Name'], ['x']], model, 'louvers')).to.throw(/headed Mark/);
	});
});
