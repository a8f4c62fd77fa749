<script lang="ts">
	import type { Enclosing } from './enclosing.svelte';

	/** What is drawn round things to choose them, over what they lie on. */
	let { of }: { of: Enclosing } = $props();
</script>

{#if of.line}<svg class="pointer-events-none absolute inset-0 size-full" aria-hidden="true"
		><polygon
			points={of.line.map(([x, y]) => `${x},${y}`).join(' ')}
			fill="var(--color-gold)"
			fill-opacity="0.15"
			stroke="var(--color-gold)"
		/></svg
	>{/if}
