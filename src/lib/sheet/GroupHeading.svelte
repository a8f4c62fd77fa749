<script lang="ts">
	import type { Group } from '$core/project/group-schema';
	import { below, pathTo } from '$core/project/typed-path';
	import ChevronDown from '@lucide/svelte/icons/chevron-down';
	import Ellipsis from '@lucide/svelte/icons/ellipsis';
	import { DropdownMenu } from 'bits-ui';
	import TextChip from '$lib/components/TextChip.svelte';
	import { membersOf, type Grouped } from '$lib/edits/groups';
	import { useDesk } from '$lib/state/desk.svelte';
	import { actionsOnGroup, isGroupHidden } from './group-actions';

	/** Over the members of a group in one of the document's lists: folds them, and acts on all of them. */
	interface Props {
		group: Group;
		list: Grouped;
	}
	let { group, list }: Props = $props();
	const desk = useDesk();
	const path = $derived(pathTo('groups', group.id));
	const folded = $derived(desk.sheet.isGroupFolded(list, group.id));
	const members = $derived(membersOf(desk.project.document, group));
	const counted = $derived.by(() => {
		const words = (count: number, one: string, many: string) =>
			count ? [`${count} ${count === 1 ? one : many}`] : [];
		return [
			...words(members.zones.length, 'zone', 'zones'),
			...words(members.masses.length, 'mass', 'masses')
		].join(', ');
	});
</script>

<header
	class="group border-hair bg-wash/60 flex scroll-mt-[31px] items-center gap-1.5 border-y py-1 pr-4 pl-1.5"
	data-group="{list} {group.id}"
>
	<button
		type="button"
		class="text-ink-3 hover:text-ink grid size-5 shrink-0 place-items-center rounded"
		aria-expanded={!folded}
		aria-label="{list === 'zones' ? 'Zones' : 'Masses'} of {group.name}"
		onclick={() => desk.sheet.foldGroup(list, group.id, !folded)}
		><ChevronDown size={14} class={folded ? '-rotate-90' : ''} /></button
	>
	<span class="sentence min-w-0 truncate text-[14px]"
		><TextChip
			value={group.name}
			label="Name of the group"
			look="name"
			oncommit={(text) => desk.set(below(path, 'name'), text, `name ${text}`)}
		/></span
	>
	{#if isGroupHidden(desk, group)}<span class="text-ink-2 shrink-0 text-[11px]">hidden</span>{/if}
	<DropdownMenu.Root>
		<DropdownMenu.Trigger
			class="text-ink-3 hover:text-ink ml-auto shrink-0 rounded p-0.5 opacity-0 group-focus-within:opacity-100 group-hover:opacity-100 data-[state=open]:opacity-100"
			aria-label="More for group {group.name}"><Ellipsis size={14} /></DropdownMenu.Trigger
		>
		<DropdownMenu.Portal>
			<DropdownMenu.Content class="floating z-50 p-1" align="end">
				{#each actionsOnGroup(desk, group) as action (action.label)}
					<DropdownMenu.Item
						class="data-highlighted:bg-wash cursor-pointer rounded px-2 py-1.5 outline-none"
						onSelect={action.act}>{action.label}</DropdownMenu.Item
					>
				{/each}
			</DropdownMenu.Content>
		</DropdownMenu.Portal>
	</DropdownMenu.Root>
	<span class="figures text-ink-2 shrink-0 text-[11.5px]">{counted}</span>
</header>
