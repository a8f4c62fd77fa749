<script lang="ts" module>
	/** Something to choose, with a picture of it. */
	export interface PictureOption {
		readonly value: string;
		readonly label: string;
		/** One line about it. */
		readonly about?: string;
		/** How much it is used. */
		readonly note?: string;
		/** A picture as an address, or lines to be drawn in a box of 60 by 40. */
		readonly picture?: string | undefined;
		readonly lines?: string | undefined;
	}
	export interface PictureGroup {
		readonly title: string;
		readonly options: readonly PictureOption[];
	}
</script>

<script lang="ts">
	import Check from '@lucide/svelte/icons/check';
	import { Select } from 'bits-ui';

	interface Props {
		value: string;
		/** What the chip says. */
		shown: string;
		groups: readonly PictureGroup[];
		label: string;
		wrong?: boolean;
		/** Nothing is chosen: it says what could be done. */
		isOffer?: boolean;
		onchoose: (value: string) => void;
		/** What is pointed at, or come to by keys, before it is chosen; null when nothing is any more. */
		onlook?: (value: string | null) => void;
		onopen?: (open: boolean) => void;
	}
	let {
		value,
		shown,
		groups,
		label,
		wrong = false,
		isOffer = false,
		onchoose,
		onlook,
		onopen
	}: Props = $props();
	/** What is looked at for so long is shown (ms); a list that is run through shows nothing. */
	const A_LOOK = 220;
	let isOpen = $state(false);
	/** What was chosen when the list was opened: what is looked at may stand in its place meanwhile. */
	let was = $state('');
	const chosen = $derived(isOpen ? was : value);
	let looking: ReturnType<typeof setTimeout> | undefined;
	function look(at: string | null) {
		clearTimeout(looking);
		looking = setTimeout(() => onlook?.(at === was ? null : at), A_LOOK);
	}
	function chose(next: string) {
		clearTimeout(looking);
		if (isOffer || next !== was) onchoose(next);
	}
	function opened(open: boolean) {
		clearTimeout(looking);
		if (open) was = value;
		isOpen = open;
		if (!open) onlook?.(null);
		onopen?.(open);
	}
</script>

<!-- A flex box of its own, so that no space stands between the chip and the punctuation after it. -->
<span class="chip-run">
	<span class="inline-flex">
		<Select.Root type="single" bind:value={() => (isOffer ? '' : chosen), chose} onOpenChange={opened}>
			<Select.Trigger
				class={isOffer ? 'chip-offer' : ['chip-choice', wrong && 'wrong']}
				aria-label="{label}: {shown}">{shown}</Select.Trigger
			>
			<Select.Portal>
				<Select.Content
					class="floating z-50 max-h-[min(560px,var(--bits-select-content-available-height))] w-[452px] overflow-auto p-2"
					sideOffset={4}
					collisionPadding={8}
					side="right"
					align="start"
				>
					{#each groups as group (group.title)}
						{#if group.options.length}
							<Select.Group>
								<Select.GroupHeading
									class="text-ink-2 px-1.5 pt-1.5 pb-1 text-[11.5px] font-semibold tracking-wide"
									>{group.title}</Select.GroupHeading
								>
								<div class="grid grid-cols-2 gap-1">
									{#each group.options as option (option.value)}
										<Select.Item
											value={option.value}
											label={option.label}
											aria-label={option.label}
											onHighlight={() => look(option.value)}
											onUnhighlight={() => look(null)}
											class="data-highlighted:bg-wash flex cursor-pointer gap-2 rounded p-1.5 outline-none"
										>
											{#snippet children({ selected })}
												<span class="bg-paper relative h-[46px] w-[68px] shrink-0 overflow-hidden rounded-sm">
													{#if option.picture}<img
															src={option.picture}
															alt=""
															class="h-full w-full object-contain"
														/>{:else if option.lines}<svg
															viewBox="-2 -2 64 44"
															class="h-full w-full"
															aria-hidden="true"
															><path
																d={option.lines}
																fill="none"
																stroke="var(--color-patina-deep)"
																stroke-width="0.9"
																stroke-linejoin="round"
															/></svg
														>{/if}
													{#if selected}<span class="text-patina bg-sheet absolute top-0 left-0 rounded-br-sm"
															><Check size={13} /></span
														>{/if}
												</span>
												<span class="min-w-0 grow">
													<span class="flex items-baseline gap-1 text-[12.5px] leading-tight font-medium"
														>{option.label}{#if option.note}<span
																class="figures text-ink-2 ml-auto shrink-0 text-[11px]">{option.note}</span
															>{/if}</span
													>
													{#if option.about}<span
															class="text-ink-2 mt-0.5 line-clamp-2 text-[11.5px] leading-tight"
															>{option.about}</span
														>{/if}
												</span>
											{/snippet}
										</Select.Item>
									{/each}
								</div>
							</Select.Group>
						{/if}
					{/each}
				</Select.Content>
			</Select.Portal>
		</Select.Root>
	</span>
</span>
