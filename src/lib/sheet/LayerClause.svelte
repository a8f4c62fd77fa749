<script lang="ts">
	import type { Zone } from '$core/project/schema';
	import DepthWords from './standing/DepthWords.svelte';
	import { formatLength } from '$core/units/quantity';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import { followsHeight } from './standing/fresh';
	import { hasCells } from '$lib/edits/zone-clauses';
	import { useDesk } from '$lib/state/desk.svelte';
	import Clause from '$lib/frame/Clause.svelte';
	import { below, pathTo, type Path } from '$core/project/typed-path';

	type Own = Extract<NonNullable<Zone['layer']>, { depth: unknown }>;

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
	/** Other grids behind or before the same faces. */
	const root = (one: Zone) => (one.on.is === 'layer' ? one.on.of : one.id);
	const others = $derived(
		desk.project.document.zones.filter(
			(one) => one.id !== zone.id && hasCells(one) && root(one) === root(zone)
		)
	);
	const from = $derived(zone.layer && 'zone' in zone.layer ? zone.layer.zone : '');
	const own = $derived(zone.layer && 'depth' in zone.layer ? zone.layer : null);
	const ownPath = $derived(path as string as Path<Own>);
</script>

{#if zone.layer}
	<Clause
		{number}
		{path}
		{problems}
		{effect}
		effectIsBad={crossed > 0}
		actions={[
			...(own
				? [
						{
							label: 'Let its depth follow something',
							act: () =>
								desk.set(
									path,
									{ ...own, depth: followsHeight },
									`${zone.name}: the layer’s depth follows height`
								),
							disabled: typeof own.depth === 'object' && 'It does already; the sentence says what'
						}
					]
				: []),
			{ label: 'Remove the layer', act: () => desk.set(path, null, `${zone.name}: no layer`) }
		]}
	>
		Blocks fill the space up to {#if others.length || from}<ChoiceChip
				value={from}
				options={[
					{ value: '', label: 'a grid of its own' },
					...others.map(({ id, name }) => ({ value: id, label: name })),
					...(from && !others.some(({ id }) => id === from) ? [{ value: from, label: `${from} (gone)` }] : [])
				]}
				label="The grid that blocks fill up to"
				onchoose={(next) =>
					desk.set(
						path,
						next ? { zone: next } : { depth: '-600 mm', shifted: false },
						`${zone.name}: blocks up to another grid`
					)}
			/>{:else}a grid{/if}{#if own}{' '}<DepthWords
				depth={own.depth}
				path={below(ownPath, 'depth')}
				zone={zone.id}
				of={zone.name}
			/> along the normals, <ChoiceChip
				value={own.shifted ? 'yes' : 'no'}
				options={[
					{ value: 'no', label: 'node behind node' },
					{ value: 'yes', label: 'shifted by half a step' }
				]}
				label="Whether the layer is shifted"
				onchoose={(next) =>
					desk.set(
						below(ownPath, 'shifted'),
						next === 'yes',
						`${zone.name}: layer ${next === 'yes' ? 'shifted' : 'behind'}`
					)}
			/>{/if}<span class="full-stop">.</span>
	</Clause>
{/if}
