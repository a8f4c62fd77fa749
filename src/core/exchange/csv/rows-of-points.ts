import type { Vector } from '../../geometry/vector';
import type { MeasuredPoints } from '../../survey/match';

/** Points that are called alike, in their order. */
export interface PointRow {
	readonly name: string;
	readonly points: readonly Vector[];
}

/**
 * Points by what they are called: those of one name, in their order, are one row. Where each has a name of its own all of
 * them are one.
 *
 * ```ts
 * const rows = rowsOfPoints({ names: ['ridge', 'ridge', 'eaves'], at: new Float64Array(9) }); // two rows
 * ```
 * @returns names are empty where all points are one row
 */
export function rowsOfPoints({ names, at }: MeasuredPoints): PointRow[] {
	const pointOf = (k: number): Vector => [at[3 * k]!, at[3 * k + 1]!, at[3 * k + 2]!];
	const found = new Map<string, Vector[]>();
	for (const [k, name] of names.entries()) {
		const row = found.get(name);
		if (row) row.push(pointOf(k));
		else found.set(name, [pointOf(k)]);
	}
	if (found.size === names.length) return [{ name: '', points: names.map((_, k) => pointOf(k)) }];
	return Array.from(found, ([name, points]) => ({ name, points }));
}

/**
 * Rows of a net through points, from the foot up.
 *
 * ```ts
 * const rows = netOfPoints({ names: ['1', '1', '2', '2'], at: new Float64Array(12) }); // two rows of two
 * ```
 * @throws Error with a sentence where they are no rows of as many points each
 */
export function netOfPoints(points: MeasuredPoints): Vector[][] {
	const rows = rowsOfPoints(points);
	if (rows.length < 2)
		throw new Error(
			'a net has two rows of points or more, which are called by their rows: “row 1” in each line of the first, “row 2” in each of the next'
		);
	const [first] = rows;
	const count = first!.points.length;
	const other = rows.find((row) => row.points.length !== count);
	if (other || count < 2)
		throw new Error(
			other
				? `row “${other.name}” has ${other.points.length} points and row “${first!.name}” ${count}; all rows of a net have as many`
				: 'a row of a net has two points or more'
		);
	return rows.map((row) => [...row.points]);
}
