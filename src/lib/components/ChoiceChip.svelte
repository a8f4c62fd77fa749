<script lang="ts" generics="Value extends string">
	import Check from '@lucide/svelte/icons/check';
	import { Select } from 'bits-ui';

	interface Props {
		value: Value;
		options: readonly { readonly value: Value; readonly label: string; readonly note?: string }[];
		label: string;
		wrong?: boolean;
		onchoose: (value: Value) => void;
		/** Whether the list is shown. */
		open?: boolean;
	}
	let { value, options, label, wrong = false, onchoose, open = $bindable(false) }: Props = $props();
	const shown = $derived(options.find((option) => option.value === value)?.label ?? value);
</script>

<!-- A flex box of its own, so that no space stands between the chip and the punctuation after it. -->
<span class="chip-run">
	<span class="inline-flex">
		<Select.Root
			type="single"
			bind:open
			{value}
			onValueChange={(chosen) => chosen !== value && onchoose(chosen as Value)}
		>
			<Select.Trigger class="chip-choice {wrong ? 'wrong' : ''}" aria-label="{label}: {shown}"
				>{shown}</Select.Trigger
			>
			<Select.Portal>
				<Select.Content
					class="floating z-50 max-h-80 min-w-40 overflow-auto p-1"
					sideOffset={4}
					collisionPadding={8}
				>
					{#each options as option (option.value)}
						<Select.Item
							value={option.value}
							label={option.label}
							class="data-highlighted:bg-wash flex cursor-pointer items-baseline gap-2 rounded px-2 py-1.5 outline-none"
						>
							{#snippet children({ selected })}
								<span class="text-patina w-4 shrink-0 self-center"
									>{#if selected}<Check size={14} />{/if}</span
								>
								<span class="font-medium">{option.label}</span>
								{#if option.note}<span class="figures text-ink-2 ml-auto pl-4 text-[11.5px]"
										>{option.note}</span
									>{/if}
							{/snippet}
						</Select.Item>
					{/each}
				</Select.Content>
			</Select.Portal>
		</Select.Root>
	</span>
</span>
