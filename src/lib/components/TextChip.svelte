<script lang="ts">
	import ChipInput from './ChipInput.svelte';
	interface Props {
		value: string;
		label: string;
		/** Set as a formula (figures) or as a name (italic). */
		look: 'formula' | 'name';
		/** Names that may stand in it, listed as one types. */
		names?: readonly string[];
		/** A sentence when the text cannot be taken. */
		check?: (text: string) => string | null;
		/** Stands right after the text: a full stop would have a line of its own after one that fills several. */
		after?: string;
		oncommit: (text: string) => void;
	}
	let { value, label, look, names = [], check, after = '', oncommit }: Props = $props();
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
		// The field goes when it is accepted, and loses the focus by that once more.
		if (!editing) return;
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
</script>

{#if editing}
	<ChipInput
		bind:value={typed}
		{label}
		{fault}
		{names}
		width={Math.min(34, Math.max(10, typed.length + 2))}
		onaccept={accept}
		onleave={leave}
	/>{after}
{:else}
	<span class="chip-run"
		><button
			bind:this={button}
			type="button"
			class={look === 'name' ? 'chip-name' : 'chip-choice figures'}
			aria-label="{label}: {value}"
			onclick={edit}>{value}{after}</button
		></span
	>
{/if}
