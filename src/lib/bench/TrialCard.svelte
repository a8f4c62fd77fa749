<script lang="ts">
	import type { NumberKind } from '$core/units/dimension';
	import { formatQuantity } from '$core/units/quantity';
	import { useDesk } from '$lib/state/desk.svelte';
	import NumberChip from '$lib/components/NumberChip.svelte';
	import { triangleCount } from '$core/part/places';
	import type { Vector } from '$core/geometry/vector';
	import type { Bench } from './bench.svelte';

	/** What the part measures on the trial, and where its anchors are. */
	let { bench }: { bench: Bench } = $props();
	const desk = useDesk();
	let typing = $state(false);
	const shown = (value: number, kind: NumberKind) => formatQuantity(value, kind, desk.display);
	const elements = $derived(bench.piece?.elements ?? []);
	const sum = (of: (k: number) => number) => elements.reduce((total, _, k) => total + of(k), 0);
	const mass = $derived(
		sum((k) => {
			const { table, material } = elements[k]!;
			return (table.volume.reduce((a, b) => a + b, 0) / 1e9) * material.density;
		})
	);
	const triangles = $derived(sum((k) => triangleCount(elements[k]!.table)));
	const measures = $derived(
		(bench.shown?.part.measures ?? []).flatMap(({ name, label, kind }) => {
			const value = bench.piece?.results.get(name);
			return value === undefined ? [] : [{ label, text: shown(value, kind) }];
		})
	);
	function set(k: number, axis: number, value: number) {
		const point = bench.points[k]!.map((old, a) => (a === axis ? value : old)) as [number, number, number];
		bench.movePoint(k, point satisfies Vector);
	}
</script>

<section
	class="floating absolute bottom-3.5 left-3.5 max-h-[calc(100%-28px)] w-[236px] overflow-auto px-3.5 py-3"
	aria-label="On this trial"
>
	<h3 class="text-[13.5px] font-semibold">On this trial</h3>
	<p class="sentence text-ink-2">{bench.trial?.name ?? ''}{bench.isMoved ? ', moved' : ''}</p>
	<table class="mt-1 w-full text-[12.5px]">
		<tbody>
			{#each measures as { label, text } (label)}
				<tr
					><th class="py-px text-left font-normal">{label}</th><td class="figures text-right text-[12px]"
						>{text}</td
					></tr
				>
			{/each}
			<tr
				><th class="py-px text-left font-normal">Mass</th><td class="figures text-right text-[12px]"
					>{shown(mass, 'mass')}</td
				></tr
			>
			<tr
				><th class="py-px text-left font-normal">Triangles</th><td class="figures text-right text-[12px]"
					>{triangles}</td
				></tr
			>
		</tbody>
	</table>
	{#each bench.piece?.flags ?? [] as flag (flag)}
		<p class="text-oxide-deep mt-1 text-[12px] leading-snug" role="status">{flag}</p>
	{/each}
	<p class="mt-2 flex gap-3 text-[12px]">
		<button
			type="button"
			class="text-patina-deep underline"
			aria-expanded={typing}
			onclick={() => (typing = !typing)}>{typing ? 'Hide' : 'Type'} anchors</button
		>
		{#if bench.isMoved}<button
				type="button"
				class="text-patina-deep underline"
				onclick={() => bench.resetTrial()}>Put them back</button
			>{/if}
	</p>
	{#if typing}
		<table class="mt-1 w-full text-[11.5px]">
			<tbody>
				{#each bench.points as point, k (k)}
					<tr>
						<th class="figures pr-1 text-left">{k + 1}</th>
						{#each ['x', 'y', 'z'] as axis, a (axis)}
							<td class="py-0.5 text-right"
								><NumberChip
									value={point[a]!}
									kind="length"
									label="Anchor {k + 1} {axis}"
									oncommit={(value) => set(k, a, value)}
								/></td
							>
						{/each}
					</tr>
				{/each}
			</tbody>
		</table>
	{/if}
</section>
