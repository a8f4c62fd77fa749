import { anchorPoints, type AnchorPoint } from '../cladding/anchor-points';
import { markPrefix, nodeMark } from '../cladding/marks';
import { numberHead, textHead, type Cell, type ColumnHead } from './column';
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
}: Pick<GroupSource, 'zone' | 'clause' | 'face'>): (point: AnchorPoint) => string {
	const prefix = markPrefix(zone.zone.code, zone.faces.length, clause.face);
	return ({ node, isBehind }) => nodeMark(prefix, face.grid, node) + (isBehind ? ' behind' : '');
}

/** The points of every piece of a group: which piece, and how many each has. */
export function anchorRows({ face, group }: GroupSource): {
	readonly row: Uint32Array;
	readonly count: Uint32Array;
} {
	const counts = Uint32Array.from(group.sites, (_, row) => anchorPoints(face, group, row).length);
	const total = counts.reduce((sum, count) => sum + count, 0);
	const [row, count] = [new Uint32Array(total), new Uint32Array(total)];
	let n = 0;
	for (let r = 0; r < counts.length; r++)
		for (let k = 1; k <= counts[r]!; k++, n++) {
			row[n] = r;
			count[n] = k;
		}
	return { row, count };
}

/** The points of the piece that is read: its rows follow one another. */
function reader(source: GroupSource): (row: number) => readonly AnchorPoint[] {
	let last = -1;
	let points: readonly AnchorPoint[] = [];
	return (row) => {
		if (row !== last) [last, points] = [row, anchorPoints(source.face, source.group, row)];
		return points;
	};
}

const ofPoint = (
	head: ColumnHead,
	read: (source: GroupSource) => (point: AnchorPoint) => Cell
): ElementColumn => ({
	...head,
	read(source, { row, count }) {
		const [pointsOf, value] = [reader(source), read(source)];
		return (ref) => value(pointsOf(row[ref]!)[count[ref]! - 1]!);
	}
});

/** What is said of every point, after what is said of its piece. */
export const anchorColumns: readonly ElementColumn[] = [
	{
		...numberHead('point', 'Point', 'count'),
		read:
			(_source, { count }) =>
			(ref) =>
				count[ref]!
	},
	ofPoint(textHead('node', 'Node'), anchorMark),
	...['x', 'y', 'z'].map((axis, k) =>
		ofPoint(
			numberHead(axis, axis, 'length'),
			() =>
				({ at }) =>
					at[k]!
		)
	)
];
