const ALPHABET = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz_$';

const SEEDS = [0x9747b28c, 0x3c6ef372, 0xa54ff53a, 0x510e527f] as const;

const LETTERS = Uint8Array.from(ALPHABET, (letter) => letter.charCodeAt(0));
const QUOTE = 39;
const LENGTH = 22;

function finished(h: number): number {
	h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
	h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
	return (h ^ (h >>> 16)) >>> 0;
}

type State = readonly [a: number, b: number, c: number, d: number];

/** The four words of a text, each letter mixed into what was before. */
function mixed(text: string, [a, b, c, d]: State): State {
	for (let k = 0; k < text.length; k++) {
		const letter = text.charCodeAt(k);
		a = Math.imul(a ^ letter, 0xcc9e2d51);
		a = (a << 13) | (a >>> 19);
		b = Math.imul(b ^ letter, 0xcc9e2d51);
		b = (b << 13) | (b >>> 19);
		c = Math.imul(c ^ letter, 0xcc9e2d51);
		c = (c << 13) | (c >>> 19);
		d = Math.imul(d ^ letter, 0xcc9e2d51);
		d = (d << 13) | (d >>> 19);
	}
	return [a, b, c, d];
}

/**
 * GlobalIds (ISO 16739-1, 22 characters) derived from what a thing is called, so that they are the same in
 * every export. 128 bits as 2 + 21 × 6, so the first character is 0 to 3. The bits are those of the text four times
 * over, well mixed (the finaliser of MurmurHash3, which is in the public domain).
 * @param before what all names begin with
 * @returns in quotes, as they stand in the file; good until the next is asked for
 */
export function globalIds(before: string): (name: string) => Uint8Array {
	const begun = mixed(before, SEEDS);
	const id = new Uint8Array(LENGTH + 2).fill(QUOTE);
	return (name) => {
		let [a, b, c, d] = mixed(name, begun);
		a = finished(a);
		b = finished(b);
		c = finished(c);
		d = finished(d);
		// The last letters first: all four words move on by six bits.
		for (let k = LENGTH; k > 0; k--) {
			id[k] = LETTERS[d & 63]!;
			d = (d >>> 6) | (c << 26);
			c = (c >>> 6) | (b << 26);
			b = (b >>> 6) | (a << 26);
			a >>>= 6;
		}
		return id;
	};
}
