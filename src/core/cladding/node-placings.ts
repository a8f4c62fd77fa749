import type { Held } from '../condition/holds';
import type { Nodes } from '../pattern/nodes';
import type { PartDefinition } from '../project/part-definition';
import type { NodePlacing } from '../project/schema';
import { counted } from '../units/counted';
import { refuse } from '../units/problem';
import { hangsOn } from './sites';

/** @throws ProblemError for a placing that can never match */
function check({ lines }: NodePlacing, at: string): void {
	if (lines !== 'any' && lines < 2)
		refuse(
			`${at}/lines`,
			`nodes where ${counted(lines, 'line meets', 'lines meet')} do not exist; 2 or more, or "any", is accepted`
		);
}

/** How many lines meet at a node. */
export const linesAt = ({ start }: Nodes, n: number): number => start[n + 1]! - start[n]!;

/**
 * The nodes of each placing, by their place in the grid, ascending. First match wins; a placing passes over nodes its
 * part has no use for, and a muted one takes none.
 *
 * ```ts
 * const [balls] = nodesOfPlacings(zone.nodes, () => part, nodes, pathTo('zones', zone.id, 'nodes'));
 * ```
 * @param at the path of the placings @param heldFor where the conditions of one hold; null everywhere
 * @throws ProblemError for a placing that can never match
 */
export function nodesOfPlacings(
	placings: readonly NodePlacing[],
	partOf: (placing: NodePlacing) => PartDefinition,
	nodes: Nodes,
	at: string,
	heldFor: (placing: NodePlacing) => Held | null = () => null
): number[][] {
	placings.forEach((placing) => check(placing, `${at}/${placing.id}`));
	const { rim } = nodes;
	const taken = new Uint8Array(rim.length);
	return placings.map((placing) => {
		if (placing.muted) return [];
		const part = partOf(placing);
		const held = heldFor(placing);
		const found: number[] = [];
		for (let n = 0; n < rim.length; n++) {
			const lines = linesAt(nodes, n);
			if (!lines || taken[n] || (held && !held[n])) continue;
			if (placing.nodes !== 'all' && (placing.nodes === 'rim') !== (rim[n] === 1)) continue;
			if (placing.lines !== 'any' && placing.lines !== lines) continue;
			if (!hangsOn(part, 'node', lines)) continue;
			taken[n] = 1;
			found.push(n);
		}
		return found;
	});
}
