import { gather, reckon, type ColumnReader } from '../field/column';
import type { FieldSource } from '../field/field';
import { fieldOf } from '../field/fields';
import { followable, type Followed } from '../field/followed';
import { movedIn } from '../geometry/jointed';
import { pointAt, type Vector } from '../geometry/vector';
import type { LayerGrid } from '../grid/layer';
import type { NodeGrid } from '../grid/node-grid';
import type { Cells } from '../pattern/cells';
import type { Chains } from '../pattern/chains';
import { NO_CELL } from '../pattern/edges';
import type { Flag } from '../units/flag';
import { barColumn, type BarsAtNodes } from './bar-columns';
import type { GridSite } from './sites';

/** What pieces are hung on: one face, as what its sites give is read from it. */
export interface CladFace extends Omit<FieldSource, 'sun' | keyof Followed> {
	readonly chains: Chains;
	readonly grid: NodeGrid;
	/** Middles of the cells on the face itself (mm), reckoned when a part asks for them. */
	readonly centresOnFace: () => Float64Array;
	/** Mean normals of the cells beside every edge. */
	readonly edgeNormals: Float64Array;
	/** Left open between cells (mm). */
	readonly joint: number;
	/** What is told of cells, whatever is on them; most have nothing. */
	readonly flags: ReadonlyMap<number, readonly Flag[]>;
	/** The zone's second grid, where it has one. */
	readonly layer: LayerGrid | null;
	/** The bars that meet at its nodes, for parts on nodes that ask for them. */
	readonly bars?: BarsAtNodes;
	/** Mesh positions are relative to this point (mm). */
	readonly origin: readonly [number, number, number];
}

/** What begins the names of fields of things. */
const ofThings = new Set(['distance', 'inside', 'picture', 'table']);
const axisOf: Record<string, number> = { x: 0, y: 1, z: 2 };

/**
 * A corner of a cell, moved in so that half a joint stays open along both its sides.
 *
 * ```ts
 * const [x, y, z] = jointedCorner(faceModel, 17, 0); // mm
 * ```
 */
export function jointedCorner({ cells, grid, measures, joint }: CladFace, c: number, corner: number): Vector {
	const first = cells.start[c]!;
	const count = cells.start[c + 1]! - first;
	const at = (k: number) => pointAt(grid.positions, cells.corners[first + ((k + count) % count)]!);
	return movedIn(at(corner - 1), at(corner), at(corner + 1), pointAt(measures.normal, c), joint / 2);
}

/** @param cornersAt the node of every site's corner of a number: all that is read there is read of the same nodes */
type Points = (
	face: CladFace,
	sites: Uint32Array,
	what: string,
	axis: number,
	cornersAt: (corner: number) => Uint32Array
) => ColumnReader;

/** `corner3` is corner number 2. */
const numbered = (what: string): [string, number] => {
	const [, of, number] = what.match(/^([a-z]+)(\d+)$/)!;
	return [of!, Number(number) - 1];
};

/** The node of every cell's corner of a number. */
function nodesAt({ corners, start }: Cells, cells: Uint32Array, corner: number): Uint32Array {
	const nodes = new Uint32Array(cells.length);
	for (let r = 0; r < cells.length; r++) nodes[r] = corners[start[cells[r]!]! + corner]!;
	return nodes;
}

const ofCells: Points = (face, sites, what, a, cornersAt) => {
	const { measures, grid } = face;
	if (what === 'normal' || what === 'centre') return gather(sites, measures[what], 3, a);
	if (what === 'face_centre') return gather(sites, face.centresOnFace(), 3, a);
	const [of, corner] = numbered(what);
	if (of === 'normal') return gather(cornersAt(corner), grid.normals, 3, a);
	if (of === 'far') return gather(cornersAt(corner), face.layer!.positions, 3, a);
	if (face.joint > 0) return reckon(sites, (c) => jointedCorner(face, c, corner)[a]!);
	return gather(cornersAt(corner), grid.positions, 3, a);
};

const ofLines: Points = (face, sites, what, a) => {
	const { edges } = face;
	if (what === 'normal') return gather(sites, face.edgeNormals, 3, a);
	if (what === 'normal_left' || what === 'normal_right') {
		const { left, right } = edges;
		const beside = (e: number) => (what === 'normal_left' || right[e] === NO_CELL ? left[e]! : right[e]!);
		return reckon(sites, (e) =>
			left[e] === NO_CELL ? face.edgeNormals[3 * e + a]! : face.measures.normal[3 * beside(e) + a]!
		);
	}
	const ends = what === 'start' ? edges.from : edges.to;
	return reckon(sites, (e) => face.grid.positions[3 * ends[e]! + a]!);
};

const ofNodes: Points = ({ grid, nodes }, sites, what, a) => {
	const { start, ways, normals } = nodes();
	if (what === 'node') return gather(sites, grid.positions, 3, a);
	if (what === 'normal') return gather(sites, normals, 3, a);
	const [, way] = numbered(what);
	return reckon(sites, (n) => ways[3 * (start[n]! + way) + a]!);
};

/** What the lines that meet at nodes measure, and the bars on them; null of other columns. */
function ofLinesAtNodes({ nodes, bars }: CladFace, sites: Uint32Array, name: string): ColumnReader | null {
	const [, span] = /^span(\d+)$/.exec(name) ?? [];
	const [what, way] = barColumn(name) ?? [];
	if (span === undefined && what === undefined) return null;
	const { start, spans } = nodes();
	const values = what === undefined ? spans : bars?.[what];
	const turn = way ?? Number(span) - 1;
	return reckon(sites, (n) => values?.[start[n]! + turn] ?? 0);
}

const ofChains: Points = ({ chains, grid }, sites, what, a) => {
	const [of, number] = numbered(what);
	const values = of === 'normal' ? grid.normals : grid.positions;
	return reckon(sites, (k) => values[3 * chains.nodes[chains.start[k]! + number]! + a]!);
};

const points: Record<GridSite, Points> = { cell: ofCells, line: ofLines, node: ofNodes, chain: ofChains };

/** What sites give the parts on them, by name: points by their axes (`corner1.x`), and fields. mm, rad. */
export function givenColumn(
	face: CladFace,
	kind: GridSite,
	sites: Uint32Array,
	followed: Followed & Pick<FieldSource, 'sun'>
): (name: string) => ColumnReader {
	const source = { ...face, ...followed };
	const known: (Uint32Array | undefined)[] = [];
	const cornersAt = (corner: number) => (known[corner] ??= nodesAt(face.cells, sites, corner));
	return (name) => {
		const [what = '', axis] = name.split('.');
		// A guide, a picture, a table may be called x.
		if (axis && axis in axisOf && !ofThings.has(what))
			return points[kind](face, sites, what, axisOf[axis]!, cornersAt);
		if (kind === 'node') {
			const ofLines = ofLinesAtNodes(face, sites, name);
			if (ofLines) return ofLines;
		}
		return fieldOf(kind, name, followable(followed)).column(source, sites);
	};
}
