import { boxOf, polygonArea, type Place } from '../geometry/polygon';
import { pointAt } from '../geometry/vector';
import { cellOutline } from '../measure/cell-outline';
import { instancesOf } from '../part/element-table';
import { placesOf, trianglesOf } from '../part/places';
import { stockReader } from '../schedule/columns';
import type { GroupSource } from '../schedule/sources';
import { inDegrees } from '../units/scale';
import { flatPattern, type Fold, type FlatPattern } from '../unroll/flat-pattern';
import { outerSides } from '../unroll/outer-side';

/** Something flat that is drawn to be cut, or laid out: loops and folds in mm. */
export interface FlatView {
	readonly outline: readonly Place[];
	/** From each corner of the outline to the next (mm), and the angles inside (rad): true ones, though it be warped. */
	readonly lengths: readonly number[];
	readonly angles: readonly number[];
	readonly openings: readonly (readonly Place[])[];
	readonly folds: readonly Fold[];
	/** All corners are square, and it is said. */
	readonly isSquare: boolean;
	/** What is written under it, the first line bold. */
	readonly says: readonly string[];
}

/** Patterns of one piece that are drawn; the others are counted. */
const MOST = 6;
/** Openings of so many corners, all as far from their middle, are round: by no more than this share. */
const [ROUND_CORNERS, ROUND] = [8, 2e-3];

/** Angles that are off a right one by less (rad) are square: 0.02°. */
const SQUARE = 3.5e-4;

/** What corners of a ring come to: lengths of its edges and the angles inside. */
export function sizesOf(ring: readonly Place[]): { lengths: number[]; angles: number[] } {
	const n = ring.length;
	const way = (k: number) => {
		const [[ax, ay], [bx, by]] = [ring[(k + n) % n]!, ring[(k + 1) % n]!];
		return [bx - ax, by - ay] as const;
	};
	const lengths = ring.map((_, k) => Math.hypot(...way(k)));
	const angles = ring.map((_, k) => {
		const [[px, py], [x, y]] = [way(k - 1), way(k)];
		return Math.PI - Math.atan2(px * y - py * x, px * x + py * y);
	});
	return { lengths, angles };
}

/** A pattern turned so that its longest edge lies at its foot. */
function turnedToFoot(pattern: FlatPattern): FlatPattern {
	const { outline } = pattern;
	const { lengths } = sizesOf(outline);
	const longest = lengths.indexOf(Math.max(...lengths));
	const [[ax, ay], [bx, by]] = [outline[longest]!, outline[(longest + 1) % outline.length]!];
	const size = Math.hypot(bx - ax, by - ay) || 1;
	const [cos, sin] = [(bx - ax) / size, (by - ay) / size];
	const turned = ([x, y]: Place): Place => [(x - ax) * cos + (y - ay) * sin, (y - ay) * cos - (x - ax) * sin];
	return {
		...pattern,
		outline: outline.map(turned),
		openings: pattern.openings.map((ring) => ring.map(turned)),
		folds: pattern.folds.map((fold) => ({ ...fold, from: turned(fold.from), to: turned(fold.to) }))
	};
}

/**
 * The diameter of a round opening (mm); null for others.
 *
 * ```ts
 * diameterOf([[0, 0], [9, 0], [9, 9], [0, 9]]); // null
 * ```
 */
export function diameterOf(ring: readonly Place[]): number | null {
	if (ring.length < ROUND_CORNERS) return null;
	const [x, y] = ring.reduce(([sx, sy], [px, py]) => [sx + px / ring.length, sy + py / ring.length], [0, 0]);
	const radii = ring.map(([px, py]) => Math.hypot(px - x, py - y));
	const most = Math.max(...radii);
	return most - Math.min(...radii) <= ROUND * most ? 2 * most : null;
}

function saysOfOpenings(openings: FlatPattern['openings']): string[] {
	const counts = new Map<string, number>();
	for (const ring of openings) {
		const diameter = diameterOf(ring);
		const called = diameter === null ? '' : `Ø ${diameter.toFixed(1)}`;
		counts.set(called, (counts.get(called) ?? 0) + 1);
	}
	return [...counts].map(([called, count]) =>
		[`${count}`, called && 'round', count === 1 ? 'opening' : 'openings', called].filter(Boolean).join(' ')
	);
}

