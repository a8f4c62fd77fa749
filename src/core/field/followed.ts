import type { Vector } from '../geometry/vector';
import type { Cells } from '../pattern/cells';
import type { Picture } from '../project/brought-schema';

/** Numbers of a table for the cells of a face. */
export interface TableBook {
	readonly columns: readonly string[];
	/** Of every cell, each column; 0 where it has no row. */
	valuesOn(address: string, cells: Cells): readonly Float64Array[];
	/** 1 where a cell has a row. */
	rowsOn(address: string, cells: Cells): Uint8Array;
}

/** Things of the project that fields are read from, by their ids. */
export interface Followed {
	/** Guides as points that follow one another (mm). */
	readonly guides: ReadonlyMap<string, readonly Vector[]>;
	readonly pictures: ReadonlyMap<string, Picture>;
	readonly tables: ReadonlyMap<string, TableBook>;
}

/** What can be followed, by its names alone. */
export interface Followable {
	readonly guides: readonly string[];
	readonly pictures: readonly string[];
	readonly tables: readonly { readonly id: string; readonly columns: readonly string[] }[];
}

/**
 * The names of things.
 *
 * ```ts
 * const fields = fieldsOver('cell', followable(askedSites.around.followed));
 * ```
 */
export const followable = ({ guides, pictures, tables }: Followed): Followable => ({
	guides: [...guides.keys()],
	pictures: [...pictures.keys()],
	tables: [...tables].map(([id, { columns }]) => ({ id, columns }))
});

export const NOTHING_FOLLOWED: Followed = { guides: new Map(), pictures: new Map(), tables: new Map() };
export const NOTHING_TO_FOLLOW: Followable = followable(NOTHING_FOLLOWED);

/**
 * What of a project can be followed, by its names.
 *
 * ```ts
 * const { guides } = followableIn(project);
 * ```
 */
export const followableIn = ({
	guides,
	pictures,
	tables
}: {
	readonly guides: readonly { readonly id: string }[];
	readonly pictures: readonly { readonly id: string }[];
	readonly tables: readonly { readonly id: string; readonly columns: readonly { readonly id: string }[] }[];
}): Followable => ({
	guides: guides.map(({ id }) => id),
	pictures: pictures.map(({ id }) => id),
	tables: tables.map(({ id, columns }) => ({ id, columns: columns.map((one) => one.id) }))
});

/**
 * The name by which formulas know a thing: its id, with what a name cannot have written `_`.
 *
 * ```ts
 * nameInFormulas('tide-line'); // tide_line
 * ```
 */
export const nameInFormulas = (id: string) => id.replaceAll('-', '_');
