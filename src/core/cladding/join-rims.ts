import { nodesOf } from '../pattern/nodes';
import { sharedRims, type RimMeeting, type SharedRim } from '../pattern/shared-rims';
import { once } from '../units/once';
import type { FaceModel, SetOutFace } from './model';
import { NO_DIRECTION } from '../geometry/tolerance';

/** The faces of a zone as they stand beside each other. */
export interface JoinedFaces {
	readonly faces: readonly FaceModel[];
	/** Edges of two faces that are one. */
	readonly shared: readonly SharedRim[];
	/** How their rims get on. */
	readonly meetings: readonly RimMeeting[];
}

/**
 * Faces whose rims meet share their edges: each is counted on the first, with the normals of both.
 *
 * ```ts
 * const { faces, meetings } = joinRims(setOutFaces, () => serials.next().value);
 * ```
 * @param nextSerial for faces that are made anew
 */
export function joinRims(faces: readonly SetOutFace[], nextSerial: () => number): JoinedFaces {
	const { shared, meetings } =
		faces.length < 2 ? { shared: [] as SharedRim[], meetings: [] } : sharedRims(faces);
	const nodes = once(() => nodesOf(faces, shared));
	// Assigned, not spread: Node 20 gives every object that is spread and added to a shape of its own.
	const withNodes = (list: readonly SetOutFace[]): FaceModel[] =>
		list.map((face, f) => Object.assign({ nodes: () => nodes()[f]! }, face));
	if (shared.length === 0) return { faces: withNodes(faces), shared, meetings };
	const joined = faces.map((face) => ({
		...face,
		sharedEdges: new Uint8Array(face.edges.count),
		edgeNormals: face.edgeNormals.slice(),
		folds: face.folds.slice(),
		serial: nextSerial()
	}));
	for (const { face, edge, other, otherEdge } of shared) {
		const [one, two] = [joined[face]!, joined[other]!];
		one.sharedEdges[edge] = 1;
		two.sharedEdges[otherEdge] = 2;
		const [a, b] = [one.edgeNormals, two.edgeNormals].map((normals, k) => [
			...normals.subarray(3 * (k ? otherEdge : edge), 3 * (k ? otherEdge : edge) + 3)
		]) as [number[], number[]];
		const sum = a.map((value, k) => value + b[k]!);
		const size = Math.hypot(...sum);
		if (size > NO_DIRECTION)
			one.edgeNormals.set(
				sum.map((value) => value / size),
				3 * edge
			);
		const cosine = a.reduce((total, value, k) => total + value * b[k]!, 0);
		one.folds[edge] = Math.acos(Math.min(1, Math.max(-1, cosine)));
	}
	return { faces: withNodes(joined), shared, meetings };
}
