import { asksForBars } from '../cladding/bar-columns';
import type { ClauseGroup, FaceModel, Model } from '../cladding/model';
import { pieceQuantities } from '../cladding/quantities';
import { cross, dot, length, pointAt, scale, subtract, unit } from '../geometry/vector';
import { placesOf } from '../part/places';
import type { LikeSettings } from '../project/like-schema';
import { letters } from '../units/letters';
import type { Steps } from '../units/steps';
import { signatures, type Kind } from './kinds';
import { joinedRings, ringsOf, type Rings } from './rings';
import { likeSets } from './sets';

/** Pieces along lines or on nodes by what is alike. */
export interface PieceKinds {
	readonly kinds: readonly Kind[];
	/** The kind of every piece of a group, by its row; places in `kinds`. */
	readonly of: ReadonlyMap<ClauseGroup, Uint32Array>;
}

/** Angles are told apart by what they come to so far away (mm). */
const ARM = 100;

/** How far the normals at both ends of a line are turned against each other about it (rad). */
function twistOf({ grid, edges }: FaceModel, edge: number): number {
	const [from, to] = [edges.from[edge]!, edges.to[edge]!];
	const along = subtract(pointAt(grid.positions, to), pointAt(grid.positions, from));
	if (!(length(along) > 0)) return 0;
	const way = unit(along);
	const flat = (node: number) => {
		const normal = pointAt(grid.normals, node);
		return unit(subtract(normal, scale(way, dot(normal, way))));
	};
	return Math.acos(Math.min(1, Math.max(-1, dot(flat(from), flat(to)))));
}

/**
 * Whether the bars of a group reach as far to the left of their lines as to the right, by the first of them: turned round
 * such a bar is the same, and another is not (mm).
 */
function isEven({ grid, edges, origin }: FaceModel, { group }: ClauseGroup): boolean {
	const edge = group.sites[0]!;
	const at = pointAt(grid.positions, edges.from[edge]!);
	const along = subtract(pointAt(grid.positions, edges.to[edge]!), at);
	if (!(length(along) > 0)) return false;
	const side = unit(cross(pointAt(grid.normals, edges.from[edge]!), unit(along)));
	const from = dot(subtract(at, origin), side);
	let [right, left] = [0, 0];
	for (const { row, shape, count } of group.run.elements)
		for (let k = 0; k < count; k++) {
			if (row[k] !== 0) continue;
			const places = placesOf(shape, k);
			for (let v = 0; v < places.length; v += 3) {
				const off = places[v]! * side[0] + places[v + 1]! * side[1] + places[v + 2]! * side[2] - from;
				if (off > left) left = off;
				if (off < right) right = off;
			}
		}
	return Math.abs(left + right) < EVEN;
}
/** Meshes are kept in single precision, and round profiles have flats (mm). */
const EVEN = 0.5;
/** No two ends that are so far apart (mm) are taken for each other. */
const FAR = 1e9;

/** Both ends of a bar say the same in these rows of its ring: the line's length, the cut one, the twist, the fold. */
const SHARED = 4;
/** Each end says in these how its two cuts lie, and which end it is where that matters. */
const CUTS = 2;
const AT_ENDS = CUTS + 1;

/**
 * Bars as rings of two corners, which are their ends: what both have, and how each is cut.
 * Values of a ring stand by rows, and of each row both ends.
 */
function ringsOfBars(face: FaceModel, clause: ClauseGroup, rows: readonly number[]): Rings {
	const { group } = clause;
	const { cutLength } = pieceQuantities(group);
	const { positions } = face.grid;
	const stride = 2 * (SHARED + AT_ENDS);
	const values = new Float64Array(stride * rows.length);
	const turns = isEven(face, clause);
	rows.forEach((row, n) => {
		if (!turns) values[stride * n + 2 * (SHARED + CUTS) + 1] = FAR;
		const edge = group.sites[row]!;
		const lines = group.bars?.[row] ?? [edge];
		let long = 0;
		for (const line of lines)
			long += length(
				subtract(pointAt(positions, face.edges.to[line]!), pointAt(positions, face.edges.from[line]!))
			);
		const fold = face.folds[edge]!;
		const both = [long, cutLength[row]!, ARM * twistOf(face, edge), ARM * (Number.isFinite(fold) ? fold : 0)];
		both.forEach((value, k) => values.fill(value, stride * n + 2 * k, stride * n + 2 * k + 2));
		for (let end = 0; end < 2; end++)
			for (let cut = 0; cut < CUTS; cut++) {
				const angle = group.endAngles?.[4 * row + 2 * end + cut] ?? NaN;
				values[stride * n + 2 * (SHARED + cut) + end] = Number.isNaN(angle) ? 0 : ARM * angle;
			}
	});
	return { corners: 2, count: rows.length, steps: SHARED + AT_ENDS - 1, values };
}

