import type { FaceModel } from '../cladding/model';
import type { PieceGroup } from '../cladding/pieces';
import type { SiteKind } from '../field/site-kind';
import type { Limit } from '../project/limit-schema';
import type { Material } from '../project/material-schema';
import type { NumberKind } from '../units/dimension';

/** One of the numbers that a figure is reckoned from, in kernel units. */
export interface Given {
	readonly label: string;
	readonly value: number;
	readonly kind: NumberKind;
}

/** A bound, in kernel units. */
export interface Within {
	readonly than: Limit['than'];
	readonly bound: number;
}

/** What can be limited of pieces; values in kernel units, one for each piece. */
export interface PieceMeasure {
	readonly id: string;
	/** In the middle of a sentence. */
	readonly label: string;
	readonly kind: NumberKind;
	/** What the pieces hang on that have it; null for all. */
	readonly over: SiteKind | null;
	/** What has to be said before it can be reckoned; none of its values is a number until then. */
	readonly lacks?: string;
	/** How it is reckoned: formula, inputs, source. */
	readonly how: string;
	/** Whether no value is outside a bound, where that is known without reading them. */
	isWithin?(face: FaceModel, group: PieceGroup, within: Within): boolean;
	/** What it is reckoned from at one piece. */
	given?(face: FaceModel, group: PieceGroup, row: number): readonly Given[];
	/**
	 * @param within values that are within it need not be exact
	 * @param isOf whether a material is one that is asked about
	 */
	read(
		face: FaceModel,
		group: PieceGroup,
		within: Within,
		isOf: (material: Material) => boolean
	): Float64Array;
}
