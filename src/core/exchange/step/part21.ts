import { CodedError } from '../../units/coded-error';

/**
 * Reading the clear text encoding of ISO 10303-21. The file is indexed in one pass over its bytes; the
 * arguments of an instance are read when they are asked for, so a large file costs what is used of it.
 */

/** An enumeration's name, a reference, a text, a typed value, a list; `null` for $, '*' for derived. */
export type StepValue =
	| number
	| null
	| '*'
	| { readonly text: string }
	| { readonly name: string }
	| { readonly ref: number }
	| { readonly type: string; readonly values: readonly StepValue[] }
	| readonly StepValue[];

/** One record of an instance; complex instances have several. */
export interface StepRecord {
	readonly type: string;
	readonly values: readonly StepValue[];
}

/** A file that cannot be used: where, and what is wrong. */
export class StepFault extends CodedError {
	readonly code: string = 'file.step';

	constructor(
		readonly where: string,
		readonly what: string
	) {
		super(`${where}: ${what}`);
	}
}

const QUOTE = 0x27;
const DOUBLE_QUOTE = 0x22;
const SEMICOLON = 0x3b;
const HASH = 0x23;
const EQUALS = 0x3d;
const OPEN = 0x28;
const CLOSE = 0x29;
const COMMA = 0x2c;
const STAR = 0x2a;
const DOLLAR = 0x24;
const DOT = 0x2e;
const SLASH = 0x2f;
const NEWLINE = 0x0a;
const isSpace = (c: number) => c <= 32;
const isDigit = (c: number) => c >= 48 && c <= 57;
const isWord = (c: number) => (c >= 65 && c <= 90) || (c >= 97 && c <= 122) || c === 95 || isDigit(c);
const latin = new TextDecoder('latin1');

/** Characters beyond ASCII: \X\hh, \X2\hhhh…\X0\, \X4\…\X0\, \S\c, doubled backslashes. */
function decodeText(raw: string): string {
	if (!raw.includes('\\')) return raw;
	const wide = (digits: string, each: number) =>
		(digits.match(new RegExp(`.{${each}}`, 'g')) ?? [])
			.map((hex) => String.fromCodePoint(Number.parseInt(hex, 16)))
			.join('');
	return raw
		.replace(/\\X2\\((?:[0-9A-F]{4})*)\\X0\\/gi, (_, digits: string) => wide(digits, 4))
		.replace(/\\X4\\((?:[0-9A-F]{8})*)\\X0\\/gi, (_, digits: string) => wide(digits, 8))
		.replace(/\\X\\([0-9A-F]{2})/gi, (_, hex: string) => wide(hex, 2))
		.replace(/\\S\\(.)/g, (_, c: string) => String.fromCharCode(c.charCodeAt(0) + 128))
		.replace(/\\\\/g, '\\');
}

const CUT_SHORT = 'the file ends in the middle of a statement';

/** A cursor over the bytes that skips blanks and comments. */
class Scanner {
	constructor(
		readonly bytes: Uint8Array,
		public at: number,
		private readonly end: number
	) {}

	lineAt(position: number): number {
		let line = 1;
		for (let k = 0; k < position && k < this.bytes.length; k++) if (this.bytes[k] === NEWLINE) line++;
		return line;
	}

	fault(what: string, position = this.at): StepFault {
		return new StepFault(`line ${this.lineAt(position)}`, what);
	}

	/** The next byte that says something, or -1 at the end. */
	peek(): number {
		const { bytes, end } = this;
		while (this.at < end) {
			const c = bytes[this.at]!;
			if (isSpace(c)) this.at++;
			else if (c === SLASH && bytes[this.at + 1] === STAR) {
				const from = this.at;
				this.at += 2;
				while (this.at < end && !(bytes[this.at] === STAR && bytes[this.at + 1] === SLASH)) this.at++;
				if (this.at >= end) throw this.fault('a comment is never closed', from);
				this.at += 2;
			} else return c;
		}
		return -1;
	}

	take(wanted: number): void {
		const c = this.peek();
		if (c !== wanted)
			throw this.fault(
				c < 0
					? CUT_SHORT
					: `"${String.fromCharCode(wanted)}" is expected and "${String.fromCharCode(c)}" stands there`
			);
		this.at++;
	}

	word(): string {
		this.peek();
		const from = this.at;
		while (isWord(this.bytes[this.at] ?? 0)) this.at++;
		return latin.decode(this.bytes.subarray(from, this.at)).toUpperCase();
	}

	digits(): number {
		const from = this.at;
		let value = 0;
		while (isDigit(this.bytes[this.at] ?? 0)) value = value * 10 + this.bytes[this.at++]! - 48;
		if (this.at >= this.end) throw this.fault(CUT_SHORT);
		if (this.at === from) throw this.fault('a number is expected after #');
		return value;
	}

	/** A text in quotes, quotes doubled within. */
	text(): string {
		const { bytes } = this;
		const from = ++this.at;
		for (;;) {
			if (this.at >= this.end) throw this.fault('a text is never closed', from);
			if (bytes[this.at++] !== QUOTE) continue;
			if (bytes[this.at] !== QUOTE) break;
			this.at++;
		}
		return decodeText(latin.decode(bytes.subarray(from, this.at - 1)).replaceAll("''", "'"));
	}

