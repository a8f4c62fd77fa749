import { letters } from '../../units/letters';
import { Archive, platformPacking, type Packing } from '../archive';
import { bytesOf } from '../bytes';
import { sheetXml, type Sheet } from './sheet';
import { stylesXml } from './styles';
import { xmlText } from '../xml';
import { Texts } from './texts';

/** A sheet has so many rows at most beside its head and its totals: the bound of those who read it. */
const MOST_ROWS = 1_048_576 - 2;
const RELATIONS = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
const PACKAGE = 'http://schemas.openxmlformats.org/package/2006';
const MAIN = 'application/vnd.openxmlformats-officedocument.spreadsheetml';

/** A sheet that is longer than one can be, as several. */
function* inSheets({ name, columns, rows }: Sheet): Generator<Sheet> {
	for (let from = 0, part = 1; from === 0 || from < rows.length; from += MOST_ROWS, part++)
		yield {
			name: part > 1 ? `${name} ${part}` : name,
			columns,
			rows: rows.subarray(from, from + MOST_ROWS)
		};
}

/** What a sheet of a workbook is known by. */
interface Entry {
	readonly name: string;
	/** Of its head and rows. */
	readonly range: string;
}

function workbookXml(entries: readonly Entry[]): string {
	const sheets = entries.map(
		({ name }, k) => `<sheet name="${xmlText(name)}" sheetId="${k + 1}" r:id="rId${k + 1}"/>`
	);
	const filters = entries.map(
		({ name, range }, k) =>
			`<definedName name="_xlnm._FilterDatabase" localSheetId="${k}" hidden="1">'${xmlText(name)}'!${range}</definedName>`
	);
	return (
		`<workbook xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main" xmlns:r="${RELATIONS}">` +
		`<sheets>${sheets.join('')}</sheets><definedNames>${filters.join('')}</definedNames></workbook>`
	);
}

function relations(list: readonly (readonly [type: string, target: string])[]): string {
	const all = list.map(
		([type, target], k) => `<Relationship Id="rId${k + 1}" Type="${RELATIONS}/${type}" Target="${target}"/>`
	);
	return `<Relationships xmlns="${PACKAGE}/relationships">${all.join('')}</Relationships>`;
}

function contentTypes(count: number): string {
	const of = (name: string, type: string) =>
		`<Override PartName="${name}" ContentType="${MAIN}.${type}+xml"/>`;
	const sheets = Array.from({ length: count }, (_, k) => of(`/xl/worksheets/sheet${k + 1}.xml`, 'worksheet'));
	return (
		`<Types xmlns="${PACKAGE}/content-types">` +
		`<Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/>` +
		`<Default Extension="xml" ContentType="application/xml"/>` +
		of('/xl/workbook.xml', 'sheet.main') +
		of('/xl/styles.xml', 'styles') +
		of('/xl/sharedStrings.xml', 'sharedStrings') +
		`${sheets.join('')}</Types>`
	);
}

/**
 * Schedules as a workbook, a sheet each: ECMA-376 (ISO/IEC 29500) SpreadsheetML.
 *
 * ```ts
 * const { columns, rows } = makeSchedule(model, 'panels');
 * const bytes = await writeXlsx([{ name: 'Panels', columns, rows: everySite(rows) }], '2026-11-27T10:00:00');
 * ```
 * @param sheets are made one by one, as they are written @param at the moment that its files say they are of
 * @param packing of its files @throws what that fails with
 */
export async function writeXlsx(
	sheets: Iterable<Sheet>,
	at: string,
	packing: Packing = platformPacking
): Promise<Uint8Array> {
	const archive = new Archive(new Date(at), packing);
	const entries: Entry[] = [];
	const texts = new Texts();
	for (const made of sheets)
		for (const sheet of inSheets(made)) {
			const { columns, rows, name } = sheet;
			entries.push({ name, range: `$A$1:$${letters(columns.length - 1)}$${rows.length + 1}` });
			await archive.add(`xl/worksheets/sheet${entries.length}.xml`, sheetXml(sheet, texts));
		}
	await archive.add('xl/sharedStrings.xml', texts.xml());
	await archive.add('xl/styles.xml', [bytesOf(stylesXml())]);
	await archive.add('xl/workbook.xml', [bytesOf(workbookXml(entries))]);
	await archive.add('xl/_rels/workbook.xml.rels', [
		bytesOf(
			relations([
				...entries.map((_, k) => ['worksheet', `worksheets/sheet${k + 1}.xml`] as const),
				['styles', 'styles.xml'],
				['sharedStrings', 'sharedStrings.xml']
			])
		)
	]);
	await archive.add('_rels/.rels', [bytesOf(relations([['officeDocument', 'xl/workbook.xml']]))]);
	await archive.add('[Content_Types].xml', [bytesOf(contentTypes(entries.length))]);
	return archive.end();
}
