<script lang="ts">
	import HeightChip from '../HeightChip.svelte';
	import PlaceChips from '../PlaceChips.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import type { FormOf } from '../words';

	let { form, path, of }: { form: FormOf<'dome'>; path: string; of: string } = $props();
</script>

of half sizes
{#each ['x', 'y', 'z'] as axis, k (axis)}<span class="whitespace-nowrap"
		><ValueChip
			path="{path}/radii/{k}"
			value={form.radii[k]!}
			kind="length"
			label="Radius along {axis}"
			{of}
			step={100}
			min={1}
		/>{k < 2 ? ' by' : ''}</span
	>{' '}{/each}over <PlaceChips path="{path}/at" value={form.at} {of} />, cut
<ValueChip path="{path}/cut" value={form.cut} kind="length" label="Cut over the middle" {of} step={100} /> over
its middle, its rim at <HeightChip path="{path}/foot" value={form.foot} label="Foot" {of} />
