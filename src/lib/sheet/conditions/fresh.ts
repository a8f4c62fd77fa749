import type { GridSite } from '$core/cladding/sites';
import { nameInFormulas } from '$core/field/followed';
import type { Condition } from '$core/project/condition-schema';
import type { Project, Zone } from '$core/project/schema';
import type { ZoneView } from '$lib/state/model.svelte';

/** A condition that can be added, with what it starts from; what there is nothing of yet is not offered. */
export interface Offered {
	readonly label: string;
	readonly fresh: () => Condition;
}

/** What there is to ask of. */
export interface AskedOf {
	readonly over: GridSite;
	/** The zone, by its id. */
	readonly zone: string;
	readonly project: Project;
	readonly slots: readonly string[];
	/** Addresses of the zone's faces, as `hall.south`. */
	readonly faces: readonly string[];
	readonly courses: number;
	readonly bays: number;
}

export const askedOf = (
	over: GridSite,
	project: Project,
	zone: Zone,
	state: ZoneView | undefined
): AskedOf => ({
	over,
	zone: zone.id,
	project,
	slots: [...new Set(state?.faces.flatMap((face) => face.slots) ?? [])],
	faces: state?.faces.map(({ address }) => address) ?? [],
	courses: state?.faces[0]?.grid.up.steps ?? 1,
	bays: state?.faces[0]?.grid.across.steps ?? 1
});

const range = (field: string, at_least: number | null, at_most: number | null): Condition => ({
	is: 'range',
	field,
	at_least,
	at_most
});

/** Conditions in the order they are offered. */
export function offeredFor({ over, zone, project, slots, faces, courses, bays }: AskedOf): Offered[] {
	const { guides, levels } = project;
	const [guide, closed, level] = [guides[0], guides.find((one) => one.closed), levels[0]];
	const ofCells: Offered[] = [
		{ label: 'whole, edge, strip or cut', fresh: () => ({ is: 'kind', of: ['whole', 'strip'] }) },
		{ label: 'so many corners', fresh: () => ({ is: 'corners', of: [4] }) },
		...(slots.length > 1
			? [{ label: 'a slot of the pattern', fresh: (): Condition => ({ is: 'slot', of: [slots[0]!] }) }]
			: []),
		{ label: 'looking a way', fresh: () => ({ is: 'looks', towards: 'south', within: 45 }) },
		{ label: 'so many from the rim', fresh: () => range('from_rim', null, 1) },
		{ label: 'an area', fresh: () => range('area', 1e6, null) }
	];
	const variant = project.zones
		.find(({ id }) => id === zone)
		?.rules.flatMap(({ put }) => (put === 'open' ? [] : put.variant))[0];
	const onRims: Offered = { label: 'on some of the rims', fresh: () => ({ is: 'rim', of: ['foot'] }) };
	const ofLines: Offered[] = [
		onRims,
		...(variant === undefined
			? []
			: [
					{
						label: 'beside a part',
						fresh: (): Condition => ({ is: 'beside', variant, on: 'one side' })
					}
				]),
		{ label: 'a slope', fresh: () => range('slope', 45, null) }
	];
	return [
		...(over === 'cell' ? ofCells : []),
		...(over === 'line' ? ofLines : []),
		...(over === 'node'
			? [{ label: 'lines that meet', fresh: (): Condition => ({ is: 'corners', of: [4] }) }, onRims]
			: []),
		...(faces.length > 1
			? [{ label: 'a face', fresh: (): Condition => ({ is: 'face', of: [faces[0]!] }) }]
			: []),
		{ label: 'some courses', fresh: () => range('course', 1, courses) },
		{ label: 'some bays', fresh: () => range('bay', 1, bays) },
		...(level
			? [
					{
						label: 'above or below a level',
						fresh: (): Condition => ({ is: 'levels', above: level.id, below: null })
					}
				]
			: []),
		{ label: 'every other one', fresh: () => ({ is: 'every', step: 2, from: 1, by: 'cells' }) },
		{ label: 'some by chance', fresh: () => ({ is: 'chance', share: 0.5, seed: 1 }) },
		{ label: 'a measure within bounds', fresh: () => range('height', 0, null) },
		...(guide
			? [
					{
						label: 'near a guide',
						fresh: (): Condition => range(`distance.${nameInFormulas(guide.id)}`, null, 3000)
					}
				]
			: []),
		...(closed
			? [{ label: 'inside a guide', fresh: (): Condition => ({ is: 'inside', guide: closed.id }) }]
			: []),
		{ label: 'a formula', fresh: () => ({ is: 'formula', formula: 'height > 3 m' }) },
		{
			label: 'one of several, in brackets',
			fresh: () => ({
				is: 'any',
				of: [range('course', 1, 1), range('course', courses, courses)]
			})
		}
	];
}
