import { add, cross, length, pointAt, scale, squareTo, subtract, unit } from '../geometry/vector';
import { boundsOf, type View } from './drawing';
import { seenAt } from './frame';
import { pieceView } from './piece-view';
import type { PiecesOfKind } from './pieces-of-kinds';

/** A bar from its first end, on the left, to its second. */
export interface BarViews {
	/** Seen from outside of the face. */
	readonly outside: View;
	/** Seen from below that, outside above: as if it were rolled towards the eye. */
	readonly side: View;
	/** Cut through its middle, looking to its second end, outside above; null where nothing closes there. */
	readonly section: View | null;
}

/** The lines that a piece runs along, the first and the last node of them. */
function endsOf({ source: { face, group }, row }: PiecesOfKind): [number, number] {
	const lines = group.bars?.[row] ?? [group.sites[row]!];
	return [face.edges.from[lines[0]!]!, face.edges.to[lines.at(-1)!]!];
}

/** A bar from outside, from the side and cut. */
export function barViews(of: PiecesOfKind): BarViews {
	const { positions, normals } = of.source.face.grid;
	const [from, to] = endsOf(of);
	const [start, end] = [pointAt(positions, from), pointAt(positions, to)];
	const run = subtract(end, start);
	const right = length(run) > 0 ? unit(run) : ([1, 0, 0] as const);
	const both = add(pointAt(normals, from), pointAt(normals, to));
	const out = squareTo(right, both);
	const across = cross(out, right);
	const middle = scale(add(start, end), 0.5);
	const cut = { right: cross(right, out), up: out, away: right };
	const section = pieceView(of, cut, seenAt(cut, middle)[2]).inked.filter(
		({ layer }) => layer === 'cuts' || layer === 'outline'
	);
	return {
		outside: pieceView(of, { right, up: across, away: scale(out, -1) }),
		side: pieceView(of, { right, up: out, away: across }),
		section: section.length ? { inked: section, bounds: boundsOf(section) } : null
	};
}
