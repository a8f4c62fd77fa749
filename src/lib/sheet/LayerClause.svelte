<script lang="ts">
	import type { Zone } from '$core/project/schema';
	import { depthInput } from '$core/driver/depth';
	import type { Driver } from '$core/project/driver-schema';
	import DriverWords from './drivers/DriverWords.svelte';
	import { depthNames } from '$core/field/depth';
	import { LENGTH } from '$core/units/dimension';
	import { typesOf } from '$core/named/named-values';
	import { checkFormula } from '$core/units/formula/check';
	import { numberOf } from '$core/units/formula/expression';
	import { formatLength } from '$core/units/quantity';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import TextChip from '$lib/components/TextChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import Clause from '$lib/frame/Clause.svelte';
	import { below, pathTo, type Path } from '$core/project/typed-path';

	let { zone, number }: { zone: Zone; number: string } = $props();
	const desk = useDesk();
	const NO_BLADES = { standing: false, sizes: { depth: 0, spacing: 0 } };
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
	function check(text: string): string | null {
		try {
			const names = {
				...typesOf(desk.named),
				...depthNames(desk.project.document.guides.map(({ id }) => id))
			};
			checkFormula(text, { names, functions: {}, expected: numberOf(LENGTH) });
			return null;
		} catch (error) {
			return (error as Error).message;
		}
	}
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
					desk.set(
						below(path, 'depth'),
						{
							is: 'follows',
							field: 'height',
							from: [0, 10_000],
							to: [-900, -300],
							curve: [],
							steps: null,
							outside: 'held'
						},
						`${zone.name}: the layer’s depth follows height`
					),
				disabled: typeof zone.layer.depth === 'object' && 'It does already; the sentence says what'
			},
			{ label: 'Remove the layer', act: () => desk.set(path, null, `${zone.name}: no layer`) }
		]}
	>
		A second grid lies
		{#if typeof zone.layer.depth === 'object'}where its <DriverWords
				input={depthInput}
				driver={zone.layer.depth}
				path={below(path, 'depth') as string as Path<Driver>}
				over="node"
				ways={['follows', 'chance']}
				blades={NO_BLADES}
				of="{zone.name} layer"
				zone={zone.id}
				onreset={() => desk.set(below(path, 'depth'), '-900 mm', `${zone.name}: layer at -900 mm`)}
			/>,{:else}at <TextChip
				value={zone.layer.depth}
				look="formula"
				label="Depth of the layer"
				names={Object.keys(depthNames(desk.project.document.guides.map(({ id }) => id)))}
				{check}
				oncommit={(text) => desk.set(below(path, 'depth'), text, `${zone.name}: layer at ${text}`)}
			/>{/if} along the normals, <ChoiceChip
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
