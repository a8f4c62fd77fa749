<script lang="ts">
	import { completed, fitting } from './completion';

	interface Props {
		value: string;
		label: string;
		/** Why what is typed cannot be taken; it stays open until it can, or is left. */
		fault: string | null;
		/** Its first letter was typed before it stood here: the next goes behind it. */
		isBegun?: boolean;
		/** Width in characters. */
		width: number;
		/** Names that may stand in it, listed as one types. */
		names?: readonly string[];
		/** Take what is typed; with Enter the focus goes back to the chip. */
		onaccept: (backToChip: boolean) => void;
		onleave: () => void;
	}
	let {
		value = $bindable(),
		label,
		fault,
		isBegun = false,
		width,
		names = [],
		onaccept,
		onleave
	}: Props = $props();
	let input: HTMLInputElement;
	/** Where the caret stands: names are listed for the word before it. */
	let caret = $state(0);
	let isTyping = $state(false);
	/** Which of the names is come to by keys. */
	let at = $state(0);
	const offered = $derived(isTyping && names.length ? fitting(value, caret, names) : []);

	const begin = (node: HTMLInputElement) => {
		input = node;
		node.focus();
		if (isBegun) node.setSelectionRange(node.value.length, node.value.length);
		else node.select();
	};
	const place = () => (caret = input.selectionStart ?? value.length);
	function take(name: string) {
		const next = completed(value, caret, name);
		value = next.text;
		isTyping = false;
		queueMicrotask(() => {
			input.focus();
			input.setSelectionRange(next.caret, next.caret);
		});
	}
	function key(event: KeyboardEvent) {
		event.stopPropagation();
		if (offered.length && (event.key === 'ArrowDown' || event.key === 'ArrowUp')) {
			event.preventDefault();
			at = (at + (event.key === 'ArrowDown' ? 1 : offered.length - 1)) % offered.length;
		} else if (offered.length && event.key === 'Tab' && !event.shiftKey) {
			event.preventDefault();
			take(offered[Math.min(at, offered.length - 1)]!);
		} else if (event.key === 'Enter') {
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
		aria-describedby={offered.length ? `names of ${label}` : undefined}
		bind:value
		{@attach begin}
		oninput={() => {
			isTyping = true;
			at = 0;
			place();
		}}
		onkeydown={key}
		onblur={() => (fault ? onleave() : onaccept(false))}
	/>
	{#if offered.length || fault}
		<span class="absolute top-full left-0 z-30 mt-1 block w-72">
			{#if offered.length}<span
					id="names of {label}"
					class="floating mb-1 block p-1"
					role="listbox"
					aria-label="Names"
				>
					{#each offered as name, k (name)}<button
							type="button"
							role="option"
							aria-selected={k === at}
							tabindex="-1"
							class="figures block w-full rounded px-1.5 py-0.5 text-left text-[12px] {k === at
								? 'bg-wash'
								: ''}"
							onpointerdown={(event) => {
								event.preventDefault();
								take(name);
							}}>{name}</button
						>{/each}
					<span class="text-ink-2 block px-1.5 pt-0.5 font-sans text-[11px]">Tab takes it</span>
				</span>{/if}
			{#if fault}<span
					role="alert"
					class="floating text-oxide block px-2 py-1.5 font-sans text-[12px] leading-snug">{fault}</span
				>{/if}
		</span>
	{/if}
</span>
