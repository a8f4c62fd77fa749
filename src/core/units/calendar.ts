const months = [
	'January',
	'February',
	'March',
	'April',
	'May',
	'June',
	'July',
	'August',
	'September',
	'October',
	'November',
	'December'
] as const;

/**
 * A day as people write it.
 *
 * ```ts
 * dayText('2026-06-21'); // 21 June 2026
 * ```
 */
export function dayText(day: string): string {
	const [year, month, number] = day.split('-').map(Number);
	return `${number} ${months[month! - 1]} ${year}`;
}

/**
 * Read a day that a person typed: "21 June 2026", "21 jun", "2026-06-21".
 *
 * ```ts
 * readDay('21 jun', 2026); // 2026-06-21
 * ```
 * @param year where the text has none
 * @returns null when it is no day
 */
export function readDay(text: string, year: number): string | null {
	const plain = text.trim().match(/^(\d{4})-(\d{1,2})-(\d{1,2})$/);
	const worded = text.trim().match(/^(\d{1,2})\.?\s*([a-z]{3,})\.?(?:\s+(\d{4}))?$/i);
	const month = plain
		? Number(plain[2])
		: months.findIndex((name) => name.toLowerCase().startsWith(worded?.[2]?.toLowerCase() ?? '-')) + 1;
	const [y, d] = plain
		? [Number(plain[1]), Number(plain[3])]
		: [Number(worded?.[3] ?? year), Number(worded?.[1])];
	const moment = new Date(Date.UTC(y, month - 1, d));
	const isThere = month >= 1 && moment.getUTCMonth() === month - 1 && moment.getUTCDate() === d;
	return isThere ? moment.toISOString().slice(0, 10) : null;
}

/**
 * An hour of the day on a clock.
 *
 * ```ts
 * clockText(12.5); // 12:30
 * ```
 */
export function clockText(hour: number): string {
	const minutes = Math.round(hour * 60);
	return `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')}`;
}

/**
 * Read an hour that a person typed: "12:30", "12.5", "12".
 *
 * ```ts
 * readClock('12:30'); // 12.5
 * ```
 * @returns null when it is none
 */
export function readClock(text: string): number | null {
	const found = text.trim().match(/^(\d{1,2})(?::([0-5]\d)|([.,]\d+))?$/);
	if (!found) return null;
	const hour =
		Number(found[1]) + Number(found[2] ?? 0) / 60 + Number(`0${(found[3] ?? '.0').replace(',', '.')}`);
	return hour <= 24 ? hour : null;
}
