import { expect } from 'chai';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Papa from 'papaparse';
import { Chain } from '../../src/core/chain/chain';
import type { Model } from '../../src/core/cladding/model';
import { writeXlsx } from '../../src/core/exchange/xlsx/write';
import { everySite } from '../../src/core/field/column';
import { readProjectText } from '../../src/core/project/read';
import { scheduleNames } from '../../src/core/project/schedules-schema';
import { cellsOf, columnOf, textHead } from '../../src/core/schedule/column';
import { inFiles } from '../../src/core/schedule/listed';
import { makeSchedule, type Schedule } from '../../src/core/schedule/table';
import { scales } from '../../src/core/units/scale';

/** What the reader in Python says of a sheet. */
interface ReadSheet {
	readonly name: string;
	readonly frozen: string;
	readonly filter: string;
	readonly formats: readonly string[];
	/** As they lie in the file, formulas as such. */
	readonly rows: readonly (readonly (string | number | null)[])[];
	/** Results that were written beside the formulas. */
	readonly last: readonly (string | number | null)[];
}

const READER = `
import json, sys, openpyxl
book, done = openpyxl.load_workbook(sys.argv[1]), openpyxl.load_workbook(sys.argv[1], data_only=True)
print(json.dumps([dict(name=s.title, frozen=s.freeze_panes, filter=s.auto_filter.ref,
    formats=[c.number_format for c in s[2]], rows=[[c.value for c in row] for row in s.rows],
    last=[c.value for c in done[s.title][s.max_row]]) for s in book]))
`;

function written(bytes: Uint8Array): string {
	const path = join(mkdtempSync(join(tmpdir(), 'workbook-')), 'book.xlsx');
	writeFileSync(path, bytes);
	return path;
}

/** As openpyxl reads it. */
function read(bytes: Uint8Array): readonly ReadSheet[] {
	const { stdout, stderr } = spawnSync('/usr/bin/python3', ['-W', 'error', '-c', READER, written(bytes)], {
		encoding: 'utf8',
		maxBuffer: 1e9
	});
	expect(stderr).to.equal('');
	return JSON.parse(stdout) as ReadSheet[];
}

/** Each sheet as text, with everything reckoned anew by Gnumeric's ssconvert. */
function recalculated(bytes: Uint8Array, sheets: number): string[][][] {
	const path = written(bytes);
	const { status, stderr } = spawnSync('/usr/bin/ssconvert', ['--recalc', '-S', path, `${path}-%n.csv`], {
		encoding: 'utf8'
	});
	expect(status, stderr).to.equal(0);
	return Array.from(
		{ length: sheets },
		(_, k) => Papa.parse<string[]>(readFileSync(`${path}-${k}.csv`, 'utf8').trimEnd()).data
	);
}

const sheetOf = ({ name, columns, rows }: Schedule) => ({
	name,
	columns: columns.filter(inFiles),
	rows: everySite(rows)
});

describe('workbooks, read by programs that did not write them', () => {
	let model: Model;
	let schedules: Schedule[];
	let bytes: Uint8Array;
	let sheets: readonly ReadSheet[];
	before(async () => {
		model = await new Chain().run(
			readProjectText(readFileSync(new URL('../lido.json', import.meta.url), 'utf8'))
		);
		schedules = scheduleNames.map((name) => makeSchedule(model, name)).filter(({ rows }) => rows > 0);
		bytes = await writeXlsx(schedules.map(sheetOf), '2026-11-29T10:00:00');
		sheets = read(bytes);
	});

	it('openpyxl: every number and text of every schedule lies in its cell, heads are frozen and filter', () => {
		const wrong: string[] = [];
		expect(sheets.map(({ name }) => name)).to.deep.equal(schedules.map(({ name }) => name));
		for (const [k, { columns, rows }] of schedules.entries()) {
			const sheet = sheets[k]!;
			expect(sheet.frozen).to.equal('B2');
			expect(sheet.filter).to.match(new RegExp(`^A1:[A-Z]+${rows + 1}$`));
			for (const [c, column] of columns.filter(inFiles).entries()) {
				const { kind, title } = column;
				const values = cellsOf(column);
				expect(sheet.rows[0]![c]).to.include(title);
				if (kind === 'length' && typeof values[0] === 'number') expect(sheet.formats[c]).to.equal('#,##0.0');
				for (let row = 0; row < rows; row++) {
					const [cell, value] = [sheet.rows[row + 1]![c], values[row]!];
					const isThere =
						typeof value === 'number' && kind !== 'text'
							? Math.abs(Number(cell) - value / scales[kind].size) < 1e-6 && cell !== null
							: cell === (value === '' ? null : value);
					if (!isThere) wrong.push(`${sheet.name}, ${title}, row ${row}: ${cell} for ${value}`);
				}
			}
		}
		expect(wrong).to.deep.equal([]);
	});

	it('ssconvert: totals reckoned anew are those of the schedule, and those that were written', () => {
		const anew = recalculated(bytes, schedules.length);
		let totals = 0;
		for (const [k, { columns }] of schedules.entries())
			for (const [c, column] of columns.filter(inFiles).entries()) {
				const { kind, total, title } = column;
				const values = cellsOf(column);
				if (!total || kind === 'text') continue;
				totals++;
				const sum = values.reduce<number>((all, one) => all + (typeof one === 'number' ? one : 0), 0);
				const expected = sum / scales[kind].size;
				const within = Math.max(1e-6, Math.abs(expected) * 1e-9) + 1e-6 * values.length;
				expect(sheets[k]!.rows.at(-1)![c], title).to.match(/^=SUBTOTAL\(9,[A-Z]+2:[A-Z]+\d+\)$/);
				expect(Number(anew[k]!.at(-1)![c]), title).to.be.closeTo(expected, within);
				expect(sheets[k]!.last[c], title).to.be.closeTo(expected, within);
			}
		expect(totals).to.be.greaterThan(8);
	});

	it('text is text, whatever it looks like, and rows stand in the order they are listed in', async () => {
		const values = ['=1+1', 'a <b> & "c"', ' blank before', 'two\nlines', 'bell\u0007', '00123', null];
		const columns = [columnOf(textHead('said', 'Said'), values)];
		const [sheet] = read(
			await writeXlsx(
				[{ name: 'A & B', columns, rows: Uint32Array.of(6, 5, 4, 3, 2, 1, 0) }],
				'2026-11-29T10:00:00'
			)
		);
		expect(sheet!.name).to.equal('A & B');
		expect(sheet!.rows.slice(1).map(([text]) => text)).to.deep.equal([
			null,
			'00123',
			'bell',
			'two\nlines',
			' blank before',
			'a <b> & "c"',
			'=1+1'
		]);
	});

	it('the same model at the same moment is the same file', async () => {
		const again = await writeXlsx(schedules.map(sheetOf), '2026-11-29T10:00:00');
		expect(Buffer.compare(again, bytes)).to.equal(0);
	});
});
