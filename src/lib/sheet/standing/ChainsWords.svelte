<script lang="ts">
	/** Which nodes chains go through, how they are copied, and how they are woven. */
	import type { Zone } from '$core/project/schema';
	import type { StandingOf } from '$core/project/standing-schema';
	import { below, type Path } from '$core/project/typed-path';
	import { formatNumber } from '$core/units/quantity';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';

	interface Props {
		zone: Zone;
		on: StandingOf<'chains'>;
		path: Path<StandingOf<'chains'>>;
		/** Zones with nodes. */
		grids: readonly { value: string; label: string }[];
	}
	let { zone, on, path, grids }: Props = $props();
	const desk = useDesk();
	const { through, copies } = $derived(on);
	/** Places of numbers that are there in some kinds of chains only. */
	const numbers = $derived(
		path as string as Path<{
			through: { from: number[]; step: number[]; most: number };
			copies: { count: number; by: number; about: number[] };
		}>
	);
	const set = (next: Partial<StandingOf<'chains'>>, said: string) =>
		desk.set(path, { ...on, ...next }, `${zone.name}: ${said}`);
	const middle = $derived.by((): [number, number] => {
		const points = desk.model.view.zones.find(({ id }) => id === on.of)?.faces[0]?.grid.positions ?? [0, 0];
		return [Math.round(points[0]!), Math.round(points[1]!)];
	});
</script>

{#snippet number(
	place: Path<number>,
	value: number,
	label: string,
	kind: 'count' | 'length' | 'angle' = 'count'
)}
	<ValueChip path={place} {value} {kind} {label} of={zone.name} />
{/snippet}

follows the nodes of
<ChoiceChip
	value={on.of}
	options={grids}
	label="Whose nodes"
	onchoose={(of) => set({ of }, 'another grid')}
/>{#if through.by === 'steps'}, from bay line
	{@render number(below(numbers, 'through', 'from', 0), through.from[0], 'First bay line')}, course line
	{@render number(below(numbers, 'through', 'from', 1), through.from[1], 'First course line')},
	{@render number(below(numbers, 'through', 'step', 0), through.step[0], 'Bays a step')}
	{Math.abs(through.step[0]) === 1 ? 'bay' : 'bays'} and
	{@render number(below(numbers, 'through', 'step', 1), through.step[1], 'Courses a step')}
	{Math.abs(through.step[1]) === 1 ? 'course' : 'courses'} a step,
	<ChoiceChip
		value={through.most === null ? 'rim' : 'most'}
		options={[
			{ value: 'rim', label: 'until the rim or back to the start' },
			{ value: 'most', label: 'through so many nodes' }
		]}
		label="How far they go"
		onchoose={(next) =>
			set(
				{ through: { ...through, most: next === 'rim' ? null : 14 } },
				next === 'rim' ? 'to the rim' : '14 nodes'
			)}
	/>{#if through.most !== null}:
		{@render number(below(numbers, 'through', 'most'), through.most, 'Nodes of a chain')}{/if}{:else}, the
	<span class="figures">{formatNumber(through.nodes.length)}</span> that were chosen, in their order{/if};
{#if copies}
	{@render number(below(numbers, 'copies', 'count'), copies.count, 'Chains')} of them about x
	{@render number(below(numbers, 'copies', 'about', 0), copies.about[0], 'Axis x', 'length')}, y
	{@render number(below(numbers, 'copies', 'about', 1), copies.about[1], 'Axis y', 'length')},
	<ChoiceChip
		value={copies.by === 'full circle' ? 'circle' : 'angle'}
		options={[
			{ value: 'circle', label: 'sharing the full circle' },
			{ value: 'angle', label: 'each turned by' }
		]}
		label="How copies are turned"
		onchoose={(next) =>
			set(
				{
					copies: {
						...copies,
						by: next === 'circle' ? 'full circle' : Math.round(3.6e5 / Math.max(1, copies.count)) / 1000
					}
				},
				next === 'circle' ? 'a full circle' : 'by an angle'
			)}
	/>{#if copies.by !== 'full circle'}{' '}{@render number(
			below(numbers, 'copies', 'by'),
			copies.by,
			'Angle of a copy',
			'angle'
		)}{/if},
	<ChoiceChip
		value={copies.mirrored ? 'both' : 'one'}
		options={[
			{ value: 'one', label: 'one way' },
			{ value: 'both', label: 'and mirrored the other way' }
		]}
		label="Whether they are mirrored"
		onchoose={(next) =>
			set({ copies: { ...copies, mirrored: next === 'both' } }, next === 'both' ? 'mirrored too' : 'one way')}
	/>;
	<ChoiceChip
		value={on.over ? 'woven' : 'flat'}
		options={[
			{ value: 'flat', label: 'lying in the face' },
			{ value: 'woven', label: 'over and under in turn by' }
		]}
		label="How they cross"
		onchoose={(next) => set({ over: next === 'woven' ? 40 : 0 }, next === 'woven' ? 'woven' : 'in the face')}
	/>{#if on.over}{' '}{@render number(below(path, 'over'), on.over, 'Over and under by', 'length')}{/if}<span
		class="full-stop">.</span
	>
{:else}
	<button
		type="button"
		class="text-patina-deep font-sans text-[12px] underline"
		onclick={() =>
			set({ copies: { count: 8, by: 'full circle', about: middle, mirrored: false } }, 'turned copies')}
		>turned copies …</button
	><span class="full-stop">.</span>
{/if}
