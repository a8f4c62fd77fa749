import { two } from '$core/cladding/address';
import { cellKinds } from '$core/pattern/cells';
import type { CellColours } from '$lib/model/paint';
import { openingsIn } from '$core/pattern/cells';
import { edgeOnMap, GAP, reachOf, toX, toY, type Head, type MapSheet, type MapView } from './map-sheets';

type Pen = CanvasRenderingContext2D;

/** Between the names of faces beside each other (px). */
const BESIDE_NAMES = 10;
const LABEL_FONT = '500 10.5px "Spline Sans Mono Variable", monospace';

/** A cell's outline, and those of the openings in it: filled by *evenodd*, they stay open. */
function trace(pen: Pen, view: MapView, sheet: MapSheet, c: number): void {
	traceRing(pen, view, sheet, c);
	for (const opening of openingsIn(sheet.face.cells, c)) traceRing(pen, view, sheet, opening);
}

/** Closed by a line: `closePath` measures the whole path each time. */
function traceRing(pen: Pen, view: MapView, sheet: MapSheet, c: number): void {
	const { start } = sheet.face.cells;
	const { points } = sheet.layout;
	const from = start[c]!;
	const firstX = toX(view, sheet, points[2 * from]!, points[2 * from + 1]!);
	const firstY = toY(view, sheet, points[2 * from]!, points[2 * from + 1]!);
	pen.moveTo(firstX, firstY);
	for (let k = from + 1; k < start[c + 1]!; k++)
		pen.lineTo(
			toX(view, sheet, points[2 * k]!, points[2 * k + 1]!),
			toY(view, sheet, points[2 * k]!, points[2 * k + 1]!)
		);
	pen.lineTo(firstX, firstY);
}

type Hatch = 'rising' | 'level';
const hatches = new Map<Hatch, CanvasPattern>();
/** Thin lines: rising ones for rim and cut cells, level ones for cells of end strips. */
function hatch(pen: Pen, way: Hatch): CanvasPattern {
	const known = hatches.get(way);
	if (known) return known;
	const tile = document.createElement('canvas');
	tile.width = tile.height = 6;
	const tilePen = tile.getContext('2d')!;
	tilePen.strokeStyle = 'rgb(80 70 40 / 0.28)';
	tilePen.beginPath();
	for (const shift of [-6, 0, 6]) {
		tilePen.moveTo(way === 'rising' ? shift : 0, way === 'rising' ? 6 : 3.5);
		tilePen.lineTo(way === 'rising' ? shift + 6 : 6, way === 'rising' ? 0 : 3.5);
	}
	tilePen.stroke();
	const made = pen.createPattern(tile, 'repeat')!;
	hatches.set(way, made);
	return made;
}

const STRIP = cellKinds.indexOf('strip');
/** Cells smaller than this on the canvas are filled only: their outlines would be all there is to see (pixels). */
const OUTLINED = 2.5;

/** Cells in their colours, those that are not whole hatched, outlines over them; those beside the canvas left out. */
export function drawCells(
	pen: Pen,
	view: MapView,
	sheet: MapSheet,
	{ palette, of }: CellColours,
	size: { readonly width: number; readonly height: number },
	from = 0,
	to = sheet.face.cells.count
): void {
	const { cells, grid } = sheet.face;
	const { across, up } = grid;
	const { points } = sheet.layout;
	const reach = Math.max(40, (4 * view.scale * across.lengths.belt) / across.steps);
	const byTone: number[][] = palette.map(() => []);
	const cut: number[] = [];
	const strips: number[] = [];
	const shown: number[] = [];
	for (let c = from; c < to; c++) {
		const k = 2 * cells.start[c]!;
		const x = toX(view, sheet, points[k]!, points[k + 1]!);
		const y = toY(view, sheet, points[k]!, points[k + 1]!);
		if (x < -reach || y < -reach || x > size.width + reach || y > size.height + reach) continue;
		shown.push(c);
		byTone[of[c]!]!.push(c);
		if (cells.kind[c] === STRIP) strips.push(c);
		else if (cells.kind[c] !== 0) cut.push(c);
	}
	const filled = (style: string | CanvasPattern, list: readonly number[]) => {
		if (!list.length) return;
		pen.beginPath();
		for (const c of list) trace(pen, view, sheet, c);
		pen.fillStyle = style;
		pen.fill('evenodd');
	};
	palette.forEach((colour, k) => filled(colour, byTone[k]!));
	filled(hatch(pen, 'rising'), cut);
	filled(hatch(pen, 'level'), strips);
	const step = Math.min(across.lengths.belt / across.steps, up.lengths.belt / up.steps) * view.scale;
	if (step < OUTLINED) return;
	pen.beginPath();
	for (const c of shown) trace(pen, view, sheet, c);
	pen.strokeStyle = 'rgb(60 62 58 / 0.42)';
	pen.lineWidth = 0.8;
	pen.stroke();
}

const MOST_LABELS = 400;
/** Room that an address needs (pixels). */
const LABEL_ROOM = { width: 64, height: 15 };

