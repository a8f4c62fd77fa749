<script lang="ts">
	/** What of a zone has nothing on it yet, and the parts that could be put there. */
	import type { Zone } from '$core/project/schema';
	import { formatNumber } from '$core/units/quantity';
	import { addressOf } from '$lib/state/selection.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import { DropdownMenu } from 'bits-ui';
	import { hasCells } from '$lib/edits/zone-clauses';
	import PutPart from './PutPart.svelte';
	import { make, madeFromZone, type Offer } from './zone-actions';

	let { zone }: { zone: Zone } = $props();
	const desk = useDesk();
	const zoneView = $derived(desk.model.view.zones.find(({ id }) => id === zone.id));
	const untaken = $derived(zoneView?.assignments.reduce((sum, one) => sum + one.untaken, 0) ?? 0);
	const offers = $derived(madeFromZone(desk, zone));
	const words = $derived(
		zone.on.is === 'path'
			? { line: '+ in the gaps', node: '+ at stations', chain: '+ through all' }
			: zone.on.is === 'chains'
				? { line: '+ from node to node', node: '+ on nodes', chain: '+ through each' }
				: { line: '+ along lines', node: '+ on nodes', chain: null }
	);

	/** What would be made is seen in the model, where it would stand, before it is taken. */
	let looked = false;
	let trigger = $state<HTMLElement | null>(null);
	/** Where the offers were asked for: what is looked at makes the sheet longer, and they are not to move from under the pointer. */
	let place = $state.raw<DOMRect>();
	function look(made: Offer['made'] | null) {
		if (made) desk.project.preview(...made().edits);
		else if (looked) desk.project.dropPreview();
		looked = made !== null;
	}
	/** Whatever takes the focus from an offer, but for another one: it is not looked at any more. */
	const lookAway = ({ relatedTarget }: FocusEvent) =>
		(relatedTarget as Element | null)?.getAttribute('role') === 'menuitem' || look(null);

	/** Cells that nothing is put on, of each face. */
	const untakenCells = () =>
		zoneView?.assignments.map(({ rule, exception }) =>
			Array.from(rule.keys()).filter((c) => rule[c] === -1 && exception[c] === -1)
		) ?? [];
	function choose() {
		const z = desk.model.view.zones.findIndex(({ id }) => id === zone.id);
		desk.activeZone = zone.id;
		desk.selection.choose(
			untakenCells().flatMap((cells, face) =>
				cells.map((index) => addressOf(desk.model.view, { zone: z, face, kind: 'cell', index }))
			)
		);
	}
</script>

<div class="text-ink-2 ml-11 flex flex-wrap items-baseline gap-x-4 gap-y-1 py-1 text-[12px]">
	{#if hasCells(zone)}
		<span>
			{#if untaken > 0}
				<button
					type="button"
					class="hover:text-patina-deep underline decoration-dotted underline-offset-2"
					onclick={choose}
					onpointerenter={() => (desk.lit = { zone: zone.id, cells: untakenCells() })}
					onpointerleave={() => (desk.lit = null)}
					><span class="figures">{formatNumber(untaken)}</span>
					{untaken === 1 ? 'cell waits' : 'cells wait'} for a part</button
				>:
			{/if}
			<PutPart
				{zone}
				over="cell"
				say={untaken ? 'choose one' : '+ on cells'}
				label={untaken ? 'A part for the cells that wait' : 'Another part on cells'}
			/>
		</span>
	{/if}
	{#if words.chain}<PutPart
			{zone}
			over="chain"
			say={words.chain}
			label="A part through all of its nodes"
		/>{/if}
	<PutPart {zone} over="line" say={words.line} label="A part along lines" />
	<PutPart {zone} over="node" say={words.node} label="A part on nodes" />
	{#if offers.length}
		<DropdownMenu.Root
			onOpenChange={(open) => {
				if (open) place = trigger?.getBoundingClientRect();
				else look(null);
			}}
		>
			<DropdownMenu.Trigger bind:ref={trigger} class="chip-offer">+ behind or along</DropdownMenu.Trigger>
			<DropdownMenu.Portal>
				<DropdownMenu.Content
					class="floating z-50 p-1"
					align="start"
					collisionPadding={8}
					customAnchor={place ? { getBoundingClientRect: () => place! } : null}
				>
					{#each offers as { label, note, made } (label)}
						<DropdownMenu.Item
							class="data-highlighted:bg-wash cursor-pointer rounded px-2 py-1.5 outline-none"
							onfocus={() => look(made)}
							onblur={lookAway}
							onSelect={() => make(desk, made())}
							>{label}<span class="text-ink-2 block text-[11.5px]">{note}</span></DropdownMenu.Item
						>
					{/each}
				</DropdownMenu.Content>
			</DropdownMenu.Portal>
		</DropdownMenu.Root>
	{/if}
</div>
