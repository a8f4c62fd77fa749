import { readTable, type ReadTable } from '$core/exchange/csv/read-table';
import { readLines } from '$lib/components/read-lines';

/** Read a CSV or XLSX. @throws Error with a sentence */
export const readTableFile = async (file: File): Promise<ReadTable> => readTable(await readLines(file));
