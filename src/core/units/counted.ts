import { formatNumber } from './quantity';

/**
 * So many of something, in words.
 *
 * ```ts
 * counted(1, 'chain'); // 1 chain
 * counted(1204, 'mass', 'masses'); // 1 204 masses
 * ```
 * @param more what several are called, where it is not the word with an s
 */
export const counted = (count: number, one: string, more = `${one}s`): string =>
	`${formatNumber(count)} ${count === 1 ? one : more}`;
