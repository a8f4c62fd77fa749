import { add, cross, dot, length, pointAt, scale, subtract, type Vector } from '../geometry/vector';

/** A body that is one outline drawn along one direction: a flat plate, a straight bar cut square or on the skew. */
export interface Prism {
	/** Where the outline lies: its first corner, the way to its second, and its normal on the side that it is drawn to. */
	readonly origin: Vector;
	readonly along: Vector;
	readonly normal: Vector;
	/** x y of the corners in that plane (mm), counter-clockwise; then those of openings in it, clockwise. */
	readonly loops: readonly Float64Array[];
	/** From the outline to its far end, along `along`, across it, and along the normal (mm). */
	readonly way: Vector;
}

/** Corners off their place by no more (mm) are where they should be: bodies are kept in 32 bits. */
const EXACT = 0.01;
/** A way to the far end that is flatter than this (sine) is none. */
const FLAT = 1e-3;

/** Which corners of a mesh are its outline, and how far on in the list their far ends stand. */
interface Outline {
	readonly loops: readonly (readonly number[])[];
	readonly on: number;
}

/**
 * What a mesh could be as a prism by its triangles: outlines and their far ends stand in the list one behind the other,
 * as one block, or as one for the outside and one for the inside. A ring could be both.
 */
function outlinesOf(count: number, triangles: ArrayLike<number>): Outline[] {
	const found: Outline[] = [];
	for (const blocks of [1, 2]) {
		const block = count / blocks;
		if (block % 2) continue;
		const on = block / 2;
		const isNear = (v: number) => v % block < on;
		const near = new Map<number, Set<number>>();
		const sides: (readonly [number, number, number])[] = [];
		let balance = 0;
		for (let t = 0; t < triangles.length; t += 3) {
			const corners = [triangles[t]!, triangles[t + 1]!, triangles[t + 2]!] as const;
			const many = corners.filter(isNear).length;
			if (many === 3)
				corners.forEach((v, k) => {
					const set = near.get(v) ?? new Set<number>();
					near.set(v, set.add(corners[(k + 1) % 3]!));
				});
			else if (many) sides.push(corners);
			balance += many === 3 ? 1 : many === 0 ? -1 : 0;
		}
		// The rim of the near end, the way its triangles run.
		const next = new Map<number, number>();
		let edges = 0;
		for (const [a, ends] of near)
			for (const b of ends)
				if (!near.get(b)?.has(a)) {
					next.set(a, b);
					edges++;
				}
		const isRim = (a: number, b: number) => next.get(a) === b || next.get(b) === a;
		const base = (v: number) => (isNear(v) ? v : v - on);
		const isSide = (corners: readonly number[]) => {
			const own = [...new Set(corners.map(base))];
			return own.length === 2 && isRim(own[0]!, own[1]!);
		};
		if (balance || !edges || edges !== next.size || sides.length !== 2 * edges || !sides.every(isSide))
			continue;
		if (next.size !== count / 2) continue;
		const loops: number[][] = [];
		const left = new Set(next.keys());
		for (const start of next.keys()) {
			if (!left.has(start)) continue;
			const loop: number[] = [];
			for (let v = start; left.delete(v); v = next.get(v)!) loop.push(v);
			// It is seen from without at the near end, so from the far end it runs the other way.
			loops.push(loop.reverse());
		}
		found.push({ loops, on });
	}
	return found;
}

const outlines = new WeakMap<ArrayLike<number>, readonly Outline[]>();

function areaOf(loop: Float64Array): number {
	let twice = 0;
	const n = loop.length / 2;
	for (let k = 0; k < n; k++) {
		const m = (k + 1) % n;
		twice += loop[2 * k]! * loop[2 * m + 1]! - loop[2 * m]! * loop[2 * k + 1]!;
	}
	return twice / 2;
}

/**
 * A mesh as the prism that it is, exact to a hundredth of a millimetre; null where it is none.
 *
 * ```ts
 * const places = Float32Array.of(0, 0, 0, 9, 0, 0, 0, 9, 0, 0, 0, 5, 9, 0, 5, 0, 9, 5);
 * const triangles = [0, 2, 1, 3, 4, 5, 0, 1, 4, 0, 4, 3, 1, 2, 5, 1, 5, 4, 2, 0, 3, 2, 3, 5];
 * const depth = prismOf(places, triangles)!.way[2]; // 5
 * ```
 * @param places x y z of the vertices (mm) @param triangles by vertex, outward
 */
export function prismOf(places: ArrayLike<number>, triangles: ArrayLike<number>): Prism | null {
	let could = outlines.get(triangles);
	if (!could) outlines.set(triangles, (could = outlinesOf(places.length / 3, triangles)));
	for (const outline of could) {
		const prism = prismAlong(places, outline);
		if (prism) return prism;
	}
	return null;
}

function prismAlong(places: ArrayLike<number>, { loops, on }: Outline): Prism | null {
	const [start] = loops[0]!;
	const from = pointAt(places, start!);
	const way = subtract(pointAt(places, start! + on), from);
	/** Seen from where it begins. */
	const at = (v: number): Vector => subtract(pointAt(places, v), from);
	let normal: Vector = [0, 0, 0];
	for (const loop of loops)
		for (let k = 0; k < loop.length; k++) {
			const v = loop[k]!;
			for (let a = 0; a < 3; a++)
				if (!(Math.abs(places[3 * (v + on) + a]! - places[3 * v + a]! - way[a]!) < EXACT)) return null;
			// Openings take away what they go round.
			normal = add(normal, cross(at(v), at(loop[(k + 1) % loop.length]!)));
		}
	if (!(length(normal) > 0)) return null;
	const up = scale(normal, 1 / length(normal));
	if (!(dot(up, way) > FLAT * length(way))) return null;
	const edge = at(loops[0]![1]!);
	const level = subtract(edge, scale(up, dot(edge, up)));
	if (!(length(level) > 0)) return null;
	const along = scale(level, 1 / length(level));
	const across = cross(up, along);
	const flat: Float64Array[] = [];
	for (const loop of loops) {
		const own = new Float64Array(2 * loop.length);
		for (let k = 0; k < loop.length; k++) {
			const p = at(loop[k]!);
			if (!(Math.abs(dot(p, up)) < EXACT)) return null;
			own[2 * k] = dot(p, along);
			own[2 * k + 1] = dot(p, across);
		}
		flat.push(own);
	}
	flat.sort((a, b) => areaOf(b) - areaOf(a));
	// One outside, and what is within it: anything else is several bodies.
	if (flat.some((loop, k) => areaOf(loop) > 0 !== (k === 0))) return null;
	return {
		origin: from,
		along,
		normal: up,
		loops: flat,
		way: [dot(way, along), dot(way, across), dot(way, up)]
	};
}
