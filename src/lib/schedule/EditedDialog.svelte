<script lang="ts">
	/** What an edited list would change, before it is taken. */
	import type { EditedList } from '$core/exchange/values/read-edited';
	import { counted } from '$core/units/counted';
	import { formatNumber } from '$core/units/quantity';
	import { adjustEdits } from '$lib/edits/by-hand';
	import { writtenByHand } from '$lib/edits/written-by-hand';
	import { useDesk } from '$lib/state/desk.svelte';
	import X from '@lucide/svelte/icons/x';
	import { Dialog } from 'bits-ui';

	let { list, file, onleave }: { list: EditedList; file: string; onleave: () => void } = $props();
	const desk = useDesk();

	/** So many of each are shown; the others are counted. */
	const SHOWN = 60;
	/** Pieces set to so many different things are no choices by hand any more. */
	const MOST_DIFFERENT = 400;
	const different = $derived(
		new Set(list.pieces.map(({ variant, values }) => JSON.stringify([variant, values]))).size
	);
	const values = $derived(list.pieces.reduce((sum, { said }) => sum + said.length, 0));
	const unread = $derived([
		...(list.unknown.length
			? [
					`${counted(list.unknown.length, 'mark')} that no piece of the list has: ${list.unknown.slice(0, 8).join(', ')}${list.unknown.length > 8 ? ' …' : ''}`
				]
			: []),
		...list.refused,
		...list.left
	]);
	function take() {
		const changes = list.pieces
			.filter(({ variant, values }) => variant !== null || Object.keys(values).length)
			.map(({ address, variant, values }) => [address, { ...(variant && { variant }), values }] as const);
		const { document } = desk.project;
		const edits = [
			...adjustEdits(document, changes, desk.model.view),
			...document.schedules.columns.flatMap((column) =>
				writtenByHand(
					column,
					list.pieces.flatMap(({ address, own }) =>
						column.id in own ? [[address, own[column.id]!] as const] : []
					)
				)
			)
		];
		if (desk.do(`${counted(list.pieces.length, 'piece')} as in ${file}`, ...edits)) onleave();
	}
</script>

{#snippet rest(count: number)}
	{#if count > SHOWN}<li class="text-ink-2">and {formatNumber(count - SHOWN)} more</li>{/if}
{/snippet}

<Dialog.Root open onOpenChange={(open) => !open && onleave()}>
	<Dialog.Portal>
		<Dialog.Overlay class="fixed inset-0 z-40 bg-black/25" />
		<Dialog.Content
			class="floating fixed top-1/2 left-1/2 z-50 flex max-h-[90vh] w-[680px] max-w-[97vw] -translate-x-1/2 -translate-y-1/2 flex-col p-4"
			data-testid="edited"
		>
			<div class="flex items-baseline justify-between">
				<Dialog.Title class="text-[15px] font-semibold">Values from {file}</Dialog.Title>
				<Dialog.Close class="text-ink-2 hover:bg-wash rounded" aria-label="Close"
					><X size={16} /></Dialog.Close
				>
			</div>
			<p class="sentence mt-2">
				Of {counted(list.rows, 'row')},
				{#if list.pieces.length}<b class="font-semibold">{counted(values, 'value')}</b> of
					{counted(list.pieces.length, 'piece')} would change; the others are as the model has them.{:else}none
					has anything otherwise than the model.{/if}
			</p>
			<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
			<div
				class="mt-3 min-h-0 overflow-auto text-[12.5px]"
				tabindex="0"
				role="region"
				aria-label="What is read"
			>
				{#if list.pieces.length}
					<ul class="grid gap-y-0.5" aria-label="What would change">
						{#each list.pieces.slice(0, SHOWN) as piece, k (k)}
							<li class="grid grid-cols-[11rem_1fr] gap-x-3">
								<span class="figures">{piece.mark}</span><span>{piece.said.join('; ')}</span>
							</li>
						{/each}
						{@render rest(list.pieces.length)}
					</ul>
				{/if}
				{#if unread.length}
					<h3 class="text-oxide-deep mt-3 font-semibold">Not taken</h3>
					<ul class="grid gap-y-0.5" aria-label="What is not taken">
						{#each unread.slice(0, SHOWN) as text, k (k)}<li>{text}</li>{/each}
						{@render rest(unread.length)}
					</ul>
				{/if}
			</div>
			<div class="mt-4 flex items-center gap-3">
				{#if different > MOST_DIFFERENT}
					<p class="text-oxide-deep text-[12.5px]" role="alert">
						These are {formatNumber(different)} different sets of values; up to {formatNumber(MOST_DIFFERENT)} can
						be set by hand. Bring the file in as a table, and let the inputs follow its columns.
					</p>
				{:else if list.pieces.length}
					<button type="button" class="main-button" onclick={take}
						>Take {counted(values, 'value')} of {counted(list.pieces.length, 'piece')}</button
					>
				{/if}
				<button type="button" class="plain-button" onclick={onleave}
					>{list.pieces.length ? 'Leave all as it is' : 'Close'}</button
				>
			</div>
		</Dialog.Content>
	</Dialog.Portal>
</Dialog.Root>
