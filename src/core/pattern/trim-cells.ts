import { latticeOf, type Lattice } from '../grid/lattice';
import type { NodeGrid } from '../grid/node-grid';
import { segmentDistance } from '../geometry/follow';
import { boxOf, side, type Place } from '../geometry/polygon';
import { distance, pointAt, type Vector } from '../geometry/vector';
import { copiesOf, type Trim } from '../mass/trim/trim';
import { refuse } from '../units/problem';
import { cellKinds, type Cells } from './cells';
import { clipCell, piecesOf, type Corner } from './clip-cell';
import { CurveBins, KeptSteps, type NearCurve } from './curve-bins';

const CUT = cellKinds.indexOf('cut');
/** Places of the lattice nearer than this are one (steps). */
const SAME = 1e-7;

/** Nodes that trims make: one for each place, whichever cells meet there. */
class TrimNodes {
	private readonly known = new Map<string, number>();
	readonly i: number[] = [];
	readonly j: number[] = [];
	readonly positions: number[] = [];
	readonly normals: number[] = [];
	readonly flat: number[] = [];

	constructor(
		private readonly lattice: Lattice,
		private readonly first: number
	) {}

	/** mm */
	position(node: number): Vector {
		const { grid } = this.lattice;
		return node < this.first ? pointAt(grid.positions, node) : pointAt(this.positions, node - this.first);
	}

	/** @param key the same for the same place @param at parameters of the face */
	at(key: string, at: () => { place: Place; u: number; v: number }): number {
		const known = this.known.get(key);
		if (known !== undefined) return known;
		const { place, u, v } = at();
		const { point, normal } = this.lattice.evaluate(u, v);
		const node = this.first + this.i.length;
		this.i.push(place[0]);
		this.j.push(place[1]);
		this.flat.push(...this.lattice.flat(...place));
		this.positions.push(...point);
		this.normals.push(...normal);
		this.known.set(key, node);
		return node;
	}
}

/** A cell's corners in the lattice; over the seam of a ring, and at a pole, beside its own step. */
export function placesOf(grid: NodeGrid, cells: Cells, c: number): Place[] {
	const { columns, rows, across, up, poles } = grid;
	const home = [cells.bay[c]! - 1, cells.course[c]! - 1] as const;
	const near = (value: number, wanted: number, count: number, closed: boolean) => {
		if (!closed) return value;
		if (value - wanted > count / 2) return value - count;
		return wanted - value > count / 2 ? value + count : value;
	};
	const places = Array.from(cells.corners.subarray(cells.start[c]!, cells.start[c + 1]!), (node): Place => {
		const [i, j] = latticeOf(grid, node);
		return [near(i, home[0], columns, across.closed), near(j, home[1], rows, up.closed)];
	});
	if (!poles.length) return places;
	// A pole stands for its whole row: above the middle of the other corners.
	const others = places.filter(([, j]) => !poles.includes(j));
	const middle = others.reduce((sum, [i]) => sum + i, 0) / Math.max(1, others.length);
	return places.map(([i, j]): Place => (poles.includes(j) ? [middle, j] : [i, j]));
}

/** A curve of a trim in the lattice, once for every way that cells meet it. */
interface LatticeCurve {
	readonly trim: number;
	/** Which of the trim's curves. */
	readonly curve: number;
	readonly places: readonly Place[];
	readonly closed: boolean;
	readonly shifts: readonly number[];
	/** Corners of the curve itself. */
	readonly count: number;
}

function curvesOf(lattice: Lattice, trims: readonly Trim[]): LatticeCurve[] {
	const { across } = lattice.grid;
	return trims.flatMap(({ curves }, trim) =>
		curves.flatMap((one, curve) => {
			const places = one.places.map(([u, v]): Place => lattice.place(u, v));
			return copiesOf({ places, run: one.run }, across.closed ? across.steps : 0).map((copy) => ({
				...copy,
				trim,
				curve,
				count: places.length
			}));
		})
	);
}

const STAYS = -1;

interface Found {
	readonly node: number;
	readonly place: Place;
	/** How far the outline may move when it is left out (mm); -1 for one that stays in any case. */
	readonly free: number;
}

/** Cells as they are made, growing. */
class CellList {
	readonly corners: number[] = [];
	readonly start = [0];
	readonly kind: number[] = [];
	readonly course: number[] = [];
	readonly bay: number[] = [];
	readonly slot: number[] = [];
	private readonly slots: number;

