import { standingRow, type NodeGrid, type Spread } from '../grid/node-grid';
import { stripShares } from '../grid/spacing';
import { polygonArea, type Place } from '../geometry/polygon';
import { cellKinds, CellList, type Cells } from './cells';
import { clipPolygon, isConvex, piecesOf, wholeCurve } from '../geometry/clip/clip-polygon';
import type { ExtraNodes } from './extra-nodes';
import type { OutlinePoint } from './tile';
import { SAME_STEP, WHOLE } from '../geometry/tolerance';

const WHOLE_CELL = cellKinds.indexOf('whole');
const EDGE_CELL = cellKinds.indexOf('edge');
const STRIP_CELL = cellKinds.indexOf('strip');
/** Far beyond every grid. */
const FAR = 1e6;

/** An edge cell's corner 1: the lowest corner, the left one of two. */
function fromLowest<P extends { readonly at: Place }>(polygon: readonly P[]): readonly P[] {
	let lowest = 0;
	polygon.forEach(({ at: p }, k) => {
		const q = polygon[lowest]!.at;
		if (p[1] < q[1] - SAME_STEP || (Math.abs(p[1] - q[1]) <= SAME_STEP && p[0] < q[0])) lowest = k;
	});
	return [...polygon.slice(lowest), ...polygon.slice(0, lowest)];
}

/** Finds the nodes of lattice places, on the grid or between its nodes. */
export class LatticeNodes {
	private readonly poleRow: Uint8Array;

	constructor(
		private readonly grid: NodeGrid,
		private readonly extra: ExtraNodes
	) {
		this.poleRow = new Uint8Array(grid.rows);
		for (const row of grid.poles) this.poleRow[row] = 1;
	}

	/** The node of the grid at whole coordinates, beyond the ends of a ring too. */
	onGrid(i: number, j: number): number {
		const { columns, rows, rims } = this.grid;
		const column = i < 0 || i >= columns ? ((i % columns) + columns) % columns : i;
		const own = j < 0 || j >= rows ? ((j % rows) + rows) % rows : j;
		const row = rims ? standingRow(rims, columns, column, own) : own;
		return this.poleRow[row] ? row * columns : row * columns + column;
	}

	/** Whether a line across has run out over a rim where it passes a place: there it bends. */
	isOnRim(i: number, j: number): boolean {
		const { rims, columns, rows } = this.grid;
		if (!rims) return false;
		const column = ((Math.round(i) % columns) + columns) % columns;
		const [foot, head] = [rims.foot[column]!, rims.head[column]!];
		return (foot > 0 && j <= foot + SAME_STEP) || (head < rows - 1 && j >= head - SAME_STEP);
	}

	/** The node of any lattice coordinates; one between those of the grid is made when it is first asked for. */
	at(i: number, height: number): number {
		const { rows, columns, across, up, rims } = this.grid;
		const j = rims ? standingRow(rims, columns, i, height) : height;
		const [ri, rj] = [Math.round(i), Math.round(j)];
		if (Math.abs(i - ri) < SAME_STEP && Math.abs(j - rj) < SAME_STEP) return this.onGrid(ri, rj);
		const wrap = (t: number, count: number, closed: boolean) =>
			closed ? t - Math.floor((t + SAME_STEP) / count) * count : t;
		const place: Place = [wrap(i, across.steps, across.closed), wrap(j, up.steps, up.closed)];
		if (Math.abs(j - rj) < SAME_STEP && this.poleRow[((rj % rows) + rows) % rows])
			return (((rj % rows) + rows) % rows) * columns;
		const name = place.map((t) => Math.round(t / SAME_STEP)).join(' ');
		return this.extra.at(name, () => ({ place }));
	}
}

/** The step that a lattice coordinate is at home in; one between two is in the first. */
export function clampStep(centre: number, spread: Spread): number {
	const step = Math.ceil(centre - WHOLE) - 1;
	if (spread.closed) return ((step % spread.steps) + spread.steps) % spread.steps;
	return Math.min(spread.steps - 1, Math.max(0, step));
}

