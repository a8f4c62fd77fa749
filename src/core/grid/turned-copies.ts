import type { Vector } from '../geometry/vector';

/** Points that follow one another, with what is outside at each. */
export interface Strand {
	readonly points: readonly Vector[];
	readonly normals: readonly Vector[];
}

const mapped = (
	{ points, normals }: Strand,
	place: (p: Vector) => Vector,
	way: (n: Vector) => Vector
): Strand => ({
	points: points.map(place),
	normals: normals.map(way)
});

/**
 * A strand turned about an upright axis.
 *
 * ```ts
 * const strand = { points: [pointAt(grid.positions, 0), pointAt(grid.positions, 8)], normals: [pointAt(grid.normals, 0), pointAt(grid.normals, 8)] };
 * const next = turned(strand, [0, 0], Math.PI / 16);
 * ```
 * @param about x y of the axis (mm) @param angle rad, counter-clockwise seen from above
 */
export function turned(strand: Strand, about: readonly [number, number], angle: number): Strand {
	const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
	const turn = ([x, y, z]: Vector): Vector => [cos * x - sin * y, sin * x + cos * y, z];
	const place = ([x, y, z]: Vector): Vector => {
		const [dx, dy] = turn([x - about[0], y - about[1], z]);
		return [dx + about[0], dy + about[1], z];
	};
	return mapped(strand, place, turn);
}

/**
 * The mirror image of a strand in the upright plane through an axis and its first point.
 *
 * ```ts
 * const strand = { points: [pointAt(grid.positions, 0), pointAt(grid.positions, 8)], normals: [pointAt(grid.normals, 0), pointAt(grid.normals, 8)] };
 * const other = mirroredStrand(strand, [0, 0]);
 * ```
 */
export function mirroredStrand(strand: Strand, about: readonly [number, number]): Strand {
	const [x, y] = strand.points.find((p) => Math.hypot(p[0] - about[0], p[1] - about[1]) > 1e-6) ?? [1, 0];
	const angle = 2 * Math.atan2(y - about[1], x - about[0]);
	const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
	const flip = ([p, q, z]: Vector): Vector => [cos * p + sin * q, sin * p - cos * q, z];
	const place = ([p, q, z]: Vector): Vector => {
		const [dx, dy] = flip([p - about[0], q - about[1], z]);
		return [dx + about[0], dy + about[1], z];
	};
	return mapped(strand, place, flip);
}
