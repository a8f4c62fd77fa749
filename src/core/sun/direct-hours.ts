import { blockerOf, FREE, type Bvh } from '../geometry/bvh';

/** Where the sun stands over a time, from it towards the sun: flat x y z of unit length, and hours at each. */
export interface SunRays {
	readonly directions: Float64Array;
	readonly hours: Float64Array;
}

/** Steps of the compass in which the skyline of a place is kept. */
const STEPS = 256;
const STEP = (2 * Math.PI) / STEPS;
/** What is seen under less than this is not looked into (radius by distance). */
const SMALL = 0.12;
/** A thing that reaches higher than this stands in every direction of the compass (rad). */
const OVERHEAD = 1.4;

const todo = new Int32Array(128);

/** Note that something within a ball stands there. @returns whether the place itself lies in the ball */
function stands(top: Float64Array, vx: number, vy: number, vz: number, radius: number): boolean {
	const far = Math.sqrt(vx * vx + vy * vy + vz * vz);
	if (radius >= far) return true;
	const height = Math.asin(vz / far);
	const reach = height + Math.asin(radius / far);
	if (reach < 0) return false;
	if (reach > OVERHEAD) {
		for (let k = 0; k < STEPS; k++) if (top[k]! < reach) top[k] = reach;
		return false;
	}
	const half = Math.asin(Math.min(1, radius / far / Math.cos(height)));
	const towards = Math.atan2(vx, vy) + 2 * Math.PI;
	const to = Math.floor((towards + half) / STEP);
	for (let k = Math.floor((towards - half) / STEP); k <= to; k++) {
		const step = k % STEPS;
		if (top[step]! < reach) top[step] = reach;
	}
	return false;
}

/**
 * Over every step of the compass how high things before a place may reach at most (rad, -1 where nothing stands):
 * a ray above it is free without being tried.
 */
function skyline(
	{ boxes, first, count, triangles }: Bvh,
	x: number,
	y: number,
	z: number,
	nx: number,
	ny: number,
	nz: number,
	top: Float64Array
): void {
	top.fill(-1);
	if (!count.length) return;
	const [ax, ay, az] = [Math.abs(nx), Math.abs(ny), Math.abs(nz)];
	let depth = 0;
	todo[depth++] = 0;
	while (depth > 0) {
		const node = todo[--depth]!;
		const o = 6 * node;
		const hx = (boxes[o + 3]! - boxes[o]!) / 2;
		const hy = (boxes[o + 4]! - boxes[o + 1]!) / 2;
		const hz = (boxes[o + 5]! - boxes[o + 2]!) / 2;
		const vx = boxes[o]! + hx - x;
		const vy = boxes[o + 1]! + hy - y;
		const vz = boxes[o + 2]! + hz - z;
		// Wholly below the horizon of the place, or behind it.
		if (vz + hz < 0) continue;
		if (vx * nx + vy * ny + vz * nz + hx * ax + hy * ay + hz * az < 0) continue;
		const radius = Math.sqrt(hx * hx + hy * hy + hz * hz);
		if (radius > SMALL * Math.sqrt(vx * vx + vy * vy + vz * vz)) {
			if (count[node] === 0) {
				todo[depth++] = first[node]!;
				todo[depth++] = node + 1;
				continue;
			}
			for (let t = first[node]!; t < first[node]! + count[node]!; t++)
				if (triangleStands(triangles, t, x, y, z, nx, ny, nz, top)) {
					top.fill(Math.PI / 2);
					return;
				}
		} else stands(top, vx, vy, vz, radius);
	}
}

/** The same of one triangle. @returns whether the place may touch it */
function triangleStands(
	triangles: Float64Array,
	t: number,
	x: number,
	y: number,
	z: number,
	nx: number,
	ny: number,
	nz: number,
	top: Float64Array
): boolean {
	const o = 9 * t;
	const [ux, uy, uz] = [triangles[o + 3]!, triangles[o + 4]!, triangles[o + 5]!];
	const [wx, wy, wz] = [triangles[o + 6]!, triangles[o + 7]!, triangles[o + 8]!];
	const [cx, cy, cz] = [triangles[o]! - x, triangles[o + 1]! - y, triangles[o + 2]! - z];
	const corner = cx * nx + cy * ny + cz * nz;
	const along = ux * nx + uy * ny + uz * nz;
	const up = wx * nx + wy * ny + wz * nz;
	if (corner + Math.max(0, along, up) < 0) return false;
	if (cz + Math.max(0, uz, wz) < 0) return false;
	const [mx, my, mz] = [(ux + wx) / 3, (uy + wy) / 3, (uz + wz) / 3];
	const radius = Math.sqrt(
		Math.max(
			mx * mx + my * my + mz * mz,
			(ux - mx) * (ux - mx) + (uy - my) * (uy - my) + (uz - mz) * (uz - mz),
			(wx - mx) * (wx - mx) + (wy - my) * (wy - my) + (wz - mz) * (wz - mz)
		)
	);
	return stands(top, cx + mx, cy + my, cz + mz, radius);
}

/** The step of the compass and the height of every ray. */
function compassOf({ directions, hours }: SunRays) {
	const step = new Uint16Array(hours.length);
	const height = new Float64Array(hours.length);
	for (let r = 0; r < hours.length; r++) {
		const [x, y, z] = [directions[3 * r]!, directions[3 * r + 1]!, directions[3 * r + 2]!];
		step[r] = Math.floor((Math.atan2(x, y) + 2 * Math.PI) / STEP) % STEPS;
		height[r] = Math.asin(Math.min(1, Math.max(-1, z)));
	}
	return { step, height };
}

/** Places that the sun falls on: middles (mm) with their unit normals, each tried from a little before its face. */
export interface SunnedPlaces {
	/** Flat x y z. */
	readonly middles: Float64Array;
	readonly normals: Float64Array;
	/** How far before its face each is tried, so that its own face does not hide it (mm). */
	readonly before: Float64Array;
}

/**
 * Hours in which the sun falls on places, from before their face and past all that stands in its way.
 *
 * ```ts
 * const hours = directHours(shadeOf([face]), sunRays(project.sun), sunnedCells(faceModel.measures), 0, cells.count);
 * ```
 * @returns hours of the places `from` .. `to`
 */
export function directHours(
	bvh: Bvh,
	rays: SunRays,
	{ middles, normals, before }: SunnedPlaces,
	from: number,
	to: number
): Float64Array {
	const { directions, hours } = rays;
	const { step, height } = compassOf(rays);
	const found = new Float64Array(to - from);
	const top = new Float64Array(STEPS);
	for (let p = from; p < to; p++) {
		const nx = normals[3 * p]!;
		const ny = normals[3 * p + 1]!;
		const nz = normals[3 * p + 2]!;
		const x = middles[3 * p]! + before[p]! * nx;
		const y = middles[3 * p + 1]! + before[p]! * ny;
		const z = middles[3 * p + 2]! + before[p]! * nz;
		skyline(bvh, x, y, z, nx, ny, nz, top);
		let sum = 0;
		let guess = FREE;
		for (let r = 0; r < hours.length; r++) {
			const dx = directions[3 * r]!;
			const dy = directions[3 * r + 1]!;
			const dz = directions[3 * r + 2]!;
			if (dx * nx + dy * ny + dz * nz <= 0) continue;
			if (height[r]! <= top[step[r]!]!) {
				const blocker = blockerOf(bvh, x, y, z, dx, dy, dz, guess);
				if (blocker !== FREE) {
					guess = blocker;
					continue;
				}
			}
			sum += hours[r]!;
		}
		found[p - from] = sum;
	}
	return found;
}
