/**
 * About so many sites are the unit of memory, message, progress, cancel and culling: an edit that touches one cell
 * remakes the pieces of its chunk, and no others.
 */
const CHUNK = 1024;

/** Sites that are alike and lie near each other in building order. */
export interface Chunk {
	/** Of a cell; lines that meet at a node; 2 for a line. */
	readonly corners: number;
	/** Which stretch of the sites' numbers it is. */
	readonly number: number;
	readonly sites: Uint32Array;
}

/**
 * Sites sorted by how many corners they have and by stretches of their numbers, each list in building order.
 *
 * ```ts
 * for (const chunk of inChunks([0, 1, 2], (site) => cornersOfSite[site]!)) await makePieces(chunk);
 * ```
 * @param sites ascending
 */
export function inChunks(sites: readonly number[], cornersOf: (site: number) => number): Chunk[] {
	const lists = new Map<number, Map<number, number[]>>();
	/** The list of the last site, which is that of the next one as a rule. */
	let list: number[] = [];
	let [listCorners, listNumber] = [-1, -1];
	for (let k = 0; k < sites.length; k++) {
		const site = sites[k]!;
		const corners = cornersOf(site);
		const number = Math.floor(site / CHUNK);
		if (corners !== listCorners || number !== listNumber) {
			const alike = lists.get(corners) ?? new Map<number, number[]>();
			lists.set(corners, alike);
			list = alike.get(number) ?? [];
			alike.set(number, list);
			[listCorners, listNumber] = [corners, number];
		}
		list.push(site);
	}
	return [...lists].flatMap(([corners, alike]) =>
		[...alike].map(([number, list]) => ({ corners, number, sites: Uint32Array.from(list) }))
	);
}
