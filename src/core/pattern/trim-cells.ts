import { latticeOf, Lattice } from '../grid/lattice';
import type { NodeGrid, Spread } from '../grid/node-grid';
import { segmentDistance } from '../geometry/follow';
import { boxOf, polygonArea, side, type Place } from '../geometry/polygon';
import { distance, type Vector } from '../geometry/vector';
import type { Face } from '../mass/face';
import { copiesOf, type Trim } from '../mass/trim/trim';
import { refuse } from '../units/problem';
import { cellKinds, CellList, outlineOf, type Cells } from './cells';
import { clipPolygon, piecesOf, type Corner } from '../geometry/clip/clip-polygon';
import { CurveBins, KeptSteps, type NearCurve } from '../geometry/clip/curve-bins';
import { ExtraNodes } from './extra-nodes';
import type { LaidCells } from './lay-tiles';
import { SAME_STEP } from '../geometry/tolerance';

const CUT = cellKinds.indexOf('cut');

/** What of a grid says where its nodes lie in its lattice. */
type LatticeOfNodes = Pick<NodeGrid, 'columns' | 'rows' | 'across' | 'up' | 'poles' | 'extraI' | 'extraJ'>;

/**
 * The middle of a cell's corners in the lattice.
 *
 * ```ts
 * const [i, j] = cellMiddle(grid, cells, 4);
 * ```
 */
export function cellMiddle(grid: LatticeOfNodes, cells: Cells, c: number): [number, number] {
	const places = placesOf(grid, cells, c, cells.corners.subarray(cells.start[c]!, cells.start[c + 1]!));
	let [i, j] = [0, 0];
	for (const [x, y] of places) {
		i += x / places.length;
		j += y / places.length;
	}
	return [i, j];
}

/**
 * Nodes of a cell's ring in the lattice; over the seam of a ring, and at a pole, beside its own step.
 *
 * ```ts
 * const ring = placesOf(grid, cells, 4, cells.corners.subarray(cells.start[4]!, cells.start[5]!));
 * ```
 */
