import { distanceToLine } from '../geometry/follow';
import { pointAt, type Vector } from '../geometry/vector';
import type { NodeGrid } from '../grid/node-grid';
import type { CellMeasures } from '../measure/cell-measures';
import type { Cells } from '../pattern/cells';
import type { Edges } from '../pattern/edges';
import type { Nodes } from '../pattern/nodes';
import type { NumberKind } from '../units/dimension';
import { gather, reckon, type ColumnReader } from './column';
import type { SiteKind } from './site-kind';

/** What fields are read from, of one face. Whoever asks gives what there is. */
export interface FieldSource {
	readonly cells: Cells;
	readonly measures: CellMeasures;
	readonly edges: Edges;
	/** Angle between the cells beside every edge (rad). */
	readonly folds: Float64Array;
	readonly grid: Pick<NodeGrid, 'columns' | 'rows' | 'positions' | 'extraI' | 'extraJ' | 'off'>;
	/** The nodes where lines meet, reckoned when they are first asked for. */
	readonly nodes: () => Nodes;
	/** Points in a row: those of chain k are start[k] .. start[k + 1], flat x y z (mm). */
	readonly chains: { readonly start: Uint32Array; readonly positions: Float64Array };
	/** Guides as points that follow one another (mm), by their id. */
	readonly guides: ReadonlyMap<string, readonly Vector[]>;
}
export type Need = keyof FieldSource;

/**
 * What can be known of a site, as a column with a unit: mm, mm², rad, plain.
 * Formulas call it by its name, or with the kind of site before it (`cell.area`) where a part has that name itself.
 *
 * ```ts
 * const area = fieldOf('cell', 'area');
 * const mm2 = columnValues(area.column(faceModel, everySite(cells.count)), cells.count);
 * ```
 */
export interface Field {
	/** For good: settings and files name it so. */
	readonly id: string;
	readonly name: string;
	/** In the middle of a sentence. */
	readonly label: string;
	readonly kind: NumberKind;
	readonly over: SiteKind;
	readonly needs: readonly Need[];
	/** @param source at least what the field needs */
	column(source: Partial<FieldSource>, sites: Uint32Array): ColumnReader;
}

type Read<N extends Need> = (source: Pick<FieldSource, N>, sites: Uint32Array) => ColumnReader;

function field<N extends Need>(
	over: SiteKind,
	name: string,
	label: string,
	kind: NumberKind,
	needs: readonly N[],
	read: Read<N>
): Field {
	return {
		id: `${over}.${name}`,
		name,
		label,
		kind,
		over,
		needs,
		column: (source, sites) => read(source as Pick<FieldSource, N>, sites)
	};
}

const measure = (name: string, label: string, kind: NumberKind, of: keyof CellMeasures) =>
	field('cell', name, label, kind, ['measures'], ({ measures }, sites) => gather(sites, measures[of]));

/** How far the corners of a cell are from even true length, at most (mm). */
const offEven: Read<'cells' | 'grid'> = ({ cells, grid: { off } }, sites) =>
	reckon(sites, (c) => {
		let most = 0;
		for (let k = cells.start[c]!; k < cells.start[c + 1]!; k++)
			most = Math.max(most, off[cells.corners[k]!] ?? 0);
		return most;
	});

const ofCells: readonly Field[] = [
	measure('warp', 'warp', 'length', 'warp'),
	measure('area', 'area', 'area', 'area'),
	measure('perimeter', 'perimeter', 'length', 'perimeter'),
	measure('longest_edge', 'longest edge', 'length', 'longestEdge'),
	measure('shortest_edge', 'shortest edge', 'length', 'shortestEdge'),
	measure('smallest_angle', 'smallest angle', 'angle', 'smallestAngle'),
	measure('largest_angle', 'largest angle', 'angle', 'largestAngle'),
	field('cell', 'height', 'height', 'length', ['measures'], ({ measures }, sites) =>
		gather(sites, measures.centre, 3, 2)
	),
	field('cell', 'off_even', 'distance from even true length', 'length', ['cells', 'grid'], offEven),
	field('cell', 'share', 'share of the whole cell', 'ratio', ['cells'], ({ cells }, sites) =>
		gather(sites, cells.share)
	),
	field('cell', 'corners', 'corners', 'count', ['cells'], ({ cells: { start } }, sites) =>
		reckon(sites, (c) => start[c + 1]! - start[c]!)
	),
	field('cell', 'course', 'course', 'count', ['cells'], ({ cells }, sites) => gather(sites, cells.course)),
	field('cell', 'bay', 'bay', 'count', ['cells'], ({ cells }, sites) => gather(sites, cells.bay))
];

