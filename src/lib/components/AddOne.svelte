<script lang="ts" generics="Offer extends { readonly label: string }">
	/** One more of a list, chosen from what there can be. */
	import Plus from '@lucide/svelte/icons/plus';
	import { DropdownMenu } from 'bits-ui';

	interface Props {
		label: string;
		/** Each with a name of its own. */
		offers: readonly Offer[];
		onadd: (offer: Offer) => void;
	}
	let { label, offers, onadd }: Props = $props();
</script>

<DropdownMenu.Root>
	<DropdownMenu.Trigger class="text-ink-2 hover:text-patina-deep flex items-center gap-1 py-1 text-[12px]"
		><Plus size={13} />{label}</DropdownMenu.Trigger
	>
	<DropdownMenu.Portal>
		<DropdownMenu.Content
			class="floating z-50 max-h-(--bits-dropdown-menu-content-available-height) max-w-80 overflow-auto p-1"
			side="right"
			align="end"
			collisionPadding={8}
		>
			{#each offers as offer (offer)}
				<DropdownMenu.Item
					class="data-highlighted:bg-wash cursor-pointer rounded px-2 py-1 outline-none"
					onSelect={() => onadd(offer)}>{offer.label}</DropdownMenu.Item
				>
			{/each}
		</DropdownMenu.Content>
	</DropdownMenu.Portal>
</DropdownMenu.Root>
