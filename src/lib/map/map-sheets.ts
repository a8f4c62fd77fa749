import type { FaceView } from '$lib/worker/views';
import { flatLayout, type FlatLayout } from '$core/measure/flat-layout';

/** A face on the map: its layout, and where it lies there. */
export interface MapSheet {
	readonly face: FaceView;
	readonly layout: FlatLayout;
	/** Courses run to the right and bays downward: of tall faces more is seen so. */
	readonly turned: boolean;
	/** How far it is moved (mm): its middle line, or where it is turned its foot, and its foot or its middle line. */
	readonly right: number;
	readonly up: number;
}

/** From millimetres on the map to pixels of its canvas, y upward to y downward. */
export interface MapView {
	readonly scale: number;
	readonly originX: number;
	readonly originY: number;
}

interface Size {
	readonly width: number;
	readonly height: number;
}

/** Room between faces: for the heads of courses beside them, for names and heads of bays over and under (px). */
export const GAP = { across: 64, up: 44 };
/** A face is turned when it is drawn larger by this factor then. */
const WORTH_TURNING = 1.3;
/** The room that is filled when there is none yet (px). */
const SOME_ROOM: Size = { width: 800, height: 160 };

/** Sizes of faces put in rows, in their order, as even as it goes. */
function inRows(sizes: readonly Size[], rows: number): number[][] {
	const whole = sizes.reduce((sum, { width }) => sum + width, 0);
	const made: number[][] = [[]];
	let at = 0;
	sizes.forEach(({ width }, f) => {
		if (at + width / 2 > (whole * made.length) / rows && made.at(-1)!.length && made.length < rows)
			made.push([]);
		made.at(-1)!.push(f);
		at += width;
	});
	return made;
}

/** How large rows of faces are drawn in a room (px by mm). */
function scaleOf(rows: readonly number[][], sizes: readonly Size[], room: Size): number {
	const width = Math.max(
		...rows.map(
			(row) =>
				row.reduce((sum, f) => sum + sizes[f]!.width, 0) /
				Math.max(1, room.width - GAP.across * (row.length - 1))
		)
	);
	const high = rows.reduce((sum, row) => sum + Math.max(...row.map((f) => sizes[f]!.height)), 0);
	return 1 / Math.max(1e-9, width, high / Math.max(1, room.height - GAP.up * (rows.length - 1)));
}

/** The faces of a zone on a map: in as many rows, turned or not, as lets them be largest. @param room of the map (px) */
export function mapSheets(faces: readonly FaceView[], room: Size = SOME_ROOM): MapSheet[] {
	if (!faces.length) return [];
	const layouts = faces.map(flatLayout);
	const upright = layouts.map(({ left, right, height }) => ({ width: right - left, height }));
	let best = { scale: 0, rows: [] as number[][], sizes: upright, turned: false };
	for (const turned of [false, true]) {
		const sizes = turned ? upright.map(({ width, height }) => ({ width: height, height: width })) : upright;
		for (let count = 1; count <= faces.length; count++) {
			const rows = inRows(sizes, count);
			const scale = scaleOf(rows, sizes, room);
			if (scale > best.scale * (turned && !best.turned ? WORTH_TURNING : 1.001))
				best = { scale, rows, sizes, turned };
		}
	}
	const { rows, sizes, scale, turned } = best;
	const sheets: MapSheet[] = [];
	let top =
		rows.reduce((sum, row) => sum + Math.max(...row.map((f) => sizes[f]!.height)), 0) +
		((rows.length - 1) * GAP.up) / scale;
	for (const row of rows) {
		const high = Math.max(...row.map((f) => sizes[f]!.height));
		let at = 0;
		for (const f of row) {
			const layout = layouts[f]!;
			const foot = top - high;
			sheets.push({
				face: faces[f]!,
				layout,
				turned,
				right: turned ? at : at - layout.left,
				up: turned ? foot + layout.right : foot
			});
			at += sizes[f]!.width + GAP.across / scale;
		}
		top -= high + GAP.up / scale;
	}
	return sheets;
}

/** Where a sheet lies on the map (mm): left, right, foot and head. */
export function reachOf({ layout, turned, right, up }: MapSheet): [number, number, number, number] {
	return turned
		? [right, right + layout.height, up - layout.right, up - layout.left]
		: [right + layout.left, right + layout.right, up, up + layout.height];
}

