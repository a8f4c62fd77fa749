import { nodesOf, type MetNet } from '../pattern/nodes';
import { once } from '../units/once';
import type { JoinedFaces } from './join-rims';

/**
 * Faces at whose nodes the lines of webs meet too. What is told of their nodes tells of those as of further faces.
 *
 * ```ts
 * const { faces } = joinWebs(joinRims([faceModel], () => 1), [], () => 2);
 * ```
 * @param nextSerial faces are others by it: what is put on their nodes changes with the webs
 */
export function joinWebs(
	joined: JoinedFaces,
	webs: readonly MetNet[],
	nextSerial: () => number
): JoinedFaces {
	const nodes = once(() => nodesOf(joined.faces, joined.shared, webs));
	return {
		...joined,
		faces: joined.faces.map((face, f) => ({ ...face, serial: nextSerial(), nodes: () => nodes()[f]! }))
	};
}
