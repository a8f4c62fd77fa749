import { rounded } from '../units/quantity';
import { differenceD, FillRule, intersectD, unionD, type PathD } from 'clipper2-ts';
import { boxOf, crosses, polygonArea, type Place } from '../geometry/polygon';
import type { TileDefinition } from '../project/pattern-schema';

/** Something wrong with a tile, and where. */
export interface TileFault {
	readonly text: string;
	/** Regions of the tile that it is about. */
	readonly where: readonly (readonly Place[])[];
}

/** Areas smaller than this share of a step are rounding. */
const NOTHING = 1e-6;
/** Decimals that the library computes with. */
const DECIMALS = 7;

const toPath = (places: readonly Place[]): PathD => places.map(([x, y]) => ({ x, y }));
const toPlaces = (path: PathD): Place[] => path.map(({ x, y }): Place => [x, y]);
const areaOf = (paths: readonly PathD[]) => paths.reduce((sum, path) => sum + polygonArea(toPlaces(path)), 0);
const area = (value: number) => rounded(value, 3);

/**
 * What overlaps in a tile that repeats, what is left uncovered, and what does not meet across its seam.
 * An empty list means that it covers the plane once.
 *
 * ```ts
 * const [first] = checkTile(tile).map(({ text }) => text);
 * ```
 */
export function checkTile({ across, up, polygons }: TileDefinition): TileFault[] {
	const faults: TileFault[] = [];
	polygons.forEach(({ points }, k) => {
		const name = `polygon ${k + 1}`;
		if (points.length < 3)
			faults.push({ text: `${name} has ${points.length} corners; 3 are needed`, where: [] });
		else if (crossesItself(points)) faults.push({ text: `${name} crosses itself`, where: [points] });
		else if (polygonArea(points) < 0)
			faults.push({
				text: `${name} goes round clockwise; draw its corners the other way round`,
				where: [points]
			});
	});
	if (faults.length) return faults;
	const shifts = [-1, 0, 1].flatMap((dj) => [-1, 0, 1].map((di) => [di * across, dj * up] as const));
	const moved = (points: readonly Place[], [dx, dy]: readonly [number, number]) =>
		toPath(points.map(([x, y]) => [x + dx, y + dy]));
	const boxes = polygons.map(({ points }) => boxOf(points));
	polygons.forEach(({ points }, k) => {
		for (let other = k; other < polygons.length; other++)
			for (const shift of shifts) {
				if (!boxesMeet(boxes[k]!, boxes[other]!, shift)) continue;
				if (other === k && (shift[1] < 0 || (shift[1] === 0 && shift[0] <= 0))) continue;
				const both = intersectD(
					[toPath(points)],
					[moved(polygons[other]!.points, shift)],
					FillRule.NonZero,
					DECIMALS
				);
				if (areaOf(both) < NOTHING) continue;
				const seam = shift[0] !== 0 || shift[1] !== 0;
				faults.push({
					text: `polygon ${k + 1} overlaps ${other === k ? 'its own copy' : `polygon ${other + 1}`}${seam ? ' across the seam' : ''} by ${area(areaOf(both))} steps`,
					where: both.map(toPlaces)
				});
			}
	});
	const whole: Place[] = [
		[0, 0],
		[across, 0],
		[across, up],
		[0, up]
	];
	const all = polygons.flatMap(({ points }) => shifts.map((shift) => moved(points, shift)));
	const gaps = polygons.length
		? differenceD([toPath(whole)], unionD(all, [], FillRule.NonZero, DECIMALS), FillRule.NonZero, DECIMALS)
		: [toPath(whole)];
	if (areaOf(gaps) > NOTHING)
		faults.push({
			text: `${area(areaOf(gaps))} of ${across * up} steps are covered by no polygon`,
			where: gaps.map(toPlaces)
		});
	return faults;
}

type Box = ReturnType<typeof boxOf>;

/** Whether two boxes, the second moved, have some area in common. */
function boxesMeet(a: Box, b: Box, shift: readonly [number, number]): boolean {
	return shift.every((by, axis) => a.low[axis]! < b.high[axis]! + by && b.low[axis]! + by < a.high[axis]!);
}

function crossesItself(points: readonly Place[]): boolean {
	return points.some((a, k) => {
		const b = points[(k + 1) % points.length]!;
		return points.some(
			(c, n) =>
				n > k + 1 && (n + 1) % points.length !== k && crosses(a, b, c, points[(n + 1) % points.length]!)
		);
	});
}
