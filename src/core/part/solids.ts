import type { PointRegisters, Register } from './builder';
import type { Solid, Vectors } from './values';

const sides = (n: number, below: number, above: number, outward: boolean) =>
	Array.from({ length: n }, (_, k) => {
		const a = below + k;
		const b = below + ((k + 1) % n);
		const c = above + ((k + 1) % n);
		const d = above + k;
		return outward ? [a, b, c, a, c, d] : [a, c, b, a, d, c];
	}).flat();

/** The face between two rings of one plane, counter-clockwise when `outer` is. */
const between = (n: number, outer: number, inner: number, upward: boolean) => sides(n, outer, inner, upward);

/**
 * A ring swept along a vector: closed, whatever the ring's warp.
 * @param foot, head n points each, counter-clockwise seen from the head
 * @param volume exact for a straight sweep: the ring's vector area times the sweep
 */
export function prism(
	foot: readonly PointRegisters[],
	head: readonly PointRegisters[],
	quantities: { volume: Register; area: Register; length: Register }
): Solid {
	const n = foot.length;
	const caps: number[] = [];
	for (let k = 1; k + 1 < n; k++) caps.push(0, k + 1, k, n, n + k, n + k + 1);
	return {
		vertices: [...foot, ...head],
		triangles: [...caps, ...sides(n, 0, n, true)],
		...quantities
	};
}

/** A tube: an outer prism with an inner one taken out. */
export function tube(
	outer: { foot: readonly PointRegisters[]; head: readonly PointRegisters[] },
	inner: { foot: readonly PointRegisters[]; head: readonly PointRegisters[] },
	quantities: { volume: Register; area: Register; length: Register }
): Solid {
	const n = outer.foot.length;
	return {
		vertices: [...outer.foot, ...outer.head, ...inner.foot, ...inner.head],
		triangles: [
			...sides(n, 0, n, true),
			...sides(n, 2 * n, 3 * n, false),
			...between(n, 0, 2 * n, false),
			...between(n, n, 3 * n, true)
		],
		...quantities
	};
}

/** A plate over a ring: swept along `normal` from `behind` to `before` (mm). */
export function plate(
	v: Vectors,
	ring: readonly PointRegisters[],
	normal: PointRegisters,
	behind: Register,
	before: Register
): Solid {
	const { b } = v;
	const foot = ring.map((p) => v.along(p, normal, behind));
	const head = ring.map((p) => v.along(p, normal, before));
	const face = v.vectorArea(ring);
	return prism(foot, head, {
		volume: b.multiply(v.dot(face, normal), b.subtract(before, behind)),
		area: v.length(face),
		length: b.constant(0)
	});
}
