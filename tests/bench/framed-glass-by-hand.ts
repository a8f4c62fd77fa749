/** In mm. */
export interface FramedSizes {
	readonly joint: number;
	readonly frame_width: number;
	readonly frame_depth: number;
	readonly pane: number;
	readonly recess: number;
}
export const framedSizes: FramedSizes = { joint: 10, frame_width: 45, frame_depth: 60, pane: 16, recess: 18 };

/**
 * Framed glass written out by hand over columns of cells with four corners: the yardstick for the part
 * language. It makes the same: the frame held to a fifth of the shortest edge, the glass behind its face, the volumes,
 * and the flags for an inset that crosses itself.
 */
export interface FramedByHand {
	readonly positions: Float32Array;
	readonly volumes: Float64Array;
	readonly flags: Uint8Array;
}
/** Eight corners for each of four bars and for the pane. */
const VERTICES = 40;

const normal = new Float64Array(3);
const edge = new Float64Array(12);
const inward = new Float64Array(12);
const outline = new Float64Array(12);
const opening = new Float64Array(12);
const pane = new Float64Array(12);

function normalOf(ring: Float64Array, at: number): void {
	const [x0, y0, z0] = [ring[at]!, ring[at + 1]!, ring[at + 2]!];
	let [x, y, z] = [0, 0, 0];
	for (let k = 3; k < 9; k += 3) {
		const ax = ring[at + k]! - x0;
		const ay = ring[at + k + 1]! - y0;
		const az = ring[at + k + 2]! - z0;
		const bx = ring[at + k + 3]! - x0;
		const by = ring[at + k + 4]! - y0;
		const bz = ring[at + k + 5]! - z0;
		x += ay * bz - az * by;
		y += az * bx - ax * bz;
		z += ax * by - ay * bx;
	}
	const inverse = 1 / Math.sqrt(x * x + y * y + z * z);
	normal[0] = x * inverse;
	normal[1] = y * inverse;
	normal[2] = z * inverse;
}

/** @returns whether an edge has turned round */
function inset(ring: Float64Array, at: number, by: number, out: Float64Array): boolean {
	normalOf(ring, at);
	for (let k = 0; k < 4; k++) {
		const next = 3 * ((k + 1) & 3);
		const ex = ring[at + next]! - ring[at + 3 * k]!;
		const ey = ring[at + next + 1]! - ring[at + 3 * k + 1]!;
		const ez = ring[at + next + 2]! - ring[at + 3 * k + 2]!;
		const x = normal[1]! * ez - normal[2]! * ey;
		const y = normal[2]! * ex - normal[0]! * ez;
		const z = normal[0]! * ey - normal[1]! * ex;
		const inverse = 1 / Math.sqrt(x * x + y * y + z * z);
		edge[3 * k] = ex;
		edge[3 * k + 1] = ey;
		edge[3 * k + 2] = ez;
		inward[3 * k] = x * inverse;
		inward[3 * k + 1] = y * inverse;
		inward[3 * k + 2] = z * inverse;
	}
	for (let k = 0; k < 4; k++) {
		const [m, o] = [3 * ((k + 3) & 3), 3 * k];
		const cosine =
			inward[m]! * inward[o]! + inward[m + 1]! * inward[o + 1]! + inward[m + 2]! * inward[o + 2]!;
		const reach = by / (1 + cosine);
		for (let a = 0; a < 3; a++) out[o + a] = ring[at + o + a]! + (inward[m + a]! + inward[o + a]!) * reach;
	}
	let crossed = false;
	for (let k = 0; k < 4; k++) {
		const next = 3 * ((k + 1) & 3);
		let along = 0;
		for (let a = 0; a < 3; a++) along += (out[next + a]! - out[3 * k + a]!) * edge[3 * k + a]!;
		if (along <= 0) crossed = true;
	}
	return crossed;
}

/** Foot and head of a plate over four corners; @returns its volume */
function plate(
	ring: Float64Array,
	behind: number,
	before: number,
	positions: Float32Array,
	at: number,
	origin: readonly [number, number, number]
): number {
	normalOf(ring, 0);
	for (let k = 0; k < 12; k++) {
		const a = k % 3;
		positions[at + k] = ring[k]! + normal[a]! * behind - origin[a]!;
		positions[at + 12 + k] = ring[k]! + normal[a]! * before - origin[a]!;
	}
	let [x, y, z] = [0, 0, 0];
	for (let k = 3; k < 9; k += 3) {
		const ax = ring[k]! - ring[0]!;
		const ay = ring[k + 1]! - ring[1]!;
		const az = ring[k + 2]! - ring[2]!;
		const bx = ring[k + 3]! - ring[0]!;
		const by = ring[k + 4]! - ring[1]!;
		const bz = ring[k + 5]! - ring[2]!;
		x += ay * bz - az * by;
		y += az * bx - ax * bz;
		z += ax * by - ay * bx;
	}
	return ((x * normal[0]! + y * normal[1]! + z * normal[2]!) / 2) * (before - behind);
}

const bar = new Float64Array(12);

/** @param corners x y z of four corners for each cell @param shortest the shortest edge of each */
export function framedByHand(
	corners: Float64Array,
	normals: Float64Array,
	shortest: Float64Array,
	origin: readonly [number, number, number],
	{ joint, frame_width: widest, frame_depth: depth, pane: thickness, recess } = framedSizes
): FramedByHand {
	const count = shortest.length;
	const positions = new Float32Array(3 * VERTICES * count);
	const volumes = new Float64Array(2 * count);
	const flags = new Uint8Array(count);
	for (let c = 0; c < count; c++) {
		const width = Math.min(widest, shortest[c]! / 5);
		if (width < widest) flags[c] = 1;
		if (inset(corners, 12 * c, joint, outline)) flags[c]! |= 2;
		if (inset(outline, 0, width, opening)) flags[c]! |= 2;
		const at = 3 * VERTICES * c;
		let frame = 0;
		normalOf(outline, 0);
		for (let k = 0; k < 4; k++) {
			const next = 3 * ((k + 1) & 3);
			for (let a = 0; a < 3; a++) {
				bar[a] = outline[3 * k + a]!;
				bar[3 + a] = outline[next + a]!;
				bar[6 + a] = opening[next + a]!;
				bar[9 + a] = opening[3 * k + a]!;
			}
			frame += plate(bar, -depth, 0, positions, at + 24 * k, origin);
		}
		for (let k = 0; k < 12; k++) pane[k] = opening[k]! - recess * normals[3 * c + (k % 3)]!;
		volumes[2 * c] = frame;
		volumes[2 * c + 1] = plate(pane, -thickness, 0, positions, at + 96, origin);
	}
	return { positions, volumes, flags };
}
