<script lang="ts">
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import { below, type Path } from '$core/project/typed-path';

	/** A point in plan. */
	let { path, value, of }: { path: Path<[number, number]>; value: readonly [number, number]; of: string } =
		$props();
</script>

<span class="whitespace-nowrap"
	>x <ValueChip path={below(path, 0)} value={value[0]} kind="length" label="x" {of} step={100} />
	y <ValueChip path={below(path, 1)} value={value[1]} kind="length" label="y" {of} step={100} /></span
>
