import { MAP } from '../element-table';
import type { UnitMesh } from './unit-mesh';

/** Values of a space that a block fills: x y z of its eight corners, the inner ring first, both counter-clockwise. */
export const SPACE = 24;

/** The eight vectors of the map to a space; see `Placed`. */
function mapOf(spaces: Float64Array, at: number, map: Float64Array): void {
	for (let a = 0; a < 3; a++) {
		const p = at + a;
		// Corners by their place: low left inside first, round; then the same outside.
		const p000 = spaces[p]!;
		const p100 = spaces[p + 3]!;
		const p110 = spaces[p + 6]!;
		const p010 = spaces[p + 9]!;
		const p001 = spaces[p + 12]!;
		const p101 = spaces[p + 15]!;
		const p111 = spaces[p + 18]!;
		const p011 = spaces[p + 21]!;
		map[a] = p000;
		map[4 + a] = p100 - p000;
		map[8 + a] = p010 - p000;
		map[12 + a] = p001 - p000;
		map[16 + a] = p110 - p100 - p010 + p000;
		map[20 + a] = p011 - p010 - p001 + p000;
		map[24 + a] = p101 - p100 - p001 + p000;
		map[28 + a] = p111 - p110 - p101 - p011 + p100 + p010 + p001 - p000;
	}
}

/** Volume of the mesh in a space (mm³), of the triangles as they come to lie; see `UnitMesh.moments`. */
function volumeIn(map: Float64Array, moments: Float64Array): number {
	let sum = 0;
	let m = 0;
	// The products' vectors begin after the constant's; triples run as in `TRIPLES`, those of one pair together.
	for (let a = 4; a < MAP; a += 4)
		for (let b = a + 4; b < MAP; b += 4) {
			let x = 0;
			let y = 0;
			let z = 0;
			for (let c = b + 4; c < MAP; c += 4) {
				const moment = moments[m++]!;
				x += moment * map[c]!;
				y += moment * map[c + 1]!;
				z += moment * map[c + 2]!;
			}
			sum +=
				x * (map[a + 1]! * map[b + 2]! - map[a + 2]! * map[b + 1]!) +
				y * (map[a + 2]! * map[b]! - map[a]! * map[b + 2]!) +
				z * (map[a]! * map[b + 1]! - map[a + 1]! * map[b]!);
		}
	return sum / 6;
}

/**
 * A mesh fitted trilinearly into spaces.
 * @param spaces `SPACE` values for each (mm from the run's origin)
 * @param mirrored 1 where the corners run the other way round
 * @returns the map to each space (from the same origin; see `Placed`), and the volumes (mm³)
 */
export function fitBlock(
	{ moments }: UnitMesh,
	spaces: Float64Array,
	mirrored: Uint8Array
): { maps: Float32Array; volume: Float64Array } {
	const count = mirrored.length;
	const maps = new Float32Array(count * MAP);
	const volume = new Float64Array(count);
	const map = new Float64Array(MAP);
	for (let s = 0; s < count; s++) {
		mapOf(spaces, s * SPACE, map);
		volume[s] = mirrored[s] ? -volumeIn(map, moments) : volumeIn(map, moments);
		maps.set(map, s * MAP);
	}
	return { maps, volume };
}
