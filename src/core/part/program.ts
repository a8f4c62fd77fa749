import type { Flag } from '../units/flag';
import type { Arithmetic } from '../units/formula/expression';
import type { Recipe } from './block/recipe';
import type { Cap } from './caps';
import type { TubeJoint } from './tubes/joint';
import type { Stock } from './stock';

/** Arithmetic on one or more columns; or c + a b and c - a b in one go, each rounded twice as ever. */
export type Kernel = Arithmetic | 'add product' | 'subtract product';

/**
 * A checked part, lowered: a flat list of scalar operations in single-assignment form, to be run for many
 * pieces at once, one operation over a block of rows at a time. Points are three scalars. Nothing in it
 * depends on input values, so dragging a value compiles nothing.
 */
export interface Operation {
	readonly op: Kernel;
	readonly out: number;
	readonly a: number;
	readonly b: number;
	readonly c: number;
}

/** One column block per slot; slots are reused once their value is no longer needed. */
export type Slot = number;

/** Three slots: a point (mm) or a direction. */
export interface PointSlots {
	readonly x: Slot;
	readonly y: Slot;
	readonly z: Slot;
}

/** A cut section of a bar; its corners are at + across x + along y. */
export interface CutSection {
	readonly at: PointSlots;
	readonly x: PointSlots;
	readonly y: PointSlots;
	readonly corners: readonly (readonly [across: Slot, along: Slot])[];
}

/** A thing that is ordered: its mesh, whose topology is the same for every piece, and its quantities (mm, mm², mm³). */
export interface ElementOutput {
	/** Position among all elements of the part, groups included. */
	readonly element: number;
	/** Its turn in the first of its rows: how many of the same element were made before it. */
	readonly firstTurn: number;
	readonly vertices: readonly PointSlots[];
	/** Cut sections of bars: their corners are vertices too, numbered after the others. */
	readonly sections: readonly CutSection[];
	/** Vertices in all. */
	readonly verticesEach: number;
	/** By vertex; outward. */
	readonly triangles: readonly number[];
	readonly caps: readonly {
		readonly cap: Cap;
		readonly when: Slot | null;
		readonly crossed: number | null;
	}[];
	readonly volume: Slot;
	readonly area: Slot;
	readonly length: Slot;
	readonly stock: Stock<Slot> | null;
}

/** A thing made of a block: its mesh hangs on values, and is made once for each set of them. */
export interface BlockOutput {
	readonly element: number;
	readonly firstTurn: number;
	/** Its numbers are places in `values`. */
	readonly recipe: Recipe;
	readonly values: readonly Slot[];
	readonly lie: { readonly turns: Slot; readonly flip: Slot; readonly mirror: Slot };
	/** Corners of the space it is fitted into, those inside first. */
	readonly corners: readonly PointSlots[];
	/** Positions in the program's list of flags; those of cutters that take nothing away by name. */
	readonly flags: BlockFlags;
}
export interface BlockFlags {
	readonly nothingLeft: number;
	readonly reachesOut: number;
	readonly tooMany: number;
	readonly idle: ReadonlyMap<string, number>;
}

/** A sheet that fills a cell as it is, openings and all. */
export interface SheetOutput {
	readonly element: number;
	readonly firstTurn: number;
	readonly thickness: Slot;
	/** How far its outer side lies outside the grid (mm). */
	readonly out: Slot;
	/** Left open along its rim (mm). */
	readonly joint: Slot;
	/** The flag of pieces whose cell has no area. */
	readonly flat: number;
	/** The flag of pieces whose joint is narrower somewhere than was asked for. */
	readonly narrower: number;
}

/** One smooth body of round arms. */
export interface TubesOutput {
	readonly element: number;
	readonly firstTurn: number;
	readonly joint: TubeJoint<PointSlots, Slot>;
}

export interface FlagOutput {
	readonly when: Slot;
	/** Position in the program's list of flags. */
	readonly flag: number;
}

/** Rows that are computed together: the pieces, or the turns of a repeated group within them. */
export interface Domain {
	readonly operations: readonly Operation[];
	readonly slots: number;
	readonly constants: readonly { readonly slot: Slot; readonly value: number }[];
	/** Columns that the rows bring along: given geometry, measures, inputs. */
	readonly columns: readonly { readonly name: string; readonly slot: Slot }[];
	/** Values taken over from the row of the enclosing domain. */
	readonly imports: readonly { readonly from: Slot; readonly to: Slot }[];
	readonly index: Slot | null;
	readonly elements: readonly ElementOutput[];
	readonly blocks: readonly BlockOutput[];
	readonly sheets: readonly SheetOutput[];
	readonly tubes: readonly TubesOutput[];
	readonly flags: readonly FlagOutput[];
	/** 0 where all that is made is finite, and NaN elsewhere. */
	readonly finite: Slot;
	readonly results: readonly { readonly name: string; readonly slot: Slot }[];
	/** Of a group: what is kept of every turn, for showing it. */
	readonly turnResults: readonly { readonly name: string; readonly slot: Slot }[];
	readonly groups: readonly { readonly times: Slot; readonly domain: Domain }[];
}

/** A flag that a program can raise; its numbers are results of the program, by name. */
export interface ProgramFlag extends Omit<Flag, 'value' | 'bound'> {
	readonly value: string | null;
	readonly bound: string | null;
}

export interface Program {
	readonly root: Domain;
	readonly flags: readonly ProgramFlag[];
}
