/** Words one after the other in one text. */
interface Words {
	readonly text: string;
	/** Where each word ends. */
	readonly ends: Uint32Array;
}

const [ZERO, NINE, A, Z, CASE] = [48, 57, 65, 90, 32];
const isDigit = (code: number) => code >= ZERO && code <= NINE;

/** Accents are left out; plain text stays as it is. */
function withoutAccents({ text, ends }: Words): Words {
	// eslint-disable-next-line no-control-regex -- what is plain
	if (/^[\u0000-\u007f]*$/.test(text)) return { text, ends };
	const own = Array.from(ends, (end, k) =>
		text
			.slice(k ? ends[k - 1]! : 0, end)
			.normalize('NFD')
			.replace(/\p{M}/gu, '')
			.toLowerCase()
	);
	let end = 0;
	return { text: own.join(''), ends: Uint32Array.from(own, (word) => (end += word.length)) };
}

/** Where digits that begin at a place end; their noughts before them are passed over first. */
function pastDigits(text: string, from: number, end: number): number {
	let at = from;
	while (at < end && isDigit(text.charCodeAt(at))) at++;
	return at;
}
function pastNoughts(text: string, from: number, end: number): number {
	let at = from;
	while (at + 1 < end && text.charCodeAt(at) === ZERO && isDigit(text.charCodeAt(at + 1))) at++;
	return at;
}

/** Compare two words of a text: numbers in them as numbers, capitals as small letters; the empty word comes last. */
function compareWords({ text, ends }: Words, a: number, b: number): number {
	let [i, j] = [a ? ends[a - 1]! : 0, b ? ends[b - 1]! : 0];
	const [iEnd, jEnd] = [ends[a]!, ends[b]!];
	if (i === iEnd || j === jEnd) return Number(i === iEnd) - Number(j === jEnd);
	while (i < iEnd && j < jEnd) {
		let [one, other] = [text.charCodeAt(i), text.charCodeAt(j)];
		if (isDigit(one) && isDigit(other)) {
			[i, j] = [pastNoughts(text, i, iEnd), pastNoughts(text, j, jEnd)];
			const [iPast, jPast] = [pastDigits(text, i, iEnd), pastDigits(text, j, jEnd)];
			if (iPast - i !== jPast - j) return iPast - i - (jPast - j);
			for (; i < iPast; i++, j++)
				if (text.charCodeAt(i) !== text.charCodeAt(j)) return text.charCodeAt(i) - text.charCodeAt(j);
			continue;
		}
		if (one >= A && one <= Z) one += CASE;
		if (other >= A && other <= Z) other += CASE;
		if (one !== other) return one - other;
		i++;
		j++;
	}
	return iEnd - i - (jEnd - j);
}

/**
 * The rank of every word among all: numbers in them count as numbers, accents and capitals do not. The empty word comes
 * last; words that differ by capitals, accents or noughts only are next to each other, and each has its own rank.
 *
 * ```ts
 * ranksOf({ text: 'C10c2C2', ends: Uint32Array.of(3, 5, 5, 7) }); // 2, 1, 3, 0
 * ```
 */
export function ranksOf(words: Words): Uint32Array {
	const { text, ends } = words;
	const plain = withoutAccents(words);
	const exact = (k: number) => text.slice(k ? ends[k - 1]! : 0, ends[k]!);
	const order = Array.from(ends, (_, k) => k).sort((a, b) => {
		const by = compareWords(plain, a, b);
		if (by) return by;
		const [one, other] = [exact(a), exact(b)];
		return one < other ? -1 : Number(one > other);
	});
	const ranks = new Uint32Array(ends.length);
	let rank = 0;
	order.forEach((at, k) => {
		if (k && exact(at) !== exact(order[k - 1]!)) rank++;
		ranks[at] = rank;
	});
	return ranks;
}
