<script lang="ts">
	import type { TrimDefinition } from '$core/project/form-schema';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import { useWorkbench } from '$lib/state/workbench.svelte';
	import OutlineWords from './OutlineWords.svelte';
	import ValueChip from './ValueChip.svelte';

	interface Props {
		trim: TrimDefinition;
		path: string;
		of: string;
		faces: readonly string[];
	}
	let { trim, path, of, faces }: Props = $props();
	const workbench = useWorkbench();
	const ways = [
		{ value: '0,0,1', label: 'upward' },
		{ value: '0,0,-1', label: 'downward' },
		{ value: '0,1,0', label: 'to the north' },
		{ value: '1,0,0', label: 'to the east' },
		{ value: '0,-1,0', label: 'to the south' },
		{ value: '-1,0,0', label: 'to the west' }
	] as const;
	const way = $derived(trim.direction.join(','));
	const options = $derived(
		ways.some((one) => one.value === way) ? ways : [...ways, { value: way, label: `along ${way}` }]
	);
	const names = $derived(faces.includes(trim.face) ? faces : [...faces, trim.face]);
</script>

<span class="mt-0.5 block"
	><ChoiceChip
		value={trim.keep}
		options={[
			{ value: 'outside', label: 'An opening' },
			{ value: 'inside', label: 'An end' }
		]}
		label="Opening or end"
		onchoose={(keep) => workbench.set(`${path}/keep`, keep, `${of}: ${keep} of the outline kept`)}
	/>
	of
	{#if names.length > 1}<ChoiceChip
			value={trim.face}
			options={names.map((name) => ({ value: name, label: name }))}
			label="Face that is trimmed"
			onchoose={(face) => workbench.set(`${path}/face`, face, `${of}: trim of ${face}`)}
		/>{:else}its {trim.face}{/if},
	<OutlineWords outline={trim.outline} path="{path}/outline" of="{of} trim" />, from
	{#each ['x', 'y', 'z'] as axis, k (axis)}<span class="whitespace-nowrap"
			>{axis}
			<ValueChip
				path="{path}/at/{k}"
				value={trim.at[k]!}
				kind="length"
				label="Trim {axis}"
				{of}
				step={100}
			/></span
		>{' '}{/each}<ChoiceChip
		value={way}
		{options}
		label="Direction of the trim"
		onchoose={(next) =>
			workbench.set(`${path}/direction`, next.split(',').map(Number), `${of}: trim ${next}`)}
	/>, turned <ValueChip
		path="{path}/turn"
		value={trim.turn}
		kind="angle"
		label="Turn of the trim"
		{of}
		step={5}
	/>
	<button
		type="button"
		class="text-ink-2 text-[12px] underline"
		onclick={() => workbench.do(`${of}: trim removed`, { do: 'remove', path })}>remove</button
	></span
>
