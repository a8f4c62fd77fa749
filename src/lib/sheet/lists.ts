/** A list of values as it is typed, or a sentence saying what is wrong with it. */
export function readList(text: string, read: (one: string) => number): number[] | string {
	const words = text.split(/[,;]+/).map((word) => word.trim());
	if (words.at(-1) === '') words.pop();
	if (!words.length) return 'A list of values with commas between them is wanted';
	const values: number[] = [];
	for (const word of words)
		try {
			values.push(read(word));
		} catch (error) {
			return `"${word}" cannot be read: ${(error as Error).message}`;
		}
	return values;
}
