<script lang="ts">
	import { DropdownMenu } from 'bits-ui';
	import { toast } from 'svelte-sonner';
	import { useDesk } from '$lib/state/desk.svelte';
	import { exportProject, type ExportFormat } from './download';

	const desk = useDesk();
	const formats: readonly { id: ExportFormat; label: string; note: string }[] = [
		{ id: 'panels', label: 'Panels', note: 'CSV' },
		{ id: 'bars', label: 'Bars', note: 'CSV' },
		{ id: 'blades', label: 'Blades', note: 'CSV' },
		{ id: 'structure', label: 'Structure on cells', note: 'CSV' },
		{ id: 'elements', label: 'Elements: plates, bars, blades', note: 'CSV' },
		{ id: 'nodes', label: 'Setting-out points', note: 'CSV' },
		{ id: 'glb', label: 'Model, metres, Y up', note: 'GLB' },
		{ id: 'ifc', label: 'Building model', note: 'IFC4' },
		{ id: 'step', label: 'Faces of the masses', note: 'STEP' },
		{ id: 'json', label: 'Project file', note: 'JSON' }
	];
	async function write(format: ExportFormat) {
		try {
			await exportProject(desk, format);
		} catch (error) {
			toast.error(`This could not be written: ${(error as Error).message}`);
		}
	}
</script>

<DropdownMenu.Root>
	<DropdownMenu.Trigger class="main-button">Export</DropdownMenu.Trigger>
	<DropdownMenu.Portal>
		<DropdownMenu.Content class="floating z-50 w-56 p-1" align="end" sideOffset={6}>
			{#each formats as format (format.id)}
				<DropdownMenu.Item
					class="data-highlighted:bg-wash flex cursor-pointer justify-between rounded px-2 py-1.5 outline-none"
					onSelect={() => write(format.id)}
					><span>{format.label}</span><span class="figures text-ink-2 text-[11.5px]">{format.note}</span
					></DropdownMenu.Item
				>
			{/each}
		</DropdownMenu.Content>
	</DropdownMenu.Portal>
</DropdownMenu.Root>
