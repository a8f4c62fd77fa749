<script lang="ts">
	interface Props {
		value: string;
		label: string;
		/** Set as a formula (figures) or as a name (italic). */
		look: 'formula' | 'name';
		/** A sentence when the text cannot be taken. */
		check?: (text: string) => string | null;
		oncommit: (text: string) => void;
	}
	let { value, label, look, check, oncommit }: Props = $props();
	let editing = $state(false);
	let typed = $state('');
	let fault = $state<string | null>(null);
	let button = $state<HTMLButtonElement>();

	function edit() {
		typed = value;
		fault = null;
		editing = true;
	}
	function accept(backToChip: boolean) {
		const text = typed.trim();
		fault = text ? (check?.(text) ?? null) : `${label} cannot be empty`;
		if (fault) return;
		editing = false;
		if (text !== value) oncommit(text);
		if (backToChip) queueMicrotask(() => button?.focus());
	}
	function leave() {
		editing = false;
		queueMicrotask(() => button?.focus());
	}
	const focusAll = (node: HTMLInputElement) => node.select();
</script>

{#if editing}
	<span class="relative inline-block">
		<input
			class="figures text-patina-deep ring-patina rounded-[3px] bg-white px-[5px] text-[13px] ring-2 outline-none"
			style:width="{Math.min(34, Math.max(10, typed.length + 2))}ch"
			aria-label={label}
			aria-invalid={fault ? 'true' : undefined}
			bind:value={typed}
			{@attach focusAll}
			onkeydown={(event) => {
				event.stopPropagation();
				if (event.key === 'Enter') {
					// Or the same key press would open the chip that is focused next.
					event.preventDefault();
					accept(true);
				} else if (event.key === 'Escape') leave();
			}}
			onblur={() => (fault ? leave() : accept(false))}
		/>
		{#if fault}
			<span
				role="alert"
				class="floating text-oxide absolute top-full left-0 z-30 mt-1 block w-72 px-2 py-1.5 font-sans text-[12px] leading-snug"
				>{fault}</span
			>
		{/if}
	</span>
{:else}
	<button
		bind:this={button}
		type="button"
		class={look === 'name' ? 'chip-name' : 'chip-choice figures'}
		aria-label="{label}: {value}"
		onclick={edit}>{value}</button
	>
{/if}
