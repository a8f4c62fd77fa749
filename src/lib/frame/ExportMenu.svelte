<script lang="ts">
	import { DropdownMenu } from 'bits-ui';
	import { useDesk } from '$lib/state/desk.svelte';
	import { formats } from '$core/exchange/formats';
	import { exportProject } from './export-project';

	const desk = useDesk();
	const item = 'data-highlighted:bg-wash flex cursor-pointer items-baseline gap-3 rounded px-2 outline-none';
	const clock = new Intl.DateTimeFormat('en-GB', { timeStyle: 'short' });
	/** So many of what was written are listed. */
	const LISTED = 4;
	const lists = formats.filter(({ group }) => group === 'csv');
	const others = formats.filter(({ group }) => group !== 'csv');
</script>

<DropdownMenu.Root>
	<DropdownMenu.Trigger class="main-button">Export</DropdownMenu.Trigger>
	<DropdownMenu.Portal>
		<DropdownMenu.Content
			class="floating z-50 max-h-(--bits-dropdown-menu-content-available-height) w-80 overflow-auto p-1"
			align="end"
			sideOffset={6}
			collisionPadding={8}
		>
			{#if desk.written.length}
				<div class="px-2 py-1 text-[11.5px]" data-testid="written">
					<b class="font-semibold">Written since this was opened</b>
					{#each desk.written.slice(0, LISTED) as { name, size, at } (at.getTime())}
						<p class="text-ink-2 flex justify-between gap-3">
							<span class="min-w-0 truncate" title={name}>{name}</span><span class="figures shrink-0"
								>{size} · {clock.format(at)}</span
							>
						</p>
					{/each}
				</div>
				<DropdownMenu.Separator class="bg-hair my-1 h-px" />
			{/if}
			{#each others as format (format.id)}
				<DropdownMenu.Item class="{item} py-1.5" onSelect={() => exportProject(desk, format)}
					><span class="min-w-0 flex-1"
						>{format.label}<span class="text-ink-2 block text-[11.5px]">{format.use}</span></span
					><span class="figures text-ink-2 text-[11.5px]">{format.called}</span></DropdownMenu.Item
				>
			{/each}
			<DropdownMenu.Separator class="bg-hair my-1 h-px" />
			{#each lists as format (format.id)}
				<DropdownMenu.Item class="{item} py-1" onSelect={() => exportProject(desk, format)}
					><span class="min-w-0 flex-1">{format.label}</span><span class="figures text-ink-2 text-[11.5px]"
						>{format.called}</span
					></DropdownMenu.Item
				>
			{/each}
		</DropdownMenu.Content>
	</DropdownMenu.Portal>
</DropdownMenu.Root>
