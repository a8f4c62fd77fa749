import type { Picture } from '../project/brought-schema';
import { isInFile } from '../project/stored';
import { reckon, type ColumnReader } from './column';
import { field, type Field, type FieldSource } from './field';
import { nameInFormulas } from './followed';
import type { SiteKind } from './site-kind';

/** Shares of red, green and blue in how light a colour is (ITU-R BT.709; from memory). */
const lightness = [0.2126, 0.7152, 0.0722] as const;
const weights: Readonly<Record<Picture['reads'], readonly [number, number, number]>> = {
	lightness,
	red: [1, 0, 0],
	green: [0, 1, 0],
	blue: [0, 0, 1]
};

/** Which way right and up of a picture run in the model, for one that is laid over what is seen. */
const seen: Readonly<
	Record<Exclude<Picture['lies'], 'face'>, readonly [axis: 0 | 1, sign: 1 | -1, up: 1 | 2]>
> = {
	above: [0, 1, 1],
	south: [0, 1, 2],
	north: [0, -1, 2],
	east: [1, 1, 2],
	west: [1, -1, 2]
};

/**
 * The value of a picture at a place, between its samples evenly: 0 is dark, 1 is light.
 *
 * ```ts
 * valueIn(project.pictures[0]!, 0.5, 0.5); // in its middle
 * ```
 * @param x share of the way from its left to its right @param y share of the way from its foot to its head
 */
export function valueIn({ columns, rows, samples, reads }: Picture, x: number, y: number): number {
	if (isInFile(samples)) return 0;
	const [red, green, blue] = weights[reads];
	const at = (share: number, count: number) => Math.min(count - 1, Math.max(0, share * count - 0.5));
	const [px, py] = [at(x, columns), at(1 - y, rows)];
	const [i, j] = [Math.floor(px), Math.floor(py)];
	const [i2, j2] = [Math.min(columns - 1, i + 1), Math.min(rows - 1, j + 1)];
	const value = (column: number, row: number) => {
		const o = 3 * (row * columns + column);
		return (red * samples[o]! + green * samples[o + 1]! + blue * samples[o + 2]!) / 255;
	};
	const [s, t] = [px - i, py - j];
	return (
		(1 - t) * ((1 - s) * value(i, j) + s * value(i2, j)) + t * ((1 - s) * value(i, j2) + s * value(i2, j2))
	);
}

type Source = Pick<FieldSource, 'cells' | 'measures' | 'grid' | 'pictures'>;

function laidOn(
	picture: Picture,
	{ cells, measures: { centre }, grid }: Source,
	sites: Uint32Array
): ColumnReader {
	if (picture.lies === 'face')
		return reckon(sites, (c) =>
			valueIn(picture, (cells.bay[c]! - 0.5) / grid.across.steps, (cells.course[c]! - 0.5) / grid.up.steps)
		);
	const [axis, sign, up] = seen[picture.lies];
	// It covers the middles of all cells, with half a sample beyond.
	const range = (a: number) => {
		let [low, high] = [Infinity, -Infinity];
		for (let c = 0; c < cells.count; c++) {
			low = Math.min(low, centre[3 * c + a]!);
			high = Math.max(high, centre[3 * c + a]!);
		}
		return [low, Math.max(1, high - low)] as const;
	};
	const [[left, wide], [foot, high]] = [range(axis), range(up)];
	return reckon(sites, (c) => {
		const across = (centre[3 * c + axis]! - left) / wide;
		return valueIn(picture, sign > 0 ? across : 1 - across, (centre[3 * c + up]! - foot) / high);
	});
}

/**
 * What pictures say at cells: `picture.NAME`, 0 where it is dark and 1 where it is light.
 *
 * ```ts
 * const names = pictureFields('cell', ['wave']).map(({ name }) => name); // picture.wave
 * ```
 */
export const pictureFields = (over: SiteKind, pictures: readonly string[]): Field[] =>
	over !== 'cell'
		? []
		: pictures.map((id) =>
				field(
					over,
					`picture.${nameInFormulas(id)}`,
					`picture ${id}`,
					'ratio',
					['cells', 'measures', 'grid', 'pictures'],
					(source, sites) => laidOn(source.pictures.get(id)!, source, sites),
					({ pictures }) => pictures?.get(id)
				)
			);
