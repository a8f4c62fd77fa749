import type { Vector } from '../geometry/vector';
import type { NodeGrid, Spread } from '../grid/node-grid';
import type { CellCurvature } from '../measure/cell-curvature';
import type { CellMeasures } from '../measure/cell-measures';
import type { Cells } from '../pattern/cells';
import type { Edges } from '../pattern/edges';
import type { Nodes } from '../pattern/nodes';
import type { NumberKind } from '../units/dimension';
import type { ColumnReader } from './column';
import type { Followed } from './followed';
import type { SiteKind } from './site-kind';

/** The sun over a face: the way to it at its moment, and hours of it on every cell where they have been counted. */
export interface FaceSun {
	readonly direction: Vector;
	readonly hours: Float64Array | null;
}

/** What fields are read from, of one face. Whoever asks gives what there is. */
export interface FieldSource extends Followed {
	readonly cells: Cells;
	readonly measures: CellMeasures;
	readonly edges: Edges;
	/** Angle between the cells beside every edge (rad). */
	readonly folds: Float64Array;
	readonly grid: Pick<NodeGrid, 'columns' | 'rows' | 'positions' | 'extraI' | 'extraJ' | 'off'> & {
		readonly across: Pick<Spread, 'steps' | 'closed'>;
		readonly up: Pick<Spread, 'steps' | 'closed'>;
	};
	/** How sharply the face bends at every cell, reckoned when it is first asked for. */
	readonly curvature: () => CellCurvature;
	/** Of the face, which stands at the beginning of every address. */
	readonly address: string;
	/** The nodes where lines meet, reckoned when they are first asked for. */
	readonly nodes: () => Nodes;
	/** Points in a row: those of chain k are start[k] .. start[k + 1], flat x y z (mm). */
	readonly chains: { readonly start: Uint32Array; readonly positions: Float64Array };
	readonly sun: FaceSun;
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
	/** The thing of the project that it is read from besides the face; undefined for most. */
	hangsOn(source: Partial<FieldSource>): unknown;
	/** @param source at least what the field needs */
	column(source: Partial<FieldSource>, sites: Uint32Array): ColumnReader;
}

export type Read<N extends Need> = (source: Pick<FieldSource, N>, sites: Uint32Array) => ColumnReader;

export function field<N extends Need>(
	over: SiteKind,
	name: string,
	label: string,
	kind: NumberKind,
	needs: readonly N[],
	read: Read<N>,
	hangsOn: Field['hangsOn'] = () => undefined
): Field {
	return {
		id: `${over}.${name}`,
		name,
		label,
		kind,
		over,
		needs,
		hangsOn,
		column: (source, sites) => read(source as Pick<FieldSource, N>, sites)
	};
}
