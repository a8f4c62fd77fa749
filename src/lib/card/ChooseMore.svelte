<script lang="ts">
	/** More cells to choose with the one that is chosen: its course, its bay, its rule's, those that are alike. */
	import { addressOf, type Found } from '$lib/state/selection.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import { alikeCells, cellsOfRule, cellsWhere } from './more-cells';

	let { found }: { found: Found } = $props();
	const desk = useDesk();
	const zone = $derived(desk.model.view.zones[found.zone]);
	const ways = [
		{ label: 'course', cells: () => cellsWhere(zone!, found, 'course') },
		{ label: 'bay', cells: () => cellsWhere(zone!, found, 'bay') },
		{ label: 'rule', cells: () => cellsOfRule(zone!, found) },
		{ label: 'alike', cells: () => alikeCells(zone!, found) }
	];
	function choose(faces: readonly (readonly number[])[], event: MouseEvent) {
		const addresses = faces.flatMap((cells, face) =>
			cells.map((index) => addressOf(desk.model.view, { zone: found.zone, face, kind: 'cell', index }))
		);
		// The one that was chosen stays the last: its card stays open.
		const all = [...(event.shiftKey ? desk.selection.addresses : []), ...addresses];
		desk.selection.choose([...new Set(all.filter((one) => one !== found.address)), found.address]);
	}
</script>

<p class="text-ink-2 mt-1 text-[12px]">
	Choose its
	{#each ways as { label, cells }, k (label)}{k ? ', ' : ''}<button
			type="button"
			class="text-patina-deep underline decoration-dotted underline-offset-2"
			title="With Shift besides what is chosen"
			onpointerenter={() => (desk.lit = { zone: zone!.id, cells: cells() })}
			onpointerleave={() => (desk.lit = null)}
			onclick={(event) => choose(cells(), event)}>{label}</button
		>{/each}
</p>
