<script lang="ts">
	/** What becomes of a rule's part where trims cut its cells. */
	import { cornersOf } from '$core/part/anchors';
	import { cellKinds } from '$core/pattern/cells';
	import { ringArea } from '$core/geometry/ring-area';
	import type { PartDefinition } from '$core/project/part-definition';
	import type { Rule } from '$core/project/schema';
	import type { Path } from '$core/project/typed-path';
	import { formatNumber, formatQuantity } from '$core/units/quantity';
	import { useDesk } from '$lib/state/desk.svelte';
	import type { ZoneView } from '$lib/state/model.svelte';
	import { withSaid } from './lie-actions';

	type Put = Exclude<Rule['put'], 'open'>;
	interface Props {
		put: Put;
		path: Path<Put>;
		part: PartDefinition | undefined;
		/** Which of the zone's rules it is. */
		index: number;
		/** Its own cells on every face. */
		cells: () => readonly (readonly number[])[];
		state: ZoneView | undefined;
		of: string;
		zone: string;
	}
	let { put, path, part, index, cells, state, of, zone }: Props = $props();
	const desk = useDesk();

	const passed = $derived(state?.assignments.reduce((sum, one) => sum + (one.passed[index] ?? 0), 0) ?? 0);
	/** Cells that could be clipped, or that are: of each face. */
	const clips = $derived(
		put.cut === 'clip'
			? cells().map((some, f) => some.filter((c) => cellKinds[state!.faces[f]!.cells.kind[c]!] === 'cut'))
			: (state?.assignments.map(({ clippable }) => [...(clippable[index] ?? [])]) ?? [])
	);
	const count = $derived(clips.reduce((sum, some) => sum + some.length, 0));
	/** What trims take of those cells, and what they would be without (mm²). */
	const areas = $derived.by(() => {
		let [lost, whole] = [0, 0];
		clips.forEach((some, f) => {
			const { cells, grid, measures } = state!.faces[f]!;
			const { uncut } = cells;
			if (!uncut) return;
			for (const c of some) {
				const area = ringArea(uncut.nodes.subarray(uncut.start[c]!, uncut.start[c + 1]!), grid.positions);
				whole += area;
				lost += Math.max(0, area - measures.area[c]!);
			}
		});
		return { lost, whole };
	});
	const light = (on: boolean) => (desk.lit = on ? { zone, cells: clips } : null);
	const loss = $derived(`${formatQuantity(areas.lost, 'area')} of ${formatQuantity(areas.whole, 'area')}`);
</script>

{#if put.cut === 'clip'}; <span
		role="presentation"
		onpointerenter={() => light(true)}
		onpointerleave={() => light(false)}
		>clipped where trims cut {#if count}
			<span class="text-ink-2 font-sans text-[12px]">({formatNumber(count)}, {loss} cut away)</span
			>{/if}</span
	>
	<button
		type="button"
		class="text-ink-2 text-[12px] underline"
		aria-label="Not clipped"
		onclick={() => desk.set(path, withSaid(put, 'cut', undefined), `${of}: not clipped`)}>reset</button
	>{/if}<span class="full-stop">.</span>
{#if passed > 0}<span class="text-ink-2 block font-sans text-[12px]"
		>Passes over {formatNumber(passed)}
		{passed === 1 ? 'cell' : 'cells'}: {part?.label} needs {part && cornersOf(part.anchor)} corners.
		{#if put.cut !== 'clip' && count > 0}<button
				type="button"
				class="chip-offer"
				onclick={() => desk.set(path, withSaid(put, 'cut', 'clip'), `${of}: clipped where trims cut`)}
				onpointerenter={() => light(true)}
				onpointerleave={() => light(false)}
				onfocus={() => light(true)}
				onblur={() => light(false)}
				>Clip it on {formatNumber(count)} that trims cut: {loss} would be cut away</button
			>{/if}</span
	>{/if}
