<script lang="ts">
	import { DropdownMenu } from 'bits-ui';
	import { useDesk } from '$lib/state/desk.svelte';
	import { formats } from '$core/exchange/formats';
	import { exportProject } from './export-project';

	const desk = useDesk();
</script>

<DropdownMenu.Root>
	<DropdownMenu.Trigger class="main-button">Export</DropdownMenu.Trigger>
	<DropdownMenu.Portal>
		<DropdownMenu.Content class="floating z-50 w-72 p-1" align="end" sideOffset={6}>
			{#each formats as format (format.id)}
				<DropdownMenu.Item
					class="data-highlighted:bg-wash flex cursor-pointer justify-between rounded px-2 py-1.5 outline-none"
					onSelect={() => exportProject(desk, format)}
					><span>{format.label}</span><span class="figures text-ink-2 text-[11.5px]">{format.called}</span
					></DropdownMenu.Item
				>
			{/each}
		</DropdownMenu.Content>
	</DropdownMenu.Portal>
</DropdownMenu.Root>