/** Addresses of the cells that have room for them. */
export function drawAddresses(
	pen: Pen,
	view: MapView,
	sheet: MapSheet,
	size: { readonly width: number; readonly height: number }
): void {
	const { cells } = sheet.face;
	const { points } = sheet.layout;
	pen.font = LABEL_FONT;
	pen.fillStyle = '#3C3E3A';
	pen.strokeStyle = 'rgb(252 251 247 / 0.8)';
	pen.lineWidth = 3;
	pen.lineJoin = 'round';
	pen.textAlign = 'center';
	pen.textBaseline = 'middle';
	let labels = 0;
	for (let c = 0; c < cells.count && labels < MOST_LABELS; c++) {
		let [left, right, low, high, sumX, sumY] = [Infinity, -Infinity, Infinity, -Infinity, 0, 0];
		const count = cells.start[c + 1]! - cells.start[c]!;
		for (let k = cells.start[c]!; k < cells.start[c + 1]!; k++) {
			const x = toX(view, sheet, points[2 * k]!, points[2 * k + 1]!);
			const y = toY(view, sheet, points[2 * k]!, points[2 * k + 1]!);
			left = Math.min(left, x);
			right = Math.max(right, x);
			low = Math.min(low, y);
			high = Math.max(high, y);
			sumX += x;
			sumY += y;
		}
		if (right < 0 || left > size.width || high < 0 || low > size.height) continue;
		if (right - left < LABEL_ROOM.width || high - low < LABEL_ROOM.height) continue;
		labels++;
		const slot = cells.slot[c]! > 1 ? `·${cells.slot[c]}` : '';
		const text = `C${two(cells.course[c]!)} B${two(cells.bay[c]!)}${slot}`;
		// Read on whatever colour lies under it.
		pen.strokeText(text, sumX / count, sumY / count);
		pen.fillText(text, sumX / count, sumY / count);
	}
}

export function drawHeads(pen: Pen, heads: readonly Head[]): void {
	pen.font = LABEL_FONT;
	pen.fillStyle = '#62665F';
	pen.textBaseline = 'middle';
	for (const { kind, n, x, y, stacked } of heads) {
		pen.textAlign = stacked ? 'right' : 'center';
		pen.fillText(`${kind === 'course' ? 'C' : 'B'}${two(n)}`, x, y);
	}
}

/** A name in the room that it has (px): without what it is a part of, then without its beginning; its end tells it apart. */
export function nameWithin(name: string, room: number, widthOf: (text: string) => number): string {
	if (widthOf(name) <= room) return name;
	const own = name.split(' · ').at(-1)!;
	if (widthOf(own) <= room) return own;
	const words = own.split(' ');
	const ends = words.map((_, k) => `…${words.slice(k + 1).join(' ')}`).slice(0, -1);
	return ends.find((end) => widthOf(end) <= room) ?? '';
}

/** Which face a sheet is, above its head. */
export function drawFaceName(pen: Pen, view: MapView, sheet: MapSheet, name: string): void {
	const [left, right, , head] = reachOf(sheet);
	pen.font = LABEL_FONT;
	pen.fillStyle = '#62665F';
	pen.textAlign = 'center';
	pen.textBaseline = 'bottom';
	const room = (right - left) * view.scale + GAP.across - BESIDE_NAMES;
	pen.fillText(
		nameWithin(name, room, (text) => pen.measureText(text).width),
		view.originX + ((left + right) / 2) * view.scale,
		Math.max(12, view.originY - head * view.scale - 3)
	);
}

/** Selected cells tinted and outlined, selected edges as lines. */
export function drawSelection(
	pen: Pen,
	view: MapView,
	sheet: MapSheet,
	cells: readonly number[],
	edges: readonly number[]
): void {
	pen.beginPath();
	for (const c of cells) trace(pen, view, sheet, c);
	pen.fillStyle = 'rgb(217 142 31 / 0.55)';
	pen.fill('evenodd');
	for (const e of edges) {
		const line = edgeOnMap(sheet, e);
		if (!line) continue;
		pen.moveTo(toX(view, sheet, line[0], line[1]), toY(view, sheet, line[0], line[1]));
		pen.lineTo(toX(view, sheet, line[2], line[3]), toY(view, sheet, line[2], line[3]));
	}
	pen.lineWidth = 2;
	pen.strokeStyle = '#D98E1F';
	pen.stroke();
}

/** Numbers at the corners of a cell. */
export function drawCornerNumbers(pen: Pen, view: MapView, sheet: MapSheet, c: number): void {
	const { start } = sheet.face.cells;
	const { points } = sheet.layout;
	pen.font = LABEL_FONT;
	pen.fillStyle = '#1D2126';
	pen.textAlign = 'left';
	for (let k = start[c]!; k < start[c + 1]!; k++)
		pen.fillText(
			String(k - start[c]! + 1),
			toX(view, sheet, points[2 * k]!, points[2 * k + 1]!) + 3,
			toY(view, sheet, points[2 * k]!, points[2 * k + 1]!) - 6
		);
}

/** A guide as it runs over a face, with its name; a single point as a ring. */
export function drawGuide(
	pen: Pen,
	view: MapView,
	sheet: MapSheet,
	line: readonly (readonly [number, number])[],
	name: string
): void {
	const [first] = line;
	if (!first) return;
	pen.beginPath();
	const [firstX, firstY] = [toX(view, sheet, ...first), toY(view, sheet, ...first)];
	if (line.length === 1) pen.arc(firstX, firstY, 5, 0, 2 * Math.PI);
	line.forEach(([x, y], k) => {
		if (k === 0 && line.length > 1) pen.moveTo(firstX, firstY);
		else if (k) pen.lineTo(toX(view, sheet, x, y), toY(view, sheet, x, y));
	});
	pen.lineWidth = 1.8;
	pen.strokeStyle = '#1F7A6B';
	pen.stroke();
	pen.font = LABEL_FONT;
	pen.fillStyle = '#12594E';
	pen.textAlign = 'left';
	pen.fillText(name, firstX + 7, firstY - 8);
}
