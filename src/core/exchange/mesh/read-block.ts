import { flawOf } from '../../part/block/closed';
import { turnedOver } from '../../geometry/triangulate';
import type { BroughtMesh } from '../../part/block/recipe';
import { MOST_TRIANGLES } from '../../project/part/block-steps';
import { readGlbMesh } from './read-glb';
import { readObjMesh } from './read-obj';
import { readStl } from './read-stl';
import { MeshFault, type Triangles } from './triangles';

/** Corners nearer to each other than this share of the mesh's size are one. */
const ONE = 1e-5;
const DIGITS = 1e6;

/** Corners joined, brought to the unit box by stretching it in every direction. */
function joined({ corners }: Triangles): {
	vertices: number[];
	triangles: number[];
	places: number[];
	sizes: [number, number, number];
} {
	const low = [Infinity, Infinity, Infinity];
	const high = [-Infinity, -Infinity, -Infinity];
	corners.forEach((value, k) => {
		low[k % 3] = Math.min(low[k % 3]!, value);
		high[k % 3] = Math.max(high[k % 3]!, value);
	});
	const sizes = high.map((value, a) => value - low[a]!);
	const size = Math.max(...sizes);
	if (!sizes.every((one) => one > size * 1e-6))
		throw new MeshFault('it is flat; a block needs some size in every direction');
	const vertices: number[] = [];
	const places: number[] = [];
	const triangles: number[] = [];
	const known = new Map<string, number>();
	for (let k = 0; k < corners.length; k += 3) {
		const place = [corners[k]!, corners[k + 1]!, corners[k + 2]!];
		const key = place.map((value) => Math.round(value / (size * ONE))).join(' ');
		let vertex = known.get(key);
		if (vertex === undefined) {
			vertex = vertices.length / 3;
			known.set(key, vertex);
			places.push(...place);
			vertices.push(
				...place.map((value, a) => Math.round(((value - low[a]!) / sizes[a]!) * DIGITS) / DIGITS)
			);
		}
		triangles.push(vertex);
	}
	const whole: number[] = [];
	for (let t = 0; t < triangles.length; t += 3) {
		const [a, b, c] = triangles.slice(t, t + 3) as [number, number, number];
		if (a !== b && b !== c && c !== a) whole.push(a, b, c);
	}
	return { vertices, triangles: whole, places, sizes: sizes as [number, number, number] };
}

/** Refuse what is neither a solid nor a sheet, with the place in the file's own unit. */
function checkSound(triangles: readonly number[], places: readonly number[]): void {
	const flaw = flawOf(triangles, true);
	if (!flaw) return;
	const near = places
		.slice(3 * flaw.vertex, 3 * flaw.vertex + 3)
		.map((value) => Number(value.toPrecision(5)))
		.join(', ');
	throw new MeshFault(`${flaw.text} (near ${near})`);
}

const signedVolume = (vertices: readonly number[], triangles: readonly number[]): number => {
	let six = 0;
	for (let t = 0; t < triangles.length; t += 3) {
		const [p, q, r] = [0, 1, 2].map((k) =>
			vertices.slice(3 * triangles[t + k]!, 3 * triangles[t + k]! + 3)
		) as [number[], number[], number[]];
		six +=
			p[0]! * (q[1]! * r[2]! - q[2]! * r[1]!) -
			p[1]! * (q[0]! * r[2]! - q[2]! * r[0]!) +
			p[2]! * (q[0]! * r[1]! - q[1]! * r[0]!);
	}
	return six / 6;
};

/** The mesh of a file in the unit box, a solid or an open one. @throws MeshFault */
export function blockMesh(read: Triangles): BroughtMesh {
	const { vertices, triangles, places, sizes } = joined(read);
	checkSound(triangles, places);
	if (flawOf(triangles)) return { vertices, triangles, open: sizes };
	const volume = signedVolume(vertices, triangles);
	if (Math.abs(volume) < 1e-6) throw new MeshFault('it encloses nothing');
	return { vertices, triangles: volume > 0 ? triangles : turnedOver(triangles), open: null };
}

/**
 * The mesh of an OBJ, STL or GLB file as a block, by the ending of its name.
 *
 * ```ts
 * const { vertices, triangles } = await readBlockMesh('shell.glb', bytes);
 * ```
 * @throws MeshFault
 */
export async function readBlockMesh(name: string, bytes: Uint8Array): Promise<BroughtMesh> {
	const ending = /\.([a-z]+)$/i.exec(name)?.[1]?.toLowerCase();
	switch (ending) {
		case 'stl':
			return blockMesh(readStl(bytes, MOST_TRIANGLES));
		case 'obj':
			return blockMesh(await readObjMesh(new TextDecoder().decode(bytes), MOST_TRIANGLES));
		case 'glb':
			return blockMesh(await readGlbMesh(bytes, MOST_TRIANGLES));
		default:
			throw new MeshFault('a mesh is read from files that end in .obj, .stl or .glb');
	}
}
