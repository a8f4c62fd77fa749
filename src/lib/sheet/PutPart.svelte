<script lang="ts">
	/** An offer to put a part on a zone's cells, lines or nodes: chosen from the kit, and a clause of it made. */
	import type { GridSite } from '$core/cladding/sites';
	import { applyEdits } from '$core/project/commands';
	import type { Edit } from '$core/project/edits';
	import type { Zone } from '$core/project/schema';
	import { newNodePlacing, newRule, newRun } from '$lib/edits/new-clauses';
	import { choiceLabel } from '$lib/edits/part-choices';
	import { useDesk } from '$lib/state/desk.svelte';
	import PartChip from './PartChip.svelte';

	let { zone, over, say, label }: { zone: Zone; over: GridSite; say: string; label: string } = $props();
	const desk = useDesk();
	/** What is looked at must not change where it goes. */
	const place = $derived(desk.project.done.zones.find(({ id }) => id === zone.id) ?? zone);
	const edits = (id: string | null): Edit[] => {
		if (over === 'cell') return newRule(place, id);
		if (id === null) return [];
		if (over === 'chain') return newRun(place, id, 'chains');
		return over === 'line' ? newRun(place, id) : newNodePlacing(place, id);
	};
	function choose(id: string | null, making: readonly Edit[]) {
		const made = applyEdits(desk.project.done, making).project;
		const what = id === null ? 'open cells' : choiceLabel(made, id);
		const [fresh] = edits(id);
		if (!fresh || !desk.do(`${zone.name}: ${what} added`, ...making, fresh)) return;
		// What was said is worked on next.
		if (fresh.do === 'insert') desk.selection.clause = `${fresh.path}/${(fresh.value as { id: string }).id}`;
	}
</script>

<PartChip
	variant={null}
	{over}
	zone={zone.name}
	{label}
	{say}
	{...over === 'cell' && { nothing: 'nothing: leave open' }}
	{edits}
	onchoose={choose}
/>