/** What meets at nodes as rings: a corner on each line, so far from the node. */
function ringsOfNodes(face: FaceModel, { group }: ClauseGroup, rows: readonly number[]): Rings {
	const { start, ways } = face.nodes();
	const { corners } = group;
	const positions = new Float64Array(3 * corners * rows.length);
	rows.forEach((row, n) => {
		const first = start[group.sites[row]!]!;
		for (let k = 0; k < 3 * corners; k++) positions[3 * corners * n + k] = ARM * (ways[3 * first + k] ?? 0);
	});
	const cells = {
		start: Uint32Array.from({ length: rows.length + 1 }, (_, n) => n * corners),
		corners: Uint32Array.from({ length: rows.length * corners }, (_, k) => k)
	};
	return ringsOf(cells, positions, Uint32Array.from(rows.keys()), corners);
}

/** Joined bars bend at the nodes between; what follows sizes of bars that meet is told by its weight. */
function alsoBy({ group }: ClauseGroup): (row: number) => string {
	if (group.bars)
		return (row) => (group.bars![row]!.length > 1 ? ` joined ${group.bars![row]!.join(' ')}` : '');
	if (group.over !== 'node' || !asksForBars(group.program)) return () => '';
	const { mass } = pieceQuantities(group);
	return (row) => ` ${mass[row]!.toFixed(3)}`;
}

/**
 * The pieces along lines, or on nodes, of all zones by what is alike within the tolerance: the same variant with the same
 * values, and bars as long, folded, twisted and cut alike; nodes where lines meet alike.
 *
 * ```ts
 * const { kinds } = atOnce(pieceKindsOf(model, 'line', project.like));
 * ```
 */
export function* pieceKindsOf(
	{ zones }: Model,
	over: 'line' | 'node',
	{ tolerance, mirrored }: LikeSettings
): Steps<PieceKinds> {
	const of = new Map<ClauseGroup, Uint32Array>();
	const classes = new Map<
		string,
		{ variant: string; corners: number; parts: { face: FaceModel; clause: ClauseGroup; rows: number[] }[] }
	>();
	for (const { model } of zones)
		for (const clause of model?.groups ?? []) {
			const { group } = clause;
			if (group.over !== over) continue;
			of.set(clause, new Uint32Array(group.sites.length));
			const signature = signatures(group);
			const also = alsoBy(clause);
			const rowsOf = new Map<string, number[]>();
			for (let row = 0; row < group.sites.length; row++) {
				const own = typeof signature === 'string' ? signature : signature(row);
				const name = `${group.corners} ${own}${also(row)}`;
				const rows = rowsOf.get(name);
				if (rows) rows.push(row);
				else rowsOf.set(name, [row]);
			}
			for (const [name, rows] of rowsOf) {
				const { corners, ready } = group;
				const known = classes.get(name) ?? { variant: ready.variant.id, corners, parts: [] };
				classes.set(name, known);
				known.parts.push({ face: model!.faces[clause.face]!, clause, rows });
			}
		}
	const kinds: Kind[] = [];
	const letterOf = new Map<string, { letter: string; count: number }>();
	for (const { variant, corners, parts } of classes.values()) {
		const read = over === 'line' ? ringsOfBars : ringsOfNodes;
		const rings = joinedRings(parts.map(({ face, clause, rows }) => read(face, clause, rows)));
		// A bar's mirror image is another bar: its ends are cut the other way.
		const { set, sizes, spread } = yield* likeSets(
			rings,
			tolerance,
			over === 'node' && mirrored === 'together'
		);
		const letter = letterOf.get(variant) ?? { letter: letters(letterOf.size), count: 0 };
		letterOf.set(variant, letter);
		const first = kinds.length;
		for (const [k, size] of sizes.entries())
			kinds.push({ name: `${letter.letter}${++letter.count}`, size, spread: spread[k]!, variant, corners });
		let ring = 0;
		for (const { clause, rows } of parts) for (const row of rows) of.get(clause)![row] = first + set[ring++]!;
	}
	return { kinds, of };
}
