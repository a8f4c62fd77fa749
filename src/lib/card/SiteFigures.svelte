<script lang="ts">
	/** What is measured of a cell, a line or a node, and what its piece weighs. */
	import { kindOf } from '$core/cladding/address';
	import { AS_DRAWN } from '$core/cladding/lie';
	import { lineKindOf } from '$core/cladding/line-run';
	import { columnValues } from '$core/field/column';
	import { fieldOf } from '$core/field/fields';
	import { pointAt } from '$core/geometry/vector';
	import { cellOutline } from '$core/measure/cell-outline';
	import { formatLength, formatNumber, formatQuantity } from '$core/units/quantity';
	import { useDesk } from '$lib/state/desk.svelte';
	import type { Found } from '$lib/state/selection.svelte';
	import type { FaceView } from '$lib/worker/views';
	import CellPicture from './CellPicture.svelte';
	import { fitted, hasRoom } from './fitted';
	import type { PieceView } from '$lib/state/pieces-at';

	let { found, face, piece }: { found: Found; face: FaceView; piece: PieceView | null } = $props();
	const { display } = $derived(useDesk());
	const plainLength = (mm: number) => formatLength(mm, display, 0).replace(' mm', '');
	const read = (name: string) =>
		columnValues(fieldOf(found.kind, name).column(face, Uint32Array.of(found.index)), 1)[0]!;
	const outline = $derived(found.kind === 'cell' ? cellOutline(face, found.index) : null);
	const isCrowded = $derived(
		outline ? fitted(outline).corners.some((p, k, all) => !hasRoom(p, all[(k + 1) % all.length]!)) : false
	);
</script>

{#if outline}<CellPicture {outline} lie={piece?.group.lie ?? AS_DRAWN} lengthText={plainLength} />{/if}
<dl
	class="[&_dd]:figures mt-1 grid grid-cols-[1fr_auto] gap-y-[3px] text-[12.5px] [&_dd]:text-right [&_dd]:text-[12px]"
>
	{#if outline}
		<dt>Cell</dt>
		<dd>{kindOf(face.cells, found.index)}, {outline.corners.length} corners</dd>
		<dt>Area</dt>
		<dd>{formatQuantity(read('area'), 'area')}</dd>
		{#if outline.openings.length}
			<dt>Openings</dt>
			<dd>{outline.openings.length}, {Math.round(100 * read('open_share'))} % open</dd>
		{/if}
		<dt>Warp</dt>
		<dd>{formatLength(read('warp'), display, 1)}</dd>
		{#if isCrowded}
			<dt>Edges</dt>
			<dd>{outline.lengths.map(plainLength).join(' · ')}</dd>
		{/if}
		<dt>Angles</dt>
		<dd>{outline.angles.map((a) => formatQuantity(a, 'angle').replace('°', '')).join(' · ')}°</dd>
	{:else if found.kind === 'line'}
		<dt>Line</dt>
		<dd>{lineKindOf(face.edges, found.index, face.sharedEdges)}</dd>
		<dt>Length</dt>
		<dd>{formatLength(read('length'), display, 1)}</dd>
		<dt>Fold</dt>
		<dd>{formatQuantity(read('fold'), 'angle')}</dd>
	{:else}
		<dt>Lines that meet</dt>
		<dd>{piece?.group.corners ?? '–'}</dd>
		{#each pointAt(face.grid.positions, found.index) as value, axis (axis)}
			<dt>{'xyz'[axis]}</dt>
			<dd>{formatLength(value, display, 1)}</dd>
		{/each}
	{/if}
	{#if piece?.group.left}<dt>Clipped, left of it</dt>
		<dd>{formatNumber(Math.round(1000 * piece.group.left[piece.row]!) / 10)} %</dd>{/if}
	{#if piece}<dt>Mass</dt>
		<dd>{formatQuantity(piece.group.mass[piece.row]!, 'mass')}</dd>{/if}
</dl>