export function placesOf(grid: LatticeOfNodes, cells: Cells, c: number, ring: Uint32Array): Place[] {
	const { columns, rows, across, up, poles } = grid;
	const home = [cells.bay[c]! - 1, cells.course[c]! - 1] as const;
	const near = (value: number, wanted: number, count: number, closed: boolean) => {
		if (!closed) return value;
		if (value - wanted > count / 2) return value - count;
		return wanted - value > count / 2 ? value + count : value;
	};
	const places = Array.from(ring, (node): Place => {
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

/** Finds the nodes of one cell's pieces. */
function nodesOfCell(
	trims: readonly Trim[],
	curves: readonly LatticeCurve[],
	near: readonly NearCurve[],
	nodes: ExtraNodes,
	ids: Uint32Array,
	places: readonly Place[]
): (corner: Corner, at: Place) => Found {
	return (corner, place) => {
		if (corner.is === 'polygon') return { node: ids[corner.corner]!, place, free: STAYS };
		const touched = places.findIndex((p) => Math.hypot(p[0] - place[0], p[1] - place[1]) < SAME_STEP);
		if (touched >= 0) return { node: ids[touched]!, place: places[touched]!, free: STAYS };
		const curve = curves[near[corner.curve]!.index]!;
		const shift = curve.shifts[corner.k]!;
		const plain: Place = [place[0] - shift, place[1]];
		const k = corner.k % curve.count;
		const name = `${curve.trim} ${curve.curve} ${k}`;
		if (corner.is === 'curve') {
			const trim = trims[curve.trim]!;
			const own = trim.curves[curve.curve]!;
			const node = nodes.at(name, () => ({ place: plain, parameters: own.places[k]! }));
			return { node, place, free: own.sharp[k] ? 0 : trim.within };
		}
		const [a, b] = [ids[corner.side]!, ids[(corner.side + 1) % ids.length]!];
		const node = nodes.at(`${name} ${Math.min(a, b)} ${Math.max(a, b)}`, () => ({ place: plain }));
		return { node, place, free: STAYS };
	};
}

/** An edge that is shorter than this share of the one on the other side of a corner of a smooth curve is a stub. */
const STUB = 0.25;

/**
 * Whether a corner can be left out: it lies on the straight line between its neighbours, or, of a smooth
 * curve, makes a stub of an edge and the outline stays as close to the curve as was asked for.
 */
function saysNothing(before: Found, here: Found, after: Found, nodes: ExtraNodes): boolean {
	if (here.free < 0) return false;
	const [a, b, c] = [before, here, after].map(({ place }) => place) as [Place, Place, Place];
	if (Math.abs(side(a, b, c)) < 2e-9 * Math.hypot(c[0] - a[0], c[1] - a[1])) return true;
	const [p, q, r] = [before, here, after].map(({ node }) => nodes.position(node)) as [Vector, Vector, Vector];
	const [one, other] = [distance(p, q), distance(q, r)];
	return Math.min(one, other) < STUB * Math.max(one, other) && segmentDistance(p, r, q) < here.free;
}

/** Different nodes that follow one another, without those that say nothing. */
function cleaned(found: readonly Found[], nodes: ExtraNodes): number[] {
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
 * The cells of a face, cut by its trims: those outside are left out, those a trim runs through are cut, with new nodes
 * where it crosses their sides and where it has corners. A cut cell keeps its address; a second piece of
 * one gets the slot of a further round. Pierced cells were cut when they were laid.
 *
 * ```ts
 * const left = cutToTrims(face, { grid, cells }).cells;
 * ```
 * @param laid with the nodes that the pattern made
 * @throws ProblemError when nothing is left
 */
export function cutToTrims({ surface, trims }: Pick<Face, 'surface' | 'trims'>, laid: LaidCells): LaidCells {
	const { grid, cells } = laid;
	if (!trims.length || cells.pierced) return laid;
	const lattice = new Lattice(grid, surface);
	const curves = curvesOf(lattice, trims);
	const lines = (steps: number) => Float64Array.from({ length: steps + 1 }, (_, k) => k);
	const bins = new CurveBins(curves, lines(grid.across.steps), lines(grid.up.steps));
	const isLeft = (i: number, j: number) => {
		const [u, v] = lattice.parameters(i, j);
		return trims.every((trim) => trim.keeps(u, v));
	};
	const steps = new KeptSteps(bins, (i, j) => isLeft(i + 0.5, j + 0.5));
	const nodes = new ExtraNodes(lattice);
	const made = new CellList();
	made.expect(cells.count, cells.corners.length);
	const slots = cells.slot.reduce((most, slot) => Math.max(most, slot), 1);
	const { start, nodes: rings } = outlineOf(cells);
	const box = new Int32Array(4);

	/** Cells that are left as they are one after the other are copied at once. */
	let run = 0;
	const leaveOut = (c: number) => {
		if (c > run) made.copy(cells, run, c);
		run = c + 1;
	};

	/** Cells that a trim may run through. */
	const cut = (c: number) => {
		const ids = rings.subarray(start[c]!, start[c + 1]!);
		const places = placesOf(grid, cells, c, ids);
		const near = bins.near(boxOf(places));
		const clipped = near.length ? clipPolygon(places, near) : null;
		if (!clipped || clipped.untouched) {
			const middle = middleOf(places);
			const [i, j] = stepOf(grid, middle);
			const kept = bins.isTouched(i, j) ? isLeft(...middle) : steps.isKept(i, j);
			if (!kept) leaveOut(c);
			return;
		}
		leaveOut(c);
		const nodeOf = nodesOfCell(trims, curves, near, nodes, ids, places);
		const whole = polygonArea(places);
		const pieces = piecesOf(clipped).map((corners) => ({
			found: corners.map(({ corner, at }) => nodeOf(corner, at)),
			share: (cells.share[c]! * polygonArea(corners.map(({ at }) => at))) / whole
		}));
		// Where a cell is cut in two through a hole, both pieces hang on the same corners of it.
		const uses = new Map<number, number>();
		for (const { node } of pieces.flatMap(({ found }) => found)) uses.set(node, (uses.get(node) ?? 0) + 1);
		const own = new Set(cells.corners.subarray(cells.start[c]!, cells.start[c + 1]!));
		const passing = new Set([...ids].filter((node) => !own.has(node)));
		let taken = 0;
		for (const { found, share } of pieces) {
			const piece = cleaned(
				found.map((one) => (uses.get(one.node)! > 1 ? { ...one, free: STAYS } : one)),
				nodes
			);
			const corners = piece.filter((node) => !passing.has(node));
			if (corners.length < 3) continue;
			if (isWhole(piece, ids)) made.copy(cells, c);
			else
				made.push({
					corners,
					outline: corners.length < piece.length ? piece : null,
					uncut: [...own],
					kind: CUT,
					course: cells.course[c]!,
					bay: cells.bay[c]!,
					slot: cells.slot[c]! + slots * taken++,
					polygon: cells.polygon[c]!,
					share
				});
		}
	};

	for (let c = 0; c < cells.count; c++) {
		const isNear =
			!stepsOfRing(grid, rings, start[c]!, start[c + 1]!, box) ||
			!bins.areFree(box[0]!, box[1]!, box[2]!, box[3]!);
		if (isNear) cut(c);
		else if (!steps.isKept(box[0]!, box[2]!)) leaveOut(c);
	}
	leaveOut(cells.count);
	if (made.count === 0) refuse(trims[0]!.at, 'nothing is left of the face; make the trim smaller');
	return { grid: nodes.joined(), cells: made.cells() };
}

/**
 * The steps of the lattice that a cell's ring covers: from, to across; from, to up. Hot: most cells of a face are far
 * from its trims.
 * @returns whether they are those of its places: a cell at a pole or over the seam of a ring is looked at more closely
 */
function stepsOfRing(
	grid: NodeGrid,
	rings: Uint32Array,
	from: number,
	to: number,
	steps: Int32Array
): boolean {
	const { columns, rows, extraI, extraJ, across, up, poles } = grid;
	if (poles.length) return false;
	const own = columns * rows;
	let left = Infinity;
	let foot = Infinity;
	let right = -Infinity;
	let head = -Infinity;
	for (let k = from; k < to; k++) {
		const node = rings[k]!;
		const i = node < own ? node % columns : extraI[node - own]!;
		const j = node < own ? Math.floor(node / columns) : extraJ[node - own]!;
		if (i < left) left = i;
		if (i > right) right = i;
		if (j < foot) foot = j;
		if (j > head) head = j;
	}
	steps[0] = Math.floor(left + SAME_STEP);
	steps[1] = Math.max(steps[0], Math.ceil(right - SAME_STEP) - 1);
	steps[2] = Math.floor(foot + SAME_STEP);
	steps[3] = Math.max(steps[2], Math.ceil(head - SAME_STEP) - 1);
	// Over the seam its nodes stand at both ends.
	return !(across.closed && right - left > columns / 2) && !(up.closed && head - foot > rows / 2);
}

/** The step that a place along one direction lies in. */
function stepIn({ closed, steps }: Spread, t: number): number {
	const step = Math.floor(t);
	return closed ? ((step % steps) + steps) % steps : Math.min(steps - 1, Math.max(0, step));
}
/** The step that a place lies in. */
const stepOf = ({ across, up }: NodeGrid, [i, j]: Place): [number, number] => [
	stepIn(across, i),
	stepIn(up, j)
];

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
