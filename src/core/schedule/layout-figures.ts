import type { FaceModel } from '../cladding/model';
import { cellKinds, type CellKind } from '../pattern/cells';

/** What a layout of a zone comes to, to compare it with others. mm, mm². */
export interface LayoutFigures {
	readonly cells: Readonly<Record<CellKind, number>>;
	readonly edges: number;
	/** Of all lines, each once (mm). */
	readonly lineLength: number;
	readonly worstWarp: number;
	readonly smallestArea: number;
	/** How many different cells there are, by their edges in turn to the whole millimetre, mirror images as one. */
	readonly kindsOfCells: number;
}

/** Edge lengths of a ring in whole mm, in the order in which they come first, turned and mirrored. */
function signature(lengths: readonly number[]): string {
	const n = lengths.length;
	let best = '';
	for (const list of [lengths, [...lengths].reverse()])
		for (let turn = 0; turn < n; turn++) {
			const name = Array.from({ length: n }, (_, k) => String(list[(k + turn) % n]).padStart(6)).join(' ');
			if (!best || name < best) best = name;
		}
	return best;
}

/**
 * What one setting-out comes to over all its faces (counts, mm, mm²), to be set beside another.
 *
 * ```ts
 * const { cells: count } = layoutFigures([faceModel]);
 * ```
 */
export function layoutFigures(faces: readonly FaceModel[]): LayoutFigures {
	const cells = { whole: 0, edge: 0, cut: 0, strip: 0 };
	let [edges, lineLength, worstWarp, smallestArea] = [0, 0, 0, Infinity];
	const kinds = new Set<string>();
	for (const face of faces) {
		const { positions } = face.grid;
		const gap = (a: number, b: number) =>
			Math.hypot(
				positions[3 * a]! - positions[3 * b]!,
				positions[3 * a + 1]! - positions[3 * b + 1]!,
				positions[3 * a + 2]! - positions[3 * b + 2]!
			);
		for (let c = 0; c < face.cells.count; c++) {
			cells[cellKinds[face.cells.kind[c]!]!]++;
			worstWarp = Math.max(worstWarp, face.measures.warp[c]!);
			smallestArea = Math.min(smallestArea, face.measures.area[c]!);
			const nodes = face.cells.corners.subarray(face.cells.start[c]!, face.cells.start[c + 1]!);
			kinds.add(signature(Array.from(nodes, (a, k) => Math.round(gap(a, nodes[(k + 1) % nodes.length]!)))));
		}
		for (let e = 0; e < face.edges.count; e++) {
			// Lines that another face counts are not counted here.
			if (face.sharedEdges?.[e] === 2) continue;
			edges++;
			lineLength += gap(face.edges.from[e]!, face.edges.to[e]!);
		}
	}
	return {
		cells,
		edges,
		lineLength,
		worstWarp,
		smallestArea: smallestArea === Infinity ? 0 : smallestArea,
		kindsOfCells: kinds.size
	};
}
