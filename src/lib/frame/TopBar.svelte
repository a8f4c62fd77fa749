<script lang="ts">
	import Redo2 from '@lucide/svelte/icons/redo-2';
	import Undo2 from '@lucide/svelte/icons/undo-2';
	import type { Snippet } from 'svelte';
	import { displays, useDesk } from '$lib/state/desk.svelte';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import ExportMenu from './ExportMenu.svelte';
	import SaveStatus from './SaveStatus.svelte';
	import TextChip from '$lib/components/TextChip.svelte';
	import { pathTo } from '$core/project/typed-path';

	let { page, middle }: { page?: string; middle: Snippet } = $props();
	const desk = useDesk();
	const { project } = desk;
	const MOST_NAME = 120;
</script>

<!-- Three columns, so that the lenses stand still whatever is undone, saved or called how. -->
<header
	class="border-hair bg-sheet grid h-[46px] grid-cols-[minmax(0,1fr)_auto_minmax(0,1fr)] items-center gap-3.5 border-b px-3.5"
>
	<div class="flex min-w-0 items-center gap-3.5">
		<h1 class="sr-only">{page ? `${page} · ` : ''}{project.document.name}</h1>
		<a href="/" class="flex shrink-0 items-center gap-2 text-[14.5px] font-semibold"
			><img src="/mark.svg" alt="" class="size-5" /><span class="max-lg:sr-only">Zygaster</span></a
		>
		<span class="text-ink-2 max-w-64 min-w-0 truncate">
			{#if page}<a href="/project/{project.id}" class="hover:underline">{project.document.name}</a> /
				<b class="text-ink font-semibold">{page}</b>{:else}<TextChip
					value={project.document.name}
					label="Name of the project"
					look="name"
					check={(text) => (text.length > MOST_NAME ? `A name has at most ${MOST_NAME} letters` : null)}
					oncommit={(text) => desk.set(pathTo('name'), text, `project name ${text}`)}
				/>{/if}
		</span>
	</div>
	<div class="h-full">{@render middle()}</div>
	<div class="flex min-w-0 items-center justify-end gap-3">
		<button type="button" class="text-ink-2 hover:text-ink shrink-0" onclick={() => (desk.finding = true)}
			>Find <kbd class="key-cap max-lg:hidden">Ctrl K</kbd></button
		>
		<span class="flex min-w-0 items-center gap-0.5">
			<button
				type="button"
				class="text-ink-2 hover:bg-wash flex w-40 min-w-6 items-center justify-end gap-1 rounded px-1 py-1 disabled:opacity-40 max-lg:w-7"
				disabled={!project.undoLabel}
				title={project.undoLabel ? `Undo: ${project.undoLabel}` : 'Nothing to undo'}
				aria-label={project.undoLabel ? `Undo: ${project.undoLabel}` : 'Undo'}
				onclick={() => project.undo()}
				><Undo2 size={15} class="shrink-0" /><span
					class="truncate text-[12px] max-lg:sr-only"
					data-testid="undo-label">{project.undoLabel ?? ''}</span
				></button
			>
			<button
				type="button"
				class="text-ink-2 hover:bg-wash rounded p-1 disabled:opacity-40"
				disabled={!project.redoLabel}
				title={project.redoLabel ? `Redo: ${project.redoLabel}` : 'Nothing to redo'}
				aria-label={project.redoLabel ? `Redo: ${project.redoLabel}` : 'Redo'}
				onclick={() => project.redo()}><Redo2 size={15} /></button
			>
		</span>
		<SaveStatus />
		<ChoiceChip
			value={desk.display}
			options={displays}
			label="Lengths shown in"
			onchoose={(value) => desk.set(pathTo('display'), value, `lengths in ${value}`)}
		/>
		<ExportMenu />
	</div>
</header>
