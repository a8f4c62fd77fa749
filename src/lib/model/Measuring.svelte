<script lang="ts">
	import { pathTo, removeAt, below } from '$core/project/typed-path';
	import type { Vector } from '$core/geometry/vector';
	import { formatNumber } from '$core/units/quantity';
	import { apart, lengthText } from '$lib/edits/lengths';
	import { useDesk } from '$lib/state/desk.svelte';
	import { measured, type Snap } from './measuring';

	/** Lengths over the picture: those that were kept, and the one that is being taken. */
	interface Props {
		project: (point: Vector) => { x: number; y: number } | null;
		/** What the pointer is on, and what was clicked before. */
		here: Snap | null;
		from: Snap | null;
	}
	let { project, here, from }: Props = $props();

	const desk = useDesk();
	const notes = $derived(desk.project.document.notes);
	const length = (mm: number) => lengthText(mm, desk);
	const shown = $derived(
		notes.flatMap((note) => {
			const [a, b] = [project(note.from), project(note.to)];
			const far = apart(note.from, note.to);
			return a && b ? [{ ...note, a, b, far }] : [];
		})
	);
	const now = $derived(from && here ? measured(from, here) : null);
	const ends = $derived(now ? [project(now.from), project(now.to)] : []);
	const onEdge = $derived(here?.is === 'edge' ? here : null);
	const words = { node: 'node', edge: 'line', face: 'face' };
</script>

<svg class="pointer-events-none absolute inset-0 size-full" data-testid="lengths">
	<defs>
		<marker id="tick" markerWidth="8" markerHeight="8" refX="4" refY="4" orient="auto">
			<path d="M4 0V8" stroke="#1d2126" stroke-width="1.2" />
		</marker>
	</defs>
	{#each shown as { id, a, b, far } (id)}
		<line
			x1={a.x}
			y1={a.y}
			x2={b.x}
			y2={b.y}
			stroke="#1d2126"
			stroke-width="1.2"
			marker-start="url(#tick)"
			marker-end="url(#tick)"
		/>
		<text
			x={(a.x + b.x) / 2}
			y={(a.y + b.y) / 2 - 5}
			text-anchor="middle"
			class="figures"
			font-size="11.5"
			fill="#1d2126"
			stroke="#FBF9F3"
			stroke-width="3"
			paint-order="stroke">{length(far)}</text
		>
	{/each}
	{#if desk.measures}
		{#if onEdge}
			{@const [p, q] = [project(onEdge.ends[0]), project(onEdge.ends[1])]}
			{#if p && q}<line x1={p.x} y1={p.y} x2={q.x} y2={q.y} stroke="#D98E1F" stroke-width="3" />{/if}
		{/if}
		{#if ends[0] && ends[1]}
			<line
				x1={ends[0].x}
				y1={ends[0].y}
				x2={ends[1].x}
				y2={ends[1].y}
				stroke="#B9741A"
				stroke-width="1.6"
				stroke-dasharray="5 3"
			/>
		{/if}
		{#each [from, here] as snap, k (k)}
			{@const at = snap && project(snap.at)}
			{#if at}<circle
					cx={at.x}
					cy={at.y}
					r={snap.is === 'node' ? 5 : 3.6}
					fill={snap.is === 'node' ? '#D98E1F' : '#fff'}
					stroke="#B9741A"
					stroke-width="1.6"
				/>{/if}
		{/each}
	{/if}
</svg>
{#if desk.measures}
	<div
		class={[
			'floating absolute left-3.5 z-20 w-[300px] px-3 py-2 text-[12.5px]',
			desk.hasBand ? 'top-[70px]' : 'top-3.5'
		]}
		role="status"
		data-testid="measuring"
	>
		{#if now}
			<p class="figures text-[15px] font-semibold" data-testid="length">{length(now.length)}</p>
			<p class="figures text-ink-2">
				x {length(now.along[0])} · y {length(now.along[1])} · z {length(now.along[2])}
			</p>
			{#if now.apart !== null}<p class="text-ink-2">
					<span class="figures">{length(now.apart)}</span>
					{onEdge && from?.is === 'edge' ? 'apart at the nearest' : 'straight out of the face'}
				</p>{/if}
			{#if now.angle !== null}<p class="text-ink-2">
					<span class="figures">{formatNumber(Math.round(now.angle * 10) / 10)}°</span> between them
				</p>{/if}
			<p class="text-ink-2 mt-1">A click keeps it; Esc begins anew.</p>
		{:else if onEdge}
			<p class="figures text-[15px] font-semibold" data-testid="length">
				{length(Math.hypot(...onEdge.ends[0].map((value, k) => value - onEdge.ends[1][k]!)))}
			</p>
			<p class="text-ink-2">This line. A click measures from it; a double click keeps its length.</p>
		{:else}
			<p>Click a node, a line or a face to measure from{here ? `: a ${words[here.is]}` : ''}.</p>
		{/if}
		{#if notes.length}
			<ul class="border-hair mt-2 max-h-40 overflow-auto border-t pt-1.5">
				{#each shown as note (note.id)}
					<li class="flex items-baseline gap-2">
						<span>{note.name}</span><span class="figures text-ink-2 ml-auto">{length(note.far)}</span>
						<button
							type="button"
							class="text-ink-2 underline"
							aria-label="Remove {note.name}"
							onclick={() => desk.do(`${note.name} removed`, removeAt(below(pathTo('notes'), note.id)))}
							>remove</button
						>
					</li>
				{/each}
			</ul>
		{/if}
	</div>
{/if}
