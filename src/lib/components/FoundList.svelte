<script lang="ts">
	import { Command } from 'bits-ui';
	import type { Snippet } from 'svelte';

	/** What words find, below the field they are typed in: a list that the field steers, which scrolls by itself. */
	interface Props {
		label: string;
		/** At most so high, as CSS has it. */
		height: string;
		children: Snippet;
		/** What is said of the list, below it. */
		below: Snippet;
	}
	let { label, height, children, below }: Props = $props();
</script>

<Command.List>
	{#snippet child({ props })}
		<div {...props} role="presentation">
			<Command.Viewport
				class="overflow-auto p-1.5"
				style="max-height: {height}"
				role="listbox"
				aria-label={label}
				tabindex={0}>{@render children()}</Command.Viewport
			>
			{@render below()}
		</div>
	{/snippet}
</Command.List>