const endsOf = ({ edges, grid: { positions } }: Pick<FieldSource, 'edges' | 'grid'>, a: number, e: number) =>
	[positions[3 * edges.from[e]! + a]!, positions[3 * edges.to[e]! + a]!] as const;

const ofLines: readonly Field[] = [
	field('line', 'length', 'length', 'length', ['edges', 'grid'], (source, sites) =>
		reckon(sites, (e) => {
			const across = (a: number) => {
				const [from, to] = endsOf(source, a, e);
				return to - from;
			};
			return Math.hypot(across(0), across(1), across(2));
		})
	),
	field('line', 'height', 'height', 'length', ['edges', 'grid'], (source, sites) =>
		reckon(sites, (e) => {
			const [from, to] = endsOf(source, 2, e);
			return (from + to) / 2;
		})
	),
	field('line', 'fold', 'fold', 'angle', ['folds'], ({ folds }, sites) => gather(sites, folds)),
	field('line', 'course', 'course', 'count', ['edges'], ({ edges }, sites) => gather(sites, edges.course)),
	field('line', 'bay', 'bay', 'count', ['edges'], ({ edges }, sites) => gather(sites, edges.bay))
];

/** Lattice coordinates of nodes, whole on the grid itself. */
type Lattice = Pick<FieldSource['grid'], 'columns' | 'rows' | 'extraI' | 'extraJ'>;
const columnOf = ({ columns, rows, extraI }: Lattice, n: number) =>
	n < columns * rows ? n % columns : extraI[n - columns * rows]!;
const rowOf = ({ columns, rows, extraJ }: Lattice, n: number) =>
	n < columns * rows ? Math.floor(n / columns) : extraJ[n - columns * rows]!;

const ofNodes: readonly Field[] = [
	field('node', 'height', 'height', 'length', ['grid'], ({ grid }, sites) =>
		gather(sites, grid.positions, 3, 2)
	),
	field('node', 'lines', 'lines that meet there', 'count', ['nodes'], ({ nodes }, sites) => {
		const { start } = nodes();
		return reckon(sites, (n) => start[n + 1]! - start[n]!);
	}),
	field('node', 'course', 'course', 'count', ['grid'], ({ grid }, sites) =>
		reckon(sites, (n) => Math.floor(rowOf(grid, n)) + 1)
	),
	field('node', 'bay', 'bay', 'count', ['grid'], ({ grid }, sites) =>
		reckon(sites, (n) => Math.floor(columnOf(grid, n)) + 1)
	),
	field('node', 'across', 'share of the way across', 'ratio', ['grid'], ({ grid }, sites) =>
		reckon(sites, (n) => columnOf(grid, n) / Math.max(1, grid.columns - 1))
	),
	field('node', 'up', 'share of the way up', 'ratio', ['grid'], ({ grid }, sites) =>
		reckon(sites, (n) => rowOf(grid, n) / Math.max(1, grid.rows - 1))
	)
];

/** The name by which formulas know a guide: its id, with what a name cannot have written `_`. */
export const guideName = (id: string) => id.replaceAll('-', '_');

/** How far nodes are from each guide (mm). */
export const distanceFields = (guides: readonly string[]): Field[] =>
	guides.map((id) =>
		field(
			'node',
			`distance.${guideName(id)}`,
			`distance from ${id}`,
			'length',
			['grid', 'guides'],
			(source, sites) =>
				reckon(sites, (n) => distanceToLine(source.guides.get(id)!, pointAt(source.grid.positions, n)))
		)
	);

/** Of points in a row, which parts are tried on and hung on within others. */
const ofChains: readonly Field[] = [
	field('chain', 'length', 'length', 'length', ['chains'], ({ chains }, sites) =>
		reckon(sites, (k) => {
			const { start, positions } = chains;
			let sum = 0;
			for (let n = start[k]! + 1; n < start[k + 1]!; n++)
				sum += Math.hypot(...[0, 1, 2].map((a) => positions[3 * n + a]! - positions[3 * (n - 1) + a]!));
			return sum;
		})
	)
];

const registry: readonly Field[] = [...ofCells, ...ofLines, ...ofNodes, ...ofChains];

/**
 * The fields of a kind of site, in the order they are offered.
 *
 * ```ts
 * const names = fieldsOver('line').map(({ name }) => name);
 * ```
 */
export const fieldsOver = (over: SiteKind): readonly Field[] => registry.filter((one) => one.over === over);

/**
 * @throws Error when there is no such field: names that people write are checked before
 *
 * ```ts
 * const { label, kind } = fieldOf('cell', 'area');
 * ```
 */
export function fieldOf(over: SiteKind, name: string): Field {
	const found = registry.find((one) => one.over === over && one.name === name);
	if (!found) throw new Error(`no field "${name}" of a ${over}`);
	return found;
}
