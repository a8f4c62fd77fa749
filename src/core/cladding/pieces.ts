import type { LayerGrid } from '../grid/layer';
import type { NodeGrid } from '../grid/node-grid';
import { refuse } from '../units/problem';
import type { CellMeasures } from '../measure/cell-measures';
import { add, cross, dot, length, pointAt, scale, subtract, type Vector } from '../geometry/vector';
import { NO_CELL, type Edges } from '../pattern/edges';
import type { Cells } from '../pattern/cells';
import { NOT_FINITE } from '../part/builder';
import type { Program } from '../part/program';
import { runProgram, type ColumnReader, type PartRun } from '../part/run';
import { arrayColumn, constantColumn, perPieceProgram, programOf, type ReadyVariant } from './kit';

/** Pieces of one variant on anchors with one number of corners, made by one clause. */
export interface PieceGroup {
	readonly ready: ReadyVariant;
	readonly program: Program;
	readonly corners: number;
	/** Cell of each piece, or edge for a line run. */
	readonly anchors: Uint32Array;
	readonly run: PartRun;
	/** Values the clause set piece by piece, in kernel units. */
	readonly perPiece: ReadonlyMap<string, Float64Array>;
	/** What is to be said of pieces beside what their part says, by row. */
	readonly remarks: ReadonlyMap<number, string>;
}

/** What pieces are hung on. */
export interface CladFace {
	readonly grid: NodeGrid;
	readonly cells: Cells;
	readonly measures: CellMeasures;
	/** Middles of the cells on the face itself (mm), reckoned when a part asks for them. */
	readonly centresOnFace: () => Float64Array;
	/** Left open between cells (mm). */
	readonly joint: number;
	/** What is to be said of cells, by cell. */
	readonly remarks: ReadonlyMap<number, string>;
	/** The zone's second grid, where it has one. */
	readonly layer: LayerGrid | null;
	/** Mesh positions are relative to this point (mm). */
	readonly origin: readonly [number, number, number];
}

const axisOf: Record<string, number> = { x: 0, y: 1, z: 2 };

/** Each row's value reckoned from its anchor. */
function reckon(anchors: Uint32Array, value: (anchor: number) => number): ColumnReader {
	return (out, from, to) => {
		for (let r = from; r < to; r++) out[r - from] = value(anchors[r]!);
	};
}

/** Each row's value taken from its anchor's place in an array of so many values each. */
function gather(
	anchors: Uint32Array,
	values: Float64Array | Uint32Array,
	each = 1,
	offset = 0
): ColumnReader {
	return (out, from, to) => {
		for (let r = from; r < to; r++) out[r - from] = values[each * anchors[r]! + offset]!;
	};
}

/** A corner of a cell, moved in so that half a joint stays open along both its sides. */
function jointedCorner({ cells, grid, measures, joint }: CladFace, c: number, corner: number): Vector {
	const first = cells.start[c]!;
	const count = cells.start[c + 1]! - first;
	const at = (k: number) => pointAt(grid.positions, cells.corners[first + ((k + count) % count)]!);
	const [before, here, after] = [at(corner - 1), at(corner), at(corner + 1)];
	const normal = pointAt(measures.normal, c);
	const inward = (from: Vector, to: Vector) => {
		const way = cross(normal, subtract(to, from));
		return scale(way, 1 / (length(way) || 1));
	};
	const [m, n] = [inward(before, here), inward(here, after)];
	return add(here, scale(add(m, n), joint / 2 / Math.max(1 - Math.cos(SHARP), 1 + dot(m, n))));
}

/** Columns of a ring part: geometry of the cells, their measures, their address. */
function ringColumn(face: CladFace, anchors: Uint32Array, name: string): ColumnReader {
	const { cells, measures, grid } = face;
	const [what = '', axis] = name.split('.');
	if (axis) {
		const a = axisOf[axis]!;
		if (what === 'normal' || what === 'centre') return gather(anchors, measures[what], 3, a);
		if (what === 'face_centre') return gather(anchors, face.centresOnFace(), 3, a);
		const [, of, number] = what.match(/^(corner|normal|far)(\d+)$/)!;
		const corner = Number(number) - 1;
		const { corners, start } = cells;
		const atNodes =
			(values: Float64Array): ColumnReader =>
			(out, from, to) => {
				for (let r = from; r < to; r++)
					out[r - from] = values[3 * corners[start[anchors[r]!]! + corner]! + a]!;
			};
		if (of === 'normal') return atNodes(grid.normals);
		if (of === 'far') return atNodes(face.layer!.positions);
		if (face.joint > 0) return reckon(anchors, (c) => jointedCorner(face, c, corner)[a]!);
		return atNodes(grid.positions);
	}
	if (name === 'cell_height') return gather(anchors, measures.centre, 3, 2);
	const columns: Record<string, Float64Array | Uint32Array> = {
		course: cells.course,
		bay: cells.bay,
		cell_area: measures.area,
		cell_perimeter: measures.perimeter,
		cell_longest_edge: measures.longestEdge,
		cell_shortest_edge: measures.shortestEdge,
		cell_smallest_angle: measures.smallestAngle,
		cell_largest_angle: measures.largestAngle,
		cell_warp: measures.warp
	};
	return gather(anchors, columns[name]!);
}

