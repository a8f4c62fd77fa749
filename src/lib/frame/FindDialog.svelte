<script lang="ts">
	import FoundList from '$lib/components/FoundList.svelte';
	import { Command, Dialog } from 'bits-ui';
	import { useDesk } from '$lib/state/desk.svelte';
	import { findable, piecesMarked } from './findable';
	import { matching, type Entry } from './matching';

	let { open = $bindable() }: { open: boolean } = $props();
	const desk = useDesk();
	let text = $state('');
	let input = $state<HTMLElement | null>(null);
	/** At once: what is typed right after the key that opens it is not lost. */
	$effect(() => input?.focus());
	/** What was typed the last time would stand before what is typed now. */
	$effect(() => {
		if (!open) text = '';
	});
	const MOST = 30;

	/** Read once for each time it is open: what is typed only chooses among them. */
	const entries = $derived(open ? findable(desk) : []);
	const found = $derived([...piecesMarked(desk, text, MOST), ...matching(entries, text)]);
	const shown = $derived(found.slice(0, MOST));
	function take(entry: Entry) {
		open = false;
		entry.act();
	}
</script>

<Dialog.Root bind:open>
	<Dialog.Portal>
		<Dialog.Overlay class="bg-ink/25 fixed inset-0 z-40" />
		<Dialog.Content
			class="floating fixed top-24 left-1/2 z-50 w-[600px] max-w-[94vw] -translate-x-1/2 overflow-hidden"
			aria-label="Find"
		>
			<Dialog.Title class="sr-only">Find anything</Dialog.Title>
			<Command.Root shouldFilter={false} label="Find by words">
				<Command.Input
					class="border-hair w-full border-b bg-white px-4 py-3 text-[15px] outline-none"
					placeholder="Words of a clause, a mark such as GR-C06, a part, an action, an export"
					bind:value={text}
					bind:ref={input}
				/>
				<FoundList label="Found" height="min(480px, 60vh)">
					{#each shown as entry, k (`${entry.kind} ${entry.label} ${k}`)}
						<Command.Item
							class="data-selected:bg-wash flex cursor-pointer items-baseline gap-3 rounded px-2.5 py-1.5"
							value="{entry.kind} {entry.label} {k}"
							onSelect={() => take(entry)}
							><span class="min-w-0 truncate">{entry.label}</span><span
								class="text-ink-2 ml-auto shrink-0 text-[12px]">{entry.kind}</span
							>{#if entry.key}<kbd class="key-cap shrink-0">{entry.key}</kbd>{/if}</Command.Item
						>
					{/each}

					{#snippet below()}{#if !found.length}<p class="text-ink-2 px-2.5 py-3">
								Nothing is called that here.
							</p>{/if}
						{#if found.length > MOST}<p class="text-ink-2 px-2.5 py-1.5 text-[12px]">
								and {found.length - MOST} more: type on
							</p>{/if}{/snippet}</FoundList
				>
			</Command.Root>
		</Dialog.Content>
	</Dialog.Portal>
</Dialog.Root>
