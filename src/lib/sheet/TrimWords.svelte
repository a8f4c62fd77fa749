<script lang="ts">
	import { EVERY_FACE, type TrimDefinition } from '$core/project/form-schema';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import CurveChip from './CurveChip.svelte';
	import DirectionChip from './DirectionChip.svelte';
	import HeightChip from './HeightChip.svelte';
	import OutlineWords from './OutlineWords.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import { isWithin } from '$core/project/paths';
	import { below, removeAt, type Path } from '$core/project/typed-path';

	interface Props {
		trim: TrimDefinition;
		path: Path<TrimDefinition>;
		of: string;
		faces: readonly string[];
	}
	let { trim, path, of, faces }: Props = $props();
	const desk = useDesk();
	const names = $derived(
		[...faces, ...(trim.by === 'mass' ? [EVERY_FACE] : []), trim.face].filter(
			(name, k, all) => all.indexOf(name) === k
		)
	);
	const masses = $derived(
		desk.project.document.masses.filter(({ trims }) => !trims.some((one) => one === trim))
	);
	const problems = $derived(desk.model.view.problems.some(({ at }) => isWithin(at, path)));
	const isPlane = $derived(trim.by === 'plane' || trim.by === 'level');
	const isOpen = $derived(trim.by === 'curve' && !trim.curve.closed);
	const keeps: Record<string, string> = $derived({
		outside:
			trim.by === 'mass' ? 'What is outside' : isOpen ? 'The side away from the first corner' : 'An opening',
		inside: trim.by === 'mass' ? 'What is within' : isOpen ? 'The side of the first corner' : 'An end',
		ahead: 'What is ahead',
		behind: 'What is behind',
		above: 'What is above',
		below: 'What is below'
	});
	const choices: readonly TrimDefinition['keep'][] = $derived(
		trim.by === 'plane'
			? ['ahead', 'behind']
			: trim.by === 'level'
				? ['above', 'below']
				: ['outside', 'inside']
	);
</script>

{#snippet coordinates(at: readonly number[], path: Path<[number, number, number]>, label: string)}
	{#each at as value, k (k)}<span class="whitespace-nowrap"
			>{['x', 'y', 'z'][k]}
			<ValueChip
				path={below(path, k)}
				{value}
				kind="length"
				label="{label} {['x', 'y', 'z'][k]}"
				{of}
				step={100}
			/></span
		>{' '}{/each}
{/snippet}

<span class={['mt-0.5 block', problems && 'text-oxide-deep']} data-trim={trim.id}
	><ChoiceChip
		value={trim.keep}
		options={choices.map((value) => ({ value, label: keeps[value]! }))}
		label={isPlane || isOpen || trim.by === 'mass' ? 'Side that is kept' : 'Opening or end'}
		onchoose={(keep) => desk.set(below(path, 'keep'), keep, `${of}: ${keeps[keep]!.toLowerCase()} kept`)}
	/>
	{#if trim.by === 'level'}<HeightChip
			path={below(path, 'height')}
			value={trim.height}
			label="Trim height"
			{of}
		/>
		is kept of{:else if trim.by === 'mass'}<ChoiceChip
			value={trim.mass}
			options={masses.map(({ id, name }) => ({ value: id, label: name }))}
			label="Mass that cuts it"
			onchoose={(id) => desk.set(below(path, 'mass'), id, `${of}: cut by another mass`)}
		/>
		is kept of{:else if trim.by === 'plane'}a plane is kept of{:else if isOpen}is kept of{:else}of{/if}
	{#if names.length > 1}<ChoiceChip
			value={trim.face}
			options={names.map((name) => ({ value: name, label: name }))}
			label="Face that is trimmed"
			onchoose={(face) => desk.set(below(path, 'face'), face, `${of}: trim of ${face}`)}
		/>{:else}its {trim.face}{/if}{#if trim.by === 'outline'},
		<OutlineWords outline={trim.outline} path={below(path, 'outline')} of="{of} trim" />, from
		{@render coordinates(trim.at, below(path, 'at'), 'Trim')}<DirectionChip
			value={trim.direction}
			label="Direction of the trim"
			onchoose={(direction) => desk.set(below(path, 'direction'), direction, `${of}: direction of the trim`)}
		/>, turned <ValueChip
			path={below(path, 'turn')}
			value={trim.turn}
			kind="angle"
			label="Turn of the trim"
			{of}
			step={5}
		/>
	{:else if trim.by === 'map'},
		<OutlineWords outline={trim.outline} path={below(path, 'outline')} of="{of} trim" /> on the flat map, <ValueChip
			path={below(path, 'at', 0)}
			value={trim.at[0]}
			kind="length"
			label="Trim to the right of the middle"
			{of}
			step={100}
		/> to the right of its middle line, <ValueChip
			path={below(path, 'at', 1)}
			value={trim.at[1]}
			kind="length"
			label="Trim over the foot"
			{of}
			step={100}
		/> up, turned <ValueChip
			path={below(path, 'turn')}
			value={trim.turn}
			kind="angle"
			label="Turn of the trim"
			{of}
			step={5}
		/>
	{:else if trim.by === 'curve'}{isOpen ? ' along a curve from side to side' : ', a closed curve'}
		<CurveChip
			curve={{
				path: below(path, 'curve'),
				label: `${of} trim`,
				points: trim.curve.points,
				joins: trim.curve.joins,
				axes: ['x', 'y', 'z'],
				closed: trim.curve.closed,
				arcs: false
			}}
		/> taken <DirectionChip
			value={trim.direction}
			label="Direction of the trim"
			onchoose={(direction) => desk.set(below(path, 'direction'), direction, `${of}: direction of the trim`)}
			onnearest={() =>
				desk.set(below(path, 'direction'), null, `${of}: the trim is taken where it is nearest`)}
		/>
	{:else if trim.by === 'plane'}, through {@render coordinates(trim.at, below(path, 'at'), 'Plane')} looking
		<DirectionChip
			value={trim.normal}
			label="Direction the plane looks"
			onchoose={(normal) => desk.set(below(path, 'normal'), normal, `${of}: direction of the plane`)}
		/>{/if}; curves to within <ValueChip
		path={below(path, 'within')}
		value={trim.within}
		kind="length"
		label="Trim followed to within"
		{of}
		step={1}
		min={0.01}
	/>
	<button
		type="button"
		class="text-ink-2 text-[12px] underline"
		onclick={() => desk.do(`${of}: trim removed`, removeAt(path))}>remove</button
	></span
>
