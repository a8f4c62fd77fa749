import { openRings } from '../../geometry/triangulate';
import { add, cross, dot, length, pointAt, scale, subtract, unit, type Vector } from '../../geometry/vector';

/** A flat part of a body's surface, seen from outside. mm */
export interface FlatFace {
	readonly normal: Vector;
	/** Its rims: it lies to their left. */
	readonly loops: readonly (readonly Vector[])[];
	/** mm² */
	readonly area: number;
}

/** Corners nearer than this (mm) are one. */
const SAME = 0.1;
/** Triangles that lean from each other by less (1 − cosine: a tenth of a degree) lie in one plane. */
const FLAT = 1.5e-6;
/** Corners that stand off the line between their neighbours by less (mm) are none. */
const STRAIGHT = 0.05;

/** Corners that are one get one number. */
function welded(vertices: ArrayLike<number>): { of: Uint32Array; places: number[] } {
	const known = new Map<string, number>();
	const places: number[] = [];
	const of = new Uint32Array(vertices.length / 3);
	for (let k = 0; k < of.length; k++) {
		const key = pointAt(vertices, k)
			.map((value) => Math.round(value / SAME))
			.join(' ');
		let at = known.get(key);
		if (at === undefined) {
			known.set(key, (at = places.length / 3));
			places.push(...pointAt(vertices, k));
		}
		of[k] = at;
	}
	return { of, places };
}

/** Sets that are joined one by one. */
class Joined {
	private readonly of: Uint32Array;

	constructor(count: number) {
		this.of = Uint32Array.from({ length: count }, (_, k) => k);
	}

	find(k: number): number {
		let at = k;
		while (this.of[at] !== at) at = this.of[at] = this.of[this.of[at]!]!;
		return at;
	}

	join(a: number, b: number): void {
		this.of[this.find(a)] = this.find(b);
	}
}

/** Corners where a ring turns. */
function turning(ring: readonly Vector[]): Vector[] {
	return ring.filter((point, k) => {
		const before = ring[(k + ring.length - 1) % ring.length]!;
		const chord = subtract(ring[(k + 1) % ring.length]!, before);
		const size = length(chord);
		return size === 0 || length(cross(chord, subtract(point, before))) / size > STRAIGHT;
	});
}

/**
 * The flat faces of a mesh, the largest first: triangles that lie in one plane beside each other are one.
 *
 * ```ts
 * const faces = flatFaces(Float64Array.of(0, 0, 0, 9, 0, 0, 9, 9, 0, 0, 9, 0), [0, 1, 2, 0, 2, 3]); // one square
 * ```
 * @param vertices x y z (mm) @param triangles by vertex, outward
 */
export function flatFaces(vertices: ArrayLike<number>, triangles: ArrayLike<number>): FlatFace[] {
	const { of, places } = welded(vertices);
	const corners: number[] = [];
	const normals: Vector[] = [];
	for (let t = 0; t < triangles.length; t += 3) {
		const [a, b, c] = [of[triangles[t]!]!, of[triangles[t + 1]!]!, of[triangles[t + 2]!]!];
		const at = pointAt(places, a);
		const twice = cross(subtract(pointAt(places, b), at), subtract(pointAt(places, c), at));
		if (!(length(twice) > SAME * SAME)) continue;
		corners.push(a, b, c);
		normals.push(twice);
	}
	const count = normals.length;
	const sides = new Map<string, number>();
	const joined = new Joined(count);
	const side = (t: number, k: number) => [corners[3 * t + k]!, corners[3 * t + ((k + 1) % 3)]!] as const;
	for (let t = 0; t < count; t++)
		for (let k = 0; k < 3; k++) {
			const [a, b] = side(t, k);
			sides.set(`${a} ${b}`, t);
		}
	for (let t = 0; t < count; t++)
		for (let k = 0; k < 3; k++) {
			const [a, b] = side(t, k);
			const other = sides.get(`${b} ${a}`);
			if (other !== undefined && dot(unit(normals[t]!), unit(normals[other]!)) > 1 - FLAT)
				joined.join(t, other);
		}
	const members = new Map<number, number[]>();
	for (let t = 0; t < count; t++) {
		const own = joined.find(t);
		const list = members.get(own);
		if (list) list.push(t);
		else members.set(own, [t]);
	}
	const faces = Array.from(members.values(), (own): FlatFace => {
		let sum: Vector = [0, 0, 0];
		for (const t of own) sum = add(sum, normals[t]!);
		const loops = openRings(own.flatMap((t) => corners.slice(3 * t, 3 * t + 3)))
			.map((ring) => turning(ring.map((corner) => pointAt(places, corner))))
			.filter((ring) => ring.length > 2);
		return { normal: scale(sum, 1 / length(sum)), loops, area: length(sum) / 2 };
	});
	return faces.filter(({ loops }) => loops.length).sort((a, b) => b.area - a.area);
}
