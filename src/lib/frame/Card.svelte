<script lang="ts">
	import type { Snippet } from 'svelte';
	import { useDesk } from '$lib/state/desk.svelte';

	/** What is said of what is chosen, over the model: on the side where it is not covered. */
	let { label, testid, children }: { label: string; testid: string; children: Snippet } = $props();
	const desk = useDesk();
</script>

<aside
	class={[
		'floating absolute z-10 w-[260px] overflow-auto px-3.5 py-3 max-lg:w-[220px]',
		desk.cardSide === 'right' || (desk.painted === 'check' && desk.clashes.shown) ? 'right-3.5' : 'left-3.5',
		desk.hasBand
			? 'top-[70px] max-h-[calc(100%-120px)] max-xl:max-h-[calc(100%-150px)]'
			: 'top-3.5 max-h-[calc(100%-64px)] max-xl:max-h-[calc(100%-94px)]'
	]}
	aria-label={label}
	data-testid={testid}
>
	{@render children()}
</aside>
