<script lang="ts">
	import ValueChip from '$lib/frame/ValueChip.svelte';

	/** A point in plan. */
	let { path, value, of }: { path: string; value: readonly [number, number]; of: string } = $props();
</script>

<span class="whitespace-nowrap"
	>x <ValueChip path="{path}/0" value={value[0]} kind="length" label="x" {of} step={100} />
	y <ValueChip path="{path}/1" value={value[1]} kind="length" label="y" {of} step={100} /></span
>
