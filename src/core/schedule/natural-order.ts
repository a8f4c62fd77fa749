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

/** Compare two words of a text, neither of them empty: numbers in them as numbers, capitals as small letters. */
function compareWords(text: string, ends: Uint32Array, a: number, b: number): number {
	let i = a ? ends[a - 1]! : 0;
	let j = b ? ends[b - 1]! : 0;
	const [iEnd, jEnd, first] = [ends[a]!, ends[b]!, i];
	// Words that follow one another mostly begin alike; digits that do may end otherwise.
	while (i < iEnd && j < jEnd && text.charCodeAt(i) === text.charCodeAt(j)) {
		i++;
		j++;
	}
	while (i > first && isDigit(text.charCodeAt(i - 1))) {
		i--;
		j--;
	}
	while (i < iEnd && j < jEnd) {
		let one = text.charCodeAt(i);
		let other = text.charCodeAt(j);
		if (isDigit(one) && isDigit(other)) {
			i = pastNoughts(text, i, iEnd);
			j = pastNoughts(text, j, jEnd);
			const iPast = pastDigits(text, i, iEnd);
			const jPast = pastDigits(text, j, jEnd);
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
	const compare = (a: number, b: number) => {
		const by = compareWords(plain.text, plain.ends, a, b);
		if (by) return by;
		const [one, other] = [exact(a), exact(b)];
		return one < other ? -1 : Number(one > other);
	};
	const isEmpty = (k: number) => ends[k] === (k ? ends[k - 1] : 0);
	const order: number[] = [];
	let isRising = true;
	for (let k = 0; k < ends.length; k++) {
		if (isEmpty(k)) continue;
		if (isRising && order.length) isRising = compare(order.at(-1)!, k) < 0;
		order.push(k);
	}
	const ranks = new Uint32Array(ends.length);
	// Marks mostly come in their order.
	if (!isRising) order.sort(compare);
	let rank = 0;
	for (let k = 0; k < order.length; k++) {
		if (k && (isRising || compare(order[k - 1]!, order[k]!) !== 0)) rank++;
		ranks[order[k]!] = rank;
	}
	const last = order.length ? rank + 1 : 0;
	for (let k = 0; k < ends.length; k++) if (isEmpty(k)) ranks[k] = last;
	return ranks;
}