/** Width and height of all sheets (mm), never nothing. */
export function extentOf(sheets: readonly MapSheet[]): Size {
	const reaches = sheets.map(reachOf);
	return {
		width: Math.max(1, ...reaches.map(([, right]) => right)),
		height: Math.max(1, ...reaches.map(([, , , head]) => head))
	};
}

/** Pixels of a place on a sheet (mm). */
export const toX = ({ scale, originX }: MapView, { turned, right }: MapSheet, x: number, y: number) =>
	originX + (right + (turned ? y : x)) * scale;
export const toY = ({ scale, originY }: MapView, { turned, up }: MapSheet, x: number, y: number) =>
	originY - (up + (turned ? -x : y)) * scale;

/** The place on a sheet under a point of the canvas (mm). */
export function placeUnder(
	{ scale, originX, originY }: MapView,
	{ turned, right, up }: MapSheet,
	px: number,
	py: number
): [number, number] {
	const [a, b] = [(px - originX) / scale - right, (originY - py) / scale - up];
	return turned ? [-b, a] : [a, b];
}

/** The cell under a point of the canvas. */
export function cellAt(
	sheets: readonly MapSheet[],
	view: MapView,
	px: number,
	py: number
): { f: number; c: number } | null {
	for (const [f, sheet] of sheets.entries()) {
		const { face, layout } = sheet;
		const [x, y] = placeUnder(view, sheet, px, py);
		const { cells } = face;
		const { points } = layout;
		// Openings come after the cell that they are in.
		for (let c = cells.count - 1; c >= 0; c--) {
			let inside = false;
			const from = cells.start[c]!;
			const to = cells.start[c + 1]!;
			for (let k = from, p = to - 1; k < to; p = k++) {
				const ay = points[2 * k + 1]!;
				const by = points[2 * p + 1]!;
				if (ay > y === by > y) continue;
				const ax = points[2 * k]!;
				const bx = points[2 * p]!;
				if (x < ((bx - ax) * (y - ay)) / (by - ay) + ax) inside = !inside;
			}
			if (inside) return { f, c };
		}
	}
	return null;
}

/** A corner of a cell: its sheet, its place among the corners, and where it is drawn (px). */
export interface MapCorner {
	readonly f: number;
	readonly k: number;
	readonly x: number;
	readonly y: number;
}

/** Where a corner is drawn. @param k its place among the corners of all cells of the sheet */
export function cornerOnMap(sheets: readonly MapSheet[], view: MapView, f: number, k: number): MapCorner {
	const sheet = sheets[f]!;
	const { points } = sheet.layout;
	const [x, y] = [points[2 * k]!, points[2 * k + 1]!];
	return { f, k, x: toX(view, sheet, x, y), y: toY(view, sheet, x, y) };
}

/** The nearest corner within reach of a point of the canvas (px). */
export function cornerAt(
	sheets: readonly MapSheet[],
	view: MapView,
	px: number,
	py: number,
	reach: number
): MapCorner | null {
	let best: MapCorner | null = null;
	let least = reach;
	for (const [f, { face }] of sheets.entries())
		for (let k = 0; k < face.cells.corners.length; k++) {
			const corner = cornerOnMap(sheets, view, f, k);
			const far = Math.hypot(corner.x - px, corner.y - py);
			if (far < least) [best, least] = [corner, far];
		}
	return best;
}

/** The corner that stands at a place of the model (mm), if one does. */
export function cornerOfPlace(
	sheets: readonly MapSheet[],
	view: MapView,
	place: readonly [number, number, number],
	within: number
): MapCorner | null {
	for (const [f, { face }] of sheets.entries()) {
		const { positions } = face.grid;
		for (let k = 0; k < face.cells.corners.length; k++) {
			const node = 3 * face.cells.corners[k]!;
			if (place.every((value, a) => Math.abs(value - positions[node + a]!) < within))
				return cornerOnMap(sheets, view, f, k);
		}
	}
	return null;
}

/** The middle of a cell's corners on the map (mm). */
export function middleOfCell({ face, layout }: Pick<MapSheet, 'face' | 'layout'>, c: number) {
	const from = face.cells.start[c]!;
	const to = face.cells.start[c + 1]!;
	let x = 0;
	let y = 0;
	for (let k = from; k < to; k++) {
		x += layout.points[2 * k]!;
		y += layout.points[2 * k + 1]!;
	}
	return { x: x / (to - from), y: y / (to - from) };
}

