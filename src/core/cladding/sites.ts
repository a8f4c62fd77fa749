import type { SiteKind } from '../field/site-kind';
import { bayOfNode, courseOfNode, type GridLines } from '../grid/lattice';
import type { Cells } from '../pattern/cells';
import type { Chains } from '../pattern/chains';
import { siteOf } from '../part/anchors';
import type { Edges } from '../pattern/edges';
import type { PartDefinition } from '../project/part-definition';
import { refuse } from '../units/problem';
import { cellAddress, chainAddress, edgeAddress, nodeAddress } from './address';
import { cellMark, chainMark, edgeMark, nodeMark } from './marks';

/** The kinds that every zone has; the others are made by clauses of their own. */
export type GridSite = Extract<SiteKind, 'cell' | 'line' | 'node' | 'chain'>;

/** What a face's sites are read from. */
export interface SitedFace {
	/** Its place in every address: the mass and the face. */
	readonly address: string;
	readonly cells: Cells;
	readonly edges: Edges;
	readonly grid: GridLines;
	readonly chains: Chains;
}

/**
 * The sites of one kind on one face. A site is named by its number: of the cell, of the edge, or of the node in the
 * grid.
 */
export interface SiteSet {
	readonly kind: GridSite;
	/** From 1 at the foot. */
	course(site: number): number;
	/** From 1 at the left. */
	bay(site: number): number;
	/** Places in the grid of the nodes it lies on. */
	nodes(site: number): ArrayLike<number>;
	/** Its name within the zone, for good. */
	address(site: number): string;
	/** What is written on its piece. @param prefix of the zone and the face */
	mark(site: number, prefix: string): string;
}

const sets = new WeakMap<SitedFace, Map<GridSite, SiteSet>>();

/**
 * What one face offers of a kind of site.
 *
 * ```ts
 * siteSetOf(faceModel, 'line').address(3); // the name of line 3, for good
 * ```
 */
export function siteSetOf(face: SitedFace, kind: GridSite): SiteSet {
	let known = sets.get(face);
	if (!known) sets.set(face, (known = new Map<GridSite, SiteSet>()));
	const set = known.get(kind) ?? siteSet(face, kind);
	known.set(kind, set);
	return set;
}

function siteSet({ address, cells, edges, grid, chains }: SitedFace, kind: GridSite): SiteSet {
	switch (kind) {
		case 'cell':
			return {
				kind,
				course: (c) => cells.course[c]!,
				bay: (c) => cells.bay[c]!,
				nodes: (c) => cells.corners.subarray(cells.start[c]!, cells.start[c + 1]!),
				address: (c) => cellAddress(address, cells, c),
				mark: (c, prefix) => cellMark(prefix, cells, c)
			};
		case 'line':
			return {
				kind,
				course: (e) => edges.course[e]!,
				bay: (e) => edges.bay[e]!,
				nodes: (e) => [edges.from[e]!, edges.to[e]!],
				address: (e) => edgeAddress(address, edges, e),
				mark: (e, prefix) => edgeMark(prefix, edges, e)
			};
		case 'chain':
			return {
				kind,
				course: () => 1,
				bay: (k) => k + 1,
				nodes: (k) => chains.nodes.subarray(chains.start[k]!, chains.start[k + 1]!),
				address: (k) => chainAddress(address, k),
				mark: (k, prefix) => chainMark(prefix, k)
			};
		case 'node': {
			return {
				kind,
				course: (n) => courseOfNode(grid, n),
				bay: (n) => bayOfNode(grid, n),
				nodes: (n) => [n],
				address: (n) => nodeAddress(address, grid, n),
				mark: (n, prefix) => nodeMark(prefix, grid, n)
			};
		}
	}
}

/**
 * Whether a part can hang on a site.
 *
 * ```ts
 * const forCells = partsOf(project).filter((one) => hangsOn(one, 'cell'));
 * ```
 * @param points how many corners a cell has, how many lines meet at a node; left out: on some site of the kind
 */
export function hangsOn(part: Pick<PartDefinition, 'anchor'>, kind: SiteKind, points?: number): boolean {
	if (siteOf(part) !== kind) return false;
	const { anchor } = part;
	if (points === undefined || anchor.kind === 'pair') return true;
	return anchor.corners === 'any' || anchor.corners === points;
}

const words: Record<GridSite, { readonly many: string; readonly instead: string }> = {
	cell: { many: 'cells', instead: 'a panel or a louver' },
	line: { many: 'lines', instead: 'a mullion' },
	node: { many: 'nodes', instead: 'a connector' },
	chain: { many: 'chains', instead: 'a tube through all' }
};
const inWords = (kind: SiteKind) => (kind in words ? words[kind as GridSite].many : `${kind}s`);

/** What a part hangs on, in words: cells, lines, chains. */
export const sitesInWords = (part: Pick<PartDefinition, 'anchor'>) => inWords(siteOf(part));

/**
 * @throws ProblemError when a clause puts a part on sites that it cannot hang on
 *
 * ```ts
 * refuseUnfit(part, 'line', pathTo('zones', zone.id, 'runs', 'mullions'));
 * ```
 */
export function refuseUnfit(part: PartDefinition, kind: GridSite, at: string): void {
	if (hangsOn(part, kind)) return;
	refuse(
		at,
		`${part.label} hangs on ${sitesInWords(part)}, not on ${words[kind].many}; choose ${words[kind].instead} here`
	);
}
