import { turnedOver } from '../geometry/triangulate';
import { MAP, type ElementShape, type ElementTable } from './element-table';
import { placesUnder } from './evaluate/fit-loop';

/**
 * x y z of the vertices of one instance (mm from the run's origin). Good until the next call.
 *
 * ```ts
 * const xyz = placesOf(table.shape, 0);
 * ```
 */
export function placesOf(shape: ElementShape, instance: number): Float32Array {
	switch (shape.is) {
		case 'made': {
			const values = 3 * shape.verticesEach;
			return shape.positions.subarray(values * instance, values * (instance + 1));
		}
		case 'placed':
			return placesUnder(shape.unit, shape.maps.subarray(MAP * instance, MAP * (instance + 1)));
		case 'own':
			return shape.positions.subarray(3 * shape.firstVertex[instance]!, 3 * shape.firstVertex[instance + 1]!);
	}
}

const turned = new WeakMap<readonly number[], readonly number[]>();

/**
 * The triangles of one instance, by vertex within it, outward. Instances that have the same ones get the very same
 * list, unless each has its own.
 *
 * ```ts
 * const corners = trianglesOf(table.shape, 0);
 * ```
 */
export function trianglesOf(shape: ElementShape, instance: number): ArrayLike<number> {
	switch (shape.is) {
		case 'made':
			return shape.triangles;
		case 'placed': {
			if (!shape.mirrored[instance]) return shape.triangles;
			const known = turned.get(shape.triangles) ?? turnedOver(shape.triangles);
			turned.set(shape.triangles, known);
			return known;
		}
		case 'own':
			return shape.triangles.subarray(shape.firstCorner[instance], shape.firstCorner[instance + 1]);
	}
}

/** How many triangles all instances have together. */
export const triangleCount = ({ shape, count }: Pick<ElementTable, 'shape' | 'count'>): number =>
	(shape.is === 'own' ? shape.triangles.length : count * shape.triangles.length) / 3;

/**
 * Some instances as one mesh.
 *
 * ```ts
 * const { places, triangles } = joinedMesh(table.shape, [0, 1, 2]);
 * ```
 * @returns x y z (mm from the run's origin), and triangles by vertex
 */
export function joinedMesh(
	shape: ElementShape,
	instances: ArrayLike<number>
): { places: Float32Array; triangles: Uint32Array } {
	const each = Array.from(instances);
	const lists = each.map((k) => trianglesOf(shape, k));
	const triangles = new Uint32Array(lists.reduce((sum, list) => sum + list.length, 0));
	const sizes = each.map((k) => placesOf(shape, k).length);
	const places = new Float32Array(sizes.reduce((sum, size) => sum + size, 0));
	let [at, corner] = [0, 0];
	for (const [n, k] of each.entries()) {
		places.set(placesOf(shape, k), at);
		const list = lists[n]!;
		for (let t = 0; t < list.length; t++) triangles[corner++] = at / 3 + list[t]!;
		at += sizes[n]!;
	}
	return { places, triangles };
}

/**
 * A box round all instances (mm from the run's origin): low x y z, then high. That of a placed mesh is round the hull
 * of its mapped box, which holds it.
 *
 * ```ts
 * const [x, y, z] = boundsOf(table); // the low corner
 * ```
 */
export function boundsOf({ shape, count }: Pick<ElementTable, 'shape' | 'count'>): Float32Array {
	const bounds = Float32Array.of(Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity);
	if (shape.is === 'placed') widenByMaps(bounds, cornersOfBox(shape.unit), shape.maps, count);
	else widen(bounds, shape.positions);
	return bounds;
}

/**
 * Widen a box to hold the eight corners of another under every map; see `Placed`. Hot: there are thousands of maps in
 * a message. Along each edge of the box in u a map is straight: by its four edges all eight corners are had.
 * @param corners as `cornersOfBox` has them: the lowest first, the highest last
 */
function widenByMaps(bounds: Float32Array, corners: Float32Array, maps: Float32Array, count: number): void {
	const [u0, v0, w0, u1, v1, w1] = [0, 1, 2, 21, 22, 23].map((k) => corners[k]!) as [
		number,
		number,
		number,
		number,
		number,
		number
	];
	for (let a = 0; a < 3; a++) {
		let low = bounds[a]!;
		let high = bounds[3 + a]!;
		for (let m = a; m < MAP * count; m += MAP)
			for (let end = 0; end < 2; end++) {
				const w = end ? w1 : w0;
				const whole = maps[m]! + w * maps[m + 12]!;
				const byU = maps[m + 4]! + w * maps[m + 24]!;
				const byV = maps[m + 8]! + w * maps[m + 20]!;
				const byUV = maps[m + 16]! + w * maps[m + 28]!;
				for (let side = 0; side < 2; side++) {
					const v = side ? v1 : v0;
					const at = whole + v * byV;
					const slope = byU + v * byUV;
					const one = at + u0 * slope;
					const other = at + u1 * slope;
					if (one < low) low = one;
					if (one > high) high = one;
					if (other < low) low = other;
					if (other > high) high = other;
				}
			}
		bounds[a] = low;
		bounds[3 + a] = high;
	}
}

/** Widen a box to hold some places. Hot: one axis after the other goes three times as fast as all at once. */
function widen(bounds: Float32Array, places: Float32Array): void {
	for (let a = 0; a < 3; a++) {
		let low = bounds[a]!;
		let high = bounds[3 + a]!;
		for (let k = a; k < places.length; k += 3) {
			const at = places[k]!;
			if (at < low) low = at;
			if (at > high) high = at;
		}
		bounds[a] = low;
		bounds[3 + a] = high;
	}
}

/**
 * The eight corners of the box round a mesh.
 *
 * ```ts
 * const corners = cornersOfBox(Float32Array.of(0, 0, 0, 1, 2, 3));
 * ```
 */
export function cornersOfBox(unit: Float32Array): Float32Array {
	const low = [Infinity, Infinity, Infinity];
	const high = [-Infinity, -Infinity, -Infinity];
	for (let k = 0; k < unit.length; k++) {
		low[k % 3] = Math.min(low[k % 3]!, unit[k]!);
		high[k % 3] = Math.max(high[k % 3]!, unit[k]!);
	}
	return Float32Array.from({ length: 24 }, (_, k) => {
		const corner = Math.floor(k / 3);
		return (corner >> (k % 3)) & 1 ? high[k % 3]! : low[k % 3]!;
	});
}
