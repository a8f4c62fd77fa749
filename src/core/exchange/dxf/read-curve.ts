import type { Vector } from '../../geometry/vector';

/** A line of a drawing, or a point where it has one place only. mm */
export interface ReadCurve {
	/** The layer that it lies on. */
	readonly layer: string;
	readonly points: readonly Vector[];
	readonly closed: boolean;
}
