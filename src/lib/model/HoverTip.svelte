<script lang="ts">
	import { piecesAt } from '$lib/state/pieces-at';
	import { useDesk } from '$lib/state/desk.svelte';
	import { addressOf, type Found } from '$lib/state/selection.svelte';

	/** What a click would take, outlined over the picture, with its mark and place. */
	interface Props {
		found: Omit<Found, 'address'>;
		/** Of the pointer, and of what is found, on the picture. */
		at: { readonly x: number; readonly y: number };
		corners: readonly { readonly x: number; readonly y: number }[];
		width: number;
	}
	let { found, at, corners, width }: Props = $props();

	const desk = useDesk();
	const view = $derived(desk.model.view);
	const said = $derived(desk.project.document.zones.find(({ id }) => id === view.zones[found.zone]!.id));
	const mark = $derived(desk.markOf(found));
	const piece = $derived(piecesAt(view, { ...found, address: addressOf(view, found) })[0]);
	const names = { cell: 'cell', line: 'line', node: 'node', chain: 'chain' };
	const isLeft = $derived(at.x < width - 220);
</script>

<svg class="pointer-events-none absolute inset-0 size-full" aria-hidden="true">
	{#if corners.length > 1}
		<polygon
			points={corners.map(({ x, y }) => `${x},${y}`).join(' ')}
			fill={corners.length > 2 ? '#1d2126' : 'none'}
			fill-opacity="0.07"
			stroke="#1d2126"
			stroke-width="1.4"
		/>
	{:else if corners[0]}
		<circle cx={corners[0].x} cy={corners[0].y} r="6" fill="none" stroke="#1d2126" stroke-width="1.4" />
	{/if}
</svg>
<p
	class="bg-ink/90 pointer-events-none absolute z-[5] rounded px-2 py-1 text-[11.5px] leading-snug whitespace-nowrap text-white"
	style:left="{isLeft ? at.x + 14 : at.x - 14}px"
	style:top="{at.y + 16}px"
	style:transform={isLeft ? '' : 'translateX(-100%)'}
	data-testid="hover"
>
	<span class="figures">{mark}</span>
	<span class="opacity-80">{piece ? piece.group.variant : names[found.kind]} · {said?.name ?? ''}</span>
</p>
