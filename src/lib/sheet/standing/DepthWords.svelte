<script lang="ts">
	/** How deep a grid lies behind another: a formula, or what it follows. */
	import { depthInput } from '$core/driver/depth';
	import { depthNames } from '$core/field/depth';
	import { typesOf } from '$core/named/named-values';
	import type { Driver } from '$core/project/driver-schema';
	import type { LayerDepth } from '$core/project/schema';
	import type { Path } from '$core/project/typed-path';
	import { LENGTH } from '$core/units/dimension';
	import { checkFormula } from '$core/units/formula/check';
	import { numberOf } from '$core/units/formula/expression';
	import TextChip from '$lib/components/TextChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import DriverWords from '../drivers/DriverWords.svelte';

	interface Props {
		depth: LayerDepth;
		path: Path<LayerDepth>;
		/** The zone, by its id and name. */
		zone: string;
		of: string;
	}
	let { depth, path, zone, of }: Props = $props();
	const desk = useDesk();
	const NO_BLADES = { standing: false, sizes: { depth: 0, spacing: 0 } };
	const names = $derived(depthNames(desk.project.document.guides.map(({ id }) => id)));
	function check(text: string): string | null {
		try {
			checkFormula(text, {
				names: { ...typesOf(desk.named), ...names },
				functions: {},
				expected: numberOf(LENGTH)
			});
			return null;
		} catch (error) {
			return (error as Error).message;
		}
	}
</script>

{#if typeof depth === 'object'}where its <DriverWords
		input={depthInput}
		driver={depth}
		path={path as string as Path<Driver>}
		over="node"
		ways={['follows', 'chance']}
		blades={NO_BLADES}
		of="{of} layer"
		{zone}
		onreset={() => desk.set(path, '-900 mm', `${of}: layer at -900 mm`)}
	/>,{:else}at <TextChip
		value={depth}
		look="formula"
		label="Depth of the layer"
		names={Object.keys(names)}
		{check}
		oncommit={(text) => desk.set(path, text, `${of}: layer at ${text}`)}
	/>{/if}
