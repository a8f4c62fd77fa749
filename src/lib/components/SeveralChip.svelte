<script lang="ts" generics="Value extends string">
	import Check from '@lucide/svelte/icons/check';
	import { Select } from 'bits-ui';

	interface Props {
		values: readonly Value[];
		options: readonly { readonly value: Value; readonly label: string }[];
		label: string;
		/** Said when nothing is chosen. */
		empty: string;
		/** What many of them are called, as in "12 columns". */
		plural?: string;
		/** Between the last two. */
		joiner?: 'and' | 'or';
		onchoose: (values: Value[]) => void;
	}
	let { values, options, label, empty, plural = 'chosen', joiner = 'and', onchoose }: Props = $props();
	const shown = $derived.by(() => {
		const names = options.filter((option) => values.includes(option.value)).map((option) => option.label);
		if (names.length === 0) return empty;
		if (names.length > 4) return `${names.length} ${plural}`;
		return names.length === 1 ? names[0] : `${names.slice(0, -1).join(', ')} ${joiner} ${names.at(-1)}`;
	});
</script>

<!-- A flex box of its own, so that no space stands between the chip and the punctuation after it. -->
<span class="chip-run">
	<span class="inline-flex [baseline-source:last]">
		<Select.Root type="multiple" value={[...values]} onValueChange={(chosen) => onchoose(chosen as Value[])}>
			<Select.Trigger class="chip-choice max-w-56 text-left whitespace-normal!" aria-label="{label}: {shown}"
				>{shown}</Select.Trigger
			>
			<Select.Portal>
				<Select.Content class="floating z-50 min-w-40 p-1" sideOffset={4} collisionPadding={8}>
					{#each options as option (option.value)}
						<Select.Item
							value={option.value}
							label={option.label}
							class="data-highlighted:bg-wash flex cursor-pointer items-center gap-2 rounded px-2 py-1.5 outline-none"
						>
							{#snippet children({ selected })}
								<span class="border-hair text-patina grid size-4 place-items-center rounded-sm border"
									>{#if selected}<Check size={12} />{/if}</span
								>
								<span class="font-medium">{option.label}</span>
							{/snippet}
						</Select.Item>
					{/each}
				</Select.Content>
			</Select.Portal>
		</Select.Root>
	</span>
</span>
