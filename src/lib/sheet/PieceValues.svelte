<script lang="ts">
	/** What a clause sets piece by piece. */
	import type { GridSite } from '$core/cladding/sites';
	import type { Driver } from '$core/project/driver-schema';
	import type { PartDefinition } from '$core/project/part-definition';
	import { below, type Path } from '$core/project/typed-path';
	import { useDesk } from '$lib/state/desk.svelte';
	import DriverWords from './drivers/DriverWords.svelte';
	import { withValue } from './piece-values';

	interface Props {
		values: Readonly<Record<string, Driver>>;
		path: Path<Record<string, Driver>>;
		part: PartDefinition | undefined;
		variant: string;
		over: GridSite;
		/** The clause, for undo. */
		of: string;
		zone: string;
	}
	let { values, path, part, variant, over, of, zone }: Props = $props();
	const desk = useDesk();
	/** A size of the variant's blades, as far as its part has one (mm). */
	function sizeOf(name: string, otherwise: number): number {
		const own = desk.project.document.variants.find(({ id }) => id === variant)?.values[name];
		const size = own ?? part?.inputs.find((one) => one.name === name)?.default;
		return typeof size === 'number' ? size : otherwise;
	}
	const blades = $derived({
		standing: part?.inputs.some(({ name }) => name === 'fins') ?? false,
		sizes: { depth: sizeOf('depth', 180), spacing: sizeOf('spacing', 250) }
	});
	const reset = (name: string) =>
		desk.set(path, withValue(values, name, null), `${of}: ${name} from the variant`);
</script>

{#each Object.entries(values) as [name, driver] (name)}
	{@const input = part?.inputs.find((one) => one.name === name)};
	{#if input}<DriverWords
			{input}
			{driver}
			path={below(path, name)}
			{over}
			{blades}
			{of}
			{zone}
			onreset={() => reset(name)}
		/>{:else}<em>{name}</em> is no input of {part?.label ?? 'the part'};
		<button type="button" class="text-ink-2 text-[12px] underline" onclick={() => reset(name)}
			>leave it out</button
		>{/if}{/each}
