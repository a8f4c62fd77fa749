/**
 * Whether two values are the same to a stage: settings and columns of numbers by what they say, everything else (results
 * of other stages) only when they are one.
 *
 * ```ts
 * same({ a: [1] }, { a: [1] }); // true
 * ```
 */
export function same(a: unknown, b: unknown): boolean {
	if (Object.is(a, b)) return true;
	if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
	if (Array.isArray(a)) {
		if (!Array.isArray(b) || a.length !== b.length) return false;
		for (let k = 0; k < a.length; k++) if (!same(a[k], b[k])) return false;
		return true;
	}
	if (isColumn(a)) {
		return isColumn(b) && a.constructor === b.constructor && sameBytes(a, b);
	}
	if (!isPlain(a) || !isPlain(b)) return false;
	const keys = Object.keys(a);
	if (keys.length !== Object.keys(b).length) return false;
	return keys.every((key) => Object.hasOwn(b, key) && same(a[key], b[key]));
}

const isColumn = (value: object): value is Float64Array =>
	ArrayBuffer.isView(value) && !(value instanceof DataView);

/** Hot: columns of every kind are read as the same kind, so that the engine knows one. */
function sameBytes(a: ArrayBufferView, b: ArrayBufferView): boolean {
	if (a.byteLength !== b.byteLength) return false;
	const isAligned = a.byteOffset % 4 === 0 && b.byteOffset % 4 === 0;
	const words = isAligned ? a.byteLength >> 2 : 0;
	if (words) {
		const p = new Int32Array(a.buffer, a.byteOffset, words);
		const q = new Int32Array(b.buffer, b.byteOffset, words);
		for (let k = 0; k < words; k++) if (p[k] !== q[k]) return false;
	}
	const rest = a.byteLength - 4 * words;
	const p = new Uint8Array(a.buffer, a.byteOffset + 4 * words, rest);
	const q = new Uint8Array(b.buffer, b.byteOffset + 4 * words, rest);
	for (let k = 0; k < rest; k++) if (p[k] !== q[k]) return false;
	return true;
}
const isPlain = (value: object): value is Record<string, unknown> =>
	Object.getPrototypeOf(value) === Object.prototype;
