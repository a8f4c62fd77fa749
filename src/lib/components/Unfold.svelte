<script lang="ts">
	/** More of something, unfolded under the words that offer it. */
	import type { Snippet } from 'svelte';

	interface Props {
		open: boolean;
		/** What is offered, and what folds it again. */
		more: string;
		less: string;
		children: Snippet;
	}
	let { open = $bindable(), more, less, children }: Props = $props();
</script>

<button
	type="button"
	class="text-patina-deep underline decoration-dotted underline-offset-2"
	aria-expanded={open}
	onclick={() => (open = !open)}>{open ? less : more}</button
>
{#if open}{@render children()}{/if}
