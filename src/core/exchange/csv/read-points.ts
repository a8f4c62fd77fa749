import type { MeasuredPoints } from '../../survey/match';
import { asNumber, asText } from './read-table';

/** Heads of a coordinate, with the unit that may stand behind it. */
const COORDINATE =
	/^([xyzenh]|east(?:ing)?|north(?:ing)?|height|elevation|level)\s*[_ ([]*\s*(mm|cm|m)?\s*[)\]]?$/i;
const axes: Readonly<Record<string, number>> = { x: 0, e: 0, y: 1, n: 1, z: 2, h: 2, l: 2 };
const inMillimetres: Readonly<Record<string, number>> = { mm: 1, cm: 10, m: 1000 };
const MOST_POINTS = 200_000;
/** Nothing that is built stands further from where it is measured from (mm). */
const FURTHEST = 1e8;

/** Which column has which coordinate, and what a number of it is in mm. */
function coordinatesOf(heads: readonly string[]): readonly { column: number; scale: number }[] {
	const found: ({ column: number; scale: number } | undefined)[] = [];
	heads.forEach((head, column) => {
		const [, what, unit] = COORDINATE.exec(head) ?? [];
		// Elevation begins as easting does.
		if (!what) return;
		const axis = /^elev/i.test(what) ? 2 : axes[what[0]!.toLowerCase()]!;
		found[axis] ??= { column, scale: inMillimetres[unit?.toLowerCase() ?? 'mm']! };
	});
	const missing = ['x', 'y', 'z'].filter((_, axis) => !found[axis]);
	if (missing.length)
		throw new Error(
			`no column is headed ${missing.join(', ')}; its first line is to be like “point, x, y, z”, in mm, or “x (m)” in metres`
		);
	return found as { column: number; scale: number }[];
}

/**
 * Measured points from the lines of a table: heads first, a name and x, y, z in every line.
 *
 * ```ts
 * const { names, at } = readPoints([['point', 'x (m)', 'y (m)', 'z (m)'], ['P1', 1.2, 0, 3]]); // at: 1200, 0, 3000
 * ```
 * @throws Error with a sentence that says which line is wrong and what would be taken
 */
export function readPoints(lines: readonly (readonly unknown[])[]): MeasuredPoints {
	const [heads, ...rows] = lines.map((line, k) => ({ line, number: k + 1 }));
	const first = heads?.line.map(asText) ?? [];
	const coordinates = coordinatesOf(first);
	const taken = new Set(coordinates.map(({ column }) => column));
	const nameColumn = first.findIndex((_, column) => !taken.has(column));
	const filled = rows.filter(({ line }) => line.some((value) => asText(value) !== ''));
	if (!filled.length) throw new Error('there are no points in it, only heads');
	if (filled.length > MOST_POINTS)
		throw new Error(`there are ${filled.length} points in it; ${MOST_POINTS} can be taken at once`);
	const at = new Float64Array(3 * filled.length);
	const names = filled.map(({ line, number }, k) => {
		coordinates.forEach(({ column, scale }, axis) => {
			const value = asNumber(line[column]);
			const mm = value === null ? NaN : value * scale;
			if (!(Math.abs(mm) <= FURTHEST))
				throw new Error(
					`line ${number}: ${first[column]} is “${asText(line[column])}”; a number of up to 100 km is wanted`
				);
			at[3 * k + axis] = mm;
		});
		return (nameColumn < 0 ? '' : asText(line[nameColumn])) || `line ${number}`;
	});
	return { names, at };
}
