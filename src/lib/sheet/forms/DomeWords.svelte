<script lang="ts">
	import HeightChip from '../HeightChip.svelte';
	import PlaceChips from '../PlaceChips.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import type { FormOf } from '../words';
	import { below, type Path } from '$core/project/typed-path';

	let { form, path, of }: { form: FormOf<'dome'>; path: Path<FormOf<'dome'>>; of: string } = $props();
</script>

of half sizes
{#each ['x', 'y', 'z'] as axis, k (axis)}<span class="whitespace-nowrap"
		><ValueChip
			path={below(path, 'radii', k)}
			value={form.radii[k]!}
			kind="length"
			label="Radius along {axis}"
			{of}
			step={100}
			min={1}
		/>{k < 2 ? ' by' : ''}</span
	>{' '}{/each}over <PlaceChips path={below(path, 'at')} value={form.at} {of} />, cut
<ValueChip
	path={below(path, 'cut')}
	value={form.cut}
	kind="length"
	label="Cut over the middle"
	{of}
	step={100}
/> over its middle, its rim at <HeightChip path={below(path, 'foot')} value={form.foot} label="Foot" {of} />
