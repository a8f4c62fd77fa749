import { boundsOf, Ink, type View } from './drawing';
import { inkSeen } from './elevation';
import type { Frame } from './frame';
import { Hiding } from './hidden-lines';
import type { PiecesOfKind } from './pieces-of-kinds';
import { addPieces, Gathered } from './solids';

/**
 * A piece by itself, as it is seen: orthographic, hidden lines removed.
 * @param from what is nearer to the eye is cut away (mm of depth)
 */
export function pieceView(
	{ source: { face, clause }, row }: Pick<PiecesOfKind, 'source' | 'row'>,
	frame: Frame,
	from = -Infinity
): View {
	const into = new Gathered(frame, from);
	addPieces(into, face, clause, new Set([row]));
	const solids = into.done();
	const ink = new Ink();
	for (const rings of solids.cuts) ink.fill('cuts', rings);
	inkSeen(ink, solids, new Hiding(solids.corners));
	const inked = ink.done();
	return { inked, bounds: boundsOf(inked) };
}
