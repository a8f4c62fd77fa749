<script lang="ts">
	/** A zone that is set out as another one. */
	import type { Zone } from '$core/project/schema';
	import { isWithin } from '$core/project/paths';
	import { pathTo, setAt } from '$core/project/typed-path';
	import { formatNumber } from '$core/units/quantity';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import { settingOutFor, tiesFor } from '$lib/edits/ties';
	import Clause from '$lib/frame/Clause.svelte';
	import { useDesk } from '$lib/state/desk.svelte';

	let { zone, number }: { zone: Zone; number: string } = $props();
	const desk = useDesk();
	const document = $derived(desk.project.document);
	const path = $derived(pathTo('zones', zone.id, 'setOutAs'));
	const problems = $derived(
		desk.model.view.problems.filter(
			({ at }) => isWithin(at, path) || isWithin(at, pathTo('zones', zone.id, 'settingOut'))
		)
	);
	const others = $derived(tiesFor(document, zone));
	const known = $derived(document.zones.find(({ id }) => id === zone.setOutAs));
	const grid = $derived(desk.model.view.zones.find(({ id }) => id === zone.id)?.faces[0]?.grid);
	const effect = $derived(grid ? `${formatNumber(grid.across.steps)} by ${formatNumber(grid.up.steps)}` : '');
	/** Untied it stays as it is until it is changed. */
	function untie() {
		desk.do(
			`${zone.name} has a setting-out of its own`,
			setAt(pathTo('zones', zone.id, 'settingOut'), settingOutFor(document, zone)),
			setAt(path, null)
		);
	}
</script>

<Clause
	{number}
	{path}
	{problems}
	{effect}
	actions={[{ label: 'Give it a setting-out of its own', act: untie }]}
>
	Set out as <ChoiceChip
		value={zone.setOutAs ?? ''}
		options={[
			...others.map(({ id, name }) => ({ value: id, label: name })),
			...(known && !others.includes(known) ? [{ value: known.id, label: known.name }] : [])
		]}
		label="Zone it is set out as"
		onchoose={(id) => desk.set(path, id, `${zone.name} is set out as another zone`)}
	/>, so that a change is made once
	<button type="button" class="text-ink-2 text-[12px] underline" onclick={untie}>its own again</button><span
		class="full-stop">.</span
	>
</Clause>
