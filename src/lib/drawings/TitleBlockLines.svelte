<script lang="ts">
	/** The lines of the title block that are the project's own. */
	import { MOST_BLOCK_LINES } from '$core/project/drawings-schema';
	import { below, insertAt, pathTo, removeAt, setAt } from '$core/project/typed-path';
	import TextChip from '$lib/components/TextChip.svelte';
	import { freshId } from '$lib/edits/fresh-id';
	import { useDesk } from '$lib/state/desk.svelte';
	import { Popover } from 'bits-ui';

	const desk = useDesk();
	const lines = $derived(desk.project.document.drawings.block);
	const path = (id: string) => pathTo('drawings', 'block', id);
	/** What most projects tell, one after the other. */
	const usual = ['Client', 'Architect', 'Drawn by', 'Checked by', 'Contract', 'Stage'];
	function add() {
		const label = usual.find((one) => !lines.some((line) => line.label === one)) ?? 'Line';
		const line = { id: freshId('line', lines), label, text: 'to be said' };
		desk.do(`${label} in the title block`, insertAt(pathTo('drawings', 'block'), lines.length, line));
	}
	const shown = $derived(lines.length === 1 ? 'one own line' : `${lines.length || 'no'} own lines`);
</script>

<Popover.Root>
	<Popover.Trigger class="chip-choice" aria-label="Title block: {shown}"
		>{shown} in the title block</Popover.Trigger
	>
	<Popover.Portal>
		<Popover.Content
			class="floating z-40 w-80 p-3 text-[13px]"
			sideOffset={8}
			collisionPadding={10}
			aria-label="Title block"
		>
			{#each lines as { id, label, text } (id)}
				<p class="mb-1.5 flex items-baseline gap-2">
					<TextChip
						value={label}
						label="Name of the line"
						look="name"
						oncommit={(to) =>
							desk.do(`${label} is ${to} in the title block`, setAt(below(path(id), 'label'), to))}
					/>
					<TextChip
						value={text}
						{label}
						look="formula"
						oncommit={(to) => desk.do(`${label}: ${to}`, setAt(below(path(id), 'text'), to))}
					/>
					<button
						type="button"
						class="text-ink-2 hover:text-ink ml-auto"
						aria-label="Remove {label}"
						onclick={() => desk.do(`${label} out of the title block`, removeAt(path(id)))}>×</button
					>
				</p>
			{:else}
				<p class="text-ink-2 mb-2">
					Every sheet tells the project, its title, scale and date. Who it is for and who drew it stand beside
					them.
				</p>
			{/each}
			{#if lines.length < MOST_BLOCK_LINES}<button type="button" class="plain-button" onclick={add}
					>+ Line</button
				>{:else}<p class="text-ink-2">No more of them fit on the smallest sheet.</p>{/if}
		</Popover.Content>
	</Popover.Portal>
</Popover.Root>
