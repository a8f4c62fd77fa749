<script lang="ts">
	/** What is set by hand in a zone: each choice can be looked at and taken back. */
	import type { Exception, Zone } from '$core/project/schema';
	import { below, pathTo, removeAt } from '$core/project/typed-path';
	import { formatNumber } from '$core/units/quantity';
	import { variantLabel } from '$lib/edits/variants-on';
	import { addressOf } from '$lib/state/selection.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import Clause from '$lib/frame/Clause.svelte';
	import { BY_HAND } from '$lib/model/paint';

	let { zone, number }: { zone: Zone; number: string } = $props();
	const desk = useDesk();
	const path = $derived(pathTo('zones', zone.id, 'exceptions'));
	const view = $derived(desk.model.view);
	const z = $derived(view.zones.findIndex(({ id }) => id === zone.id));
	const assignments = $derived(view.zones[z]?.assignments ?? []);
	const waiting = $derived(assignments.flatMap((one) => one.waiting));
	const moved = $derived(assignments.flatMap((one) => [...one.moved.values()]));
	const count = $derived(zone.exceptions.reduce((sum, { sites }) => sum + sites.length, 0));
	/** Choices are listed while they are few enough to be read. */
	const MOST_LISTED = 12;

	const cellsOf = (k: number) =>
		assignments.map(({ exception }) => Array.from(exception.keys()).filter((c) => exception[c] === k));
	function choose(k: number) {
		desk.activeZone = zone.id;
		desk.selection.choose(
			cellsOf(k).flatMap((cells, face) =>
				cells.map((index) => addressOf(view, { zone: z, face, kind: 'cell', index }))
			)
		);
	}
	/** What a choice does, in words. */
	function said({ put }: Exception): string {
		if (put === 'open') return 'left open';
		const { values, ...rest } = put;
		const told = [
			...('variant' in rest ? [variantLabel(desk.project.document, rest.variant)] : []),
			...Object.entries(values).map(
				([name, driver]) => `${name.replaceAll('_', ' ')} ${typeof driver === 'string' ? driver : driver.is}`
			),
			...(typeof rest.turn === 'number' && rest.turn ? [`turned by ${rest.turn}`] : []),
			...(rest.flip === true ? ['inside out'] : []),
			...(rest.mirror === true ? ['the opposite hand'] : [])
		];
		return told.join(', ') || 'as the rules say';
	}
	const problems = $derived(view.problems.filter(({ at }) => at.startsWith(path)));
</script>

<Clause
	{number}
	{path}
	effect={formatNumber(count)}
	tone={BY_HAND}
	{problems}
	actions={[
		{
			label: 'Take back all that is set by hand',
			act: () => desk.set(path, [], `${zone.name}: nothing by hand`)
		}
	]}
>
	By hand, {formatNumber(count)}
	{count === 1 ? 'cell is' : 'cells are'} treated otherwise{#if moved.length};
		<button
			type="button"
			class="underline decoration-dotted underline-offset-2"
			onclick={() => desk.selection.choose(moved.map((address) => `${zone.id}/${address}`))}
			>{formatNumber(moved.length)} found {moved.length === 1 ? 'its' : 'their'} place again</button
		>{/if}{#if waiting.length};
		<span class="text-oxide" title={waiting.slice(0, 20).join(', ')}
			>{formatNumber(waiting.length)} wait for a place</span
		>{/if}<span class="full-stop">.</span>
	<ul class="font-sans text-[12px]">
		{#each zone.exceptions.slice(0, MOST_LISTED) as exception, k (exception.id)}
			<li class="flex items-baseline gap-1.5">
				<button
					type="button"
					class="text-patina-deep text-left underline decoration-dotted underline-offset-2"
					onclick={() => choose(k)}
					onpointerenter={() => (desk.lit = { zone: zone.id, cells: cellsOf(k) })}
					onpointerleave={() => (desk.lit = null)}
					><span class="figures">{formatNumber(exception.sites.length)}</span>
					{exception.sites.length === 1 ? 'cell' : 'cells'}: {said(exception)}</button
				>
				<button
					type="button"
					class="text-ink-2 underline"
					onclick={() =>
						desk.do(
							`${zone.name}: ${said(exception)} by hand taken back`.slice(0, 200),
							removeAt(below(path, exception.id))
						)}>take back</button
				>
			</li>
		{/each}
		{#if zone.exceptions.length > MOST_LISTED}<li class="text-ink-2">
				and {formatNumber(zone.exceptions.length - MOST_LISTED)} more
			</li>{/if}
	</ul>
</Clause>
