<script lang="ts">
	import type { Zone } from '$core/project/schema';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import Clause from '$lib/frame/Clause.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import { below, pathTo } from '$core/project/typed-path';

	let { zone, number }: { zone: Zone; number: string } = $props();
	const desk = useDesk();
	const path = $derived(pathTo('zones', zone.id, 'slivers'));
	const faces = $derived(desk.model.view.zones.find((one) => one.id === zone.id)?.faces ?? []);
	const joined = $derived(faces.reduce((sum, face) => sum + face.slivers.joined, 0));
	const left = $derived(faces.reduce((sum, face) => sum + face.slivers.cells.length, 0));
	const put = $derived(zone.slivers?.put ?? 'flag');
	const effect = $derived(put === 'merge' ? `${joined} joined${left ? `, ${left} stay` : ''}` : String(left));
	const problems = $derived(desk.model.view.problems.filter(({ at }) => at.startsWith(path)));
</script>

{#if zone.slivers}
	<Clause
		{number}
		{path}
		{effect}
		{problems}
		actions={[
			{
				label: 'Leave slivers as they are',
				act: () => desk.set(path, null, `${zone.name}: slivers as they are`)
			}
		]}
	>
		Edge and cut cells under <ValueChip
			path={below(path, 'under')}
			value={zone.slivers.under}
			kind="area"
			label="Sliver under"
			of={zone.name}
			step={10_000}
			min={0}
		/>
		<ChoiceChip
			value={put}
			options={[
				{ value: 'merge', label: 'join their neighbour' },
				{ value: 'open', label: 'are left open' },
				{ value: 'flag', label: 'are kept and flagged' }
			]}
			label="What slivers do"
			onchoose={(next) => desk.set(below(path, 'put'), next, `${zone.name}: slivers ${next}`)}
		/><span class="full-stop">.</span>
	</Clause>
{/if}
