import type { StockSettings } from '../project/stock-schema';

/** How long bars come (mm): extruded profiles and mill lengths, common practice, no source. */
const lengths: Readonly<Record<string, number>> = {
	aluminium: 7000,
	bronze: 7000,
	steel: 12_000,
	timber: 6000
};
const OTHER_LENGTH = 6000;

/** How large sheets come (mm): glass by EN 572-2, from memory; the others common practice, no source. */
const sheets: Readonly<Record<string, readonly [number, number]>> = {
	glass: [6000, 3210],
	aluminium: [4000, 2000],
	bronze: [4000, 2000],
	steel: [4000, 2000],
	zinc: [3000, 1000]
};
const OTHER_SHEET = [3000, 1500] as const;

/**
 * How long the bars of a material come (mm).
 *
 * ```ts
 * stockLengthOf(project.stock, 'steel'); // 12 000
 * ```
 */
export const stockLengthOf = ({ lengths: own }: StockSettings, material: string): number =>
	own.find(({ id }) => id === material)?.length ?? lengths[material] ?? OTHER_LENGTH;

/**
 * The long and the short side of the sheets of a material (mm).
 *
 * ```ts
 * stockSheetOf(project.stock, 'glass'); // 6000 by 3210
 * ```
 */
export function stockSheetOf({ sheets: own }: StockSettings, material: string): readonly [number, number] {
	const said = own.find(({ id }) => id === material);
	if (said) return [Math.max(said.long, said.short), Math.min(said.long, said.short)];
	return sheets[material] ?? OTHER_SHEET;
}
