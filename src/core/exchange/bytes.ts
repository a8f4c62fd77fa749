/** Bytes of a piece of a file. */
const AT_ONCE = 1 << 18;
const [ZERO, MINUS, POINT] = [48, 45, 46];
/** Numbers keep six decimals. */
const DIGITS = 6;
const ONE = 10 ** DIGITS;
/** Numbers of so many millionths have a whole part of 32 bits. */
const LARGE = 1e9 * ONE;

const utf8 = new TextEncoder();
/** A text as it stands in a file. */
export const bytesOf = (text: string): Uint8Array<ArrayBuffer> => utf8.encode(text);

/** Takes a file bit by bit and gives it in pieces: as texts that are joined, half of the time would go with the joining. */
export class Bytes {
	private readonly bytes: Uint8Array;
	private length = 0;

	/** @param room for what is put between two questions whether it is full */
	constructor(room: number) {
		this.bytes = new Uint8Array(AT_ONCE + room);
	}

	put(piece: Uint8Array): void {
		const { bytes } = this;
		let at = this.length;
		for (let k = 0; k < piece.length; k++) bytes[at++] = piece[k]!;
		this.length = at;
	}

	/** @param text of letters that are one byte each, no longer than there is room for */
	plain(text: string): void {
		const { bytes } = this;
		let at = this.length;
		for (let k = 0; k < text.length; k++) bytes[at++] = text.charCodeAt(k);
		this.length = at;
	}

	/** A number with its point, to so many decimals, nine at most: `1.`, `0.5`. @returns whether it can be told so */
	real(value: number, decimals: number): boolean {
		const unit = 10 ** decimals;
		const parts = Math.round(Math.abs(value) * unit);
		if (!(parts < 2e9 * unit)) return false;
		if (value < 0 && parts > 0) this.bytes[this.length++] = MINUS;
		const whole = Math.floor(parts / unit);
		this.count(whole);
		this.bytes[this.length++] = POINT;
		let rest = (parts - whole * unit) | 0;
		if (rest === 0) return true;
		let digits = decimals;
		for (; rest % 10 === 0; rest = (rest / 10) | 0) digits--;
		this.digits(rest, digits);
		return true;
	}

	/** @param value a whole number, nought or more, of 32 bits */
	count(value: number): void {
		let digits = 1;
		for (let most = 10; value >= most; most *= 10) digits++;
		this.digits(value, digits);
	}

	/** @param value with as many decimals as are kept */
	number(value: number): void {
		const millionths = Math.round(Math.abs(value) * ONE);
		if (!(millionths < LARGE)) {
			this.put(bytesOf(String(value)));
			return;
		}
		if (value < 0 && millionths > 0) this.bytes[this.length++] = MINUS;
		// Whole numbers of 32 bits are divided several times as fast.
		const whole = (millionths / ONE) | 0;
		this.count(whole);
		let rest = (millionths - whole * ONE) | 0;
		if (rest === 0) return;
		this.bytes[this.length++] = POINT;
		let digits = DIGITS;
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

	get isFull(): boolean {
		return this.length >= AT_ONCE;
	}

	/** What has been put since the last time. */
	take(): Uint8Array<ArrayBuffer> {
		const piece = this.bytes.slice(0, this.length);
		this.length = 0;
		return piece;
	}
}
