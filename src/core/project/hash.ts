/**
 * A number that two equal JSON values share and two different ones practically never do (53 bits, mixed as murmur3
 * mixes). It tells whether two windows hold the same document; it is no secret and no signature.
 *
 * Containers keep their number, so of an edited document only the containers along the edit are reckoned again.
 * Keys count in any order, since the database keeps its own.
 */
const known = new WeakMap<object, number>();

/** The two halves of the number last made: 32 bits and 21. */
let low = 0;
let high = 0;

const bits = new Float64Array(1);
const words = new Uint32Array(bits.buffer);

function mix(a: number, b: number): void {
	low = Math.imul(low ^ a, 0x85ebca6b);
	low = Math.imul((low << 13) | (low >>> 19), 5) + 0xe6546b64;
	high = Math.imul(high ^ b, 0xc2b2ae35);
	high = Math.imul((high << 15) | (high >>> 17), 5) + 0x561ccd1b;
	low ^= high >>> 11;
}

function finish(): void {
	low = Math.imul(low ^ (low >>> 16), 0x85ebca6b);
	low = (low ^ (low >>> 13)) >>> 0;
	high = Math.imul(high ^ (high >>> 15), 0x2c1b3c6d) ^ low;
	high = ((high ^ (high >>> 12)) >>> 0) & 0x1fffff;
}

function ofText(text: string, kind: number): void {
	low = kind;
	high = text.length;
	for (let k = 0; k < text.length; k++) {
		const unit = text.charCodeAt(k);
		mix(unit, unit + k);
	}
	finish();
}

function ofNumber(value: number): void {
	// JSON has no -0.
	bits[0] = value === 0 ? 0 : value;
	low = 11;
	high = 12;
	mix(words[0]!, words[1]!);
	mix(words[1]!, words[0]!);
	finish();
}

function ofList(list: readonly unknown[]): void {
	let a = 21;
	let b = list.length;
	for (let k = 0; k < list.length; k++) {
		reckon(list[k] === undefined ? null : list[k]);
		const [valueLow, valueHigh] = [low, high];
		low = a;
		high = b;
		mix(valueLow, valueHigh);
		a = low;
		b = high;
	}
	low = a;
	high = b;
	finish();
}

function ofRecord(record: Record<string, unknown>): void {
	let a = 31;
	let b = 32;
	for (const key in record) {
		if (record[key] === undefined) continue;
		ofText(key, 33);
		const [keyLow, keyHigh] = [low, high];
		reckon(record[key]);
		mix(keyLow, keyHigh);
		finish();
		a = (a + low) >>> 0;
		b = (b + high) >>> 0;
	}
	low = a;
	high = b;
	finish();
}

function reckon(value: unknown): void {
	if (typeof value === 'number') return ofNumber(value);
	if (typeof value === 'string') return ofText(value, 41);
	if (typeof value !== 'object' || value === null) return ofText(value === null ? 'null' : String(value), 51);
	const kept = known.get(value);
	if (kept !== undefined) {
		low = kept >>> 0;
		high = (kept - low) / 0x1_0000_0000;
		return;
	}
	if (Array.isArray(value)) {
		ofList(value);
		// A point is reckoned sooner than it is looked up.
		if (value.length <= 4 && typeof value[0] === 'number') return;
	} else ofRecord(value as Record<string, unknown>);
	known.set(value, high * 0x1_0000_0000 + low);
}

/**
 * The number of a JSON value, as 14 hexadecimal digits. Its containers may not be changed afterwards.
 *
 * ```ts
 * hashOf({ a: 1, b: 2 }) === hashOf({ b: 2, a: 1 }); // true
 * ```
 */
export function hashOf(value: unknown): string {
	reckon(value);
	return (high * 0x1_0000_0000 + low).toString(16).padStart(14, '0');
}
