import type { PartDefinition } from '../project/part-definition';
import type { Zone } from '../project/schema';
import { cellAddress } from './address';
import { takes, type Assignment } from './assign';
import type { FaceModel } from './model';

/** Cells whose exception puts a part there that cannot hang on them; each with the sentence that says so. */
export function unfitExceptions(
	zone: Zone,
	{ cells, address }: FaceModel,
	{ exception }: Assignment,
	partOf: (variant: string) => PartDefinition
): Map<number, string> {
	const unfit = new Map<number, string>();
	if (!zone.exceptions.length) return unfit;
	for (let c = 0; c < exception.length; c++) {
		const put = exception[c] === -1 ? 'open' : zone.exceptions[exception[c]!]!.put;
		if (put === 'open') continue;
		const part = partOf(put.variant);
		const corners = cells.start[c + 1]! - cells.start[c]!;
		if (takes(part, corners)) continue;
		const { anchor } = part;
		const wanted =
			anchor.kind === 'ring' || anchor.kind === 'double ring'
				? `cells of ${anchor.corners} corners, and this one has ${corners}`
				: `a ${anchor.kind}, not on cells`;
		unfit.set(
			c,
			`the exception at ${cellAddress(address, cells, c)} puts ${part.label}, which hangs on ${wanted}`
		);
	}
	return unfit;
}

/** What is said of some cells, of all that is said. */
export function remarksOn(
	cells: Uint32Array,
	remarks: ReadonlyMap<number, string>
): ReadonlyMap<number, string> {
	if (!remarks.size) return remarks;
	const there = new Set(cells);
	return new Map([...remarks].filter(([c]) => there.has(c)));
}
