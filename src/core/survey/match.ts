import { siteSetOf } from '../cladding/sites';
import type { FaceModel } from '../cladding/model';

/** Points that were measured. mm, z up */
export interface MeasuredPoints {
	/** What each is called: the address of a node, or anything else. */
	readonly names: readonly string[];
	/** Flat x y z. */
	readonly at: Float64Array;
}

type SurveyedFace = Pick<FaceModel, 'address' | 'grid' | 'cells' | 'edges' | 'chains'>;
export interface SurveyedZone {
	readonly id: string;
	readonly faces: readonly SurveyedFace[];
}

/** Which point is at which node, and which are at none. */
export interface Matched {
	/** By zone and face: of every node the place of its point; -1 where nothing was measured. */
	readonly of: readonly (readonly Int32Array[])[];
	/** Points that are at nodes. */
	readonly count: number;
	/** Points that no node is near to; that have two nodes near to them; whose node has a nearer one. */
	readonly nothing: readonly number[];
	readonly between: readonly number[];
	readonly twice: readonly number[];
}

/** Nodes of two faces that are this near (mm) are one place: rims that meet. */
const ONE_PLACE = 1;
/** A node that is this much further away than the nearest is no other one that the point could mean. */
const CLEARLY = 2;

/** All nodes that cells hang on, one behind the other. */
class Nodes {
	readonly at: Float64Array;
	readonly zone: Int32Array;
	readonly face: Int32Array;
	readonly node: Int32Array;
	private readonly buckets = new Map<number, number[]>();

	constructor(
		zones: readonly SurveyedZone[],
		private readonly step: number
	) {
		const used = zones.map(({ faces }) =>
			faces.map(({ cells, grid }) => {
				const own = new Uint8Array(grid.positions.length / 3);
				for (const node of cells.corners) own[node] = 1;
				return own;
			})
		);
		let count = 0;
		for (const faces of used) for (const own of faces) for (const one of own) count += one;
		this.at = new Float64Array(3 * count);
		[this.zone, this.face, this.node] = [new Int32Array(count), new Int32Array(count), new Int32Array(count)];
		let next = 0;
		used.forEach((faces, z) =>
			faces.forEach((own, f) => {
				const { positions } = zones[z]!.faces[f]!.grid;
				for (let node = 0; node < own.length; node++) {
					if (!own[node]) continue;
					this.at.set(positions.subarray(3 * node, 3 * node + 3), 3 * next);
					[this.zone[next], this.face[next], this.node[next]] = [z, f, node];
					this.bucket(next++);
				}
			})
		);
	}

	private key(x: number, y: number, z: number): number {
		// Three large primes, so that places beside each other lie far apart. Places that share a number are told apart by their distance.
		return (Math.imul(x, 73_856_093) ^ Math.imul(y, 19_349_663) ^ Math.imul(z, 83_492_791)) | 0;
	}

	private place(points: Float64Array, k: number): readonly [number, number, number] {
		return [0, 1, 2].map((a) => Math.floor(points[3 * k + a]! / this.step)) as [number, number, number];
	}

	private bucket(k: number): void {
		const key = this.key(...this.place(this.at, k));
		const known = this.buckets.get(key);
		if (known) known.push(k);
		else this.buckets.set(key, [k]);
	}

	/** How far a node is from a point (mm). */
	distance(k: number, points: Float64Array, p: number): number {
		const [x, y, z] = [0, 1, 2].map((a) => this.at[3 * k + a]! - points[3 * p + a]!);
		return Math.hypot(x!, y!, z!);
	}

	/** The nodes within a step of a point, the nearest first. */
	near(points: Float64Array, p: number): (readonly [node: number, distance: number])[] {
		const [x, y, z] = this.place(points, p);
		const seen = new Set<number>();
		for (let dx = -1; dx <= 1; dx++)
			for (let dy = -1; dy <= 1; dy++)
				for (let dz = -1; dz <= 1; dz++)
					for (const k of this.buckets.get(this.key(x + dx, y + dy, z + dz)) ?? []) seen.add(k);
		return [...seen]
			.map((k) => [k, this.distance(k, points, p)] as const)
			.filter(([, distance]) => distance <= this.step)
			.sort(([, a], [, b]) => a - b);
	}
}

/**
 * Which measured points are at which nodes: by the address that a point is called by, else by its place.
 *
 * ```ts
 * const { nothing } = matchPoints([{ id: 'gull', faces: [faceModel] }], { names: ['P1'], at: new Float64Array([0, 0, 3000]) }, 50);
 * ```
 * @param within how near a point has to be to its node (mm); one that names its node may be further away
 */
export function matchPoints(
	zones: readonly SurveyedZone[],
	{ names, at }: MeasuredPoints,
	within: number
): Matched {
	const nodes = new Nodes(zones, within);
	const named = new Map<string, number>();
	for (let k = 0; k < nodes.node.length; k++) {
		const { id, faces } = zones[nodes.zone[k]!]!;
		named.set(`${id}/${siteSetOf(faces[nodes.face[k]!]!, 'node').address(nodes.node[k]!)}`, k);
	}
	const pointOf = new Int32Array(nodes.node.length).fill(-1);
	const [nothing, between, twice]: number[][] = [[], [], []];
	const matched = new Set<number>();
	/** Put a point at a node and at all nodes in its place. */
	const put = (p: number, k: number) => {
		const other = pointOf[k]!;
		if (other >= 0 && nodes.distance(k, at, other) <= nodes.distance(k, at, p)) return void twice!.push(p);
		if (other >= 0) {
			twice!.push(other);
			matched.delete(other);
		}
		pointOf[k] = p;
		for (const [one, distance] of nodes.near(nodes.at, k)) if (distance <= ONE_PLACE) pointOf[one] = p;
		matched.add(p);
	};
	names.forEach((name, p) => {
		const own = named.get(name);
		if (own !== undefined) return put(p, own);
		const [first, ...others] = nodes.near(at, p);
		if (!first) return void nothing!.push(p);
		const rival = others.find(
			([k, distance]) =>
				distance < CLEARLY * first[1] + ONE_PLACE && nodes.distance(k, nodes.at, first[0]) > ONE_PLACE
		);
		if (rival) between!.push(p);
		else put(p, first[0]);
	});
	const of = zones.map(({ faces }) =>
		faces.map(({ grid }) => new Int32Array(grid.positions.length / 3).fill(-1))
	);
	for (let k = 0; k < pointOf.length; k++) of[nodes.zone[k]!]![nodes.face[k]!]![nodes.node[k]!] = pointOf[k]!;
	return {
		of,
		count: matched.size,
		nothing: nothing!,
		between: between!,
		twice: twice!.sort((a, b) => a - b)
	};
}
