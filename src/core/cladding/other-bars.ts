import { pointAt } from '../geometry/vector';
import { lineFrame } from './bars-at-nodes';
import { nodesAlong, type OtherBar } from './cut-ends';
import type { JoinedFaces } from './join-rims';
import type { ClauseGroup } from './model';
import { reachesOf } from './reach';

/**
 * Bars of other clauses as a face has them: those on its own lines, and those on rims that it shares, where they are
 * another face's.
 *
 * ```ts
 * const others = otherBarsOn(joinRims([faceModel], () => 1), 0, [[group]]);
 * ```
 * @param f the face that they are met on @param groups along lines, of every face: as they are before their ends are cut
 */
export function otherBarsOn(
	{ faces, shared }: JoinedFaces,
	f: number,
	groups: readonly (readonly ClauseGroup[])[]
): OtherBar[] {
	const face = faces[f]!;
	return faces.flatMap(({ origin }, from) => {
		const here = new Map(
			shared.flatMap(({ face, edge, other, otherEdge }) =>
				face === from && other === f ? [[edge, otherEdge] as const] : []
			)
		);
		if (from !== f && !here.size) return [];
		const own = (line: number) => (from === f ? line : here.get(line));
		return groups[from]!.flatMap(({ clause, group }): OtherBar[] => {
			// A bar at a corner stands askew: what counts is how far it reaches along this face.
			const frameOf = (lines: readonly number[]) =>
				lineFrame(face, lines, pointAt(face.grid.normals, face.edges.from[lines[0]!]!));
			const reach = reachesOf(group, origin, (lines) => {
				if (from === f) return frameOf(lines);
				const line = lines.map(own).find((one) => one !== undefined);
				return line === undefined ? null : frameOf([line]);
			});
			const ends = (clause.kind === 'run' && clause.run.ends?.others) ?? false;
			const bars = (from === f ? group.bars : null) ?? Array.from(reach.keys(), (line) => [line]);
			return bars.flatMap((lines): OtherBar[] => {
				const first = own(lines[0]!);
				const toSide = reach.get(lines[0]!);
				// What could not be made is not in the way.
				if (first === undefined || !toSide) return [];
				const nodes = nodesAlong(face.edges, from === f ? lines : [first]);
				return [{ nodes, endsAs: ends ? first : null, reach: toSide }];
			});
		});
	});
}

/**
 * Bars of one of two grids as a web between them meets them: they go on, whatever they end at in their own zone.
 *
 * ```ts
 * const chords = chordsOf(joinRims([faceModel], () => 1), 0, [[group]], 0);
 * ```
 * @param joined the grid @param from the number in the web of the grid's first node
 */
export const chordsOf = (
	joined: JoinedFaces,
	f: number,
	groups: readonly (readonly ClauseGroup[])[],
	from: number
): OtherBar[] =>
	otherBarsOn(joined, f, groups).map(({ nodes, reach }) => ({
		nodes: nodes.map((node) => from + node),
		endsAs: null,
		reach
	}));
