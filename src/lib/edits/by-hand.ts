import { rounded } from '$core/units/quantity';
import { partsOf } from '$core/cladding/kit';
import { kindOf } from '$core/cladding/address';
import { hangsOn } from '$core/cladding/sites';
import { partOfVariant } from './variants-on';
import { swapPieces } from '$core/cladding/swap';
import type { Edit } from '$core/project/edits';
import type { PartDefinition } from '$core/project/part-definition';
import type { Exception, Project } from '$core/project/schema';
import { find, type Found } from '$lib/state/selection.svelte';
import type { ModelView, ZoneView } from '$lib/state/model.svelte';
import type { GroupView } from '$lib/worker/views';
import { applyEdits } from '$core/project/commands';
import { below, insertAt, pathTo, removeAt, setAt, type Path } from '$core/project/typed-path';

/** Where a cell lies on its face, so that its exception finds the place again when addresses change. */
function placeOf(view: ModelView, address: string): [number, number] | null {
	const found = find(view, address);
	if (found?.kind !== 'cell') return null;
	const face = view.zones[found.zone]!.faces[found.face]!;
	const share = (step: number, steps: number) => rounded((step - 0.5) / steps, 6);
	return [
		share(face.cells.bay[found.index]!, face.grid.across.steps),
		share(face.cells.course[found.index]!, face.grid.up.steps)
	];
}

/** Beyond this share of what a choice covers its cells are listed anew rather than taken out one by one. */
const LISTED_ANEW = 0.25;

/** The edits that take cells out of a choice by hand; one that is left without any goes. */
function withoutCells(list: Path<Exception[]>, { id, sites }: Exception, gone: ReadonlySet<string>): Edit[] {
	const path = below(list, id);
	const left = sites.filter((site) => !gone.has(site.id));
	const out = sites.length - left.length;
	if (out === 0) return [];
	if (left.length === 0) return [removeAt(path)];
	if (out > LISTED_ANEW * sites.length) return [setAt(below(path, 'sites'), left)];
	return sites
		.filter((site) => gone.has(site.id))
		.map((site): Edit => removeAt(below(path, 'sites', site.id)));
}

/** What is put on cells by hand: clipped where a trim leaves one of them other corners than the part has. */
function clippedWhereCut(
	document: Project,
	put: Exception['put'],
	addresses: readonly string[],
	view: ModelView
): Exception['put'] {
	if (put === 'open' || 'as' in put) return put;
	const part = partOfVariant(document, put.variant);
	const needs = addresses.some((address) => {
		const found = find(view, address);
		if (!part || found?.kind !== 'cell') return false;
		const { cells } = view.zones[found.zone]!.faces[found.face]!;
		const corners = cells.start[found.index + 1]! - cells.start[found.index]!;
		return kindOf(cells, found.index) === 'cut' && !hangsOn(part, 'cell', corners);
	});
	return needs ? { ...put, cut: 'clip' } : put;
}

/**
 * The edits that put something on cells by hand, or leave them to the rules again.
 * @param addresses zone/face/course/bay/slot of every cell
 * @param put null for what the rules say
 */
export function exceptionEdits(
	document: Project,
	addresses: readonly string[],
	put: Exception['put'] | null,
	view: ModelView
): Edit[] {
	return document.zones.flatMap((zone): Edit[] => {
		// An exception that was put at its place again still goes by the address it was made under.
		const assignments = view.zones.find((one) => one.id === zone.id)?.assignments ?? [];
		const madeAs = new Map(
			assignments.flatMap(({ moved }) => [...moved].map(([old, now]) => [now, old] as const))
		);
		const ids = addresses
			.filter((address) => address.startsWith(`${zone.id}/`))
			.map((address) => address.slice(zone.id.length + 1));
		if (!ids.length) return [];
		const list = pathTo('zones', zone.id, 'exceptions');
		const gone = new Set(ids.map((id) => madeAs.get(id) ?? id));
		const taken = zone.exceptions.flatMap((one) => withoutCells(list, one, gone));
		if (put === null) return taken;
		const from =
			zone.exceptions.length - taken.filter((edit) => edit.do === 'remove' && isWhole(edit, list)).length;
		const sites = ids.map((id) => ({ id, place: placeOf(view, `${zone.id}/${id}`) }));
		const fits = clippedWhereCut(document, put, addresses, view);
		const value: Exception = { id: `by-hand-${crypto.randomUUID().slice(0, 8)}`, put: fits, sites };
		return [...taken, insertAt(list, from, value)];
	});
}

/** What is set otherwise by hand: values, and how pieces lie, from how they lie now. */
export interface Adjustment {
	/** Another variant in its place, with none of the values set for the one before. */
	readonly variant?: string;
	readonly values?: Readonly<Record<string, string>>;
	/** On by a corner. */
	readonly turn?: boolean;
	/** The other way. */
	readonly flip?: boolean;
	readonly mirror?: boolean;
}

