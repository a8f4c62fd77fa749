<script lang="ts">
	/** Sheets as files: the one that is shown, those of its group, all of them. */
	import type { Page } from '$core/drawing/drawing';
	import { sheetGroups } from '$core/drawing/planned';
	import { counted } from '$core/units/counted';
	import { fileStem } from '$lib/components/save-file';
	import type { ListedSheet } from '$lib/worker/drawings';
	import ChevronDown from '@lucide/svelte/icons/chevron-down';
	import { DropdownMenu } from 'bits-ui';
	import type { SheetWriter } from './writer.svelte';

	interface Props {
		sheets: readonly ListedSheet[];
		shown: ListedSheet;
		page: Page;
		writer: SheetWriter;
	}
	let { sheets, shown, page, writer }: Props = $props();
	const own = $derived(sheets.filter(({ group }) => group === shown.group));
	const sheetsIn = (some: readonly ListedSheet[]) =>
		counted(
			some.reduce((sum, one) => sum + one.count, 0),
			'sheet'
		);
	const group = $derived(sheetGroups[shown.group]);
	const choices = $derived([
		{
			label: `${shown.number} ${shown.title}`,
			some: [shown],
			formats: ['pdf', 'dxf'] as const,
			name: shown.number
		},
		...(own.length > 1
			? [{ label: `${group}, ${sheetsIn(own)}`, some: own, formats: ['pdf', 'dxf'] as const, name: group }]
			: []),
		{ label: `All, ${sheetsIn(sheets)}`, some: sheets, formats: ['pdf'] as const, name: 'drawings' }
	]);
	const called = { pdf: 'PDF', dxf: 'DXF' } as const;
	const item =
		'data-highlighted:bg-wash flex cursor-pointer justify-between gap-3 rounded px-2 py-1.5 outline-none';
</script>

<DropdownMenu.Root>
	<DropdownMenu.Trigger class="main-button flex items-center gap-1" disabled={writer.share !== null}
		>Write sheets <ChevronDown size={13} /></DropdownMenu.Trigger
	>
	<DropdownMenu.Portal>
		<DropdownMenu.Content class="floating z-50 w-80 p-1 text-[13px]" align="end" sideOffset={6}>
			{#each choices as { label, some, formats, name } (label)}
				{#each formats as format (format)}
					<DropdownMenu.Item
						class={item}
						onSelect={() =>
							void writer.write(
								some.map(({ number }) => number),
								format,
								fileStem(name)
							)}
						><span class="truncate">{label}</span><span class="figures text-ink-2 text-[11.5px]"
							>{called[format]}</span
						></DropdownMenu.Item
					>
				{/each}
				{#if some.length === 1}<DropdownMenu.Item class={item} onSelect={() => void writer.writePage(page)}
						><span class="truncate">{page.title}</span><span class="figures text-ink-2 text-[11.5px]"
							>SVG</span
						></DropdownMenu.Item
					>{/if}
			{/each}
		</DropdownMenu.Content>
	</DropdownMenu.Portal>
</DropdownMenu.Root>
