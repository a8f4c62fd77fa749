<script lang="ts">
	import { Dialog } from 'bits-ui';
	import { keyMap, mouseMoves } from './keys';

	let { open = $bindable() }: { open: boolean } = $props();
	const keys = Object.values(keyMap).map(({ shown, does }) => [shown, does] as const);
	const half = Math.ceil(keys.length / 2);
	const lists = [keys.slice(0, half), keys.slice(half), mouseMoves];
</script>

<Dialog.Root bind:open>
	<Dialog.Portal>
		<Dialog.Overlay class="bg-ink/25 fixed inset-0 z-40" />
		<Dialog.Content
			class="floating fixed top-1/2 left-1/2 z-50 flex max-h-[92vh] w-[1080px] max-w-[94vw] -translate-1/2 flex-col p-5"
		>
			<Dialog.Title class="mb-3 text-[15px] font-semibold">Keys and mouse</Dialog.Title>
			<!-- It may be higher than the window: keys reach it to scroll it. -->
			<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
			<div
				class="grid min-h-0 grid-cols-3 gap-8 overflow-auto max-lg:grid-cols-1"
				role="region"
				aria-label="Keys and mouse"
				tabindex="0"
			>
				{#each lists as list, k (k)}
					<dl class="grid grid-cols-[96px_1fr] content-start gap-y-2">
						{#each list as [key, what] (key)}<dt><kbd class="key-cap text-[12px]!">{key}</kbd></dt>
							<dd>{what}</dd>{/each}
					</dl>
				{/each}
			</div>
		</Dialog.Content>
	</Dialog.Portal>
</Dialog.Root>
