/**
 * Numbers from 0 up to 1 that follow from a seed and nothing else (mulberry32, a well-known generator in the
 * public domain).
 */
export function randomFrom(...seeds: readonly number[]): () => number {
	let state = seeds.reduce((hash, seed) => Math.imul(hash ^ seed, 0x9e3779b1) ^ (hash >>> 15), 0x6d2b79f5);
	return () => {
		state = (state + 0x6d2b79f5) | 0;
		let t = Math.imul(state ^ (state >>> 15), 1 | state);
		t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
		return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
	};
}
