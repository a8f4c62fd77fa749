<script lang="ts">
	import { Dialog } from 'bits-ui';

	let { open = $bindable() }: { open: boolean } = $props();
	const keys = [
		['1 – 5', 'Lenses: Form, Set out, Clad, Check, Issue'],
		['F', 'Frame the selection'],
		['Home', 'The whole model'],
		['Arrows', 'Walk from cell to cell; with Shift, extend'],
		['X', 'Put something on the chosen cells by hand'],
		['I', 'Show the chosen pieces alone; again, everything'],
		['L', 'Labels of the selection'],
		['M', 'Flat map'],
		['Esc', 'Clear the selection'],
		['Ctrl K', 'Find a clause, a piece by its mark, an action'],
		['Ctrl Z', 'Undo; with Shift, redo'],
		['?', 'This list']
	] as const;
</script>

<Dialog.Root bind:open>
	<Dialog.Portal>
		<Dialog.Overlay class="bg-ink/25 fixed inset-0 z-40" />
		<Dialog.Content class="floating fixed top-1/4 left-1/2 z-50 w-[420px] -translate-x-1/2 p-5">
			<Dialog.Title class="mb-3 text-[15px] font-semibold">Keys</Dialog.Title>
			<dl class="grid grid-cols-[90px_1fr] gap-y-2">
				{#each keys as [key, what] (key)}<dt><kbd class="key-cap text-[12px]!">{key}</kbd></dt>
					<dd>{what}</dd>{/each}
			</dl>
		</Dialog.Content>
	</Dialog.Portal>
</Dialog.Root>
