<script lang="ts">
	import type { Zone } from '$core/project/schema';
	import DepthWords from './standing/DepthWords.svelte';
	import { formatLength } from '$core/units/quantity';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import { followsHeight } from './standing/fresh';
	import { useDesk } from '$lib/state/desk.svelte';
	import Clause from '$lib/frame/Clause.svelte';
	import { below, pathTo } from '$core/project/typed-path';

	let { zone, number }: { zone: Zone; number: string } = $props();
	const desk = useDesk();
	const path = $derived(pathTo('zones', zone.id, 'layer'));
	const layers = $derived(
		(desk.model.view.zones.find((one) => one.id === zone.id)?.faces ?? []).flatMap(({ layer }) => layer ?? [])
	);
	const crossed = $derived(layers.reduce((sum, layer) => sum + layer.crossed.length, 0));
	const depths = $derived(
		layers.flatMap(({ depth }) => [
			depth.reduce((a, b) => Math.min(a, b)),
			depth.reduce((a, b) => Math.max(a, b))
		])
	);
	const problems = $derived(desk.model.view.problems.filter(({ at }) => at.startsWith(path)));
	const way = (mm: number) => `${formatLength(Math.abs(mm), desk.display, 0)} ${mm < 0 ? 'in' : 'out'}`;
	const effect = $derived(
		depths.length
			? Math.abs(Math.min(...depths) - Math.max(...depths)) < 0.5
				? way(depths[0]!)
				: `${way(Math.min(...depths))} to ${way(Math.max(...depths))}`
			: ''
	);
</script>

{#if zone.layer}
	<Clause
		{number}
		{path}
		{problems}
		{effect}
		effectIsBad={crossed > 0}
		actions={[
			{
				label: 'Let its depth follow something',
				act: () =>
					desk.set(below(path, 'depth'), followsHeight, `${zone.name}: the layer’s depth follows height`),
				disabled: typeof zone.layer.depth === 'object' && 'It does already; the sentence says what'
			},
			{ label: 'Remove the layer', act: () => desk.set(path, null, `${zone.name}: no layer`) }
		]}
	>
		A second grid lies
		<DepthWords depth={zone.layer.depth} path={below(path, 'depth')} zone={zone.id} of={zone.name} /> along the
		normals, <ChoiceChip
			value={zone.layer.shifted ? 'yes' : 'no'}
			options={[
				{ value: 'no', label: 'node behind node' },
				{ value: 'yes', label: 'shifted by half a step' }
			]}
			label="Whether the layer is shifted"
			onchoose={(next) =>
				desk.set(
					below(path, 'shifted'),
					next === 'yes',
					`${zone.name}: layer ${next === 'yes' ? 'shifted' : 'behind'}`
				)}
		/>.
	</Clause>
{/if}
