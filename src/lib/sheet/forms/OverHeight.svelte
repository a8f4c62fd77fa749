<script lang="ts">
	import type { OverHeight } from '$core/project/form-schema';
	import type { NumberKind } from '$core/units/dimension';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import { below, insertAt, type Path } from '$core/project/typed-path';

	interface Props {
		path: Path<OverHeight>;
		value: OverHeight;
		kind: NumberKind;
		label: string;
		of: string;
		/** The value at the foot when only the one at the head is given. */
		start: number;
	}
	let { path, value, kind, label, of, start }: Props = $props();
	const desk = useDesk();
	const options = [
		{ value: 'straight', label: 'evenly' },
		{ value: 'curve', label: 'along a curve' }
	] as const;
	function choose(way: 'straight' | 'curve') {
		const head = typeof value === 'number' ? value : (value.at(-1)?.[1] ?? start);
		const next: OverHeight =
			way === 'straight'
				? head
				: [
						[0, start],
						[0.5, (start + head) / 2],
						[1, head]
					];
		desk.set(path, next, `${of} ${label.toLowerCase()} ${way}`);
	}
	function addPoint() {
		if (typeof value === 'number') return;
		const [a, b] = [value.at(-2)!, value.at(-1)!];
		desk.do(
			`${of} ${label.toLowerCase()}: a point`,
			insertAt(path, value.length - 1, [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2])
		);
	}
</script>

{#if typeof value === 'number'}
	<ValueChip {path} {value} {kind} {label} {of} step={kind === 'angle' ? 5 : 0.02} />
{:else}
	{#each value as [share, one], k (k)}<span class="whitespace-nowrap"
			><ValueChip
				path={below(path, k, 1)}
				value={one}
				{kind}
				label="{label} {k + 1}"
				{of}
				step={kind === 'angle' ? 5 : 0.02}
			/> at {#if k === 0 || k === value.length - 1}<span class="figures text-[12px]">{share}</span
				>{:else}<ValueChip
					path={below(path, k, 0)}
					value={share}
					kind="ratio"
					label="Share of the height {k + 1}"
					{of}
					min={0}
					max={1}
				/>{/if}{k + 1 < value.length ? ',' : ''}</span
		>{' '}{/each}<button type="button" class="text-patina-deep text-[12px] underline" onclick={addPoint}
		>point</button
	>
{/if}
<ChoiceChip
	value={typeof value === 'number' ? 'straight' : 'curve'}
	{options}
	label="{label} over the height"
	onchoose={choose}
/>
