import type { Domain, ElementOutput, Operation } from '../program';

/** Rows per block: small enough for a part's columns to stay in the processor's cache. A multiple of sixteen. */
export const BLOCK = 256;

/** What the vertices of an element are: points, and then the corners of cut sections. */
export type VertexSlots = Pick<ElementOutput, 'vertices' | 'sections' | 'verticesEach'>;

/** One domain set up to be computed, a block of rows at a time. */
export interface Workplace {
	/** `BLOCK` values for each slot of the domain. */
	readonly slots: readonly Float64Array[];
	/** Run the domain's operations over the first `rows` of its slots. */
	compute(rows: number): void;
	/**
	 * Vertices of the first `rows`, all of one row and then those of the next: x y z from an origin (mm), in single
	 * precision. Good until the next call.
	 */
	places(of: VertexSlots, rows: number, origin: readonly [number, number, number]): Float32Array;
}

/**
 * What runs a program's operations. Every back end gives the same numbers; nothing outside this folder
 * knows which one ran.
 */
export interface BackEnd {
	/** Workplaces for the domains of one run. They are good until the next call. */
	open(domains: readonly Domain[]): readonly Workplace[];
}

/** Maximal stretches of a domain's operations that one kernel can do, the others one by one. */
export function stretches(
	operations: readonly Operation[],
	fits: (operation: Operation) => boolean
): { readonly fused: boolean; readonly operations: readonly Operation[] }[] {
	const found: { fused: boolean; operations: Operation[] }[] = [];
	for (const operation of operations) {
		const fused = fits(operation);
		const last = found.at(-1);
		if (last?.fused === fused) last.operations.push(operation);
		else found.push({ fused, operations: [operation] });
	}
	return found;
}
