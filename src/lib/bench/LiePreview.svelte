<script lang="ts">
	import type { Lie } from '$core/part/block/lie';
	import { laidPlace } from '$core/part/block/lie';
	import type { Bench } from './bench.svelte';

	/** A small picture of how a block lies in its space: where its own foot, left and outside have come to be. */
	let { bench, lie }: { bench: Bench; lie: readonly string[] } = $props();
	const values = $derived(lie.map((name) => bench.piece?.results.get(name) ?? 0));
	const way = $derived<Lie>({
		turns: ((Math.round(values[0] ?? 0) % 4) + 4) % 4,
		flip: Boolean(values[1]),
		mirror: Boolean(values[2])
	});
	type Place = readonly [number, number, number];
	/** A place of the space, seen from outside and a little from above. */
	const box = ([x, y, z]: Place): [number, number] => [6 + 40 * x + 16 * (1 - z), 54 - 34 * y - 12 * (1 - z)];
	/** A place of the block, where it has come to be. */
	const seen = (place: Place) => box(laidPlace(place, way));
	const line = (points: readonly (readonly [number, number])[]) => points.map((p) => p.join(',')).join(' ');
	const face = (z: number) => [0, 1, 2, 3].map((k) => [k % 3 ? 1 : 0, k > 1 ? 1 : 0, z] as const);
	const edges = [0, 1, 2, 3].map((k) => [face(1)[k]!, face(0)[k]!] as const);
	const words = $derived(
		[
			way.turns ? `${way.turns} quarter ${way.turns === 1 ? 'turn' : 'turns'}` : '',
			way.flip ? 'turned over' : '',
			way.mirror ? 'mirrored' : ''
		]
			.filter(Boolean)
			.join(', ') || 'as it was made'
	);
	/** The block's own letter on its outside: an F, which looks like nothing else however it lies. */
	const letter = [
		[0.3, 0.15, 1],
		[0.3, 0.85, 1],
		[0.7, 0.85, 1],
		[0.3, 0.85, 1],
		[0.3, 0.5, 1],
		[0.6, 0.5, 1]
	] as const;
</script>

<svg viewBox="0 0 70 60" class="my-1 block h-[60px] w-[70px]" role="img" aria-label="The block lies {words}">
	{#each [face(0), face(1), ...edges] as ring, k (k)}
		<polyline
			points={line([...ring, ring[0]!].map(box))}
			fill="none"
			stroke="var(--color-ink-3)"
			stroke-width="0.8"
		/>
	{/each}
	<polygon
		points={line(face(1).map(seen))}
		fill="var(--color-patina)"
		fill-opacity="0.14"
		stroke="var(--color-patina)"
		stroke-width="1"
	/>
	<polyline
		points={line(letter.map(seen))}
		fill="none"
		stroke="var(--color-patina-deep)"
		stroke-width="2"
		stroke-linejoin="round"
		stroke-dasharray={way.flip ? '2 1.5' : 'none'}
	/>
</svg>
<span class="text-ink-2 text-[12px]">lies {words}; the F stands on its outside</span>
