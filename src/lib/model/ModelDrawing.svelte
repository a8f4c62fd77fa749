<script lang="ts">
	import { formatNumber } from '$core/units/quantity';
	import type { Vector } from '$core/geometry/vector';

	/** A guide as it is drawn in the model, over the picture; its points are clicked on the canvas below. */
	interface Props {
		/** mm */
		points: readonly Vector[];
		/** Where the next point would be. */
		here: Vector | null;
		project: (point: Vector) => { x: number; y: number } | null;
		onback: () => void;
		onfinish: () => void;
		onleave: () => void;
	}
	let { points, here, project, onback, onfinish, onleave }: Props = $props();

	function keydown(event: KeyboardEvent) {
		if (event.key === 'Enter') onfinish();
		else if (event.key === 'Escape') onleave();
		else if (event.key === 'Backspace') onback();
		else return;
		event.preventDefault();
		event.stopPropagation();
	}
	const places = $derived(points.flatMap((point) => project(point) ?? []));
	const next = $derived(here && project(here));
	const last = $derived(points.at(-1));
	const step = $derived(
		here && last ? formatNumber(Math.round(Math.hypot(...here.map((value, k) => value - last[k]!)))) : null
	);
</script>

<svelte:window onkeydowncapture={keydown} />
<svg class="pointer-events-none absolute inset-0 size-full" data-testid="model-drawing">
	<polyline
		points={[...places, ...(next ? [next] : [])].map(({ x, y }) => `${x},${y}`).join(' ')}
		fill="none"
		stroke="#B9741A"
		stroke-width="1.6"
	/>
	{#each places as { x, y }, k (k)}
		<circle cx={x} cy={y} r="3.6" fill="#fff" stroke="#B9741A" stroke-width="1.6" />
	{/each}
	{#if next}
		<circle cx={next.x} cy={next.y} r="3.6" fill="#B9741A" />
		{#if step}
			<text
				x={next.x + 10}
				y={next.y - 8}
				class="figures"
				font-size="11"
				fill="#1D2126"
				stroke="#FBF9F3"
				stroke-width="3"
				paint-order="stroke">{step} mm</text
			>
		{/if}
	{/if}
</svg>
<p class="floating absolute top-2 left-3.5 flex items-center gap-2 px-2.5 py-1 text-[12px]" role="status">
	{#if points.length === 0}
		Click the points of a guide; near a node it takes the node, dragging turns the model
	{:else}
		{points.length === 1 ? '1 point' : `${points.length} points`}: Enter ends it, Backspace takes the last one
		back
		<button type="button" class="underline" onclick={onfinish}>Done</button>
	{/if}
	<button type="button" class="underline" onclick={onleave}>Cancel</button>
</p>
