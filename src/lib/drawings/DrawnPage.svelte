<script lang="ts">
	/** A page as it is printed. */
	import { layers, type Page } from '$core/drawing/drawing';
	import { areaOf, strokeOf } from '$core/exchange/svg/write';
	import { inDegrees } from '$core/units/scale';

	let { page }: { page: Page } = $props();
	const anchors = { left: 'start', middle: 'middle', right: 'end' } as const;
</script>

<svg
	viewBox="0 0 {page.width} {page.height}"
	role="img"
	aria-label={page.title}
	class="block size-full bg-white"
	font-family="'Archivo Variable', sans-serif"
>
	{#each page.inked as { layer, fills, lines, texts } (layer)}
		{@const { pen, colour } = layers[layer]}
		{#if fills.length}<path
				d={fills.map((rings) => areaOf(rings, page.height)).join('')}
				fill={colour}
				fill-rule="evenodd"
			/>{/if}
		{#if lines.length}<path
				d={strokeOf(lines, page.height)}
				fill="none"
				stroke={colour}
				stroke-width={pen}
				stroke-linecap="round"
				stroke-linejoin="round"
			/>{/if}
		<g fill={colour}>
			{#each texts as { x, y, size, text, from, turn, bold }, k (k)}<text
					{x}
					y={page.height - y}
					font-size={size}
					font-weight={bold ? 600 : 400}
					text-anchor={anchors[from]}
					transform={turn ? `rotate(${-inDegrees(turn)} ${x} ${page.height - y})` : undefined}>{text}</text
				>{/each}
		</g>
	{/each}
</svg>
