import type { PartDefinition } from '../project/part-definition';
import type { Zone } from '../project/schema';
import { uncutCells } from '../pattern/cells';
import { cellAddress } from './address';
import { isClipped, type Assignment } from './assign';
import type { FaceModel } from './model';
import { hangsOn, sitesInWords } from './sites';

/**
 * Cells whose exception puts a part there that cannot hang on them; each with the sentence that says so.
 *
 * ```ts
 * const open = unfitExceptions(zone, faceModel, assigned, () => part);
 * ```
 */
export function unfitExceptions(
	zone: Zone,
	{ cells, address }: FaceModel,
	exception: Assignment['exception'],
	partOf: (variant: string) => PartDefinition
): Map<number, string> {
	const unfit = new Map<number, string>();
	if (!zone.exceptions.length) return unfit;
	const whole = uncutCells(cells);
	for (let c = 0; c < exception.length; c++) {
		const put = exception[c] === -1 ? 'open' : zone.exceptions[exception[c]!]!.put;
		if (put === 'open' || 'as' in put) continue;
		const part = partOf(put.variant);
		const { start } = isClipped(put) ? whole : cells;
		const corners = start[c + 1]! - start[c]!;
		if (hangsOn(part, 'cell', corners)) continue;
		const { anchor } = part;
		const wanted =
			hangsOn(part, 'cell') && anchor.kind !== 'pair'
				? `cells of ${anchor.corners} corners, and this one has ${corners}`
				: `${sitesInWords(part)}, not on cells`;
		unfit.set(
			c,
			`the exception at ${cellAddress(address, cells, c)} puts ${part.label}, which hangs on ${wanted}`
		);
	}
	return unfit;
}
