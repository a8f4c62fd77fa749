import { FitLoop } from '../evaluate/fit-loop';
import { TRIPLES, type UnitMesh } from './unit-mesh';

/** Values of a space that a block fills: x y z of its eight corners, the inner ring first, both counter-clockwise. */
export const SPACE = 24;

/** The eight vectors of the trilinear map over the corners of a space: of 1, x, y, z, xy, yz, xz, xyz. */
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
		map[3 + a] = p100 - p000;
		map[6 + a] = p010 - p000;
		map[9 + a] = p001 - p000;
		map[12 + a] = p110 - p100 - p010 + p000;
		map[15 + a] = p011 - p010 - p001 + p000;
		map[18 + a] = p101 - p100 - p001 + p000;
		map[21 + a] = p111 - p110 - p101 - p011 + p100 + p010 + p001 - p000;
	}
}

/** Where the vectors of each triple begin in a map, one after the other. */
const PLACES = Uint8Array.from(TRIPLES.flatMap((triple) => triple.map((product) => 3 + 3 * product)));

/** Volume of the mesh in a space (mm³), of the triangles as they come to lie; see `UnitMesh.moments`. */
function volumeIn(map: Float64Array, moments: Float64Array): number {
	let sum = 0;
	for (let m = 0, k = 0; m < moments.length; m++, k += 3) {
		const a = PLACES[k]!;
		const b = PLACES[k + 1]!;
		const c = PLACES[k + 2]!;
		const bx = map[b]!;
		const by = map[b + 1]!;
		const bz = map[b + 2]!;
		const cx = map[c]!;
		const cy = map[c + 1]!;
		const cz = map[c + 2]!;
		sum +=
			moments[m]! *
			(map[a]! * (by * cz - bz * cy) + map[a + 1]! * (bz * cx - bx * cz) + map[a + 2]! * (bx * cy - by * cx));
	}
	return sum / 6;
}

/**
 * A mesh fitted trilinearly into spaces.
 * @param spaces `SPACE` values for each (mm from the run's origin)
 * @returns vertices space after space (mm from the same origin), and volumes (mm³)
 */
export function fitBlock(
	mesh: UnitMesh,
	spaces: Float64Array,
	count: number
): { positions: Float32Array; volume: Float64Array } {
	const { vertices, moments } = mesh;
	const loop = new FitLoop(vertices);
	const positions = new Float32Array(count * vertices.length);
	const volume = new Float64Array(count);
	const map = new Float64Array(SPACE);
	for (let s = 0; s < count; s++) {
		mapOf(spaces, s * SPACE, map);
		volume[s] = volumeIn(map, moments);
		positions.set(loop.placesUnder(map), s * vertices.length);
	}
	return { positions, volume };
}
