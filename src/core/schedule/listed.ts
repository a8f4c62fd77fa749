import type { NumberKind } from '../units/dimension';
import { scales } from '../units/scale';
import type { ColumnHead } from './column';

/** Between the addresses of a row that stands for several pieces. */
export const BETWEEN_ADDRESSES = '; ';

/** Decimals of listed numbers, in their listed unit: what a workshop reads. */
export const decimals: Readonly<Record<NumberKind, number>> = {
	length: 1,
	angle: 2,
	area: 4,
	volume: 6,
	mass: 2,
	hours: 2,
	stress: 2,
	pressure: 2,
	force: 3,
	inertia: 2,
	transmittance: 3,
	ratio: 4,
	count: 0,
	switch: 0
};

/**
 * Whether two values of a kind are listed as one (kernel units).
 *
 * ```ts
 * listedAlike('length', 1200.01, 1200.04); // true: both are 1200.0 mm
 * ```
 */
export const listedAlike = (kind: NumberKind, a: number, b: number): boolean =>
	Math.abs(a - b) / scales[kind].size <= 0.5001 * 10 ** -decimals[kind];

/**
 * The head of a column in a file, with its unit in letters that every spreadsheet has.
 *
 * ```ts
 * headingOf({ title: 'Area', kind: 'area' }); // Area (m2)
 * ```
 */
export function headingOf({ title, kind }: Pick<ColumnHead, 'title' | 'kind'>): string {
	const unit = kind === 'text' ? '' : scales[kind].plain;
	return unit ? `${title} (${unit})` : title;
}

/** Whether a column goes into files: pictures are looked at. */
export const inFiles = ({ key }: Pick<ColumnHead, 'key'>): boolean => key !== 'picture';
