import { distanceToLine } from '../geometry/follow';
import { isWithin, type Place } from '../geometry/polygon';
import { cross, dot, length, pointAt, scale, subtract, type Vector } from '../geometry/vector';
import { reckon, type ColumnReader } from './column';
import { field, type Field, type FieldSource } from './field';
import { nameInFormulas } from './followed';
import type { SiteKind } from './site-kind';

/** Middles of cells and of lines, and nodes: what is measured to. */
type Placed = 'cell' | 'line' | 'node';
const isPlaced = (over: SiteKind): over is Placed => over === 'cell' || over === 'line' || over === 'node';
const needs = { cell: ['measures'], line: ['edges', 'grid'], node: ['grid'] } as const;

function placeOf(
	over: Placed,
	source: Pick<FieldSource, 'measures' | 'edges' | 'grid'>
): (site: number) => Vector {
	if (over === 'cell') return (c) => pointAt(source.measures.centre, c);
	const { positions } = source.grid;
	if (over === 'node') return (n) => pointAt(positions, n);
	const { from, to } = source.edges;
	return (e) => scale(sum(pointAt(positions, from[e]!), pointAt(positions, to[e]!)), 0.5);
}
const sum = (a: Vector, b: Vector): Vector => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];

/** A closed line as it is seen square to the plane in which it lies most. */
function seenSquare(line: readonly Vector[]): (point: Vector) => Place {
	const [origin] = line;
	let normal: Vector = [0, 0, 0];
	for (let k = 0; k < line.length; k++)
		normal = sum(normal, cross(subtract(line[k]!, origin!), subtract(line[(k + 1) % line.length]!, origin!)));
	const size = length(normal);
	const n: Vector = size > 0 ? scale(normal, 1 / size) : [0, 0, 1];
	const level: Vector = Math.abs(n[2]) < 0.9 ? [-n[1], n[0], 0] : [1, 0, 0];
	const right = scale(level, 1 / length(level));
	const x = subtract(right, scale(n, dot(right, n)));
	const y = cross(n, x);
	return (point) => {
		const way = subtract(point, origin!);
		return [dot(way, x), dot(way, y)];
	};
}

function within(line: readonly Vector[], place: (site: number) => Vector, sites: Uint32Array): ColumnReader {
	if (line.length < 3) return reckon(sites, () => 0);
	const seen = seenSquare(line);
	const loop = line.map(seen);
	return reckon(sites, (site) => Number(isWithin(loop, seen(place(site)))));
}

/**
 * How far places are from each guide (mm), and whether they lie within it, taken as closed and seen square to the
 * plane in which it lies most.
 *
 * ```ts
 * const names = guideFields('cell', ['tide-line']).map(({ name }) => name); // distance.tide_line, inside.tide_line
 * ```
 */
export function guideFields(over: SiteKind, guides: readonly string[]): Field[] {
	if (!isPlaced(over)) return [];
	return guides.flatMap((id) => [
		field(
			over,
			`distance.${nameInFormulas(id)}`,
			`distance from ${id}`,
			'length',
			[...needs[over], 'guides'],
			(source, sites) => {
				const line = source.guides.get(id)!;
				const place = placeOf(over, source);
				return reckon(sites, (site) => distanceToLine(line, place(site)));
			},
			({ guides }) => guides?.get(id)
		),
		field(
			over,
			`inside.${nameInFormulas(id)}`,
			`inside ${id}`,
			'switch',
			[...needs[over], 'guides'],
			(source, sites) => within(source.guides.get(id)!, placeOf(over, source), sites),
			({ guides }) => guides?.get(id)
		)
	]);
}

/**
 * The guides that formulas follow, of those there are.
 *
 * ```ts
 * guidesIn(['distance.wave / 4'], [{ id: 'wave' }, { id: 'edge' }]); // wave
 * ```
 */
export const guidesIn = (texts: readonly string[], guides: readonly { readonly id: string }[]): string[] =>
	guides
		.map(({ id }) => id)
		.filter((id) => {
			const named = new RegExp(`\\b(?:distance|inside)\\.${nameInFormulas(id)}\\b`);
			return texts.some((text) => named.test(text));
		});