	constructor(private readonly from: Cells) {
		this.slots = from.slot.reduce((most, slot) => Math.max(most, slot), 1);
	}

	/** @param piece counts the pieces of one cell from 0 */
	take(c: number, corners: Iterable<number>, kind: number, piece: number): void {
		const { course, bay, slot } = this.from;
		for (const node of corners) this.corners.push(node);
		this.start.push(this.corners.length);
		this.kind.push(kind);
		this.course.push(course[c]!);
		this.bay.push(bay[c]!);
		this.slot.push(slot[c]! + this.slots * piece);
	}

	cells(): Cells {
		return {
			count: this.kind.length,
			start: Uint32Array.from(this.start),
			corners: Uint32Array.from(this.corners),
			kind: Uint8Array.from(this.kind),
			course: Uint32Array.from(this.course),
			bay: Uint32Array.from(this.bay),
			slot: Uint8Array.from(this.slot)
		};
	}
}

/** Finds the nodes of one cell's pieces. */
function nodesOfCell(
	lattice: Lattice,
	trims: readonly Trim[],
	curves: readonly LatticeCurve[],
	near: readonly NearCurve[],
	nodes: TrimNodes,
	ids: Uint32Array,
	places: readonly Place[]
): (corner: Corner, at: Place) => Found {
	return (corner, place) => {
		if (corner.is === 'cell') return { node: ids[corner.corner]!, place, free: STAYS };
		const touched = places.findIndex((p) => Math.hypot(p[0] - place[0], p[1] - place[1]) < SAME);
		if (touched >= 0) return { node: ids[touched]!, place: places[touched]!, free: STAYS };
		const curve = curves[near[corner.curve]!.index]!;
		const shift = curve.shifts[corner.k]!;
		const plain: Place = [place[0] - shift, place[1]];
		const k = corner.k % curve.count;
		const name = `${curve.trim} ${curve.curve} ${k}`;
		if (corner.is === 'curve') {
			const trim = trims[curve.trim]!;
			const own = trim.curves[curve.curve]!;
			const [u, v] = own.places[k]!;
			const node = nodes.at(name, () => ({ place: plain, u, v }));
			return { node, place, free: own.sharp[k] ? 0 : trim.within };
		}
		const [a, b] = [ids[corner.side]!, ids[(corner.side + 1) % ids.length]!];
		const node = nodes.at(`${name} ${Math.min(a, b)} ${Math.max(a, b)}`, () => {
			const [u, v] = lattice.parameters(...plain);
			return { place: plain, u, v };
		});
		return { node, place, free: STAYS };
	};
}

/** An edge that is shorter than this share of the one on the other side of a corner of a smooth curve is a stub. */
const STUB = 0.25;

/**
 * Whether a corner can be left out: it lies on the straight line between its neighbours, or, of a smooth
 * curve, makes a stub of an edge and the outline stays as close to the curve as was asked for.
 */
function saysNothing(before: Found, here: Found, after: Found, nodes: TrimNodes): boolean {
	if (here.free < 0) return false;
	const [a, b, c] = [before, here, after].map(({ place }) => place) as [Place, Place, Place];
	if (Math.abs(side(a, b, c)) < 2e-9 * Math.hypot(c[0] - a[0], c[1] - a[1])) return true;
	const [p, q, r] = [before, here, after].map(({ node }) => nodes.position(node)) as [Vector, Vector, Vector];
	const [one, other] = [distance(p, q), distance(q, r)];
	return Math.min(one, other) < STUB * Math.max(one, other) && segmentDistance(p, r, q) < here.free;
}

/** Different nodes that follow one another, without those that say nothing. */
function cleaned(found: readonly Found[], nodes: TrimNodes): number[] {
	const left = found.filter((one, k) => one.node !== found[(k + found.length - 1) % found.length]!.node);
	for (let k = 0; k < left.length && left.length > 3;) {
		const n = left.length;
		if (saysNothing(left[(k + n - 1) % n]!, left[k]!, left[(k + 1) % n]!, nodes)) left.splice(k, 1);
		else k++;
	}
	return left.map(({ node }) => node);
}

