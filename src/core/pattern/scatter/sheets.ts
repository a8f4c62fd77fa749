import { EndType, FillRule, inflatePathsD, intersectD, JoinType, type PathD } from 'clipper2-ts';
import { boxOf, polygonArea, type Box, type Place } from '../../geometry/polygon';
import { Lattice } from '../../grid/lattice';
import type { NodeGrid } from '../../grid/node-grid';
import type { Face } from '../../mass/face';
import type { PatternOf, SheetChoice } from '../../project/pattern-schema';
import { refuse } from '../../units/problem';
import { formatNumber } from '../../units/quantity';
import { CellMaker, extentOf } from '../cell-maker';
import { CellList } from '../cells';
import { ExtraNodes } from '../extra-nodes';
import type { LaidCells } from '../lay-tiles';
import type { OutlinePoint } from '../tile';
import { cutToTrims } from '../trim-cells';
import { overSeams, toLattice, trueWidths, type FlatField } from './flat-field';
import { pierced } from './pierced';
import { rimPlaces, SHEET } from './sheet-rims';
import type { ScatteredShapes } from './voronoi';

/** The slot of scattered cells. */
const CELL = 0;

/** mm; narrower than this, what is left beside an opening is no sheet. */
const LEAST_WEB = 1;
/** mm; narrower than this, what is left of an opening that was cut is a slit that nobody makes. */
const LEAST_OPENING = 5;
/** Decimals of a millimetre that the library computes with. */
const DECIMALS = 3;

/** Steps that one sheet covers: from one line up to another, across and up. */
interface Panel {
	readonly left: number;
	readonly right: number;
	readonly foot: number;
	readonly head: number;
}

function panelsOf({ across, up }: NodeGrid, per: SheetChoice['per'], at: string): Panel[] {
	if (per === 'face') {
		if (across.closed || up.closed)
			refuse(
				`${at}/sheet/per`,
				'the face closes upon itself, so that one sheet cannot go round it; let it be a sheet for so many bays and courses'
			);
		return [{ left: 0, right: across.steps, foot: 0, head: up.steps }];
	}
	for (const key of ['bays', 'courses'] as const)
		if (!(Number.isInteger(per[key]) && per[key] >= 1))
			refuse(
				`${at}/sheet/per/${key}`,
				`a sheet of ${formatNumber(per[key], 3)} ${key} cannot be made; whole numbers from 1 are accepted`
			);
	// Round a ring one sheet would meet itself.
	const most = (steps: number, closed: boolean) => (closed ? Math.ceil(steps / 2) : steps);
	const bays = Math.min(per.bays, most(across.steps, across.closed));
	const courses = Math.min(per.courses, most(up.steps, up.closed));
	const panels: Panel[] = [];
	for (let foot = 0; foot < up.steps; foot += courses)
		for (let left = 0; left < across.steps; left += bays)
			panels.push({
				left,
				right: Math.min(across.steps, left + bays),
				foot,
				head: Math.min(up.steps, foot + courses)
			});
	return panels;
}

/** The rim of a panel: its corners, and every line of the grid that ends on it. */
function rimOf({ left, right, foot, head }: Panel): OutlinePoint[] {
	const points: OutlinePoint[] = [];
	const put = (i: number, j: number, through: boolean) => points.push({ at: [i, j], through });
	for (let i = left; i < right; i++) put(i, foot, i > left);
	for (let j = foot; j < head; j++) put(right, j, j > foot);
	for (let i = right; i > left; i--) put(i, head, i < right);
	for (let j = head; j > foot; j--) put(left, j, j < head);
	return points;
}

const toPath = (ring: readonly Place[]): PathD => ring.map(([x, y]) => ({ x, y }));
const toRing = (path: PathD): Place[] => path.map(({ x, y }): Place => [x, y]);
const overlap = (a: Box, b: Box) =>
	a.low[0] < b.high[0] && b.low[0] < a.high[0] && a.low[1] < b.high[1] && b.low[1] < a.high[1];

/** About how wide a shape is (mm): of a strip its width, of a square half its side. */
const widthOf = (ring: readonly Place[]) =>
	(2 * polygonArea(ring)) /
	ring.reduce((sum, p, k) => {
		const q = ring[(k + 1) % ring.length]!;
		return sum + Math.hypot(q[0] - p[0], q[1] - p[1]);
	}, 0);

/** What of a sheet may have openings in it. */
class Ground {
	private readonly paths: PathD[];
	readonly box: Box;
	/** It is a rectangle along the field: what lies in its box lies in it. */
	private readonly isPlain: boolean;

	constructor(rim: readonly Place[], margin: number) {
		this.paths = inflatePathsD(
			[toPath(rim)],
			-Math.max(LEAST_WEB, margin),
			JoinType.Miter,
			EndType.Polygon,
			4,
			DECIMALS
		);
		this.box = boxOf(this.paths.flatMap(toRing));
		const [{ low, high }, area] = [
			this.box,
			this.paths.reduce((sum, path) => sum + polygonArea(toRing(path)), 0)
		];
		this.isPlain = area > (1 - 1e-9) * (high[0] - low[0]) * (high[1] - low[1]);
	}

	get isNone(): boolean {
		return !this.paths.length;
	}

