import { nearestFrom } from '../../geometry/nearest';
import type { Surface } from '../../geometry/surface';
import { add, scale, type Vector } from '../../geometry/vector';
import { throughPoints } from '../../mass/net';
import { gridOfQuads, NoGrid } from './grid-of-quads';
import { readObjText, type ObjGroup } from './read-text';

/** A mesh that was taken as a face, in the file's own unit. */
export interface FittedFace {
	readonly name: string;
	readonly surface: Surface;
	/** How far the mesh is from the face, at most, at its vertices and the middles of its quads. */
	readonly deviation: number;
}

export interface FittedFaces {
	readonly faces: readonly FittedFace[];
	/** What was not taken, each with its group and line. */
	readonly refused: readonly string[];
}

/** Rows and columns that a face is drawn through, at most; finer meshes are thinned out evenly. */
const MOST_LINES = 48;

/** Which of so many lines are used, both ends included. */
function used(count: number): number[] {
	const wanted = Math.min(count, MOST_LINES);
	return Array.from({ length: wanted }, (_, k) => Math.round((k * (count - 1)) / (wanted - 1)));
}

/** The face through the vertices of a grid, and how far the grid is from it. */
function fitted(points: readonly (readonly Vector[])[]): { surface: Surface; deviation: number } {
	const [js, is] = [used(points.length), used(points[0]!.length)];
	const rows = js.map((j) => is.map((i) => points[j]![i]!));
	const degrees = [is.length, js.length].map((count) => Math.min(3, count - 1)) as [number, number];
	const { surface, across, up } = throughPoints(rows, degrees);
	/** The parameter at a place between the lines that were used. */
	const at = (lines: readonly number[], values: readonly number[], k: number) => {
		const n = Math.max(0, Math.min(lines.length - 2, lines.findIndex((line) => line > k) - 1));
		const m = lines.findIndex((line) => line > k) < 0 ? lines.length - 2 : n;
		const share = (k - lines[m]!) / (lines[m + 1]! - lines[m]!);
		return values[m]! + share * (values[m + 1]! - values[m]!);
	};
	let deviation = 0;
	const look = (p: Vector, i: number, j: number) => {
		const { distance } = nearestFrom(surface, p, [at(is, across, i), at(js, up, j)], false);
		deviation = Math.max(deviation, distance);
	};
	points.forEach((row, j) =>
		row.forEach((p, i) => {
			if (!is.includes(i) || !js.includes(j)) look(p, i, j);
			const [right, above, over] = [row[i + 1], points[j + 1]?.[i], points[j + 1]?.[i + 1]];
			if (right && above && over) look(scale(add(add(p, right), add(above, over)), 0.25), i + 0.5, j + 0.5);
		})
	);
	return { surface, deviation };
}

/**
 * The groups of an OBJ file that are rectangular grids of quads, each as a smooth face through its vertices;
 * the others are told by name, with the line.
 *
 * ```ts
 * const grids = await readObjGrids(text, (share) => tell(share));
 * ```
 * @throws ObjFault when the file cannot be read
 */
export async function readObjGrids(
	text: string,
	progress: (share: number) => void | Promise<void> = () => {}
): Promise<FittedFaces> {
	const { vertices, groups } = await readObjText(text, (share) => progress(share / 2));
	const faces: FittedFace[] = [];
	const refused: string[] = [];
	const vertex = (k: number): Vector => [vertices[3 * k]!, vertices[3 * k + 1]!, vertices[3 * k + 2]!];
	for (const [k, group] of groups.entries()) {
		await progress(0.5 + k / groups.length / 2);
		try {
			faces.push({ name: group.name, ...fitGroup(group, vertex) });
		} catch (error) {
			if (!(error instanceof NoGrid)) throw error;
			refused.push(`group "${group.name || `${k + 1}`}", ${error.message}`);
		}
	}
	return { faces, refused };
}

function fitGroup(group: ObjGroup, vertex: (k: number) => Vector) {
	const { rows } = gridOfQuads(group, (k) => vertex(k)[2]);
	const points = rows.map((row) => row.map(vertex));
	try {
		return fitted(points);
	} catch (error) {
		if (!(error instanceof RangeError)) throw error;
		throw new NoGrid(`line ${group.lines[0]!}: ${error.message}`);
	}
}
