import { once } from '../units/once';
import { makeBvh, type Bvh } from '../geometry/bvh';

/** A closed mesh, as it is looked at for clashes. */
export interface Body {
	/** x y z (mm). */
	readonly vertices: Float64Array;
	/** The same, drawn in by so much on all sides (mm). */
	readonly inner: Float64Array;
	readonly inset: number;
	/** Triangles of the drawn in mesh in boxes, made when they are first asked for. */
	readonly tree: () => Bvh;
	/** Pairs of vertices, each edge once. */
	readonly edges: Uint32Array;
	/** Directions that its triangles look in, each once; none where there are too many to look along. */
	readonly normals: Float64Array;
}

const edgesKnown = new WeakMap<object, Uint32Array>();

/** The edges of triangles, each once. Lists that many meshes have in common are read once. */
function edgesOf(triangles: ArrayLike<number>): Uint32Array {
	const known = edgesKnown.get(triangles);
	if (known) return known;
	const edges: number[] = [];
	for (let t = 0; t < triangles.length; t += 3)
		for (let k = 0; k < 3; k++) {
			const [a, b] = [triangles[t + k]!, triangles[t + ((k + 1) % 3)]!];
			// Of a closed mesh each is met once in each direction.
			if (a < b) edges.push(a, b);
		}
	const list = Uint32Array.from(edges);
	edgesKnown.set(triangles, list);
	return list;
}

/** Directions whose cosine is above this are one. */
const SAME_WAY = 0.9999;
/** Meshes that look in more directions are round: nothing is gained by looking along all of them. */
const MOST_NORMALS = 16;
/** A direction that is moved along in place of several is so much longer at most. */
const LEAST_LEAN = 0.33;

/** The normals of triangles, x y z; noughts for those without area. */
function normalsOf(vertices: Float64Array, triangles: ArrayLike<number>): Float64Array {
	const normals = new Float64Array(triangles.length);
	for (let t = 0; t < triangles.length; t += 3) {
		const [a, b, c] = [3 * triangles[t]!, 3 * triangles[t + 1]!, 3 * triangles[t + 2]!];
		const ux = vertices[b]! - vertices[a]!;
		const uy = vertices[b + 1]! - vertices[a + 1]!;
		const uz = vertices[b + 2]! - vertices[a + 2]!;
		const vx = vertices[c]! - vertices[a]!;
		const vy = vertices[c + 1]! - vertices[a + 1]!;
		const vz = vertices[c + 2]! - vertices[a + 2]!;
		const x = uy * vz - uz * vy;
		const y = uz * vx - ux * vz;
		const z = ux * vy - uy * vx;
		const size = Math.sqrt(x * x + y * y + z * z);
		if (!(size > 0)) continue;
		normals[t] = x / size;
		normals[t + 1] = y / size;
		normals[t + 2] = z / size;
	}
	return normals;
}

/** Takes directions into a list, each once. @returns whether it was not there */
function takeOnce(list: number[], x: number, y: number, z: number): boolean {
	for (let n = 0; n < list.length; n += 3)
		if (list[n]! * x + list[n + 1]! * y + list[n + 2]! * z > SAME_WAY) return false;
	list.push(x, y, z);
	return true;
}

/**
 * The directions that triangles look in, and for every vertex the way by which all triangles about it move outward by
 * one.
 */
function waysIn(
	vertices: Float64Array,
	triangles: ArrayLike<number>
): { readonly normals: Float64Array; readonly ways: Float64Array } {
	const each = normalsOf(vertices, triangles);
	const all: number[] = [];
	const about = Array.from({ length: vertices.length / 3 }, (): number[] => []);
	for (let k = 0; k < triangles.length; k++) {
		const t = k - (k % 3);
		const [x, y, z] = [each[t]!, each[t + 1]!, each[t + 2]!];
		if (x === 0 && y === 0 && z === 0) continue;
		if (k === t && all.length <= 3 * MOST_NORMALS) takeOnce(all, x, y, z);
		takeOnce(about[triangles[k]!]!, x, y, z);
	}
	const ways = new Float64Array(vertices.length);
	about.forEach((list, v) => {
		let [x, y, z] = [0, 0, 0];
		for (let n = 0; n < list.length; n += 3) {
			x += list[n]!;
			y += list[n + 1]!;
			z += list[n + 2]!;
		}
		const size = Math.sqrt(x * x + y * y + z * z);
		if (!(size > 0)) return;
		let lean = 1;
		for (let n = 0; n < list.length; n += 3)
			lean = Math.min(lean, (list[n]! * x + list[n + 1]! * y + list[n + 2]! * z) / size);
		const by = 1 / (size * Math.max(LEAST_LEAN, lean));
		ways[3 * v] = x * by;
		ways[3 * v + 1] = y * by;
		ways[3 * v + 2] = z * by;
	});
	return { normals: all.length > 3 * MOST_NORMALS ? NONE : Float64Array.from(all), ways };
}
const NONE = new Float64Array();

/** Vertices moved along their ways. */
const moved = (vertices: Float64Array, ways: Float64Array, by: number): Float64Array =>
	vertices.map((value, k) => value + by * ways[k]!);

/**
 * The smallest width of points along directions (mm); Infinity without directions.
 *
 * ```ts
 * narrowest(Float64Array.of(0, 0, 0, 40, 0, 90), Float64Array.of(1, 0, 0, 0, 0, 1)); // 40
 * ```
 */
export function narrowest(points: ArrayLike<number>, directions: Float64Array): number {
	let least = Infinity;
	for (let n = 0; n < directions.length; n += 3) {
		let [low, high] = [Infinity, -Infinity];
		for (let k = 0; k < points.length; k += 3) {
			const d =
				points[k]! * directions[n]! +
				points[k + 1]! * directions[n + 1]! +
				points[k + 2]! * directions[n + 2]!;
			if (d < low) low = d;
			if (d > high) high = d;
		}
		least = Math.min(least, high - low);
	}
	return least;
}

/** They are looked through by few lines each: large boxes are made sooner. */
const FEW = 32;

/**
 * A closed mesh, ready to be looked at.
 *
 * ```ts
 * const body = bodyOf(Float64Array.of(0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0, 1), [0, 2, 1, 0, 1, 3, 1, 2, 3, 2, 0, 3], 0.1);
 * ```
 * @param triangles by vertex, anticlockwise seen from outside
 * @param inset how far it is drawn in (mm), but by no more than a quarter of its width
 */
export function bodyOf(vertices: Float64Array, triangles: ArrayLike<number>, inset: number): Body {
	const { normals, ways } = waysIn(vertices, triangles);
	const own = Math.min(inset, narrowest(vertices, normals) / 4);
	const inner = moved(vertices, ways, -own);
	const tree = once(() => makeBvh(inner, Uint32Array.from(triangles), FEW));
	return { vertices, inner, inset: own, edges: edgesOf(triangles), normals, tree };
}