	number(): number {
		const from = this.at;
		const { bytes } = this;
		while (this.at < this.end && (isWord(bytes[this.at]!) || [43, 45, DOT].includes(bytes[this.at]!)))
			this.at++;
		const raw = latin.decode(bytes.subarray(from, this.at));
		// INTEGER, or REAL with its dot (ISO 10303-21, 6.4.1 and 6.4.2).
		if (!/^[+-]?(\d+|\d+\.\d*(E[+-]?\d+)?)$/i.test(raw))
			throw this.fault(`"${raw || String.fromCharCode(bytes[from] ?? 32)}" is not a value`, from);
		return Number(raw);
	}

	value(): StepValue {
		const c = this.peek();
		switch (c) {
			case DOLLAR:
				this.at++;
				return null;
			case STAR:
				this.at++;
				return '*';
			case HASH:
				this.at++;
				return { ref: this.digits() };
			case QUOTE:
				return { text: this.text() };
			case DOUBLE_QUOTE: {
				const from = ++this.at;
				while (this.at < this.end && this.bytes[this.at] !== DOUBLE_QUOTE) this.at++;
				return { text: latin.decode(this.bytes.subarray(from, this.at++)) };
			}
			case DOT: {
				this.at++;
				const name = this.word();
				this.take(DOT);
				return { name };
			}
			case OPEN:
				return this.list();
		}
		if (isWord(c) && !isDigit(c)) {
			const type = this.word();
			return { type, values: this.list() };
		}
		return this.number();
	}

	list(): StepValue[] {
		this.take(OPEN);
		const values: StepValue[] = [];
		if (this.peek() === CLOSE) {
			this.at++;
			return values;
		}
		for (;;) {
			values.push(this.value());
			const c = this.peek();
			if (c !== COMMA) break;
			this.at++;
		}
		this.take(CLOSE);
		return values;
	}

	/** Go to the end of the statement, past its semicolon. */
	skipStatement(): void {
		const from = this.at;
		for (;;) {
			const c = this.peek();
			if (c < 0) throw this.fault(CUT_SHORT, from);
			if (c === QUOTE) this.text();
			else {
				this.at++;
				if (c === SEMICOLON) return;
			}
		}
	}
}

/** What a long read tells while it is under way; it may throw to give up. */
export type ReadProgress = (share: number) => void | Promise<void>;

/** Bytes between two tellings. */
const TELL_EVERY = 4_000_000;

/** An indexed file. */
export class StepFile {
	private readonly places = new Map<number, number>();
	private readonly types = new Map<string, number[]>();
	private readonly read = new Map<number, readonly StepRecord[]>();
	schema = '';

	private constructor(private readonly bytes: Uint8Array) {}

	/** @throws StepFault when it is no such file, is cut short, or a statement cannot be read */
	static async open(bytes: Uint8Array, progress: ReadProgress = () => {}): Promise<StepFile> {
		const file = new StepFile(bytes);
		const scanner = new Scanner(bytes, bytes[0] === 0xef ? 3 : 0, bytes.length);
		if (scanner.word() !== 'ISO' || !latin.decode(bytes.subarray(0, 200)).includes('ISO-10303-21'))
			throw new StepFault('line 1', 'this is not a STEP file: it has to begin with ISO-10303-21;');
		scanner.skipStatement();
		let ended = false;
		let told = 0;
		while (scanner.peek() >= 0) {
			if (scanner.peek() === HASH) file.index(scanner);
			else {
				const word = scanner.word();
				if (word === 'FILE_SCHEMA') file.schema = schemaName(scanner.list());
				if (word === 'END') ended = true;
				scanner.skipStatement();
			}
			if (scanner.at - told > TELL_EVERY) {
				told = scanner.at;
				await progress(told / bytes.length);
			}
		}
		if (!ended) throw scanner.fault('the file is cut short: END-ISO-10303-21; is missing');
		return file;
	}

	private index(scanner: Scanner): void {
		const from = scanner.at++;
		const id = scanner.digits();
		if (this.places.has(id)) throw scanner.fault(`#${id} is defined twice`, from);
		scanner.take(EQUALS);
		this.places.set(id, (scanner.peek(), scanner.at));
		const type = scanner.word();
		const known = this.types.get(type);
		if (known) known.push(id);
		else this.types.set(type, [id]);
		scanner.skipStatement();
	}

	/** Instances by type, in the order written; complex instances are under ''. */
	ids(type: string): readonly number[] {
		return this.types.get(type.toUpperCase()) ?? [];
	}

	get allTypes(): readonly string[] {
		return [...this.types.keys()];
	}

	lineOf(id: number): number {
		return new Scanner(this.bytes, 0, 0).lineAt(this.places.get(id) ?? 0);
	}

	/** The records of an instance. @throws StepFault */
	records(id: number): readonly StepRecord[] {
		const known = this.read.get(id);
		if (known) return known;
		const place = this.places.get(id);
		if (place === undefined) throw new StepFault(`#${id}`, 'is referred to but not in the file');
		const scanner = new Scanner(this.bytes, place, this.bytes.length);
		const records: StepRecord[] = [];
		const complex = scanner.peek() === OPEN;
		if (complex) scanner.at++;
		do records.push({ type: scanner.word(), values: scanner.list() });
		while (complex && scanner.peek() !== CLOSE);
		this.read.set(id, records);
		return records;
	}
}

function schemaName(values: readonly StepValue[]): string {
	const first = Array.isArray(values[0]) ? (values[0] as StepValue[])[0] : null;
	return first && typeof first === 'object' && 'text' in first ? first.text : '';
}
