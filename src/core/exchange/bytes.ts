/** Bytes of a piece of a file. */
const AT_ONCE = 1 << 18;
/** What is longer is a piece by itself. */
const ROOM = 1 << 12;
const [ZERO, MINUS, POINT] = [48, 45, 46];
/** The last letter that is one byte. */
const LAST_OF_ONE = 0x7f;
/** One in its parts, by how many decimals are kept. */
const UNITS = Array.from({ length: 10 }, (_, k) => 10 ** k);

/** Of a whole number of 32 bits. */
function digitsOf(value: number): number {
	let digits = 1;
	for (let most = 10; value >= most; most *= 10) digits++;
	return digits;
}

const utf8 = new TextEncoder();
/** A text as it stands in a file. */
export const bytesOf = (text: string): Uint8Array<ArrayBuffer> => utf8.encode(text);

/** Takes a file bit by bit and gives it in pieces: as texts that are joined, half of the time would go with the joining. */
export class Bytes {
	private readonly bytes = new Uint8Array(AT_ONCE + ROOM);
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

	text(text: string): void {
		if (this.length > AT_ONCE) this.endPiece();
		const { bytes, length } = this;
		const size = text.length;
		if (size > ROOM) {
			this.put(bytesOf(text));
			return;
		}
		for (let k = 0; k < size; k++) {
			const letter = text.charCodeAt(k);
			if (letter > LAST_OF_ONE) {
				this.put(bytesOf(text));
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
		this.digits(whole, digitsOf(whole));
		this.bytes[this.length++] = POINT;
		this.decimals((parts - whole * unit) | 0, decimals);
		return true;
	}

	/** @param value a whole number, nought or more, of 32 bits */
	count(value: number): void {
		if (this.length > AT_ONCE) this.endPiece();
		this.digits(value, digitsOf(value));
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
		this.digits(whole, digitsOf(whole));
		const rest = (parts - whole * unit) | 0;
		if (rest === 0) return;
		this.bytes[this.length++] = POINT;
		this.decimals(rest, decimals);
	}

	/** What stands after the point, without noughts at its end. */
	private decimals(parts: number, decimals: number): void {
		if (parts === 0) return;
		let rest = parts;
		let digits = decimals;
		for (; rest % 10 === 0; rest = (rest / 10) | 0) digits--;
		this.digits(rest, digits);
	}

	private digits(value: number, digits: number): void {
		const { bytes, length } = this;
		let rest = value;
		for (let k = length + digits - 1; k >= length; k--) {
			const next = (rest / 10) | 0;
			bytes[k] = ZERO + rest - 10 * next;
			rest = next;
		}
		this.length = length + digits;
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