/** The cells whose middle lies where it is asked for on the canvas (px). */
export function cellsWhere(
	sheets: readonly MapSheet[],
	view: MapView,
	holds: (x: number, y: number) => boolean
): { f: number; c: number }[] {
	const found: { f: number; c: number }[] = [];
	for (const [f, sheet] of sheets.entries())
		for (let c = 0; c < sheet.face.cells.count; c++) {
			const middle = middleOfCell(sheet, c);
			if (holds(toX(view, sheet, middle.x, middle.y), toY(view, sheet, middle.x, middle.y)))
				found.push({ f, c });
		}
	return found;
}

/** An edge's place on the map: the side of its left cell between its two nodes; x y x y in mm. */
export function edgeOnMap({ face, layout }: MapSheet, e: number): [number, number, number, number] | null {
	const { cells, edges } = face;
	const c = edges.left[e]!;
	const at = (node: number) => {
		for (let k = cells.start[c]!; k < cells.start[c + 1]!; k++) if (cells.corners[k] === node) return k;
		return -1;
	};
	const [a, b] = [at(edges.from[e]!), at(edges.to[e]!)];
	if (a < 0 || b < 0) return null;
	const { points } = layout;
	return [points[2 * a]!, points[2 * a + 1]!, points[2 * b]!, points[2 * b + 1]!];
}

/** The head of a course or a bay, at its place on the canvas; it ends there, or has its middle there. */
export interface Head {
	readonly kind: 'course' | 'bay';
	/** Counted from 1. */
	readonly n: number;
	readonly x: number;
	readonly y: number;
	/** It stands in a column with others, not in a line. */
	readonly stacked: boolean;
}

export const MARGIN = { left: 56, right: 26, top: 18, bottom: 44 };

/** Heads that fit without touching: of courses at the left and bays at the foot, the other way where a sheet is turned. */
export function headsOf(sheet: MapSheet, view: MapView, size: Size): Head[] {
	const { up, across, courseLengths } = sheet.face.grid;
	const middle = (fractions: ArrayLike<number>, k: number) => (fractions[k]! + fractions[k + 1]!) / 2;
	const courses = Array.from({ length: up.steps }, (_, j): [number, number] => [
		0,
		middle(up.division.fractions, j) * up.lengths.belt
	]);
	const bays = Array.from({ length: across.steps }, (_, i): [number, number] => [
		(middle(across.division.fractions, i) - 0.5) * (courseLengths[0] ?? 0),
		0
	]);
	const [left, , foot] = reachOf(sheet);
	const beside = Math.max(MARGIN.left - 8, view.originX + left * view.scale - 8);
	const under = Math.min(size.height - 26, view.originY - foot * view.scale + 15);
	const heads: Head[] = [];
	let last = Infinity;
	const stacked = (kind: Head['kind'], places: readonly [number, number][]) => {
		last = Infinity;
		places.forEach(([x, y], k) => {
			const at = toY(view, sheet, x, y);
			if (Math.abs(last - at) < 14 || at < 8 || at > size.height - MARGIN.bottom + 6) return;
			last = at;
			heads.push({ kind, n: k + 1, x: beside, y: at, stacked: true });
		});
	};
	const inLine = (kind: Head['kind'], places: readonly [number, number][]) => {
		last = -Infinity;
		places.forEach(([x, y], k) => {
			const at = toX(view, sheet, x, y);
			// A head of three digits is wider than one of two.
			if (Math.abs(at - last) < (k < 99 ? 28 : 35) || at < MARGIN.left || at > size.width - 12) return;
			last = at;
			heads.push({ kind, n: k + 1, x: at, y: under, stacked: false });
		});
	};
	stacked(sheet.turned ? 'bay' : 'course', sheet.turned ? bays : courses);
	inLine(sheet.turned ? 'course' : 'bay', sheet.turned ? courses : bays);
	return heads;
}

/** The head under a point of the canvas. */
export function headAt(heads: readonly Head[], px: number, py: number): Head | undefined {
	return heads.find(
		({ stacked, x, y }) => Math.abs(px - x + (stacked ? 10 : 0)) < 16 && Math.abs(py - y) < 8
	);
}
