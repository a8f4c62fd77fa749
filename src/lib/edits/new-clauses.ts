import { EVERYWHERE } from '$core/project/condition-schema';
import type { Edit } from '$core/project/edits';
import { type NodePlacing, type Rule, type Run, type Zone } from '$core/project/schema';
import { insertAt, pathTo } from '$core/project/typed-path';
import { lineKindsOf } from './zone-clauses';
import { freshId } from './fresh-id';

/**
 * A rule for all cells that those before it leave.
 * @param variant null where cells stay open
 */
export function newRule(zone: Zone, variant: string | null): Edit[] {
	const rule: Rule = {
		id: freshId('rule', zone.rules),
		muted: false,
		where: EVERYWHERE,
		also: false,
		put: variant === null ? 'open' : { variant, values: {} }
	};
	return [insertAt(pathTo('zones', zone.id, 'rules'), zone.rules.length, rule)];
}

/** A run along all lines that no other takes yet, or through the chains. */
export function newRun(zone: Zone, variant: string, over: Run['over'] = 'lines'): Edit[] {
	const kinds = lineKindsOf(zone);
	const free = kinds.filter((kind) => !zone.runs.some(({ lines }) => lines.includes(kind)));
	const run: Run = {
		id: freshId('run', zone.runs),
		muted: false,
		over,
		lines: free.length ? free : [...kinds],
		where: EVERYWHERE,
		joined: null,
		ends: null,
		values: {},
		variant
	};
	return [insertAt(pathTo('zones', zone.id, 'runs'), zone.runs.length, run)];
}

/** Parts on all nodes. */
export function newNodePlacing(zone: Zone, variant: string): Edit[] {
	const placing: NodePlacing = {
		id: freshId('nodes', zone.nodes),
		muted: false,
		nodes: 'all',
		lines: 'any',
		where: EVERYWHERE,
		variant,
		values: {}
	};
	return [insertAt(pathTo('zones', zone.id, 'nodes'), zone.nodes.length, placing)];
}
