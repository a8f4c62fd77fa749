/** Larger files (bytes) would not be read in a window's memory. */
const MOST_BYTES = 60e6;

/**
 * The lines of a CSV or XLSX, values of formulas in their place; the readers are fetched when they are first asked for.
 * @param sheet of a workbook: the first one, where it has none of that name @throws Error with a sentence
 */
export async function readLines(file: File, sheet = ''): Promise<readonly (readonly unknown[])[]> {
	if (file.size > MOST_BYTES)
		throw new Error(
			`it has ${Math.round(file.size / 1e6)} MB; up to ${MOST_BYTES / 1e6} MB are read, and the rows that matter can be kept alone`
		);
	if (!/\.xlsx$/i.test(file.name)) {
		const { default: papa } = await import('papaparse');
		return papa.parse<string[]>(await file.text(), { skipEmptyLines: true }).data;
	}
	const { default: readSheets } = await import('read-excel-file/browser');
	let sheets: Awaited<ReturnType<typeof readSheets>>;
	try {
		sheets = await readSheets(file);
	} catch {
		throw new Error('it is no workbook that can be read');
	}
	return (sheets.find((one) => one.sheet.toLowerCase() === sheet.toLowerCase()) ?? sheets[0])?.data ?? [];
}
