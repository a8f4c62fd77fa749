<script lang="ts">
	import Plus from '@lucide/svelte/icons/plus';
	import { DropdownMenu } from 'bits-ui';
	import { partsOf } from '$core/cladding/kit';
	import { insertAt, pathTo } from '$core/project/typed-path';
	import { counted } from '$core/units/counted';
	import { freshId } from '$lib/edits/fresh-id';
	import { useDesk } from '$lib/state/desk.svelte';
	import SheetHeading from './SheetHeading.svelte';
	import VariantClause from './VariantClause.svelte';

	let { number, read }: { number: number; read: boolean } = $props();
	const desk = useDesk();
	const document = $derived(desk.project.document);
	function add(part: string, label: string) {
		desk.do(
			`a variant of ${label}`,
			insertAt(pathTo('variants'), document.variants.length, {
				id: freshId(part, document.variants),
				name: 'new',
				part,
				values: {}
			})
		);
	}
</script>

<SheetHeading part="kit" {number} title="Kit" count={counted(document.variants.length, 'variant')} {read}>
	{#snippet beside()}
		<a class="text-patina-deep text-[11.5px] hover:underline" href="/project/{desk.project.id}/kit"
			>all parts</a
		>
	{/snippet}
	{#each document.variants as variant, k (variant.id)}
		<VariantClause {variant} number="{number}.{k + 1}" />
	{:else}
		<p class="sentence text-ink-2 px-11 py-2">
			No variants yet. A variant is a part with values of its own; it is made when a part is put somewhere.
		</p>
	{/each}
	<DropdownMenu.Root>
		<DropdownMenu.Trigger
			class="text-ink-2 hover:text-patina-deep ml-11 flex items-center gap-1 py-1 text-[12px]"
			><Plus size={13} />Variant</DropdownMenu.Trigger
		>
		<DropdownMenu.Portal>
			<DropdownMenu.Content
				class="floating z-50 max-h-[var(--bits-dropdown-menu-content-available-height)] max-w-80 overflow-auto p-1"
				side="right"
				align="end"
				collisionPadding={8}
			>
				{#each partsOf(document) as part (part.id)}
					<DropdownMenu.Item
						class="data-highlighted:bg-wash cursor-pointer rounded px-2 py-1.5 outline-none"
						onSelect={() => add(part.id, part.label)}
						><b class="font-semibold">{part.label}</b><br /><span class="text-ink-2 text-[12px]"
							>{part.use}</span
						></DropdownMenu.Item
					>
				{/each}
			</DropdownMenu.Content>
		</DropdownMenu.Portal>
	</DropdownMenu.Root>
</SheetHeading>
