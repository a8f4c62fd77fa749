<script lang="ts">
	import type { Mass, PathDefinition } from '$core/project/schema';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import NumberChip from '$lib/components/NumberChip.svelte';
	import TextChip from '$lib/components/TextChip.svelte';
	import { useWorkbench } from '$lib/state/workbench.svelte';
	import { formatNumber } from '$core/units/quantity';
	import Clause from './Clause.svelte';
	import PointsChip from './PointsChip.svelte';
	import { formWords } from './words';

	let { mass, number }: { mass: Mass; number: string } = $props();
	const workbench = useWorkbench();
	const path = $derived(`masses/${mass.id}`);
	const problems = $derived(
		workbench.model.view.problems.filter(
			(problem) => problem.at === path || problem.at.startsWith(`${path}/`)
		)
	);
	const users = $derived(
		workbench.project.document.zones.filter((zone) => zone.faces.some((face) => face.mass === mass.id))
	);

	function remove() {
		workbench.do(`remove ${mass.name}`, { do: 'remove', path });
	}
	const setJoins = (at: string, value: string, label: string) =>
		workbench.set(at, value, `${mass.name} ${label} ${value}`);
	const joinOptions = [
		{ value: 'smooth', label: 'smooth' },
		{ value: 'line', label: 'straight' },
		{ value: 'mixed', label: 'mixed' }
	] as const;
	const joinOf = (value: string | readonly string[]) =>
		(typeof value === 'string' ? value : 'mixed') as 'smooth' | 'line' | 'mixed';
</script>

{#snippet curve(one: PathDefinition, at: string, label: string)}
	<PointsChip
		points={one.points}
		axes={['x', 'y', 'z']}
		path="{at}/points"
		joinsPath="{at}/joins"
		joins={one.joins}
		label="{mass.name} {label}"
	/>
	<ChoiceChip
		value={joinOf(one.joins)}
		options={joinOptions.filter((option) => option.value !== 'mixed' || joinOf(one.joins) === 'mixed')}
		label="{label} joins"
		onchoose={(value) => setJoins(`${at}/joins`, value, label)}
	/>
{/snippet}

<Clause
	{number}
	{path}
	{problems}
	effect={users.length ? users.map((zone) => zone.code).join(' ') : 'no zone'}
	actions={[
		{
			label: mass.outside === 'as drawn' ? 'Turn outside to the other side' : 'Turn outside back',
			act: () =>
				workbench.set(
					`${path}/outside`,
					mass.outside === 'as drawn' ? 'turned' : 'as drawn',
					`${mass.name} outside turned`
				)
		},
		{ label: 'Remove', act: remove, disabled: users.length > 0 }
	]}
>
	<TextChip
		value={mass.name}
		label="Name of the mass"
		look="name"
		oncommit={(text) => workbench.set(`${path}/name`, text, `name ${text}`)}
	/>
	is {formWords[mass.form.kind]}{' '}{#if mass.form.kind === 'revolved'}{@const form = mass.form}
		from a profile of
		<PointsChip
			points={form.profile.points}
			axes={['from axis', 'height']}
			path="{path}/form/profile/points"
			joinsPath="{path}/form/profile/joins"
			joins={form.profile.joins}
			label="{mass.name} profile"
		/>
		joined
		<ChoiceChip
			value={joinOf(form.profile.joins)}
			options={joinOptions.filter(
				(option) => option.value !== 'mixed' || joinOf(form.profile.joins) === 'mixed'
			)}
			label="Profile joins"
			onchoose={(value) => setJoins(`${path}/form/profile/joins`, value, 'profile')}
		/>, turned
		<NumberChip
			value={form.turn}
			kind="angle"
			label="Turn of {mass.name}"
			step={5}
			onpreview={(value) => workbench.project.preview({ do: 'set', path: `${path}/form/turn`, value })}
			onpreviewend={() => workbench.project.dropPreview()}
			oncommit={(value, was) =>
				workbench.set(
					`${path}/form/turn`,
					value,
					`${mass.name} turn ${formatNumber(was, 1)}° → ${formatNumber(value, 1)}°`
				)}
		/>{:else if mass.form.kind === 'ruled'}
		between the foot {@render curve(mass.form.foot, `${path}/form/foot`, 'foot')} and the head
		{@render curve(mass.form.head, `${path}/form/head`, 'head')}{:else}
		{@const form = mass.form}
		<ChoiceChip
			value={form.between}
			options={[
				{ value: 'smooth', label: 'smoothly' },
				{ value: 'straight', label: 'straight' }
			]}
			label="Between sections of {mass.name}"
			onchoose={(value) =>
				workbench.set(`${path}/form/between`, value, `${mass.name} ${value} between sections`)}
		/> through {form.sections.length} sections:
		{#each form.sections as section, k (k)}
			<PointsChip
				points={section.points}
				axes={['x', 'y', 'z']}
				path="{path}/form/sections/{k}/points"
				joinsPath="{path}/form/sections/{k}/joins"
				joins={section.joins}
				label="{mass.name} section {k + 1}"
				short={String(k + 1)}
			/>
		{/each}{/if}.{#if mass.outside === 'turned'}<span class="text-ink-2"> Outside is turned.</span>{/if}
</Clause>
