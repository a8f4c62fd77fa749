/**
 * Just enough of the WebAssembly binary format to write modules whose functions take numbers (i32), return
 * nothing and loop over a shared memory. Source: WebAssembly Core Specification 2.0, chapter 5.
 */

const I32 = 0x7f;
const V128 = 0x7b;
const NO_RESULT = 0x40;

/** An unsigned number in LEB128 (chapter 5.2.2). */
export function unsigned(value: number): number[] {
	const bytes: number[] = [];
	do {
		const low = value & 0x7f;
		value >>>= 7;
		bytes.push(value ? low | 0x80 : low);
	} while (value);
	return bytes;
}

/** A number, negative or not, in LEB128. */
function signed(value: number): number[] {
	const bytes: number[] = [];
	for (;;) {
		const low = value & 0x7f;
		value >>= 7;
		const ends = (value === 0 && !(low & 0x40)) || (value === -1 && Boolean(low & 0x40));
		bytes.push(ends ? low : low | 0x80);
		if (ends) return bytes;
	}
}

const text = (value: string) => [...unsigned(value.length), ...new TextEncoder().encode(value)];
/** One after the other. What is long is copied as bytes: bodies of loops are hundreds of thousands. */
function joined(parts: readonly ArrayLike<number>[]): Uint8Array<ArrayBuffer> {
	const whole = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0));
	let at = 0;
	for (const part of parts) {
		whole.set(part, at);
		at += part.length;
	}
	return whole;
}
const vector = (items: readonly ArrayLike<number>[]) => joined([unsigned(items.length), ...items]);
const sized = (content: ArrayLike<number>) => joined([unsigned(content.length), content]);
const section = (id: number, content: ArrayLike<number>) => joined([[id], sized(content)]);

/** Instructions on vectors of two doubles (chapter 5.4.8); the numbers are their opcodes after 0xfd. */
const vectorInstruction = (code: number) => [0xfd, ...unsigned(code)];
export const lanes = {
	and: vectorInstruction(0x4e),
	or: vectorInstruction(0x50),
	andNot: vectorInstruction(0x4f),
	select: vectorInstruction(0x52),
	equal: vectorInstruction(0x47),
	notEqual: vectorInstruction(0x48),
	less: vectorInstruction(0x49),
	lessOrEqual: vectorInstruction(0x4b),
	ceil: vectorInstruction(0x74),
	floor: vectorInstruction(0x75),
	abs: vectorInstruction(0xec),
	negate: vectorInstruction(0xed),
	sqrt: vectorInstruction(0xef),
	add: vectorInstruction(0xf0),
	subtract: vectorInstruction(0xf1),
	multiply: vectorInstruction(0xf2),
	divide: vectorInstruction(0xf3),
	min: vectorInstruction(0xf4),
	max: vectorInstruction(0xf5),
	/** Both as single numbers, in the lower two of four places. */
	toSingles: vectorInstruction(0x5e),
	/** Both lanes the same number. */
	constant(value: number): number[] {
		const bytes = new Uint8Array(Float64Array.of(value, value).buffer);
		return [0xfd, ...unsigned(0x0c), ...bytes];
	}
} as const;

const BASE = 0;
const END = 1;
/** The first local that the body of a function of two parameters may use for its vectors. */
export const FIRST_VECTOR = 2;
export const getLocal = (local: number) => [0x20, ...unsigned(local)];
export const setLocal = (local: number) => [0x21, ...unsigned(local)];
/** Instructions on vectors of four single numbers. */
export const singles = { add: vectorInstruction(0xe4), multiply: vectorInstruction(0xe6) } as const;
/** 16 bytes from where a parameter points to; aligned to 4. */
export const loadSingles = (parameter: number, offset: number) => [
	...getLocal(parameter),
	...[0xfd, 0x00, 2, ...unsigned(offset)]
];
/** One single number, in all four places. */
export const loadSpread = (parameter: number, offset: number) => [
	...getLocal(parameter),
	...[0xfd, 0x09, 2, ...unsigned(offset)]
];
export const storeSingles = (parameter: number, value: readonly number[]) => [
	...getLocal(parameter),
	...value,
	...[0xfd, 0x0b, 2, 0]
];

/** 16 bytes at the loop's place plus an offset; aligned to 8. */
export const load = (local: number, offset: number) => [
	...getLocal(BASE),
	...[0xfd, 0x00, 3, ...unsigned(offset)],
	...setLocal(local)
];
export const store = (local: number, offset: number) => [
	...getLocal(BASE),
	...getLocal(local),
	...[0xfd, 0x0b, 3, ...unsigned(offset)]
];

/** One double at the place a parameter points to, in both lanes. */
export const loadSpreadDouble = (parameter: number, offset: number) => [
	...getLocal(parameter),
	...[0xfd, 0x0a, 3, ...unsigned(offset)]
];
/** One of four single numbers, to the place a parameter points to plus an offset. */
export const storeSingle = (parameter: number, offset: number, value: readonly number[], lane: number) => [
	...getLocal(parameter),
	...value,
	...[0xfd, 0x5a, 2, ...unsigned(offset), lane]
];

/** Add to a parameter. */
const advance = (parameter: number, bytes: number) => [
	...getLocal(parameter),
	...[0x41, ...signed(bytes), 0x6a],
	...setLocal(parameter)
];

/** A function that repeats its body for each place from base to end. */
export interface LoopFunction {
	/** How many vectors it keeps, after its parameters. */
	readonly vectors: number;
	/** Done once, before the loop. */
	readonly before?: readonly number[];
	readonly body: readonly number[];
	/** Bytes by which base, and the parameters after end, go on each time. */
	readonly steps: readonly [base: number, ...more: number[]];
}

/**
 * A module that imports the memory `a.m` and exports its functions as `0`, `1`, …; they all have as many
 * parameters: base, end, and what comes after. The loop runs at least once.
 */
export function writeModule(functions: readonly LoopFunction[]): Uint8Array<ArrayBuffer> {
	const parameters = 1 + (functions[0]?.steps.length ?? 1);
	const code = functions.map(({ vectors, before = [], body, steps: [base, ...more] }) => {
		const locals = vector([[...unsigned(vectors), V128]]);
		const onward = [
			...more.flatMap((bytes, k) => advance(END + 1 + k, bytes)),
			...advance(BASE, base),
			...[...getLocal(BASE), ...getLocal(END), 0x49, 0x0d, 0]
		];
		return sized(joined([locals, before, [0x03, NO_RESULT], body, onward, [0x0b, 0x0b]]));
	});
	const type = [0x60, ...vector(Array.from({ length: parameters }, () => [I32])), 0];
	return joined([
		[0x00, 0x61, 0x73, 0x6d, 1, 0, 0, 0],
		section(1, vector([type])),
		section(2, vector([[...text('a'), ...text('m'), 0x02, 0x00, 0]])),
		section(3, vector(functions.map(() => [0]))),
		section(7, vector(functions.map((_, k) => [...text(String(k)), 0x00, ...unsigned(k)]))),
		section(10, vector(code))
	]);
}