/** Whether a piece is the whole cell after all, run along by a curve. */
function isWhole(piece: readonly number[], ids: Uint32Array): boolean {
	return piece.length === ids.length && piece.every((node) => ids.includes(node));
}

/**
 * The cells of a trimmed face: those outside are left out, those a trim runs through are cut, with new nodes
 * where it crosses their sides and where it has corners. A cut cell keeps its address; a second piece of
 * one gets the slot of a further round.
 * @throws ProblemError when nothing is left
 */
export function trimCells(
	lattice: Lattice,
	cells: Cells,
	trims: readonly Trim[]
): { grid: NodeGrid; cells: Cells } {
	const { grid } = lattice;
	const curves = curvesOf(lattice, trims);
	const lines = (steps: number) => Float64Array.from({ length: steps + 1 }, (_, k) => k);
	const bins = new CurveBins(curves, lines(grid.across.steps), lines(grid.up.steps));
	const isLeft = (i: number, j: number) => {
		const [u, v] = lattice.parameters(i, j);
		return trims.every((trim) => trim.keeps(u, v));
	};
	const steps = new KeptSteps(bins, (i, j) => isLeft(i + 0.5, j + 0.5));
	const nodes = new TrimNodes(lattice, grid.columns * grid.rows);
	const made = new CellList(cells);

	for (let c = 0; c < cells.count; c++) {
		const [i, j] = [cells.bay[c]! - 1, cells.course[c]! - 1];
		const ids = cells.corners.subarray(cells.start[c]!, cells.start[c + 1]!);
		const places = placesOf(grid, cells, c);
		const near = bins.near(boxOf(places));
		const clipped = near.length ? clipCell(places, near) : null;
		if (!clipped || clipped.untouched) {
			// The middle of a cell lies in its own step; a curve may run past it there.
			const kept = bins.isTouched(i, j) ? isLeft(...middleOf(places)) : steps.isKept(i, j);
			if (kept) made.take(c, ids, cells.kind[c]!, 0);
			continue;
		}
		const nodeOf = nodesOfCell(lattice, trims, curves, near, nodes, ids, places);
		const pieces = piecesOf(clipped).map((corners) => corners.map(({ corner, at }) => nodeOf(corner, at)));
		// Where a cell is cut in two through a hole, both pieces hang on the same corners of it.
		const uses = new Map<number, number>();
		for (const { node } of pieces.flat()) uses.set(node, (uses.get(node) ?? 0) + 1);
		let taken = 0;
		for (const found of pieces) {
			const piece = cleaned(
				found.map((one) => (uses.get(one.node)! > 1 ? { ...one, free: STAYS } : one)),
				nodes
			);
			if (piece.length < 3) continue;
			if (isWhole(piece, ids)) made.take(c, ids, cells.kind[c]!, 0);
			else made.take(c, piece, CUT, taken++);
		}
	}
	if (made.kind.length === 0) refuse(trims[0]!.at, 'nothing is left of the face; make the trim smaller');
	const joined = (before: Float64Array, more: readonly number[]) => {
		const whole = new Float64Array(before.length + more.length);
		whole.set(before);
		whole.set(more, before.length);
		return whole;
	};
	return {
		grid: {
			...grid,
			positions: joined(grid.positions, nodes.positions),
			normals: joined(grid.normals, nodes.normals),
			flat: joined(grid.flat, nodes.flat),
			trimI: Float64Array.from(nodes.i),
			trimJ: Float64Array.from(nodes.j)
		},
		cells: made.cells()
	};
}

/** A place within a cell: of a convex one the mean of its corners, else the middle of an ear. */
function middleOf(places: readonly Place[]): Place {
	const n = places.length;
	let best: Place = places[0]!;
	let most = -Infinity;
	const mean = ([a, b, c]: readonly [Place, Place, Place]): Place => [
		(a[0] + b[0] + c[0]) / 3,
		(a[1] + b[1] + c[1]) / 3
	];
	places.forEach((b, k) => {
		const [a, c] = [places[(k + n - 1) % n]!, places[(k + 1) % n]!];
		const area = side(a, b, c);
		const empty = places.every(
			(p) => p === a || p === b || p === c || side(a, b, p) < 0 || side(b, c, p) < 0 || side(c, a, p) < 0
		);
		if (empty && area > most) [most, best] = [area, mean([a, b, c])];
	});
	return best;
}
