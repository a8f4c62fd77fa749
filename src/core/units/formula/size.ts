const MOST_LETTERS = 4000;
const MOST_NESTED = 50;
/** Signs in a row, as in −−−x: each is one level deeper. */
const MOST_SIGNS = 20;

/**
 * What is written longer or deeper than a person would is told before it is read: reading it would take long, or
 * more stack than there is.
 * @returns a sentence, or null for a formula of a size that can be read
 */
export function overSize(text: string): string | null {
	const beginning = `"${text.slice(0, 40)} …"`;
	if (text.length > MOST_LETTERS)
		return `${beginning} has ${text.length} letters; a formula has at most ${MOST_LETTERS}`;
	let depth = 0;
	let signs = 0;
	for (const letter of text) {
		if ('(['.includes(letter)) depth++;
		else if (')]'.includes(letter)) depth--;
		if ('+-−!^?:'.includes(letter)) signs++;
		else if (letter !== ' ') signs = 0;
		if (depth > MOST_NESTED || signs > MOST_SIGNS)
			return `${beginning} is nested too deep; at most ${MOST_NESTED} brackets or ${MOST_SIGNS} signs go into each other`;
	}
	return null;
}
