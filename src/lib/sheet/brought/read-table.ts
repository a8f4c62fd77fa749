import { readTable, type ReadTable } from '$core/exchange/csv/read-table';

/** Read a CSV or XLSX; the readers are fetched when they are first asked for. @throws Error with a sentence */
export async function readTableFile(file: File): Promise<ReadTable> {
	if (/\.xlsx$/i.test(file.name)) {
		const { default: readSheets } = await import('read-excel-file/browser');
		let sheets: { readonly data: readonly (readonly unknown[])[] }[];
		try {
			sheets = await readSheets(file);
		} catch {
			throw new Error('it is no workbook that can be read');
		}
		return readTable(sheets[0]?.data ?? []);
	}
	const { default: papa } = await import('papaparse');
	return readTable(papa.parse<string[]>(await file.text(), { skipEmptyLines: true }).data);
}
