const ALPHABET = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz_$';

const SEEDS = [0x9747b28c, 0x3c6ef372, 0xa54ff53a, 0x510e527f] as const;

/** Letters of 12 bits. */
const PAIRS = Array.from({ length: 4096 }, (_, k) => ALPHABET[k >> 6]! + ALPHABET[k & 63]!);

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
 */
export function globalIds(before: string): (name: string) => string {
	const begun = mixed(before, SEEDS);
	return (name) => {
		let [a, b, c, d] = mixed(name, begun).map(finished) as [number, number, number, number];
		let id = '';
		// The last digits first: all four words move on by twelve bits.
		for (let k = 0; k < 11; k++) {
			id = PAIRS[d & 4095]! + id;
			d = (d >>> 12) | (c << 20);
			c = (c >>> 12) | (b << 20);
			b = (b >>> 12) | (a << 20);
			a >>>= 12;
		}
		return id;
	};
}
