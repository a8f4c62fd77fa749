import { Delaunay } from 'd3-delaunay';
import type { Lattice } from '../../grid/lattice';
import type { NodeGrid } from '../../grid/node-grid';
import { polygonArea, side, type Place } from '../../geometry/polygon';
import { distanceToLine } from '../../geometry/follow';
import { pointAt, type Vector } from '../../geometry/vector';
import type { PatternOf } from '../../project/pattern-schema';
import { refuse } from '../../units/problem';
import { formatNumber } from '../../units/quantity';
import { CellMaker, clampStep, extentOf } from '../cell-maker';
import { CellList, type Cells } from '../cells';
import { ExtraNodes } from '../extra-nodes';
import type { LaidCells } from '../lay-tiles';
import { flatField, overSeams, toLattice, type FlatField } from './flat-field';
import { randomFrom } from './random';
import { ROUNDED, SAME_POINT, WHOLE } from '../../geometry/tolerance';

type Choice = PatternOf<'voronoi'>;

const ROUNDS = 200;
const MOST_SCATTERED = 100_000;

/** How dense points are to lie at a place, 0 to 1: thinner where cells grow. */
type Density = (place: Place) => number;

/** Places across and up of a field at which a density is looked up. */
const LOOKS = 48;

/** Cells that grow to so many times their size near a guide lie as much thinner, by the square. */
function densityNear(field: FlatField, strength: (place: Place) => number, grow: number): Density {
	const values = new Float64Array((LOOKS + 1) ** 2);
	for (let j = 0; j <= LOOKS; j++)
		for (let i = 0; i <= LOOKS; i++) {
			const at: Place = [(i / LOOKS) * field.width, (j / LOOKS) * field.height];
			values[j * (LOOKS + 1) + i] = 1 / (1 + grow * strength(at)) ** 2;
		}
	const look = (share: number) => Math.round(Math.min(1, Math.max(0, share)) * LOOKS);
	return ([x, y]) => values[look(y / field.height) * (LOOKS + 1) + look(x / field.width)]!;
}

/** Points spread at random, as dense by true length at every height. */
function spreadPoints(
	field: FlatField,
	lattice: Lattice,
	{ count, seed }: Choice,
	density: Density | null
): Place[] {
	const random = randomFrom(seed);
	const { courseLengths, rows } = lattice.grid;
	const longest = courseLengths.reduce((a, b) => Math.max(a, b), ROUNDED);
	const points: Place[] = [];
	for (let tries = 0; points.length < count && tries < ROUNDS * count; tries++) {
		const [x, y, keep] = [random() * field.width, random() * field.height, random()];
		const row = Math.min(rows - 1, Math.round((y / field.height) * (rows - 1)));
		const dense = density ? density([x, y]) : 1;
		if (keep <= (dense * courseLengths[row]!) / longest) points.push([x, y]);
	}
	return points;
}

/** The cells of points, cut to the field; those on a ring around it once more on every side. */
function cellsOf(points: readonly Place[], field: FlatField): Place[][] {
	const { width, height, across, up } = field;
	const all = overSeams(field).flatMap(([dx, dy]) => points.map(([x, y]): Place => [x + dx, y + dy]));
	const [left, right] = across.closed ? [-width, 2 * width] : [0, width];
	const [foot, head] = up.closed ? [-height, 2 * height] : [0, height];
	const voronoi = Delaunay.from(all as [number, number][]).voronoi([left, foot, right, head]);
	return points.map((_, k) => {
		const ring = (voronoi.cellPolygon(k) ?? []).slice(0, -1) as Place[];
		return polygonArea(ring) < 0 ? ring.reverse() : ring;
	});
}

/** The middle of a ring, weighed by a density. */
function weighedMiddle(ring: readonly Place[], density: Density): Place {
	const middle = centroid(ring);
	let [x, y, sum] = [0, 0, 0];
	ring.forEach((p, k) => {
		const q = ring[(k + 1) % ring.length]!;
		const at: Place = [(p[0] + q[0] + middle[0]) / 3, (p[1] + q[1] + middle[1]) / 3];
		const weight = density(at) * polygonArea([p, q, middle]);
		x += weight * at[0];
		y += weight * at[1];
		sum += weight;
	});
	return sum ? [x / sum, y / sum] : middle;
}

function centroid(ring: readonly Place[]): Place {
	let [x, y] = [0, 0];
	ring.forEach((p, k) => {
		const q = ring[(k + 1) % ring.length]!;
		const part = p[0] * q[1] - q[0] * p[1];
		x += (p[0] + q[0]) * part;
		y += (p[1] + q[1]) * part;
	});
	const area = 6 * polygonArea(ring);
	return area ? [x / area, y / area] : ring[0]!;
}

