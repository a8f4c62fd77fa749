import type { NumberKind } from '$core/units/dimension';
import type { FaceView } from '$lib/worker/views';
import type { ModelView } from '$lib/state/model.svelte';
import { interpolateCividis } from 'd3-scale-chromatic';

/** Measures of cells that the model and the map can be coloured by. */
export const checkMeasures = [
	{ key: 'warp', label: 'warp', kind: 'length', decimals: 1 },
	{ key: 'area', label: 'area', kind: 'area', decimals: 2 },
	{ key: 'longestEdge', label: 'longest edge', kind: 'length', decimals: 0 },
	{ key: 'smallestAngle', label: 'smallest angle', kind: 'angle', decimals: 1 },
	{ key: 'offEven', label: 'distance from even true length', kind: 'length', decimals: 1 },
	{ key: 'share', label: 'share of the whole cell', kind: 'ratio', decimals: 2 }
] as const satisfies readonly {
	key: keyof FaceView['checks'];
	label: string;
	kind: NumberKind;
	decimals: number;
}[];
export type CheckMeasure = (typeof checkMeasures)[number]['key'];

export interface Range {
	readonly low: number;
	readonly high: number;
}

/** Lowest and highest value over all zones. */
export function rangeOf(view: ModelView, measure: CheckMeasure): Range {
	let low = Infinity;
	let high = -Infinity;
	for (const zone of view.zones)
		for (const face of zone.faces)
			for (const value of face.checks[measure]) {
				if (value < low) low = value;
				if (value > high) high = value;
			}
	return low <= high ? { low, high } : { low: 0, high: 0 };
}

/** Where a value stands in a range, 0..1; the middle when the range is a point. */
export function shareIn({ low, high }: Range, value: number): number {
	return high - low > 1e-9 * Math.max(1, Math.abs(high)) ? (value - low) / (high - low) : 0.5;
}

const STEPS = 64;
/** One perceptual, colour-blind-safe sequence, in steps so that drawing can gather equal colours. */
export const sequence = Array.from({ length: STEPS }, (_, k) => interpolateCividis(k / (STEPS - 1)));
export const sequenceStep = (share: number) =>
	Math.min(STEPS - 1, Math.max(0, Math.round(share * (STEPS - 1))));

export interface Bin {
	readonly from: number;
	readonly to: number;
	readonly count: number;
}

/** Cells per equal step of a measure's range. */
export function histogram(view: ModelView, measure: CheckMeasure, range: Range, bins = 16): Bin[] {
	const counts = new Array<number>(bins).fill(0);
	for (const zone of view.zones)
		for (const face of zone.faces)
			for (const value of face.checks[measure])
				counts[Math.min(bins - 1, Math.floor(shareIn(range, value) * bins))]!++;
	const step = (range.high - range.low) / bins;
	return counts.map((count, k) => ({ from: range.low + k * step, to: range.low + (k + 1) * step, count }));
}
