import { pointAt } from '../geometry/vector';
import { lineFrame, reachBeside } from './bars-at-nodes';
import type { OtherBars } from './cut-ends';
import type { JoinedFaces } from './join-rims';
import type { ClauseGroup } from './model';

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
): OtherBars[] {
	const face = faces[f]!;
	return faces.flatMap(({ origin }, from) => {
		const here = new Map(
			shared.flatMap(({ face, edge, other, otherEdge }) =>
				face === from && other === f ? [[edge, otherEdge] as const] : []
			)
		);
		if (from !== f && !here.size) return [];
		const own = (line: number) => (from === f ? line : here.get(line));
		return groups[from]!.map(({ clause, group }): OtherBars => {
			// A bar at a corner stands askew: what counts is how far it reaches along this face.
			const frameOf = (lines: readonly number[]) =>
				lineFrame(face, lines, pointAt(face.grid.normals, face.edges.from[lines[0]!]!));
			const reach = reachBeside([group], origin, (lines) => {
				if (from === f) return frameOf(lines);
				const line = lines.map(own).find((one) => one !== undefined);
				return line === undefined ? null : frameOf([line]);
			});
			const bars = from === f ? group.bars : null;
			return {
				bars: bars ?? Array.from(reach.keys(), (line) => [own(line)!]),
				end: (clause.kind === 'run' && clause.run.ends?.others) ?? false,
				reach: new Map(Array.from(reach, ([line, one]) => [own(line)!, one]))
			};
		});
	});
}