/** How far a polygon reaches, and its middle (lattice steps). */
export interface Extent {
	readonly left: number;
	readonly right: number;
	readonly foot: number;
	readonly head: number;
	readonly centre: Place;
	/** Its points, i j of each, where all of them are corners on the lattice. */
	readonly lattice: Int32Array | null;
}

/** The extent of an outline by its corners; points it only runs through are left out. */
export function extentOf(points: readonly OutlinePoint[]): Extent {
	const corners = points.filter(({ through }) => !through).map(({ at }) => at);
	const [i, j] = [0, 1].map((axis) => corners.map((p) => p[axis]!)) as [number[], number[]];
	const mean = (values: readonly number[]) => values.reduce((a, b) => a + b, 0) / values.length;
	return {
		left: Math.min(...i),
		right: Math.max(...i),
		foot: Math.min(...j),
		head: Math.max(...j),
		centre: [mean(i), mean(j)],
		lattice: points.every(({ at, through }) => !through && at.every(Number.isInteger))
			? Int32Array.from(points.flatMap(({ at }) => at))
			: null
	};
}

/** Makes cells of polygons in the lattice: finds their nodes, cuts them to the grid, gives them their addresses. */
export class CellMaker {
	private readonly nodes: LatticeNodes;
	private readonly made = new CellList();
	private readonly border: readonly Place[];
	/** How much of a whole step the first and last bay, and the first and last course are. */
	private readonly strips: readonly [readonly [number, number], readonly [number, number]];
	/** All are whole ones. */
	private readonly even: boolean;

	constructor(
		private readonly grid: NodeGrid,
		private readonly slots: number,
		extra: ExtraNodes,
		/** Several polygons may be at home in one step in the same slot. */
		private crowded = false,
		/** Cells in the end strips of exact sizes are smaller than the others. */
		hasStrips = false
	) {
		const none = [1, 1] as const;
		const shares = ({ division }: Spread) => (hasStrips ? stripShares(division) : none);
		this.strips = [shares(grid.across), shares(grid.up)];
		this.even = this.strips.flat().every((share) => share === 1);
		this.nodes = new LatticeNodes(grid, extra);
		const steps = grid.across.steps * grid.up.steps;
		this.made.expect(steps, 4 * steps);
		const end = ({ closed, steps }: Spread): [number, number] => (closed ? [-FAR, FAR] : [0, steps]);
		const [[left, right], [foot, head]] = [end(grid.across), end(grid.up)];
		this.border = [
			[left, foot],
			[right, foot],
			[right, head],
			[left, head]
		];
	}

	/** How much of its whole size a cell has that reaches from one lattice coordinate to another. */
	private shareOfStrips(axis: 0 | 1, from: number, to: number): number {
		const [first, last] = this.strips[axis];
		const { steps } = axis === 0 ? this.grid.across : this.grid.up;
		const span = to - from;
		if (!(span > 0)) return 1;
		const within = (low: number) => Math.max(0, Math.min(to, low + 1) - Math.max(from, low));
		return 1 - ((1 - first) * within(0) + (1 - last) * within(steps - 1)) / span;
	}

	private stripShare({ left, right, foot, head }: Extent, i: number, j: number): number {
		if (this.even) return 1;
		return this.shareOfStrips(0, i + left, i + right) * this.shareOfStrips(1, j + foot, j + head);
	}

	/** Take a polygon within the grid as a cell; corners that fall together at a pole are dropped. */
	private take(
		points: readonly OutlinePoint[],
		home: Place,
		slot: number,
		kind: number,
		share: number
	): void {
		const { absent, across, up } = this.grid;
		const outline: number[] = [];
		const corners: number[] = [];
		let passes = false;
		const bends = points.some(({ at }) => this.nodes.isOnRim(at[0], at[1]));
		for (const { at, through: runsOn } of points) {
			const through = runsOn && !bends;
			const node = this.nodes.at(at[0], at[1]);
			if (absent?.[node]) return;
			if (outline.at(-1) === node || outline[0] === node) continue;
			outline.push(node);
			if (through) passes = true;
			else corners.push(node);
		}
		if (corners.length < 3) return;
		const whole = points.reduce((sum, { through }) => sum + (through ? 0 : 1), 0) === corners.length;
		this.made.push({
			corners,
			outline: passes ? outline : null,
			kind: whole ? kind : EDGE_CELL,
			course: clampStep(home[1], up) + 1,
			bay: clampStep(home[0], across) + 1,
			slot: slot + 1,
			polygon: slot,
			share
		});
	}

