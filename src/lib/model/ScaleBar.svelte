<script lang="ts">
	import { formatLength } from '$core/units/quantity';
	import { useDesk } from '$lib/state/desk.svelte';

	/** @param scale mm of the model by a pixel of the picture */
	let { scale }: { scale: number } = $props();
	const desk = useDesk();
	/** As long as is near this (pixels). */
	const WANTED = 130;
	const length = $derived.by(() => {
		const wanted = WANTED * scale;
		const ten = 10 ** Math.floor(Math.log10(wanted));
		return ten * (wanted / ten >= 5 ? 5 : wanted / ten >= 2 ? 2 : 1);
	});
</script>

<svg
	class="pointer-events-none absolute right-4 bottom-12 h-7"
	width={length / scale + 2}
	role="img"
	aria-label="Scale: {formatLength(length, desk.display)}"
	data-testid="scale-bar"
	data-mm={length}
	data-pixels={length / scale}
>
	<g stroke="#1d2126" fill="#1d2126">
		<rect x="1" y="19" width={length / scale / 2} height="4" />
		<rect x={1 + length / scale / 2} y="19" width={length / scale / 2} height="4" fill="#fff" />
	</g>
	<text x="1" y="14" font-size="11" class="figures" fill="#1d2126">{formatLength(length, desk.display)}</text>
</svg>