function adjusted(
	put: Exception['put'] | null,
	{ lie, corners }: GroupView,
	change: Adjustment
): Exception['put'] {
	const own = put === null || put === 'open' ? { as: 'the rules say' as const, values: {} } : put;
	const base = change.variant === undefined ? own : { variant: change.variant, values: {} };
	return {
		...base,
		values: { ...base.values, ...change.values },
		...(change.turn && { turn: (lie.turn + 1) % corners }),
		...(change.flip && { flip: !lie.flip }),
		...(change.mirror && { mirror: !lie.mirror })
	};
}

/**
 * The edits that set something otherwise on cells, each its own: what the rules, or a choice by hand, put there stays.
 * Cells that nothing stands on are passed over.
 */
export function adjustEdits(
	document: Project,
	changes: Iterable<readonly [address: string, change: Adjustment]>,
	view: ModelView
): Edit[] {
	const alike = new Map<string, { put: Exception['put']; addresses: string[] }>();
	const byFace = new Map<string, (GroupView | undefined)[]>();
	/** The group of the piece on every cell of a face, those beside others left out. */
	function groupAt(zone: ZoneView, face: number): (GroupView | undefined)[] {
		const key = `${zone.id} ${face}`;
		let found = byFace.get(key);
		if (!found) {
			byFace.set(key, (found = []));
			for (const group of zone.groups)
				if (group.over === 'cell' && !group.beside && group.face === face)
					for (const cell of group.sites) found[cell] = group;
		}
		return found;
	}
	for (const [address, change] of changes) {
		const found = find(view, address);
		if (found?.kind !== 'cell') continue;
		const zone = view.zones[found.zone]!;
		const group = groupAt(zone, found.face)[found.index];
		if (!group) continue;
		const exceptions = document.zones.find(({ id }) => id === zone.id)?.exceptions ?? [];
		const own = exceptions[zone.assignments[found.face]?.exception[found.index] ?? -1];
		const put = adjusted(own?.put ?? null, group, change);
		const key = `${zone.id} ${JSON.stringify(put)}`;
		const known = alike.get(key);
		if (known) known.addresses.push(address);
		else alike.set(key, { put, addresses: [address] });
	}
	// One after another: each takes its cells out of what the one before has left.
	let edits: Edit[] = [];
	for (const { put, addresses: cells } of alike.values())
		edits = [...edits, ...exceptionEdits(applyEdits(document, edits).project, cells, put, view)];
	return edits;
}

/** Whether an edit takes out a whole choice, not cells of it. */
const isWhole = ({ path }: Edit, list: string) => !path.slice(list.length + 1).includes('/');

/** Another part on chosen cells only. */
export interface SwappedCells {
	readonly edits: readonly Edit[];
	readonly kept: readonly string[];
	readonly dropped: readonly string[];
	/** Cells that stay as they are: with no piece, or with another number of corners than the part takes. */
	readonly passedOver: number;
}

function cornersAt(view: ModelView, { zone, face, index }: Found): number {
	const { start } = view.zones[zone]!.faces[face]!.cells;
	return start[index + 1]! - start[index]!;
}

/** The edits that put another part on the pieces of some cells, with the values that both parts have. */
export function swapCells(
	document: Project,
	addresses: readonly string[],
	to: PartDefinition,
	view: ModelView
): SwappedCells {
	const parts = partsOf(document);
	const byClause = new Map<string, { cells: string[]; swap: ReturnType<typeof swapPieces> }>();
	let passedOver = 0;
	for (const address of addresses) {
		const found = find(view, address);
		const group =
			found?.kind === 'cell'
				? view.zones[found.zone]!.groups.find(
						(one) => one.over === 'cell' && one.face === found.face && one.sites.includes(found.index)
					)
				: undefined;
		const variant = document.variants.find(({ id }) => id === group?.variantId);
		const from = parts.find(({ id }) => id === variant?.part);
		const corners = found?.kind === 'cell' ? cornersAt(view, found) : 0;
		const fits = hangsOn(to, 'cell', corners);
		if (!found || !group || !variant || !from || !fits || from.id === to.id) {
			passedOver++;
			continue;
		}
		const zone = document.zones.find(({ id }) => id === view.zones[found.zone]!.id)!;
		const { id } = group.clause;
		const key = `${zone.id} ${id} ${variant.id}`;
		let known = byClause.get(key);
		if (!known) {
			const put = zone.rules.find((rule) => rule.id === id)?.put;
			const formulas = put && put !== 'open' ? put.values : {};
			byClause.set(key, (known = { cells: [], swap: swapPieces(document, variant, formulas, from, to) }));
		}
		known.cells.push(address);
	}
	const all = [...byClause.values()];
	const fresh = new Map(
		all.filter(({ swap }) => swap.isNew).map(({ swap }) => [swap.variant.id, swap.variant])
	);
	const unique = (lists: readonly (readonly string[])[]) => [...new Set(lists.flat())];
	return {
		edits: [
			...[...fresh.values()].map((value, k): Edit =>
				insertAt(pathTo('variants'), document.variants.length + k, value)
			),
			...all.flatMap(({ cells, swap }) =>
				exceptionEdits(document, cells, { variant: swap.variant.id, values: swap.values }, view)
			)
		],
		kept: unique(all.map(({ swap }) => swap.kept)),
		dropped: unique(all.map(({ swap }) => swap.dropped)),
		passedOver
	};
}