	/** Hot: the same for one whose corners are all nodes of the grid, as most cells of most patterns. */
	private takePlain(lattice: Int32Array, i: number, j: number, extent: Extent, slot: number): void {
		const { made, nodes } = this;
		for (let k = 0; k < lattice.length; k += 2)
			made.corner(nodes.onGrid(i + lattice[k]!, j + lattice[k + 1]!));
		const corners = made.open;
		if (corners < 3) {
			made.drop();
			return;
		}
		const { across, up } = this.grid;
		const { centre } = extent;
		const share = this.stripShare(extent, i, j);
		const kind = 2 * corners < lattice.length ? EDGE_CELL : share < 1 ? STRIP_CELL : WHOLE_CELL;
		const course = clampStep(j + centre[1], up) + 1;
		const bay = clampStep(i + centre[0], across) + 1;
		made.end(kind, course, bay, slot + 1, slot, share);
	}

	/** Take a polygon, moved to a place, as a cell; what reaches over an open border is cut off. */
	put(points: readonly OutlinePoint[], extent: Extent, i: number, j: number, slot: number): void {
		const { across, up } = this.grid;
		const insideI =
			across.closed || (i + extent.left >= -SAME_STEP && i + extent.right <= across.steps + SAME_STEP);
		const insideJ = up.closed || (j + extent.foot >= -SAME_STEP && j + extent.head <= up.steps + SAME_STEP);
		const { centre } = extent;
		if (insideI && insideJ && extent.lattice && !this.grid.absent) {
			this.takePlain(extent.lattice, i, j, extent, slot);
			return;
		}
		const home: Place = [i + centre[0], j + centre[1]];
		const moved = points.map(({ at, through }) => ({ at: [i + at[0], j + at[1]] as Place, through }));
		const share = this.stripShare(extent, i, j);
		if (insideI && insideJ) {
			this.take(moved, home, slot, share < 1 ? STRIP_CELL : WHOLE_CELL, share);
			return;
		}
		const places = moved.map(({ at }) => at);
		const clipped = clipPolygon(
			places,
			[wholeCurve({ places: this.border, closed: true }, 0)],
			isConvex(places)
		);
		const whole = polygonArea(places);
		// What is left of polygons beside the grid shares steps with those in it.
		this.crowded = true;
		for (const piece of piecesOf(clipped)) {
			const ring = piece.map(({ corner, at }) => ({
				at,
				through: corner.is === 'polygon' && moved[corner.corner]!.through
			}));
			const area = polygonArea(piece.map(({ at }) => at));
			const middle = extentOf(ring).centre;
			this.take(
				fromLowest(ring),
				middleWithin(home, middle, across, up),
				slot,
				EDGE_CELL,
				(share * area) / whole
			);
		}
	}

	cells(): Cells {
		const [bays, courses] = [this.grid.across.steps, this.grid.up.steps];
		if (this.crowded) this.made.makeAddressesUnique(this.slots, bays, courses);
		return this.made.inBuildingOrder(bays, courses);
	}
}

/** A cut polygon is at home where its own middle would be; beside the grid, where what is left of it is. */
function middleWithin(home: Place, left: Place, across: Spread, up: Spread): Place {
	const inside = (t: number, { closed, steps }: Spread) => closed || (t > 0 && t <= steps);
	return [inside(home[0], across) ? home[0] : left[0], inside(home[1], up) ? home[1] : left[1]];
}
