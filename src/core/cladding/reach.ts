import { dot, scale, subtract, add, unit, type Vector } from '../geometry/vector';
import type { ElementTable } from '../part/element-table';
import { placesOf } from '../part/places';
import type { LineFrame } from './bars-at-nodes';
import type { PieceGroup } from './pieces';

/**
 * How far what stands on a line reaches to a side of it (mm): a plane square to that side, so far out, touches it.
 * @param side square to the line, or nearly
 */
export type Reach = (side: Vector) => number;

/** A mesh that stands on a line. */
interface Standing {
	readonly shape: ElementTable['shape'];
	readonly instance: number;
	readonly frame: LineFrame;
	/** Of the places of the mesh. */
	readonly origin: Vector;
}

/**
 * How far the pieces of a group reach to the sides of the lines that they stand on, by line: measured on the pieces
 * themselves, when it is asked for.
 *
 * ```ts
 * const reach = reachesOf(group.group, faceModel.origin, (lines) => lineFrame(faceModel, lines, [0, -1, 0]));
 * reach.get(0)?.([1, 0, 0]); // 30: half of a strip 60 wide
 * ```
 * @param origin of the pieces @param frameOf the lines of a bar; null for those that are left out
 */
export function reachesOf(
	{ run, sites, bars }: PieceGroup,
	origin: Vector,
	frameOf: (lines: readonly number[]) => LineFrame | null
): ReadonlyMap<number, Reach> {
	const standing = new Map<number, Standing[]>();
	for (const { row, shape, count } of run.elements)
		for (let instance = 0; instance < count; instance++) {
			const lines = bars?.[row[instance]!] ?? [sites[row[instance]!]!];
			const frame = frameOf(lines);
			if (!frame) continue;
			for (const line of lines) {
				const known = standing.get(line);
				const one = { shape, instance, frame, origin };
				if (known) known.push(one);
				else standing.set(line, [one]);
			}
		}
	return new Map(
		Array.from(standing, ([line, own]) => [line, (side) => Math.max(...own.map((one) => reachOf(one, side)))])
	);
}

/** A bar is long: what it reaches to its end does not count, so the side is taken square to it. */
function reachOf({ shape, instance, frame, origin }: Standing, side: Vector): number {
	const { start, beside, out } = frame;
	const square = unit(add(scale(beside, dot(beside, side)), scale(out, dot(out, side))));
	const [x, y, z] = square;
	const places = placesOf(shape, instance);
	let most = -Infinity;
	for (let k = 0; k < places.length; k += 3) {
		const at = places[k]! * x + places[k + 1]! * y + places[k + 2]! * z;
		if (at > most) most = at;
	}
	return most - dot(subtract(start, origin), square);
}
