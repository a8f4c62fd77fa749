import { differenceD, FillRule, intersectD, type PathD } from 'clipper2-ts';
import { boxOf, isWithin, polygonArea, type Place } from '../src/core/geometry/polygon';
import { clipPolygon, piecesOf } from '../src/core/geometry/clip/clip-polygon';
import { CurveBins, type ClipCurve } from '../src/core/geometry/clip/curve-bins';

/** 10,000 cells in the lattice, and a trim of 400 corners with a hole; for the bench and a check of areas. */
export const BAYS = 100;
const lines = Float64Array.from({ length: BAYS + 1 }, (_, k) => k);

const wavy = (corners: number, radius: number, wave: number, x: number, y: number): Place[] =>
	Array.from({ length: corners }, (_, k) => {
		const t = (2 * Math.PI * k) / corners;
		const r = radius + wave * Math.sin(9 * t);
		return [x + r * Math.cos(t), y + r * Math.sin(t)];
	});
export const outline = wavy(360, 38, 4, 50.3, 49.7);
/** Clockwise: what is left lies to the left of it. */
export const hole = wavy(40, 11, 1.5, 46.2, 52.1).reverse();

export const boxAt = (i: number, j: number): Place[] => [
	[i, j],
	[i + 1, j],
	[i + 1, j + 1],
	[i, j + 1]
];
export const curves: ClipCurve[] = [
	{ places: outline, closed: true },
	{ places: hole, closed: true }
];

/** Cells that a curve touches. */
export function touchedCells(all: readonly ClipCurve[] = curves): [number, number][] {
	const bins = binsOf(all);
	return Array.from({ length: BAYS * BAYS }, (_, k): [number, number] => [
		k % BAYS,
		Math.floor(k / BAYS)
	]).filter(([i, j]) => bins.isTouched(i, j));
}

/** The curves sorted into the steps they touch: made once for a trim. */
export const binsOf = (all: readonly ClipCurve[] = curves) => new CurveBins(all, lines, lines);

/** Area left of every touched cell, by our clipping. */
export function clipOurs(
	cells: readonly [number, number][],
	bins: CurveBins,
	isLeft = (p: Place) => isWithin(outline, p) && !isWithin(hole, p)
): number {
	let area = 0;
	for (const [i, j] of cells) {
		const cell = boxAt(i, j);
		const clipped = clipPolygon(cell, bins.near(boxOf(cell)), true);
		if (clipped.untouched && isLeft([i + 0.5, j + 0.5])) area++;
		for (const piece of piecesOf(clipped)) area += polygonArea(piece.map(({ at }) => at));
	}
	return area;
}

const path = (places: readonly Place[]): PathD => places.map(([x, y]) => ({ x, y }));
const areaOf = (paths: readonly PathD[]) =>
	paths.reduce((sum, one) => sum + polygonArea(one.map(({ x, y }): Place => [x, y])), 0);

/** What the trim leaves, for clipper2-ts: made once for a trim. */
export const regionOf = () => differenceD([path(outline)], [path(hole)], FillRule.NonZero, 8);

/** The same by clipper2-ts, a general-purpose library, cell by cell to 8 decimals. */
export function clipTheirs(cells: readonly [number, number][], region: PathD[]): number {
	let area = 0;
	for (const [i, j] of cells) area += areaOf(intersectD([path(boxAt(i, j))], region, FillRule.NonZero, 8));
	return area;
}
