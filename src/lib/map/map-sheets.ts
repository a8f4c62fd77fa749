import { isWithin, type Place } from '$core/geometry/polygon';
import type { FaceView } from '$lib/worker/views';
import { flatLayout, type FlatLayout } from './layout';

/** A face on the map: its layout, and how far it is moved to stand beside the one before (mm). */
export interface MapSheet {
	readonly face: FaceView;
	readonly layout: FlatLayout;
	readonly offset: number;
}

/** Room between the faces of a zone for the heads of the courses: of their widths, and of their height. */
const OF_WIDTH = 0.06;
const OF_HEIGHT = 0.3;

/** mm */
function gapOf(layouts: readonly FlatLayout[]): number {
	const width = layouts.reduce((sum, { left, right }) => sum + right - left, 0);
	return Math.max(OF_WIDTH * width, OF_HEIGHT * Math.max(0, ...layouts.map(({ height }) => height)));
}

/** The faces of a zone side by side, from the left. */
export function mapSheets(faces: readonly FaceView[]): MapSheet[] {
	const layouts = faces.map(flatLayout);
	const gap = gapOf(layouts);
	let at = 0;
	return faces.map((face, f) => {
		const layout = layouts[f]!;
		const offset = at - layout.left;
		at += layout.right - layout.left + gap;
		return { face, layout, offset };
	});
}

/** Width and height of all sheets (mm), never nothing. */
export function extentOf(sheets: readonly MapSheet[]): { width: number; height: number } {
	const layouts = sheets.map(({ layout }) => layout);
	const gap = gapOf(layouts);
	const width = layouts.reduce((sum, { left, right }) => sum + right - left + gap, -gap);
	return { width: Math.max(1, width), height: Math.max(1, ...sheets.map(({ layout }) => layout.height)) };
}

/** From millimetres on the map to pixels of its canvas, y upward to y downward. */
export interface MapView {
	readonly scale: number;
	readonly originX: number;
	readonly originY: number;
}

export const toX = (view: MapView, sheet: MapSheet, x: number) =>
	view.originX + (x + sheet.offset) * view.scale;
export const toY = (view: MapView, y: number) => view.originY - y * view.scale;

/** The cell under a point of the canvas. */
export function cellAt(
	sheets: readonly MapSheet[],
	view: MapView,
	px: number,
	py: number
): { f: number; c: number } | null {
	const y = (view.originY - py) / view.scale;
	for (const [f, { face, layout, offset }] of sheets.entries()) {
		const x = (px - view.originX) / view.scale - offset;
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

export interface Box {
	readonly x: number;
	readonly y: number;
	readonly width: number;
	readonly height: number;
}

/** The cells whose middle lies where it is asked for on the canvas (px). */
function cellsWhere(
	sheets: readonly MapSheet[],
	view: MapView,
	holds: (x: number, y: number) => boolean
): { f: number; c: number }[] {
	const found: { f: number; c: number }[] = [];
	for (const [f, sheet] of sheets.entries())
		for (let c = 0; c < sheet.face.cells.count; c++) {
			const middle = middleOfCell(sheet, c);
			if (holds(toX(view, sheet, middle.x), toY(view, middle.y))) found.push({ f, c });
		}
	return found;
}

/** The cells in a box on the canvas. */
export const cellsInBox = (sheets: readonly MapSheet[], view: MapView, box: Box) =>
	cellsWhere(
		sheets,
		view,
		(x, y) => x >= box.x && x <= box.x + box.width && y >= box.y && y <= box.y + box.height
	);

/** The cells within a line drawn round them on the canvas, its ends joined. */
export const cellsInLasso = (sheets: readonly MapSheet[], view: MapView, line: readonly Place[]) =>
	cellsWhere(sheets, view, (x, y) => isWithin(line, [x, y]));

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

/** The head of a course or a bay, at its place on the canvas. */
export interface Head {
	readonly kind: 'course' | 'bay';
	/** Counted from 1. */
	readonly n: number;
	readonly x: number;
	readonly y: number;
}

export const MARGIN = { left: 52, right: 26, top: 18, bottom: 44 };

/** Heads that fit without touching. */
export function headsOf(sheet: MapSheet, view: MapView, size: { width: number; height: number }): Head[] {
	const { up, across, courseLengths } = sheet.face.grid;
	const heads: Head[] = [];
	const left = Math.max(MARGIN.left - 8, toX(view, sheet, sheet.layout.left) - 8);
	let lastY = Infinity;
	for (let j = 0; j < up.steps; j++) {
		const share = (up.division.fractions[j]! + up.division.fractions[j + 1]!) / 2;
		const y = toY(view, share * up.lengths.belt);
		if (lastY - y < 14 || y < 8 || y > size.height - MARGIN.bottom + 6) continue;
		lastY = y;
		heads.push({ kind: 'course', n: j + 1, x: left, y });
	}
	const foot = Math.min(size.height - 26, toY(view, 0) + 15);
	let lastX = -Infinity;
	for (let i = 0; i < across.steps; i++) {
		const share = (across.division.fractions[i]! + across.division.fractions[i + 1]!) / 2 - 0.5;
		const x = toX(view, sheet, share * (courseLengths[0] ?? 0));
		// A head of three digits is wider than one of two.
		if (x - lastX < (i < 99 ? 28 : 35) || x < MARGIN.left || x > size.width - 12) continue;
		lastX = x;
		heads.push({ kind: 'bay', n: i + 1, x, y: foot });
	}
	return heads;
}

/** The head under a point of the canvas. */
export function headAt(heads: readonly Head[], px: number, py: number): Head | undefined {
	return heads.find(
		({ kind, x, y }) => Math.abs(px - x + (kind === 'course' ? 10 : 0)) < 16 && Math.abs(py - y) < 8
	);
}
