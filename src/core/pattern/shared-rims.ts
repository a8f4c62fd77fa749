import type { NodeGrid } from '../grid/node-grid';
import { NO_CELL, type Edges } from './edges';

/** Rims of two faces meet where their nodes are no further apart than this (mm). */
const SAME = 0.5;
const BIN = 4;

/** What a face needs for its rims to be compared. */
export interface RimmedFace {
	readonly grid: NodeGrid;
	readonly edges: Edges;
}

/** An edge of one face and the edge of another that is the same line. */
export interface SharedRim {
	readonly face: number;
	readonly edge: number;
	readonly other: number;
	readonly otherEdge: number;
}

/** How the rims of two faces get on. */
export interface RimMeeting {
	readonly faces: readonly [number, number];
	/** Edges that are one. */
	readonly shared: number;
	/** Nodes of the one that lie on an edge of the other without a node there. */
	readonly apart: number;
	/** Steps of each along the line where they meet. */
	readonly steps: readonly [number, number];
}

export interface SharedRims {
	readonly shared: readonly SharedRim[];
	readonly meetings: readonly RimMeeting[];
}

interface RimEdge {
	readonly face: number;
	readonly edge: number;
	readonly a: number;
	readonly b: number;
}

/** Things in space by the bin they lie in. */
class Bins<T> {
	private readonly bins = new Map<string, T[]>();
	private readonly name = (x: number, y: number, z: number) => `${x} ${y} ${z}`;

	add(p: ArrayLike<number>, thing: T): void {
		const name = this.name(...(Array.from(p, (t) => Math.floor(t / BIN)) as [number, number, number]));
		const bin = this.bins.get(name);
		if (bin) bin.push(thing);
		else this.bins.set(name, [thing]);
	}
	*near(p: ArrayLike<number>): Generator<T> {
		const [x, y, z] = Array.from(p, (t) => Math.floor(t / BIN)) as [number, number, number];
		for (let dx = -1; dx <= 1; dx++)
			for (let dy = -1; dy <= 1; dy++)
				for (let dz = -1; dz <= 1; dz++) yield* this.bins.get(this.name(x + dx, y + dy, z + dz)) ?? [];
	}
}

const pointOf = ({ grid }: RimmedFace, node: number) => grid.positions.subarray(3 * node, 3 * node + 3);
const gap = (p: ArrayLike<number>, q: ArrayLike<number>) =>
	Math.hypot(p[0]! - q[0]!, p[1]! - q[1]!, p[2]! - q[2]!);

/**
 * The rim edges that faces of a zone have in common, by their ends; each once, the earlier face's first.
 *
 * ```ts
 * const { meetings } = sharedRims(rimmedFaces);
 * ```
 */
export function sharedRims(faces: readonly RimmedFace[]): SharedRims {
	const rims: RimEdge[] = faces.flatMap(({ edges }, face) =>
		Array.from({ length: edges.count }, (_, edge) => edge)
			.filter((edge) => edges.right[edge] === NO_CELL)
			.map((edge) => ({ face, edge, a: edges.from[edge]!, b: edges.to[edge]! }))
	);
	const middles = new Bins<RimEdge>();
	const middleOf = ({ face, a, b }: RimEdge) => {
		const [p, q] = [pointOf(faces[face]!, a), pointOf(faces[face]!, b)];
		return [0, 1, 2].map((k) => (p[k]! + q[k]!) / 2);
	};
	for (const rim of rims) middles.add(middleOf(rim), rim);
	const shared: SharedRim[] = [];
	const taken = new Set<RimEdge>();
	for (const rim of rims) {
		if (taken.has(rim)) continue;
		const [p, q] = [pointOf(faces[rim.face]!, rim.a), pointOf(faces[rim.face]!, rim.b)];
		for (const other of middles.near(middleOf(rim))) {
			if (other.face <= rim.face || taken.has(other)) continue;
			const [r, s] = [pointOf(faces[other.face]!, other.a), pointOf(faces[other.face]!, other.b)];
			const same = (gap(p, r) < SAME && gap(q, s) < SAME) || (gap(p, s) < SAME && gap(q, r) < SAME);
			if (!same) continue;
			taken.add(rim).add(other);
			shared.push({ face: rim.face, edge: rim.edge, other: other.face, otherEdge: other.edge });
			break;
		}
	}
	return { shared, meetings: meetingsOf(faces, rims, shared) };
}

function meetingsOf(
	faces: readonly RimmedFace[],
	rims: readonly RimEdge[],
	shared: readonly SharedRim[]
): RimMeeting[] {
	const found: RimMeeting[] = [];
	const rimOf = faces.map((_, face) => rims.filter((rim) => rim.face === face));
	const nodesOf = rimOf.map((own) => [...new Set(own.flatMap(({ a, b }) => [a, b]))]);
	const along = (one: number, other: number) =>
		nodesAlong(faces[one]!, nodesOf[one]!, faces[other]!, rimOf[other]!);
	for (let one = 0; one < faces.length; one++)
		for (let other = one + 1; other < faces.length; other++) {
			const count = shared.filter((rim) => rim.face === one && rim.other === other).length;
			const own = along(one, other);
			if (!count && own.loose < 2) continue;
			const steps = own.loose
				? ([own.all - 1, along(other, one).all - 1] as const)
				: ([count, count] as const);
			found.push({ faces: [one, other], shared: count, apart: own.loose, steps });
		}
	return found;
}

/** Share of an edge's length by which a line on a curved rim may bulge over its chord. */
const BULGE = 0.05;

/** Nodes that lie along another face's rim, and those among them that lie on none of its nodes. */
function nodesAlong(
	face: RimmedFace,
	nodes: readonly number[],
	other: RimmedFace,
	rims: readonly RimEdge[]
): { all: number; loose: number } {
	let [all, loose] = [0, 0];
	for (const node of nodes) {
		const p = pointOf(face, node);
		let [on, isNode] = [false, false];
		for (const { a, b } of rims) {
			const [q, r] = [pointOf(other, a), pointOf(other, b)];
			const size = gap(q, r);
			isNode ||= gap(p, q) < SAME || gap(p, r) < SAME;
			if (gap(p, q) + gap(p, r) < size * (1 + BULGE ** 2)) on = true;
		}
		if (isNode || on) all++;
		if (on && !isNode) loose++;
	}
	return { all, loose };
}
