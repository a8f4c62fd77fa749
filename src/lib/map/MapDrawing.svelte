<script lang="ts">
	import { formatNumber } from '$core/units/quantity';
	import { placeUnder, reachOf, toX, toY, type MapSheet, type MapView } from './map-sheets';

	type Place = readonly [x: number, y: number];
	interface Props {
		sheets: readonly MapSheet[];
		view: MapView;
		/** What is drawn, for its name: "a trim". */
		what: string;
		closed: boolean;
		/** Corners needed. */
		least: number;
		/** Which face it was drawn on, and its corners there: mm from the middle line and from the foot. */
		ondone: (face: number, places: Place[]) => void;
		onleave: () => void;
	}
	let { sheets, view, what, closed, least, ondone, onleave }: Props = $props();
	const SNAP = 50;
	const CLOSE = 9;
	let layer: SVGSVGElement;
	let face = $state(-1);
	let places = $state.raw<readonly Place[]>([]);
	let here = $state.raw<Place | null>(null);

	$effect(() => layer.focus());

	/** The face under a place of the canvas, or the nearest. */
	function faceAt(px: number, py: number): number {
		const [x, y] = [(px - view.originX) / view.scale, (view.originY - py) / view.scale];
		const offs = sheets.map((sheet) => {
			const [left, right, foot, head] = reachOf(sheet);
			return Math.hypot(Math.max(left - x, x - right, 0), Math.max(foot - y, y - head, 0));
		});
		return offs.indexOf(Math.min(...offs));
	}
	function placeAt(event: PointerEvent, f: number): Place {
		const bounds = layer.getBoundingClientRect();
		const sheet = sheets[f]!;
		const [x, y] = placeUnder(view, sheet, event.clientX - bounds.left, event.clientY - bounds.top);
		const held = (value: number) => Math.round(value / SNAP) * SNAP;
		return [held(x), Math.min(Math.floor(sheet.layout.height), Math.max(0, held(y)))];
	}
	const pixel = ([x, y]: Place): [number, number] => [
		toX(view, sheets[face]!, x, y),
		toY(view, sheets[face]!, x, y)
	];

	function down(event: PointerEvent) {
		event.preventDefault();
		layer.focus();
		const bounds = layer.getBoundingClientRect();
		const f = face < 0 ? faceAt(event.clientX - bounds.left, event.clientY - bounds.top) : face;
		const place = placeAt(event, f);
		face = f;
		if (places.length >= least) {
			const [x, y] = pixel(closed ? places[0]! : places.at(-1)!);
			const off = Math.hypot(event.clientX - bounds.left - x, event.clientY - bounds.top - y);
			if (off < CLOSE) return finish();
		}
		const last = places.at(-1);
		if (!last || last[0] !== place[0] || last[1] !== place[1]) places = [...places, place];
	}
	function move(event: PointerEvent) {
		if (face >= 0) here = placeAt(event, face);
	}
	function finish() {
		if (places.length >= least) ondone(face, [...places]);
	}
	function keydown(event: KeyboardEvent) {
		if (event.key === 'Enter') finish();
		else if (event.key === 'Escape') onleave();
		else if (event.key === 'Backspace') {
			places = places.slice(0, -1);
			if (places.length === 0) face = -1;
		} else return;
		event.preventDefault();
		event.stopPropagation();
	}
	const line = $derived(
		face < 0
			? ''
			: [...places, ...(here ? [here] : [])]
					.map(pixel)
					.map(([x, y]) => `${x},${y}`)
					.join(' ')
	);
	const last = $derived(places.at(-1));
	const step = $derived(
		last && here ? formatNumber(Math.round(Math.hypot(here[0] - last[0], here[1] - last[1]))) : null
	);
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
<svg
	bind:this={layer}
	class="absolute inset-0 size-full cursor-crosshair touch-none outline-none"
	tabindex="0"
	role="application"
	aria-label="Drawing {what} on the flat map"
	data-testid="map-drawing"
	onpointerdown={down}
	onpointermove={move}
	ondblclick={finish}
	onkeydown={keydown}
>
	<polyline
		points={line}
		fill={closed ? 'rgb(217 142 31 / 0.18)' : 'none'}
		stroke="#B9741A"
		stroke-width="1.6"
	/>
	{#each places as place, k (k)}
		{@const [x, y] = pixel(place)}
		<circle cx={x} cy={y} r={k === 0 && closed ? 5 : 3.2} fill="#fff" stroke="#B9741A" stroke-width="1.6" />
	{/each}
	{#if step && here}
		{@const [x, y] = pixel(here)}
		<text x={x + 10} y={y - 8} class="figures" font-size="11" fill="#1D2126">{step} mm</text>
	{/if}
</svg>
<p class="floating absolute top-2 left-14 flex items-center gap-2 px-2.5 py-1 text-[12px]" role="status">
	{#if places.length === 0}
		Click the {closed ? 'corners' : 'points'} of {what}
	{:else if places.length < least}
		{places.length} of at least {least} corners
	{:else}
		Enter{closed ? ', or the first corner,' : ''} ends it; Backspace takes the last corner back
	{/if}
	<button type="button" class="underline" onclick={onleave}>Cancel</button>
</p>
