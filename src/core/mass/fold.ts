import { distinctKnots } from '../geometry/curve';
import { evaluateGrid, type Surface } from '../geometry/surface';

const EACH = 12;

/** Parameters within every knot span, ends and the neighbourhood of the ends left out. */
function inside(knots: Float64Array): number[] {
	const distinct = distinctKnots(knots);
	const parts = Math.max(2, Math.ceil((4 * EACH) / (distinct.length - 1)));
	return distinct
		.slice(1)
		.flatMap((end, k) =>
			Array.from({ length: parts }, (_, s) => distinct[k]! + ((s + 0.5) / parts) * (end - distinct[k]!))
		);
}

/**
 * Whether a surface folds back on itself: whether, going up, its outside turns round from one sample to the
 * next. @returns the share of the height (0..1) where it does, or null
 */
export function foldAt(surface: Surface): number | null {
	const us = inside(surface.knotsU);
	const vs = inside(surface.knotsV);
	const { du, dv } = evaluateGrid(surface, us, vs);
	const normal = (k: number) => [
		du[k + 1]! * dv[k + 2]! - du[k + 2]! * dv[k + 1]!,
		du[k + 2]! * dv[k]! - du[k]! * dv[k + 2]!,
		du[k]! * dv[k + 1]! - du[k + 1]! * dv[k]!
	];
	for (let j = 1; j < vs.length; j++)
		for (let i = 0; i < us.length; i++) {
			const a = normal(3 * ((j - 1) * us.length + i));
			const b = normal(3 * (j * us.length + i));
			const along = a[0]! * b[0]! + a[1]! * b[1]! + a[2]! * b[2]!;
			if (along < -1e-6 * Math.hypot(...a) * Math.hypot(...b)) {
				const [low, high] = [surface.knotsV[0]!, surface.knotsV.at(-1)!];
				return (vs[j]! - low) / (high - low);
			}
		}
	return null;
}