/** Corners nearer than the smallest edge made one, wherever cells meet in them. */
function withoutShortEdges(
	rings: Place[][],
	smallest: number,
	{ width, height, across, up }: FlatField
): Place[][] {
	if (!(smallest > 0)) return rings;
	const wrap = (t: number, size: number, closed: boolean) =>
		closed ? t - Math.floor(t / size + WHOLE) * size : t;
	const nameOf = ([x, y]: Place) =>
		[wrap(x, width, across.closed), wrap(y, height, up.closed)].map((t) => Math.round(t * 1e4)).join(' ');
	const onRim = ([x, y]: Place) => {
		const at = (t: number, size: number, closed: boolean) =>
			!closed && (t < SAME_POINT || t > size - SAME_POINT);
		return (at(x, width, across.closed) ? 1 : 0) + (at(y, height, up.closed) ? 1 : 0);
	};
	// What a corner moves by, relative to itself, so that it holds on every side of a ring.
	const moves = new Map<string, Place>();
	const moved = (p: Place): Place => {
		let here = p;
		for (let step = moves.get(nameOf(here)); step; step = moves.get(nameOf(here)))
			here = [here[0] + step[0], here[1] + step[1]];
		return here;
	};
	let left = rings;
	for (let round = 0; round < 6; round++) {
		let any = false;
		for (const ring of left)
			ring.forEach((a, k) => {
				const [p, q] = [moved(a), moved(ring[(k + 1) % ring.length]!)];
				const size = Math.hypot(q[0] - p[0], q[1] - p[1]);
				if (size < ROUNDED || size >= smallest) return;
				const [rimP, rimQ] = [onRim(p), onRim(q)];
				const to: Place =
					rimP === rimQ ? (rimP ? p : [(p[0] + q[0]) / 2, (p[1] + q[1]) / 2]) : rimP > rimQ ? p : q;
				if (rimP === 1 && rimQ === 1 && p[0] !== q[0] && p[1] !== q[1]) return;
				for (const end of [p, q])
					if (nameOf(end) !== nameOf(to)) moves.set(nameOf(end), [to[0] - end[0], to[1] - end[1]]);
				any = true;
			});
		left = left.map((ring) => {
			const places = ring.map(moved);
			return places.filter((p, k) => nameOf(p) !== nameOf(places[(k + places.length - 1) % places.length]!));
		});
		moves.clear();
		if (!any) break;
	}
	return left.filter((ring) => ring.length >= 3 && polygonArea(ring) > 1);
}

/** A convex ring less a margin all round; nothing when none of it is left. */
function inset(ring: readonly Place[], margin: number): Place[] {
	let left: Place[] = [...ring];
	ring.forEach((a, k) => {
		const b = ring[(k + 1) % ring.length]!;
		const size = Math.hypot(b[0] - a[0], b[1] - a[1]);
		if (size < ROUNDED) return;
		const inside = (p: Place) => side(a, b, p) / size - margin;
		left = left.flatMap((p, n) => {
			const q = left[(n + 1) % left.length]!;
			const [dp, dq] = [inside(p), inside(q)];
			const cut = (): Place => [
				p[0] + (dp / (dp - dq)) * (q[0] - p[0]),
				p[1] + (dp / (dp - dq)) * (q[1] - p[1])
			];
			if (dp >= 0) return dq >= 0 ? [p] : [p, cut()];
			return dq >= 0 ? [cut()] : [];
		});
	});
	return left;
}

/** Corners cut round, by a share of the sides beside them. */
function rounded(ring: readonly Place[], share: number): Place[] {
	const cut = Math.min(1, share) / 2;
	if (cut < 1e-3) return [...ring];
	const mix = (p: Place, q: Place, t: number): Place => [p[0] + t * (q[0] - p[0]), p[1] + t * (q[1] - p[1])];
	return ring.flatMap((p, k) => {
		const [before, after] = [ring[(k + ring.length - 1) % ring.length]!, ring[(k + 1) % ring.length]!];
		const [from, to] = [mix(p, before, cut), mix(p, after, cut)];
		return [0, 1 / 3, 2 / 3, 1].map((t) => mix(mix(from, p, t), mix(p, to, t), t));
	});
}

/** Of a cell's size: what is smaller can hardly be seen. */
const MOST_SHRINK = 0.95;
/** Of a cell's size: more than this much larger, there would be one of them. */
const MOST_GROWTH = 4;
/** A cell that comes to less than this share of its size has faded away. */
const FADED = 0.02;

function checkChoice({ count, evening, margin, near, size }: Choice, at: string): void {
	if (!Number.isInteger(count) || count < 3 || count > MOST_SCATTERED)
		refuse(
			`${at}/count`,
			`${count} cells cannot be scattered; 3 to ${formatNumber(MOST_SCATTERED)} are accepted`
		);
	if (!Number.isInteger(evening) || evening < 0 || evening > 50)
		refuse(`${at}/evening`, `evening ${evening} times cannot be done; 0 to 50 is accepted`);
	if (near)
		for (const [key, most] of [
			['shrink', MOST_SHRINK],
			['grow', MOST_GROWTH],
			['round', 1]
		] as const)
			if (!(near[key] >= 0 && near[key] <= most))
				refuse(
					`${at}/near/${key}`,
					`cells that ${key} by ${formatNumber(near[key], 3)} cannot be made; 0 to ${formatNumber(most, 2)} is accepted`
				);
	if (!(margin >= 0)) refuse(`${at}/margin`, `a margin of ${margin} mm is none; 0 mm or more is accepted`);
	if (typeof size === 'number' && !(size > FADED && size <= 1))
		refuse(
			`${at}/size`,
			`cells of ${formatNumber(size, 3)} of their size cannot be made; above ${FADED} up to 1 is accepted`
		);
}

