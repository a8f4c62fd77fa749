import { crossingsOf } from '../geometry/bvh';
import { narrowest, type Body } from './body';

/** Where two bodies reach into each other. */
export interface CommonBody {
	/** The smallest width of what they have in common, across their faces (mm). */
	readonly depth: number;
	/** Its middle. */
	readonly at: readonly [number, number, number];
}

/** Whether the two lie apart, or reach into each other by no more than this (mm), along a direction. */
function isApart(a: Float64Array, b: Float64Array, x: number, y: number, z: number, deeper: number): boolean {
	let [lowA, highA, lowB, highB] = [Infinity, -Infinity, Infinity, -Infinity];
	for (let k = 0; k < a.length; k += 3) {
		const d = a[k]! * x + a[k + 1]! * y + a[k + 2]! * z;
		if (d < lowA) lowA = d;
		if (d > highA) highA = d;
	}
	for (let k = 0; k < b.length; k += 3) {
		const d = b[k]! * x + b[k + 1]! * y + b[k + 2]! * z;
		if (d < lowB) lowB = d;
		if (d > highB) highB = d;
	}
	return Math.min(highA, highB) - Math.max(lowA, lowB) <= deeper;
}

/** The box that both lie in: low x y z, high x y z. Used by one call at a time. */
const box = new Float64Array(6);
function boxBoth(a: Float64Array, b: Float64Array): boolean {
	for (let axis = 0; axis < 3; axis++) {
		let [lowA, highA, lowB, highB] = [Infinity, -Infinity, Infinity, -Infinity];
		for (let k = axis; k < a.length; k += 3) {
			if (a[k]! < lowA) lowA = a[k]!;
			if (a[k]! > highA) highA = a[k]!;
		}
		for (let k = axis; k < b.length; k += 3) {
			if (b[k]! < lowB) lowB = b[k]!;
			if (b[k]! > highB) highB = b[k]!;
		}
		box[axis] = Math.max(lowA, lowB);
		box[3 + axis] = Math.min(highA, highB);
		if (box[axis]! > box[3 + axis]!) return false;
	}
	return true;
}

/** Corners of what the bodies have in common: x y z. */
type Points = number[];

const isInBox = (p: Float64Array, k: number) =>
	p[k]! >= box[0]! &&
	p[k]! <= box[3]! &&
	p[k + 1]! >= box[1]! &&
	p[k + 1]! <= box[4]! &&
	p[k + 2]! >= box[2]! &&
	p[k + 2]! <= box[5]!;

/** Whether the box round an edge reaches into the box. */
function comesToBox(p: Float64Array, s: number, e: number): boolean {
	for (let axis = 0; axis < 3; axis++) {
		const [a, b] = [p[s + axis]!, p[e + axis]!];
		if ((a > b ? a : b) < box[axis]! || (a < b ? a : b) > box[3 + axis]!) return false;
	}
	return true;
}

const shares: number[] = [];

/** Where the edges of one pass through the triangles of another, as far as both are in the box. */
function takeCrossings({ edges, inner: p }: Body, other: Body, points: Points): void {
	for (let k = 0; k < edges.length; k += 2) {
		const [s, e] = [3 * edges[k]!, 3 * edges[k + 1]!];
		if (!comesToBox(p, s, e)) continue;
		const [x, y, z] = [p[s]!, p[s + 1]!, p[s + 2]!];
		const [dx, dy, dz] = [p[e]! - x, p[e + 1]! - y, p[e + 2]! - z];
		shares.length = 0;
		crossingsOf(other.tree(), x, y, z, dx, dy, dz, 1, shares);
		for (const share of shares) points.push(x + share * dx, y + share * dy, z + share * dz);
	}
}

/** A direction that no edge of what is built runs in. */
const [RX, RY, RZ] = [0.5773, 0.2113, 0.7887] as const;

/** Whether a point lies within a body: a ray from it passes through its faces an odd number of times. */
function isWithin(p: Float64Array, k: number, body: Body): boolean {
	shares.length = 0;
	crossingsOf(body.tree(), p[k]!, p[k + 1]!, p[k + 2]!, RX, RY, RZ, Infinity, shares);
	return shares.length % 2 === 1;
}

/** Vertices of one that lie within another. Where no edge passes through a face, all of them do or none. */
function takeWithin({ inner: p }: Body, other: Body, crossed: boolean, points: Points): void {
	if (!crossed) {
		if (!isInBox(p, 0) || !isWithin(p, 0, other)) return;
		for (let k = 0; k < p.length; k++) points.push(p[k]!);
		return;
	}
	for (let k = 0; k < p.length; k += 3)
		if (isInBox(p, k) && isWithin(p, k, other)) points.push(p[k]!, p[k + 1]!, p[k + 2]!);
}

/** The middle of the box round points. */
function middleOf(points: Points): [number, number, number] {
	const middle = (axis: number) => {
		let [low, high] = [Infinity, -Infinity];
		for (let k = axis; k < points.length; k += 3) {
			low = Math.min(low, points[k]!);
			high = Math.max(high, points[k]!);
		}
		return (low + high) / 2;
	};
	return [middle(0), middle(1), middle(2)];
}

const AXES = Float64Array.of(1, 0, 0, 0, 1, 0, 0, 0, 1);

/**
 * What two bodies have in common: the corners of it are where edges of one pass through faces of the other, and the
 * vertices of one within the other. Both are drawn in first, so that what only touches is well apart and no case is
 * degenerate: less deep than both are drawn in together is nothing.
 *
 * @returns null where they are apart, touch, or reach no deeper into each other
 */
export function commonBody(one: Body, other: Body): CommonBody | null {
	const inset = one.inset + other.inset;
	for (const { normals } of [one, other])
		for (let n = 0; n < normals.length; n += 3)
			if (isApart(one.vertices, other.vertices, normals[n]!, normals[n + 1]!, normals[n + 2]!, inset))
				return null;
	if (!boxBoth(one.inner, other.inner)) return null;
	const points: Points = [];
	takeCrossings(one, other, points);
	takeCrossings(other, one, points);
	const crossed = points.length > 0;
	takeWithin(one, other, crossed, points);
	takeWithin(other, one, crossed, points);
	if (!points.length) return null;
	const width = Math.min(narrowest(points, one.normals), narrowest(points, other.normals));
	const depth = (Number.isFinite(width) ? width : narrowest(points, AXES)) + inset;
	return { depth, at: middleOf(points) };
}
