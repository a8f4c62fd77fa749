<script lang="ts">
	import { counted } from '$core/units/counted';
	import Plus from '@lucide/svelte/icons/plus';
	import { DropdownMenu } from 'bits-ui';
	import { pathTo } from '$core/project/typed-path';
	import { groupOf } from '$lib/edits/groups';
	import { addForm, addMass } from '$lib/edits/add-mass';
	import { massOf, newFormWords } from '$lib/edits/new-things';
	import ImportItem from '$lib/form/ImportItem.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import BroughtClause from './brought/BroughtClause.svelte';
	import GroupHeading from './GroupHeading.svelte';
	import GuidesClause from './GuidesClause.svelte';
	import LevelsClause from './LevelsClause.svelte';
	import MassClause from './MassClause.svelte';
	import NamedClause from './NamedClause.svelte';
	import SheetHeading from './SheetHeading.svelte';
	import SunClause from './SunClause.svelte';

	let { read }: { read: boolean } = $props();
	const desk = useDesk();
	const masses = $derived(desk.project.document.masses);
	let importing = $state<ReturnType<typeof ImportItem>>();
</script>

<SheetHeading part="masses" number={1} title="Masses" count={counted(masses.length, 'mass', 'masses')} {read}>
	{#each masses as mass, k (mass.id)}
		{@const group = groupOf(desk.project.document, 'masses', mass.id)}
		{#if group && groupOf(desk.project.document, 'masses', masses[k - 1]?.id ?? '') !== group}
			<GroupHeading {group} list="masses" />
		{/if}
		{#if !group || read || !desk.sheet.isGroupFolded('masses', group.id) || desk.selection.clause === pathTo('masses', mass.id)}
			<MassClause {mass} number="1.{k + 1}" />
		{/if}
	{:else}
		<p class="sentence text-ink-2 px-11 py-2">
			Nothing stands yet. Add a mass: its surface becomes the first zone.
		</p>
	{/each}
	<LevelsClause number="1.{masses.length + 1}" />
	<GuidesClause number="1.{masses.length + 2}" />
	<SunClause number="1.{masses.length + 3}" />
	<BroughtClause number="1.{masses.length + 4}" />
	<NamedClause number="1.{masses.length + 5}" />
	<DropdownMenu.Root>
		<DropdownMenu.Trigger
			class="text-ink-2 hover:text-patina-deep ml-11 flex items-center gap-1 py-1 text-[12px]"
			><Plus size={13} />Mass</DropdownMenu.Trigger
		>
		<DropdownMenu.Portal>
			<DropdownMenu.Content class="floating z-50 p-1" align="start">
				{#each newFormWords as { kind, label } (kind)}
					<DropdownMenu.Item
						class="data-highlighted:bg-wash cursor-pointer rounded px-2 py-1.5 outline-none"
						onSelect={() => addForm(desk, kind)}>{label}</DropdownMenu.Item
					>
				{/each}
				<DropdownMenu.Item
					class="data-highlighted:bg-wash border-hair cursor-pointer rounded border-t px-2 py-1.5 outline-none"
					onSelect={() => importing?.choose()}
					>From a file: STEP faces, IFC bodies, OBJ meshes, DXF outlines, CSV points of a net</DropdownMenu.Item
				>
			</DropdownMenu.Content>
		</DropdownMenu.Portal>
	</DropdownMenu.Root>
	<ImportItem
		bind:this={importing}
		onform={(name, form) => addMass(desk, massOf(name, form, desk.project.document.masses))}
	/>
</SheetHeading>
