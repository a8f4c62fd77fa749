<script lang="ts">
	/** Lengths on the map: straight from corner to corner, as they are in the model, and those that were kept. */
	import { pointAt, type Vector } from '$core/geometry/vector';
	import { apart, keepLength, lengthText } from '$lib/edits/lengths';
	import { useDesk } from '$lib/state/desk.svelte';
	import { cornerAt, cornerOfPlace, type MapCorner, type MapSheet, type MapView } from './map-sheets';

	let { sheets, view }: { sheets: readonly MapSheet[]; view: MapView } = $props();
	const desk = useDesk();
	const REACH = 16;
	/** Notes are kept to a thousandth. */
	const SAME = 0.01;
	let from = $state.raw<MapCorner | null>(null);
	let here = $state.raw<MapCorner | null>(null);
	const placeOf = ({ f, k }: MapCorner): Vector => {
		const { cells, grid } = sheets[f]!.face;
		return pointAt(grid.positions, cells.corners[k]!);
	};
	const kept = $derived(
		desk.project.document.notes.flatMap((note) => {
			const a = cornerOfPlace(sheets, view, note.from, SAME);
			const b = a && cornerOfPlace(sheets, view, note.to, SAME);
			return a && b ? [{ id: note.id, a, b, far: apart(note.from, note.to) }] : [];
		})
	);
	const now = $derived(from && here ? { a: from, b: here, far: apart(placeOf(from), placeOf(here)) } : null);
	// A corner is one of the sheets that are shown.
	$effect(() => {
		void sheets;
		from = here = null;
	});
	function under(event: PointerEvent & { currentTarget: HTMLElement }) {
		const box = event.currentTarget.getBoundingClientRect();
		return cornerAt(sheets, view, event.clientX - box.left, event.clientY - box.top, REACH);
	}
	function click(event: PointerEvent & { currentTarget: HTMLElement }) {
		const corner = under(event);
		if (!corner) return;
		if (from && (from.f !== corner.f || from.k !== corner.k)) {
			keepLength(desk, placeOf(from), placeOf(corner));
			from = null;
		} else from = corner;
	}
</script>

{#if desk.measures}
	<!-- svelte-ignore a11y_no_static_element_interactions -->
	<div
		class="absolute inset-0 cursor-crosshair"
		data-testid="map-measuring"
		onpointermove={(event) => (here = under(event))}
		onpointerleave={() => (here = null)}
		onpointerup={click}
	></div>
{/if}
<svg class="pointer-events-none absolute inset-0 size-full" data-testid="map-lengths" aria-hidden="true">
	{#snippet line(a: MapCorner, b: MapCorner, far: number, colour: string)}
		<line x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke={colour} stroke-width="1.4" />
		<text
			x={(a.x + b.x) / 2}
			y={(a.y + b.y) / 2 - 4}
			text-anchor="middle"
			class="figures"
			font-size="11.5"
			fill={colour}
			stroke="#FCFBF7"
			stroke-width="3"
			paint-order="stroke">{lengthText(far, desk)}</text
		>
	{/snippet}
	{#each kept as { id, a, b, far } (id)}{@render line(a, b, far, '#1d2126')}{/each}
	{#if desk.measures}
		{#if now}{@render line(now.a, now.b, now.far, '#8a5a10')}{/if}
		{#each [from, here] as corner, k (k)}
			{#if corner}<circle cx={corner.x} cy={corner.y} r="4.5" fill="#D98E1F" stroke="#8a5a10" />{/if}
		{/each}
	{/if}
</svg>
