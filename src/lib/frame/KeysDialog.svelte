<script lang="ts">
	import { Dialog } from 'bits-ui';
	import { keyMap, mouseMoves } from './keys';

	let { open = $bindable() }: { open: boolean } = $props();
	const keys = Object.values(keyMap).map(({ shown, does }) => [shown, does] as const);
</script>

<Dialog.Root bind:open>
	<Dialog.Portal>
		<Dialog.Overlay class="bg-ink/25 fixed inset-0 z-40" />
		<Dialog.Content
			class="floating fixed top-1/2 left-1/2 z-50 max-h-[92vh] w-[760px] max-w-[94vw] -translate-1/2 overflow-auto p-5"
		>
			<Dialog.Title class="mb-3 text-[15px] font-semibold">Keys and mouse</Dialog.Title>
			<div class="grid grid-cols-2 gap-8 max-lg:grid-cols-1">
				{#each [keys, mouseMoves] as list, k (k)}
					<dl class="grid grid-cols-[96px_1fr] content-start gap-y-2">
						{#each list as [key, what] (key)}<dt><kbd class="key-cap text-[12px]!">{key}</kbd></dt>
							<dd>{what}</dd>{/each}
					</dl>
				{/each}
			</div>
		</Dialog.Content>
	</Dialog.Portal>
</Dialog.Root>
