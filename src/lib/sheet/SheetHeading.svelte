<script lang="ts">
	import ChevronDown from '@lucide/svelte/icons/chevron-down';
	import type { Snippet } from 'svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import type { SheetPart } from '$lib/state/sheet-state.svelte';

	/** A part of the sheet under a heading that stays in sight and folds it. */
	interface Props {
		part: SheetPart;
		number: number;
		title: string;
		count: string;
		/** It is what is worked on. */
		current?: boolean;
		/** Its clauses are put together though it is folded: their words are asked for. */
		read?: boolean;
		ontitle?: () => void;
		beside?: Snippet;
		children: Snippet;
	}
	let {
		part,
		number,
		title,
		count,
		current = false,
		read = false,
		ontitle,
		beside,
		children
	}: Props = $props();
	const desk = useDesk();
	const folded = $derived(desk.sheet.isFolded(part));
</script>

<div data-part={part} class="scroll-mt-[31px]">
	<header class="bg-sheet sticky top-[31px] z-10 flex items-baseline gap-1.5 py-1.5 pr-4 pl-1.5">
		<button
			type="button"
			class="text-ink-3 hover:text-ink grid size-5 shrink-0 place-items-center self-center rounded"
			aria-expanded={!folded}
			aria-label="Clauses of {title.replace(/^[^·]+ · /, '')}"
			onclick={() => desk.sheet.fold(part, !folded)}
			><ChevronDown size={14} class={folded ? '-rotate-90' : ''} /></button
		>
		<span class="figures text-ink-3 w-[14px] text-[12px]">{number}</span>
		<h2 class="min-w-0 truncate pl-1 text-[12.5px] font-semibold tracking-wide">
			<button
				type="button"
				class="hover:text-patina-deep"
				aria-pressed={ontitle ? current : undefined}
				onclick={() => {
					ontitle?.();
					if (folded || !ontitle) desk.sheet.fold(part, !folded);
				}}>{title}</button
			>
		</h2>
		{@render beside?.()}
		<span class="figures text-ink-2 ml-auto shrink-0 text-[11.5px]">{count}</span>
	</header>
	{#if !folded || read}<div class:hidden={folded} class="pb-2">{@render children()}</div>{/if}
</div>
