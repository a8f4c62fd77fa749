/** The word that ends at a place in a formula: letters, digits, _ and full stops. */
const wordBefore = (text: string, caret: number): string =>
	text.slice(0, caret).match(/[a-z][a-z0-9_.]*$/i)?.[0] ?? '';

/** Names that are listed at once. */
const MOST_OFFERED = 7;

/** Names that fit the word being typed: those that begin so, then those that have it within them. */
export function fitting(text: string, caret: number, names: readonly string[]): string[] {
	const word = wordBefore(text, caret).toLowerCase();
	if (!word) return [];
	const starts = names.filter((name) => name.startsWith(word) && name !== word);
	const within = names.filter((name) => !name.startsWith(word) && name.includes(word));
	return [...starts, ...within].slice(0, MOST_OFFERED);
}

/** A formula with a name in the place of the word before the caret, which stands behind it. */
export function completed(text: string, caret: number, name: string): { text: string; caret: number } {
	const word = wordBefore(text, caret);
	const before = text.slice(0, caret - word.length) + name;
	return { text: before + text.slice(caret), caret: before.length };
}
