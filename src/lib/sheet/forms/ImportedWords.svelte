<script lang="ts">
	import type { FormOf } from '../words';
	import ValueChip from '../ValueChip.svelte';

	let { form, path, of }: { form: FormOf<'imported'>; path: string; of: string } = $props();
	const SHOWN = 4;
</script>

from <i>{form.source}</i>: {form.faces.length}
{form.faces.length === 1 ? 'face' : 'faces'}, moved by {#each ['x', 'y', 'z'] as axis, k (axis)}<span
		class="whitespace-nowrap"
		>{axis}
		<ValueChip
			path="{path}/at/{k}"
			value={form.at[k]!}
			kind="length"
			label="Moved along {axis}"
			{of}
			step={100}
		/></span
	>{' '}{/each}{#if form.refused.length}<span class="text-oxide-deep block font-sans text-[12px] leading-snug"
		>{form.refused.length} not taken: {form.refused.slice(0, SHOWN).join('; ')}{form.refused.length > SHOWN
			? ' …'
			: ''}</span
	>{/if}
