import type { Program } from '../part/program';

/** What bars measure at each line that leaves a node, in the order of its ways (mm). */
export interface BarsAtNodes {
	/** Beside the line, and square to the face: 0 where there is no bar. */
	readonly across: Float64Array;
	readonly deep: Float64Array;
	/** How far the middle of the depth lies outside the line; without a bar, that of the node's other bars. */
	readonly middle: Float64Array;
}

/** A column of a program that tells of a bar, and of which way. */
const OF_BAR = /^(across|deep|middle)(\d+)$/;

/**
 * Which way and which measure a column of a part on nodes is about; null of others.
 *
 * ```ts
 * const [what, way] = barColumn('deep2') ?? []; // 'deep', 1
 * ```
 */
export function barColumn(name: string): [keyof BarsAtNodes, number] | null {
	const found = OF_BAR.exec(name);
	return found && [found[1] as keyof BarsAtNodes, Number(found[2]) - 1];
}

/** Whether a part asks for the bars that meet at its nodes. */
export const asksForBars = ({ root }: Program): boolean =>
	root.columns.some(({ name }) => barColumn(name) !== null);