	/** What of an opening lies within; itself, where all of it does. */
	within(ring: readonly Place[], box: Box): (readonly Place[])[] {
		const { low, high } = this.box;
		const isInBox =
			box.low[0] >= low[0] && box.low[1] >= low[1] && box.high[0] <= high[0] && box.high[1] <= high[1];
		if (this.isPlain && isInBox) return [ring];
		const left = intersectD([toPath(ring)], this.paths, FillRule.NonZero, DECIMALS).map(toRing);
		const area = left.reduce((sum, one) => sum + polygonArea(one), 0);
		return area > (1 - 1e-5) * polygonArea(ring) ? [ring] : left.filter((one) => polygonArea(one) > 0);
	}
}

/** Openings sorted by where they lie, so that a sheet finds its own without looking at all. */
class Shelves {
	private readonly shelves: number[][];
	private readonly high: number;

	constructor(
		private readonly boxes: readonly Box[],
		{ height }: FlatField
	) {
		const count = Math.max(1, Math.ceil(Math.sqrt(boxes.length)));
		this.high = height / count;
		this.shelves = Array.from({ length: count }, () => []);
		boxes.forEach((box, n) => {
			for (let k = this.shelf(box.low[1]); k <= this.shelf(box.high[1]); k++) this.shelves[k]!.push(n);
		});
	}
	private shelf(y: number): number {
		return Math.min(this.shelves.length - 1, Math.max(0, Math.floor(y / this.high)));
	}

	/** Those that overlap a box, ascending. */
	near(box: Box): number[] {
		const found = new Set<number>();
		for (let k = this.shelf(box.low[1]); k <= this.shelf(box.high[1]); k++)
			for (const n of this.shelves[k]!) if (overlap(this.boxes[n]!, box)) found.add(n);
		return [...found].sort((a, b) => a - b);
	}
}

/**
 * The web between scattered cells as sheets, one for the face or for each panel of so many bays and courses, and the
 * cells as openings in them, cut to what of each sheet may have any.
 * @param at the path of the pattern
 * @throws ProblemError for a sheet that cannot be made
 */
export function piercedSheets(
	face: Face,
	grid: NodeGrid,
	{ margin, smallest }: Pick<PatternOf<'voronoi'>, 'margin' | 'smallest'>,
	{ per, plain, crossing }: SheetChoice,
	{ field, shapes }: ScatteredShapes,
	at: string
): LaidCells {
	if (!(plain >= LEAST_WEB))
		refuse(
			`${at}/sheet/plain`,
			`a sheet whose rim of ${formatNumber(plain, 3)} mm is left plain falls apart; ${LEAST_WEB} mm or more is accepted`
		);
	if (!(margin >= LEAST_WEB / 2))
		refuse(
			`${at}/margin`,
			'cells with a sheet between them need a margin, half of the web that is left between two; 0.5 mm or more is accepted',
			[10, 25].map((value) => ({ label: `${value} mm`, path: `${at}/margin`, value }))
		);
	const bays = grid.across.steps;
	const courses = grid.up.steps;
	const first = new ExtraNodes(new Lattice(grid, face.surface));
	const panels = new CellMaker(grid, 2, first, true);
	for (const panel of panelsOf(grid, per, at)) {
		const rim = rimOf(panel);
		// A sheet is at home in its first step, so that its openings come after it.
		const extent = { ...extentOf(rim), lattice: null, centre: [panel.left + 0.5, panel.foot + 0.5] as Place };
		panels.put(rim, extent, 0, 0, SHEET);
	}
	const sheets = cutToTrims(face, { grid: first.joined(), cells: panels.cells() });
	if (!sheets.cells.count) refuse(`${at}/sheet`, 'no sheet can be made here; the grid has no whole panel');

	const extra = new ExtraNodes(new Lattice(sheets.grid, face.surface));
	const maker = new CellMaker(sheets.grid, 2, extra, true);
	const place = toLattice(field);
	const least = Math.max(LEAST_OPENING, smallest / 2);
	const copies = overSeams(field).flatMap(([dx, dy]) =>
		shapes.map((shape) => (dx || dy ? shape.map(([x, y]): Place => [x + dx, y + dy]) : shape))
	);
	const { to, from } = trueWidths(field, grid.courseLengths);
	const trueCopies = copies.map((shape) => shape.map(to));
	const boxes = trueCopies.map(boxOf);
	const shelves = new Shelves(boxes, field);
	for (let s = 0; s < sheets.cells.count; s++) {
		const ground = new Ground(
			rimPlaces(sheets.grid, sheets.cells, s, field).map((one) => to(one.at)),
			plain
		);
		if (ground.isNone) continue;
		for (const n of shelves.near(ground.box)) {
			const shape = trueCopies[n]!;
			const left = ground.within(shape, boxes[n]!);
			if (crossing === 'left out' && left[0] !== shape) continue;
			for (const ring of left) {
				if (ring !== shape && widthOf(ring) < least) continue;
				const ofField = ring === shape ? copies[n]! : ring.map(from);
				const outline = ofField.map((p) => ({ at: place(p), through: false }));
				maker.put(outline, { ...extentOf(outline), lattice: null }, 0, 0, CELL);
			}
		}
	}
	const openings = maker.cells();
	const all = new CellList();
	all.copy(sheets.cells, 0, sheets.cells.count);
	all.copy(openings, 0, openings.count);
	const cells = all.inBuildingOrder(bays, courses);
	return pierced({ cells, grid: extra.joined() }, face.surface, field, `${at}/sheet`);
}
