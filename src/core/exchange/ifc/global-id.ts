const ALPHABET = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz_$';

const SEEDS = [0x9747b28c, 0x3c6ef372, 0xa54ff53a, 0x510e527f];

/** 32 bits of a text, well mixed (the finaliser of MurmurHash3, which is in the public domain). */
function hash32(value: string, seed: number): number {
	let h = seed;
	for (let k = 0; k < value.length; k++) {
		h = Math.imul(h ^ value.charCodeAt(k), 0xcc9e2d51);
		h = (h << 13) | (h >>> 19);
	}
	h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
	h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
	return (h ^ (h >>> 16)) >>> 0;
}

/**
 * A GlobalId (ISO 16739-1, 22 characters) derived from what a thing is called, so that it is the same in
 * every export. 128 bits as 2 + 21 × 6, so the first character is 0 to 3.
 */
export function globalId(name: string): string {
	let [a, b, c, d] = SEEDS.map((seed) => hash32(name, seed)) as [number, number, number, number];
	let id = '';
	// The last digit first: all four words move on by six bits.
	for (let k = 0; k < 22; k++) {
		id = ALPHABET[d & 63]! + id;
		d = (d >>> 6) | (c << 26);
		c = (c >>> 6) | (b << 26);
		b = (b >>> 6) | (a << 26);
		a >>>= 6;
	}
	return id;
}
