/**
 * A, B … Z, AA, AB …: places counted from 0.
 *
 * ```ts
 * letters(27); // AB
 * ```
 */
export function letters(place: number): string {
	const last = String.fromCharCode(65 + (place % 26));
	return place < 26 ? last : letters(Math.floor(place / 26) - 1) + last;
}
