import { cross, dot, pointAt, squareTo, subtract, unit, type Vector } from '../geometry/vector';
import { placesOf } from '../part/places';
import type { Nodes } from '../pattern/nodes';
import type { BarsAtNodes } from './bar-columns';
import type { CladFace } from './given-columns';
import type { PieceGroup } from './pieces';

/** Extents of what stands on one line: beside it, and along the face's normal. */
type Extents = [left: number, right: number, inner: number, outer: number];

/** What stands on each line of a face, by the line; several pieces on one are taken together. */
type OnLines = Map<number, Extents>;

/** A line, or several that a bar runs along, as what stands on it is measured: from where, out of the face, and beside. */
export interface LineFrame {
	readonly start: Vector;
	readonly out: Vector;
	/** To the right of the line, length 1. */
	readonly beside: Vector;
}

/**
 * The frame of a line, or of several that follow one another.
 *
 * ```ts
 * const { beside } = lineFrame(faceModel, [0], [0, -1, 0]);
 * ```
 * @param normal out of the face, or nearly
 */
export function lineFrame(
	{ edges, grid }: Pick<CladFace, 'edges' | 'grid'>,
	lines: readonly number[],
	normal: Vector
): LineFrame {
	const start = pointAt(grid.positions, edges.from[lines[0]!]!);
	const end = pointAt(grid.positions, edges.to[lines.at(-1)!]!);
	const along = unit(subtract(end, start));
	const out = squareTo(along, normal);
	return { start, out, beside: cross(out, along) };
}

/** Take in what a group's pieces come to, in the frame of the line that each stands on. */
function takeIn(
	found: OnLines,
	{ run, sites, bars }: PieceGroup,
	origin: Vector,
	frameOf: (lines: readonly number[]) => LineFrame
): void {
	for (const { row, shape, count } of run.elements)
		for (let n = 0; n < count; n++) {
			const lines = bars?.[row[n]!] ?? [sites[row[n]!]!];
			const { start, out, beside } = frameOf(lines);
			const from = subtract(start, origin);
			const places = placesOf(shape, n);
			const [x, y] = [dot(from, beside), dot(from, out)];
			const reach: Extents = [Infinity, -Infinity, Infinity, -Infinity];
			for (let k = 0; k < places.length; k += 3) {
				const [a, b, c] = [places[k]!, places[k + 1]!, places[k + 2]!];
				const side = a * beside[0] + b * beside[1] + c * beside[2] - x;
				const height = a * out[0] + b * out[1] + c * out[2] - y;
				if (side < reach[0]) reach[0] = side;
				if (side > reach[1]) reach[1] = side;
				if (height < reach[2]) reach[2] = height;
				if (height > reach[3]) reach[3] = height;
			}
			for (const line of lines) {
				const known = found.get(line);
				found.set(line, known ? union(known, reach) : reach);
			}
		}
}

const union = (a: Extents, b: Extents): Extents => [
	Math.min(a[0], b[0]),
	Math.max(a[1], b[1]),
	Math.min(a[2], b[2]),
	Math.max(a[3], b[3])
];

/**
 * What bars measure where they meet at the nodes of a face: of the pieces themselves, so that it holds for any part.
 *
 * ```ts
 * const { across, deep } = barsAtNodes(faceModel.nodes(), [faceModel], [[group.group]]);
 * ```
 * @param faces of the zone, and the groups that stand on the lines of each
 */
export function barsAtNodes(
	{ start, lines }: Nodes,
	faces: readonly CladFace[],
	groups: readonly (readonly PieceGroup[])[]
): BarsAtNodes {
	const onLines = faces.map((face, f) => {
		const found: OnLines = new Map();
		for (const group of groups[f]!)
			takeIn(found, group, face.origin as Vector, (lines) =>
				lineFrame(face, lines, pointAt(face.edgeNormals, lines[0]!))
			);
		return found;
	});
	const ways = lines.edge.length;
	const bars = {
		across: new Float64Array(ways),
		deep: new Float64Array(ways),
		middle: new Float64Array(ways)
	};
	for (let node = 0; node + 1 < start.length; node++) {
		let [sum, count] = [0, 0];
		const without: number[] = [];
		for (let way = start[node]!; way < start[node + 1]!; way++) {
			const on = onLines[lines.face[way]!]!.get(lines.edge[way]!);
			if (!on) {
				without.push(way);
				continue;
			}
			bars.across[way] = on[1] - on[0];
			bars.deep[way] = on[3] - on[2];
			bars.middle[way] = (on[2] + on[3]) / 2;
			sum += bars.middle[way]!;
			count++;
		}
		for (const way of without) bars.middle[way] = count ? sum / count : 0;
	}
	return bars;
}
