import type { Place } from '../geometry/polygon';
import type { PlacedView, Shown } from '../project/own-sheet-schema';

/** A view where it lies on its sheet. */
export interface LaidView {
	readonly id: string;
	readonly title: string;
	/** Left, foot, right, head (mm of paper). */
	readonly box: readonly [number, number, number, number];
	/** What is wrong with it, in a sentence. */
	readonly fault: string | null;
}

/** A point that a dimension can hang on. */
export interface HeldPoint {
	/** As in gull/gull.skin/N/C03/B01. */
	readonly address: string;
	/** mm of paper */
	readonly at: Place;
}

/** A sheet whose views are placed by hand, as it is laid out. */
export interface LaidSheet {
	readonly views: readonly LaidView[];
	/** Dimensions whose points are gone. */
	readonly lost: readonly string[];
	/** Points of a view that dimensions can hang on, the nearest to the eye first. */
	points(view: string): HeldPoint[];
	/** Where one more view has room, and at which scale. @throws NotShown */
	placeFor(of: Shown): Pick<PlacedView, 'scale' | 'at'>;
}
