import type { CellColours } from '$lib/model/paint';
import { edgeOnMap, toX, toY, type Head, type MapSheet, type MapView } from './map-sheets';

type Pen = CanvasRenderingContext2D;

const LABEL_FONT = '500 10.5px "Spline Sans Mono Variable", monospace';

/** A cell's outline. Closed by a line: `closePath` measures the whole path each time. */
function trace(pen: Pen, view: MapView, sheet: MapSheet, c: number): void {
	const { start } = sheet.face.cells;
	const { points } = sheet.layout;
	const from = start[c]!;
	const firstX = toX(view, sheet, points[2 * from]!);
	const firstY = toY(view, points[2 * from + 1]!);
	pen.moveTo(firstX, firstY);
	for (let k = from + 1; k < start[c + 1]!; k++)
		pen.lineTo(toX(view, sheet, points[2 * k]!), toY(view, points[2 * k + 1]!));
	pen.lineTo(firstX, firstY);
}

let hatching: CanvasPattern | null = null;
/** Thin slanted lines for rim and cut cells. */
function hatch(pen: Pen): CanvasPattern {
	if (hatching) return hatching;
	const tile = document.createElement('canvas');
	tile.width = tile.height = 6;
	const tilePen = tile.getContext('2d')!;
	tilePen.strokeStyle = 'rgb(80 70 40 / 0.28)';
	tilePen.beginPath();
	for (const shift of [-6, 0, 6]) {
		tilePen.moveTo(shift, 6);
		tilePen.lineTo(shift + 6, 0);
	}
	tilePen.stroke();
	hatching = pen.createPattern(tile, 'repeat')!;
	return hatching;
}

/** Every cell in its colour, edge and cut cells hatched, outlines over them. */
export function drawCells(pen: Pen, view: MapView, sheet: MapSheet, { palette, of }: CellColours): void {
	const { cells } = sheet.face;
	const filled = (style: string | CanvasPattern, wanted: (c: number) => boolean) => {
		pen.beginPath();
		for (let c = 0; c < cells.count; c++) if (wanted(c)) trace(pen, view, sheet, c);
		pen.fillStyle = style;
		pen.fill();
	};
	palette.forEach((colour, k) => filled(colour, (c) => of[c] === k));
	filled(hatch(pen), (c) => cells.kind[c] !== 0);
	pen.beginPath();
	for (let c = 0; c < cells.count; c++) trace(pen, view, sheet, c);
	pen.strokeStyle = 'rgb(60 62 58 / 0.42)';
	pen.lineWidth = 0.8;
	pen.stroke();
}

export function drawHeads(pen: Pen, heads: readonly Head[]): void {
	pen.font = LABEL_FONT;
	pen.fillStyle = '#62665F';
	pen.textBaseline = 'middle';
	for (const { kind, n, x, y } of heads) {
		pen.textAlign = kind === 'course' ? 'right' : 'center';
		pen.fillText(`${kind === 'course' ? 'C' : 'B'}${String(n).padStart(2, '0')}`, x, y);
	}
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
	pen.fill();
	for (const e of edges) {
		const line = edgeOnMap(sheet, e);
		if (!line) continue;
		pen.moveTo(toX(view, sheet, line[0]), toY(view, line[1]));
		pen.lineTo(toX(view, sheet, line[2]), toY(view, line[3]));
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
			toX(view, sheet, points[2 * k]!) + 3,
			toY(view, points[2 * k + 1]!) - 6
		);
}