/** What the sizes of scattered cells may follow, and where it is said. */
export type SizesOfCells = (cells: Cells, grid: NodeGrid) => Float64Array;

/** Cells as they are scattered, whole: what their sizes follow is read from them. */
function wholeCells(lattice: Lattice, rings: readonly Place[][], place: (at: Place) => Place) {
	const extra = new ExtraNodes(lattice);
	const list = new CellList();
	const { across, up } = lattice.grid;
	rings.forEach((ring, c) => {
		const middle = place(centroid(ring));
		list.push({
			corners: ring.map((at, k) => extra.at(`${c} ${k}`, () => ({ place: place(at) }))),
			outline: null,
			kind: 0,
			course: clampStep(middle[1], up) + 1,
			bay: clampStep(middle[0], across) + 1,
			slot: 1,
			polygon: 0,
			share: 1
		});
	});
	return { cells: list.cells(), grid: extra.joined() };
}

/** Shapes of scattered cells in the flat field of their face (mm), counter-clockwise. */
export interface ScatteredShapes {
	readonly field: FlatField;
	readonly shapes: readonly (readonly Place[])[];
}

/**
 * Cells around scattered points, spread and measured by true length on the belt lines, so that they are as
 * large on the face as was asked for.
 * @param guides points of the guides, by their id
 * @param sizesOn what each is to be of its own size, where that follows something
 * @throws ProblemError for values that cannot be
 */
export function scatteredShapes(
	lattice: Lattice,
	choice: Choice,
	guides: ReadonlyMap<string, readonly Vector[]>,
	sizesOn: SizesOfCells | null,
	at: string
): ScatteredShapes {
	checkChoice(choice, at);
	const { evening, margin, near, size } = choice;
	const field = flatField(lattice.grid);
	const guide = near ? guides.get(near.guide) : undefined;
	if (near && !guide?.length)
		refuse(`${at}/near`, `the guide "${near.guide}" does not exist; choose another, or none`);
	const place = toLattice(field);
	/** How strongly the guide works at a place of the field: 1 on it, 0 out of its reach. */
	const strengthAt = (middle: Place): number => {
		if (!near || !guide) return 0;
		const { point } = lattice.evaluate(...lattice.parameters(...place(middle)));
		return Math.max(0, 1 - distanceToLine(guide, pointAt(point, 0)) / Math.max(1, near.reach));
	};
	const density = near && near.grow > 0 ? densityNear(field, strengthAt, near.grow) : null;
	let points = spreadPoints(field, lattice, choice, density);
	for (let round = 0; round < evening; round++)
		points = cellsOf(points, field).map((ring) => {
			const [x, y] = density ? weighedMiddle(ring, density) : centroid(ring);
			const wrap = (t: number, size: number, closed: boolean) =>
				closed ? t - Math.floor(t / size) * size : t;
			return [wrap(x, field.width, field.across.closed), wrap(y, field.height, field.up.closed)];
		});
	const rings = withoutShortEdges(cellsOf(points, field), choice.smallest, field);
	const sizes = (() => {
		if (!sizesOn) return null;
		const { cells, grid } = wholeCells(lattice, rings, place);
		return sizesOn(cells, grid);
	})();
	const shapes = rings.flatMap((ring, k): (readonly Place[])[] => {
		const shape: Place[] = margin > 0 ? inset(ring, margin) : ring;
		if (shape.length < 3) return [];
		const own = sizes ? sizes[k]! : typeof size === 'number' ? size : 1;
		if (own < FADED) return [];
		const strength = near ? strengthAt(centroid(shape)) : 0;
		const factor = Math.min(1, own) * (near ? 1 - near.shrink * strength : 1);
		const smaller = near || factor < 1 ? scaledAbout(centroid(shape), shape, factor) : shape;
		return [near ? rounded(smaller, near.round * strength) : smaller];
	});
	return { field, shapes };
}

const scaledAbout = (middle: Place, shape: readonly Place[], factor: number): Place[] =>
	shape.map(([x, y]): Place => [middle[0] + factor * (x - middle[0]), middle[1] + factor * (y - middle[1])]);

/** Scattered shapes as cells. */
export function scatteredCells(lattice: Lattice, { field, shapes }: ScatteredShapes): LaidCells {
	const place = toLattice(field);
	const extra = new ExtraNodes(lattice);
	const maker = new CellMaker(lattice.grid, 1, extra, true);
	for (const shape of shapes) {
		const outline = shape.map((p) => ({ at: place(p), through: false }));
		maker.put(outline, extentOf(outline), 0, 0, 0);
	}
	return { cells: maker.cells(), grid: extra.joined() };
}
