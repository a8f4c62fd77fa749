<script lang="ts">
	import { Dialog } from 'bits-ui';
	import { keyMap } from './keys';

	let { open = $bindable() }: { open: boolean } = $props();
	const keys = Object.values(keyMap).map(({ shown, does }) => [shown, does] as const);
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
