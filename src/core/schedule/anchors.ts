import type { AnchorPoint } from '../cladding/anchor-points';
import { markPrefix, nodeMark } from '../cladding/marks';
import { numberHead, textHead } from './column';
import type { ElementColumn } from './columns';
import type { GroupSource } from './sources';

/**
 * What a node is called that a piece hangs on; those of the second grid have the mark of the node before them.
 *
 * ```ts
 * const nodeCalled = anchorMark({ zone: zoneModel, clause: group, face: faceModel });
 * const marks = anchorPoints(faceModel, group.group, 0).map(nodeCalled); // GR-N-C01-B01, …
 * ```
 */
export function anchorMark({
	zone,
	clause,
	face
}: Pick<GroupSource, 'zone' | 'clause' | 'face'>): (point: Pick<AnchorPoint, 'node' | 'isBehind'>) => string {
	const prefix = markPrefix(zone.zone.code, zone.faces.length, clause.face);
	return ({ node, isBehind }) => nodeMark(prefix, face.grid, node) + (isBehind ? ' behind' : '');
}

/** What is said of every point, after what is said of its piece; the refs are those of the table. */
export const anchorColumns: readonly ElementColumn[] = [
	{
		...numberHead('point', 'Point', 'count'),
		read:
			(_source, { count }) =>
			(ref) =>
				count[ref]!
	},
	{
		...textHead('node', 'Node'),
		read(source) {
			const { node, isBehind } = source.anchors();
			const nodeCalled = anchorMark(source);
			const called: string[] = [];
			return (ref) => {
				if (isBehind[ref]) return nodeCalled({ node: node[ref]!, isBehind: true });
				return (called[node[ref]!] ??= nodeCalled({ node: node[ref]!, isBehind: false }));
			};
		}
	},
	...['x', 'y', 'z'].map((axis, k): ElementColumn => ({
		...numberHead(axis, axis, 'length'),
		read({ anchors }) {
			const { at } = anchors();
			return (ref) => at[3 * ref + k]!;
		}
	}))
];