/** How a pattern comes to be flat. */
function saysOfLying({ off, cuts, folds, flat }: FlatPattern, isGlass: boolean): string {
	if (off === Infinity) return 'Folds over where it is laid flat: not to be cut by this';
	if (off > 0) return `Curved both ways: fitted, lengths up to ${off.toFixed(1)} mm off`;
	if (flat) return 'Flat';
	if (isGlass && folds.length) {
		const most = Math.max(...folds.map(({ angle }) => Math.abs(angle)));
		return `Warped: glass does not fold, and has to bend by ${inDegrees(most).toFixed(1)}°`;
	}
	const cut = cuts ? `, cut open along ${cuts === 1 ? 'one line' : `${cuts} lines`}` : '';
	return `Developed exactly${cut}${folds.length ? '; folds up are towards you' : ''}`;
}

/** What patterns that are alike have in common, whichever corner they begin with. */
function likeness({ outline, openings, folds }: FlatPattern): string {
	const { lengths, angles } = sizesOf(outline);
	const steps = lengths.map((length, k) => `${length.toFixed(1)}/${angles[k]!.toFixed(3)}`);
	let first = 0;
	const from = (k: number) => [...steps.slice(k), ...steps.slice(0, k)].join(' ');
	for (let k = 1; k < steps.length; k++) if (steps[k]! < steps[first]!) first = k;
	const holes = openings.map((ring) => polygonArea(ring).toFixed(0)).sort();
	return [from(first), ...holes, folds.map(({ angle }) => angle.toFixed(2)).sort()].join(';');
}

/** The cell that a piece stands on, laid into its middle plane. */
export function cellView({ face, group }: GroupSource, row: number): FlatView {
	const { corners, openings, lengths, angles } = cellOutline(face, group.sites[row]!);
	return {
		outline: corners,
		openings,
		lengths,
		angles,
		folds: [],
		isSquare: false,
		says: ['Cell, from grid line to grid line']
	};
}

/** A sheet of a piece laid flat, and how many of the piece are like it. */
export interface SheetPattern {
	readonly pattern: FlatPattern;
	/** As in Panel: Aluminium plate 4. */
	readonly called: string;
	readonly isGlass: boolean;
	readonly count: number;
}

/**
 * The sheets of a piece laid flat, those that are alike once.
 *
 * ```ts
 * const [first] = sourcesOf(model).map((source) => sheetPatterns(source, 0));
 * ```
 */
export function sheetPatterns({ face, group }: GroupSource, row: number): SheetPattern[] {
	const outward = pointAt(face.measures.normal, group.sites[row]!);
	const stockOf = stockReader();
	const found = new Map<string, SheetPattern>();
	for (const table of group.run.elements) {
		if (table.stock?.shape !== 'plate') continue;
		for (const k of instancesOf(table).of(row)) {
			const mesh = { vertices: placesOf(table.shape, k), triangles: trianglesOf(table.shape, k) };
			const { label, glass } = group.ready.materials[table.element]!;
			const called = [`${group.ready.elements[table.element]!.label}:`, label, stockOf(table, k) ?? ''].join(
				' '
			);
			for (const side of outerSides(mesh, table.stock.sizes[0]![k]!, outward)) {
				const pattern = turnedToFoot(flatPattern(side));
				const key = `${called};${likeness(pattern)}`;
				const known = found.get(key);
				const count = (known?.count ?? 0) + 1;
				found.set(key, { pattern: known?.pattern ?? pattern, called, isGlass: glass, count });
			}
		}
	}
	return [...found.values()];
}

/** The sheets of a piece as they are drawn; and how many more there are. */
export function sheetViews(
	source: GroupSource,
	row: number
): { readonly views: FlatView[]; readonly more: number } {
	const found = sheetPatterns(source, row);
	const views = found.slice(0, MOST).map(({ pattern, called, isGlass, count }): FlatView => {
		const { low, high } = boxOf(pattern.outline);
		const [wide, tall] = [high[0] - low[0], high[1] - low[1]];
		const { lengths, angles } = sizesOf(pattern.outline);
		const isSquare = angles.length === 4 && angles.every((angle) => Math.abs(angle - Math.PI / 2) < SQUARE);
		return {
			...pattern,
			folds: isGlass ? [] : pattern.folds,
			lengths,
			angles,
			isSquare,
			says: [
				count > 1 ? `${called}, ${count} ×` : called,
				`${wide.toFixed(1)} × ${tall.toFixed(1)} mm, ${(pattern.area / 1e6).toFixed(4)} m²`,
				`${saysOfLying(pattern, isGlass)}${isSquare ? ', all corners square' : ''}`,
				...saysOfOpenings(pattern.openings)
			]
		};
	});
	return { views, more: Math.max(0, found.length - MOST) };
}
