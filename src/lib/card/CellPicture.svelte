<script lang="ts">
	/** A cell with its corners numbered and the lengths of its edges, where there is room for them. */
	import type { CellOutline } from '$core/measure/cell-outline';
	import { numberOfCorner, type Lie } from '$core/cladding/lie';
	import { fitted, hasRoom, numberedCorners, type Drawn } from './fitted';

	interface Props {
		outline: CellOutline;
		/** How the part on it lies, which numbers its corners. */
		lie: Lie;
		lengthText: (mm: number) => string;
	}
	let { outline, lie, lengthText }: Props = $props();
	const shown = $derived(fitted(outline));
	const at = $derived(shown.corners);
	const loop = (ring: readonly Drawn[]) => `M${ring.map((p) => `${p.x} ${p.y}`).join('L')}Z`;
	const numbered = $derived(numberedCorners(at));
</script>

<svg
	viewBox="0 0 224 112"
	class="my-1 w-full"
	role="img"
	aria-label="Cell with corners numbered and edge lengths"
>
	<path d={loop(at)} fill="#FAEBCB" stroke="#D98E1F" stroke-width="1.6" stroke-linejoin="round" />
	{#each shown.openings as ring, k (k)}
		<path d={loop(ring)} fill="#FFFDF7" stroke="#D98E1F" stroke-width=".7" />
	{/each}
	{#each at as p, k (k)}
		{@const next = at[(k + 1) % at.length]!}
		{@const mx = (p.x + next.x) / 2}
		{@const my = (p.y + next.y) / 2}
		{@const out = Math.hypot(mx - 112, my - 56) || 1}
		{#if hasRoom(p, next)}
			<text
				x={mx + ((mx - 112) / out) * 20}
				y={my + ((my - 56) / out) * 9 + 3}
				text-anchor="middle"
				font-size="9.5"
				font-family="var(--font-mono)"
				fill="#565a54">{lengthText(outline.lengths[k]!)}</text
			>
		{/if}
		{#if numbered.has(k)}
			{@const far = Math.hypot(p.x - 112, p.y - 56) || 1}
			<text
				x={p.x + ((p.x - 112) / far) * 8}
				y={p.y + ((p.y - 56) / far) * 8 + 3}
				text-anchor="middle"
				font-size="9.5"
				font-weight="700"
				font-family="var(--font-mono)"
				fill="#1D2126">{numberOfCorner(lie, at.length, k)}</text
			>
		{/if}
	{/each}
</svg>
