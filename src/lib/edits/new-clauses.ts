import { partsOf } from '$core/cladding/kit';
import { hangsOn, type GridSite } from '$core/cladding/sites';
import { EVERYWHERE } from '$core/project/condition-schema';
import type { Edit } from '$core/project/edits';
import {
	lineKinds,
	type NodePlacing,
	type Project,
	type Rule,
	type Run,
	type Zone
} from '$core/project/schema';
import { freshId } from './fresh-id';
import { insertAt, pathTo } from '$core/project/typed-path';

/**
 * A variant for sites of a kind: one that is there, or else a plain one of a part of the kit.
 * @param part what is taken where there is none yet
 */
function variantFor(project: Project, kind: GridSite, part: string): { id: string; edits: Edit[] } {
	const parts = partsOf(project);
	const known = project.variants.find((one) => {
		const of = parts.find(({ id }) => id === one.part);
		return of && hangsOn(of, kind);
	});
	if (known) return { id: known.id, edits: [] };
	const id = freshId(part, project.variants);
	const value = { id, name: 'plain', part, values: {} };
	return { id, edits: [insertAt(pathTo('variants'), project.variants.length, value)] };
}

/** A rule for all cells, after the others. */
export function newRule(project: Project, zone: Zone): Edit[] {
	const parts = partsOf(project);
	const variant = project.variants.find(
		(one) => parts.find(({ id }) => id === one.part)?.anchor.kind === 'ring'
	);
	const rule: Rule = {
		id: freshId('rule', zone.rules),
		muted: false,
		where: EVERYWHERE,
		also: false,
		put: variant ? { variant: variant.id, values: {} } : 'open'
	};
	return [insertAt(pathTo('zones', zone.id, 'rules'), zone.rules.length, rule)];
}

/** A run along all lines that no other takes yet. */
export function newRun(project: Project, zone: Zone): Edit[] {
	const { id, edits } = variantFor(project, 'line', 'box-mullion');
	const free = lineKinds.filter((kind) => !zone.runs.some(({ lines }) => lines.includes(kind)));
	const run: Run = {
		id: freshId('run', zone.runs),
		muted: false,
		lines: free.length ? free : [...lineKinds],
		where: EVERYWHERE,
		values: {},
		variant: id
	};
	return [...edits, insertAt(pathTo('zones', zone.id, 'runs'), zone.runs.length, run)];
}

/** Parts on all nodes. */
export function newNodePlacing(project: Project, zone: Zone): Edit[] {
	const { id, edits } = variantFor(project, 'node', 'node-ball');
	const placing: NodePlacing = {
		id: freshId('nodes', zone.nodes),
		muted: false,
		nodes: 'all',
		lines: 'any',
		where: EVERYWHERE,
		variant: id,
		values: {}
	};
	return [...edits, insertAt(pathTo('zones', zone.id, 'nodes'), zone.nodes.length, placing)];
}
