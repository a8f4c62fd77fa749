<script lang="ts">
	interface Props {
		value: string;
		label: string;
		/** Why what is typed cannot be taken; it stays open until it can, or is left. */
		fault: string | null;
		/** Its first letter was typed before it stood here: the next goes behind it. */
		isBegun?: boolean;
		/** Width in characters. */
		width: number;
		/** Take what is typed; with Enter the focus goes back to the chip. */
		onaccept: (backToChip: boolean) => void;
		onleave: () => void;
	}
	let { value = $bindable(), label, fault, isBegun = false, width, onaccept, onleave }: Props = $props();
	const begin = (node: HTMLInputElement) => {
		node.focus();
		if (isBegun) node.setSelectionRange(node.value.length, node.value.length);
		else node.select();
	};
	function key(event: KeyboardEvent) {
		event.stopPropagation();
		if (event.key === 'Enter') {
			// Or the same key press would open the chip that is focused next.
			event.preventDefault();
			onaccept(true);
		} else if (event.key === 'Escape') onleave();
	}
</script>

<span class="relative inline-block">
	<input
		class="figures text-patina-deep ring-patina rounded-[3px] bg-white px-[5px] text-[13px] ring-2 outline-none"
		style:width="{width}ch"
		aria-label={label}
		aria-invalid={fault ? 'true' : undefined}
		bind:value
		{@attach begin}
		onkeydown={key}
		onblur={() => (fault ? onleave() : onaccept(false))}
	/>
	{#if fault}
		<span
			role="alert"
			class="floating text-oxide absolute top-full left-0 z-30 mt-1 block w-72 px-2 py-1.5 font-sans text-[12px] leading-snug"
			>{fault}</span
		>
	{/if}
</span>
