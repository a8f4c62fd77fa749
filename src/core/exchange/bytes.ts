/** Bytes of a piece of a file. */
const AT_ONCE = 1 << 18;
/** What is longer is a piece by itself. */
const ROOM = 1 << 12;
const [MINUS, POINT] = [45, 46];
/** The last letter that is one byte. */
const LAST_OF_ONE = 0x7f;
/** One in its parts, by how many decimals are kept. */
const UNITS = Array.from({ length: 10 }, (_, k) => 10 ** k);

/** Digits are written three at once, as one word: those of a number below a thousand, the first of them in the lowest byte. */
const THREE_DIGITS = Int32Array.from({ length: 1000 }, (_, value) => {
	const [hundreds, tens, ones] = Array.from(String(value).padStart(3, '0'), (digit) => digit.charCodeAt(0));
	return hundreds! | (tens! << 8) | (ones! << 16);
});
/** How many of those three are left when noughts at their end are not written. */
const LEFT_OF_THREE = Uint8Array.from(
	{ length: 1000 },
	(_, value) => String(value).padStart(3, '0').replace(/0+$/, '').length
);

const utf8 = new TextEncoder();
/** A text as it stands in a file. */
export const bytesOf = (text: string): Uint8Array<ArrayBuffer> => utf8.encode(text);

/** A short text that stands in a file very often, as the words that it is written by. */
export interface Phrase {
	readonly words: Int32Array;
	/** Bytes; those of the last word beyond it are written over by what comes next. */
	readonly length: number;
}

/** @param text of no more than some hundred letters */
export function phraseOf(text: string): Phrase {
	const bytes = bytesOf(text);
	const words = new Int32Array(Math.ceil(bytes.length / 4));
	new Uint8Array(words.buffer).set(bytes);
	return { words, length: bytes.length };
}

/** Takes a file bit by bit and gives it in pieces: as texts that are joined, half of the time would go with the joining. */
export class Bytes {
	private readonly bytes = new Uint8Array(AT_ONCE + 2 * ROOM);
	private readonly view = new DataView(this.bytes.buffer);
	private length = 0;
	private pieces: Uint8Array<ArrayBuffer>[] = [];

	private endPiece(): void {
		if (this.length) this.pieces.push(this.bytes.slice(0, this.length));
		this.length = 0;
	}

	put(piece: Uint8Array): void {
		if (this.length > AT_ONCE) this.endPiece();
		if (piece.length > ROOM) {
			this.endPiece();
			this.pieces.push(piece.slice());
			return;
		}
		const { bytes } = this;
		let at = this.length;
		for (let k = 0; k < piece.length; k++) bytes[at++] = piece[k]!;
		this.length = at;
	}

	phrase({ words, length }: Phrase): void {
		if (this.length > AT_ONCE) this.endPiece();
		const { view } = this;
		let at = this.length;
		for (let k = 0; k < words.length; k++, at += 4) view.setInt32(at, words[k]!, true);
		this.length += length;
	}

	/** @param from @param to where what is written of the text begins and ends */
	text(text: string, from = 0, to = text.length): void {
		if (this.length > AT_ONCE) this.endPiece();
		const { bytes, length } = this;
		const size = to - from;
		if (size > ROOM) {
			this.put(bytesOf(text.slice(from, to)));
			return;
		}
		for (let k = 0; k < size; k++) {
			const letter = text.charCodeAt(from + k);
			if (letter > LAST_OF_ONE) {
				this.put(bytesOf(text.slice(from, to)));
				return;
			}
			bytes[length + k] = letter;
		}
		this.length = length + size;
	}

	/** A number with its point, to so many decimals, nine at most: `1.`, `0.5`. @returns whether it can be told so */
	real(value: number, decimals: number): boolean {
		if (this.length > AT_ONCE) this.endPiece();
		const unit = UNITS[decimals]!;
		const parts = Math.round(Math.abs(value) * unit);
		if (!(parts < 2e9 * unit)) return false;
		if (value < 0 && parts > 0) this.bytes[this.length++] = MINUS;
		const whole = Math.floor(parts / unit);
		this.whole(whole);
		this.bytes[this.length++] = POINT;
		this.decimals((parts - whole * unit) | 0, decimals);
		return true;
	}

	/** @param value a whole number, nought or more, of 32 bits */
	count(value: number): void {
		if (this.length > AT_ONCE) this.endPiece();
		this.whole(value);
	}

	/** @param decimals that are kept, nine at most */
	number(value: number, decimals = 6): void {
		if (this.length > AT_ONCE) this.endPiece();
		const unit = UNITS[decimals]!;
		const parts = Math.round(Math.abs(value) * unit);
		if (!(parts < 2e9 * unit)) {
			this.text(String(value));
			return;
		}
		if (value < 0 && parts > 0) this.bytes[this.length++] = MINUS;
		// Whole numbers of 32 bits are divided several times as fast.
		const whole = (parts / unit) | 0;
		this.whole(whole);
		const rest = (parts - whole * unit) | 0;
		if (rest === 0) return;
		this.bytes[this.length++] = POINT;
		this.decimals(rest, decimals);
	}

	/** What stands after the point, without noughts at its end. */
	private decimals(parts: number, decimals: number): void {
		const billionths = parts * UNITS[9 - decimals]!;
		for (let rest = billionths, unit = 1e6; rest > 0; unit /= 1000) {
			const three = (rest / unit) | 0;
			rest -= three * unit;
			this.view.setInt32(this.length, THREE_DIGITS[three]!, true);
			this.length += rest > 0 ? 3 : LEFT_OF_THREE[three]!;
		}
	}

	/** A whole number, nought or more, of 32 bits. */
	private whole(value: number): void {
		const thousands = (value / 1000) | 0;
		if (thousands === 0) {
			const digits = value < 10 ? 1 : value < 100 ? 2 : 3;
			this.view.setInt32(this.length, THREE_DIGITS[value]! >> (8 * (3 - digits)), true);
			this.length += digits;
			return;
		}
		this.whole(thousands);
		this.view.setInt32(this.length, THREE_DIGITS[value - 1000 * thousands]!, true);
		this.length += 3;
	}

	/** The pieces that are full since they were last taken. */
	full(): readonly Uint8Array<ArrayBuffer>[] {
		const { pieces } = this;
		if (pieces.length) this.pieces = [];
		return pieces;
	}

	/** All pieces since they were last taken. */
	all(): readonly Uint8Array<ArrayBuffer>[] {
		this.endPiece();
		return this.full();
	}
}