/** The mean of the neighbouring cells' normals, and the angle between them. */
export function edgeFrames(
	edges: Edges,
	normals: Float64Array
): { normal: Float64Array; fold: Float64Array } {
	const normal = new Float64Array(3 * edges.count);
	const fold = new Float64Array(edges.count);
	for (let e = 0; e < edges.count; e++) {
		const l = 3 * edges.left[e]!;
		const r = edges.right[e] === NO_CELL ? l : 3 * edges.right[e]!;
		const ax = normals[l]!;
		const ay = normals[l + 1]!;
		const az = normals[l + 2]!;
		const bx = normals[r]!;
		const by = normals[r + 1]!;
		const bz = normals[r + 2]!;
		const size = Math.sqrt((ax + bx) ** 2 + (ay + by) ** 2 + (az + bz) ** 2);
		// Two cells folded flat against each other have no mean: the first one's normal stands.
		const mean = size > 1e-9;
		normal[3 * e] = mean ? (ax + bx) / size : ax;
		normal[3 * e + 1] = mean ? (ay + by) / size : ay;
		normal[3 * e + 2] = mean ? (az + bz) / size : az;
		fold[e] = l === r ? 0 : Math.acos(Math.min(1, Math.max(-1, ax * bx + ay * by + az * bz)));
	}
	return { normal, fold };
}

function pairColumn(
	face: CladFace,
	edges: Edges,
	frames: ReturnType<typeof edgeFrames>,
	anchors: Uint32Array,
	name: string
): ColumnReader {
	const { positions } = face.grid;
	const [what, axis] = name.split('.');
	if (axis) {
		const a = axisOf[axis]!;
		if (what === 'normal') return gather(anchors, frames.normal, 3, a);
		if (what === 'normal_left' || what === 'normal_right') {
			const { left, right } = edges;
			const beside = (e: number) => (what === 'normal_left' || right[e] === NO_CELL ? left[e]! : right[e]!);
			return reckon(anchors, (e) => face.measures.normal[3 * beside(e) + a]!);
		}
		const nodes = what === 'start' ? edges.from : edges.to;
		return reckon(anchors, (e) => positions[3 * nodes[e]! + a]!);
	}
	const end = (e: number, which: 'from' | 'to', a: number) => positions[3 * edges[which][e]! + a]!;
	const across = (e: number, a: number) => end(e, 'to', a) - end(e, 'from', a);
	switch (name) {
		case 'course':
			return gather(anchors, edges.course);
		case 'bay':
			return gather(anchors, edges.bay);
		case 'fold':
			return gather(anchors, frames.fold);
		case 'line_height':
			return reckon(anchors, (e) => (end(e, 'from', 2) + end(e, 'to', 2)) / 2);
		default:
			return reckon(anchors, (e) => Math.hypot(across(e, 0), across(e, 1), across(e, 2)));
	}
}

function runGroup(
	ready: ReadyVariant,
	anchors: Uint32Array,
	corners: number,
	given: (name: string) => ColumnReader,
	values: Readonly<Record<string, string>>,
	origin: CladFace['origin'],
	at: string
): PieceGroup {
	const program = programOf(ready, corners, at);
	const formulas = perPieceProgram(ready, values, corners, at);
	const reckoned = formulas && runProgram(formulas, given, anchors.length, origin);
	const perPiece = reckoned?.results ?? new Map<string, Float64Array>();
	const column = (name: string): ColumnReader => {
		if (!name.startsWith('input.')) return given(name);
		const input = name.slice('input.'.length);
		const own = perPiece.get(input);
		return own ? arrayColumn(own) : constantColumn(ready.inputs.get(input)!);
	};
	const run = runProgram(program, column, anchors.length, origin);
	const remarks = new Map<number, string>();
	const { inputs, measures } = ready.part;
	for (const [unusable, named] of [
		[reckoned?.unusable, inputs],
		[run.unusable, measures]
	] as const)
		for (const [name, rows] of unusable ?? [])
			for (const row of rows) {
				// What could not be made at all says so itself.
				if ((run.flags[row]! & (1 << NOT_FINITE)) !== 0) continue;
				const label = named.find((one) => one.name === name)?.label ?? name;
				remark(remarks, row, `${label} has no usable value here; 0 stands for it`);
			}
	return { remarks, ready, program, corners, anchors, run, perPiece };
}

/** One more sentence of a piece. */
function remark(remarks: Map<number, string>, row: number, text: string): void {
	const said = remarks.get(row);
	remarks.set(row, said ? `${said}; ${text}` : text);
}

/** Corners sharper than this are moved in less than the joint wants, or the pane would end far from them. */
const SHARP = Math.acos(0.9);

/** Hang a ring part on cells that all have the same number of corners. @throws ProblemError */
export function cladCells(
	ready: ReadyVariant,
	face: CladFace,
	anchors: Uint32Array,
	corners: number,
	values: Readonly<Record<string, string>>,
	at: string
): PieceGroup {
	if (
		ready.part.anchor.kind === 'double ring' &&
		(face.layer?.positions.length ?? 0) < face.grid.positions.length
	)
		refuse(
			at,
			`${ready.part.label} fills the space between the cells and a second grid; give the zone a layer that is not shifted`
		);
	const given = (name: string) => ringColumn(face, anchors, name);
	const group = runGroup(ready, anchors, corners, given, values, face.origin, at);
	const remarks = new Map(group.remarks);
	anchors.forEach((c, row) => {
		const said = face.remarks.get(c);
		if (said) remark(remarks, row, said);
		if (face.joint > 0 && face.measures.smallestAngle[c]! < SHARP)
			remark(remarks, row, 'a corner sharper than 26°, where the joint is narrower than was asked for');
	});
	return { ...group, remarks };
}

/** Hang a pair part on edges. @throws ProblemError */
export function cladLines(
	ready: ReadyVariant,
	face: CladFace,
	edges: Edges,
	frames: ReturnType<typeof edgeFrames>,
	anchors: Uint32Array,
	at: string
): PieceGroup {
	const given = (name: string) => pairColumn(face, edges, frames, anchors, name);
	return runGroup(ready, anchors, 2, given, {}, face.origin, at);
}
