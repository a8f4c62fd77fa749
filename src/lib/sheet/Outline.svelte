<script lang="ts">
	import type { Group } from '$core/project/group-schema';
	import { groupOf } from '$lib/edits/groups';
	import type { SheetPart } from '$lib/state/sheet-state.svelte';
	import { useDesk } from '$lib/state/desk.svelte';

	/** The parts of the sheet, always in sight: by the codes of their marks. */
	interface Props {
		/** The part that is read. */
		now: SheetPart;
		ongo: (part: SheetPart) => void;
	}
	let { now, ongo }: Props = $props();
	const desk = useDesk();
	interface Entry {
		readonly part: SheetPart;
		readonly short: string;
		readonly name: string;
		/** The group that begins with it. */
		readonly group?: Group | undefined;
		/** It is in a group that is folded. */
		readonly isWithin?: boolean;
	}
	const document = $derived(desk.project.document);
	const parts = $derived.by((): readonly Entry[] => {
		let last: Group | undefined;
		const zones = document.zones.map(({ id, code, name }): Entry => {
			const group = groupOf(document, 'zones', id);
			const begins = group !== last ? group : undefined;
			last = group;
			const isWithin = group !== undefined && desk.sheet.isGroupFolded('zones', group.id);
			return { part: `zone ${id}`, short: code, name, group: begins, isWithin };
		});
		return [
			{ part: 'masses', short: 'Masses', name: 'Masses' },
			...zones,
			{ part: 'kit', short: 'Kit', name: 'Kit' },
			{ part: 'limits', short: 'Limits', name: 'Limits' },
			{ part: 'cost', short: 'Costs', name: 'Costs' }
		];
	});
	let list = $state<HTMLElement>();
	$effect(() => {
		list
			?.querySelector(`[data-to="${CSS.escape(now)}"]`)
			?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
	});
</script>

<nav
	class="bg-sheet border-hair sticky top-0 z-20 flex h-[31px] [scrollbar-width:none] items-center gap-0.5 overflow-x-auto border-b px-2"
	aria-label="Outline of the sheet"
	bind:this={list}
>
	{#each parts as { part, short, name, group, isWithin } (part)}
		{#if group}<button
				type="button"
				class="text-ink-2 hover:text-ink border-hair max-w-28 shrink-0 truncate border-l pr-0.5 pl-2 text-[11.5px] italic"
				title="{group.name}: {desk.sheet.isGroupFolded('zones', group.id) ? 'unfold' : 'fold'} its zones"
				aria-expanded={!desk.sheet.isGroupFolded('zones', group.id)}
				onclick={() => desk.sheet.foldGroup('zones', group.id, !desk.sheet.isGroupFolded('zones', group.id))}
				>{group.name}</button
			>{/if}
		{#if !isWithin || now === part}<button
				type="button"
				data-to={part}
				class={[
					'shrink-0 rounded px-1.5 py-0.5 text-[11.5px]',
					part.startsWith('zone') && 'figures',
					now === part ? 'bg-wash text-patina-deep font-semibold' : 'text-ink-2 hover:text-ink'
				]}
				title={name}
				aria-label="Go to {name}"
				aria-current={now === part ? 'location' : undefined}
				onclick={() => ongo(part)}>{short}</button
			>{/if}
	{/each}
</nav>
