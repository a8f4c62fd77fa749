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
		if (!isColumn(b) || a.constructor !== b.constructor || a.length !== b.length) return false;
		for (let k = 0; k < a.length; k++) if (a[k] !== b[k]) return false;
		return true;
	}
	if (!isPlain(a) || !isPlain(b)) return false;
	const keys = Object.keys(a);
	if (keys.length !== Object.keys(b).length) return false;
	return keys.every((key) => Object.hasOwn(b, key) && same(a[key], b[key]));
}

const isColumn = (value: object): value is Float64Array =>
	ArrayBuffer.isView(value) && !(value instanceof DataView);
const isPlain = (value: object): value is Record<string, unknown> =>
	Object.getPrototypeOf(value) === Object.prototype;
