/** Deeper than any document goes; what recurses over a value may rely on it. */
const MOST_DEPTH = 100;
const MOST_KEY_LETTERS = 1000;

/**
 * What keeps a JSON value from being stored: depth, NUL characters and half surrogates.
 * @returns a sentence with the place, or null
 */
export function checkJson(value: unknown): string | null {
	const stack: { value: unknown; at: string; depth: number }[] = [{ value, at: '', depth: 0 }];
	for (let next = stack.pop(); next; next = stack.pop()) {
		const { value: one, at, depth } = next;
		const fault = typeof one === 'string' ? faultOfText(one) : null;
		if (fault) return `${at || 'the text'}: ${fault}`;
		if (typeof one !== 'object' || one === null) continue;
		if (depth >= MOST_DEPTH) return `it is nested deeper than ${MOST_DEPTH} levels`;
		if (Array.isArray(one)) {
			for (let k = 0; k < one.length; k++)
				if (typeof one[k] !== 'number')
					stack.push({ value: one[k], at: placeIn(at, String(k)), depth: depth + 1 });
			continue;
		}
		for (const [key, below] of Object.entries(one)) {
			if (key.length > MOST_KEY_LETTERS) return `${at || 'the text'}: a key has ${key.length} letters`;
			const wrong = faultOfText(key);
			if (wrong) return `a key in ${at || 'the text'}: ${wrong}`;
			stack.push({ value: below, at: placeIn(at, key), depth: depth + 1 });
		}
	}
	return null;
}

const MOST_PLACE = 200;
const placeIn = (at: string, key: string) =>
	at.length > MOST_PLACE ? at : at ? `${at}/${key.slice(0, 60)}` : key.slice(0, 60);

function faultOfText(text: string): string | null {
	if (text.includes('\0')) return 'it holds a NUL character, which cannot be kept';
	if (!text.isWellFormed()) return 'it holds half a character (a lone surrogate), which cannot be kept';
	return null;
}
