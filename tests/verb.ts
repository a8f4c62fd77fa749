import { createRequire } from 'node:module';

/**
 * verb-nurbs, a general NURBS library, as the reference. It expects a browser's `window` while it loads.
 */
interface Verb {
	core: {
		NurbsSurfaceData: new (
			degreeU: number,
			degreeV: number,
			knotsU: number[],
			knotsV: number[],
			points: number[][][]
		) => object;
	};
	eval: {
		Eval: { rationalSurfaceDerivatives(surface: object, u: number, v: number, order: number): number[][][] };
	};
}

const scope = globalThis as { window?: unknown };
const had = 'window' in scope;
scope.window ??= globalThis;
// It also prints its version while it loads, which is no part of our output.
const { log } = console;
console.log = () => undefined;
const verb = createRequire(import.meta.url)('verb-nurbs') as Verb;
console.log = log;
if (!had) delete scope.window;

export const { NurbsSurfaceData } = verb.core;
export const { rationalSurfaceDerivatives } = verb.eval.Eval;

/** A surface of ours, as verb-nurbs holds it: rows of u, homogeneous points. */
export function toVerb(surface: {
	degreeU: number;
	degreeV: number;
	knotsU: Float64Array;
	knotsV: Float64Array;
	countU: number;
	countV: number;
	net: Float64Array;
}): object {
	const { countU, countV, net } = surface;
	const rows = Array.from({ length: countU }, (_, i) =>
		Array.from({ length: countV }, (_, j) => [
			...net.subarray(4 * (j * countU + i), 4 * (j * countU + i) + 4)
		])
	);
	return new NurbsSurfaceData(
		surface.degreeU,
		surface.degreeV,
		[...surface.knotsU],
		[...surface.knotsV],
		rows
	);
}
