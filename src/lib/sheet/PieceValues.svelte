<script lang="ts">
	/** What a clause sets piece by piece. */
	import type { GridSite } from '$core/cladding/sites';
	import type { Driver } from '$core/project/driver-schema';
	import { inputKind, setKey } from '$core/part/inputs';
	import type { PartDefinition, PartInput } from '$core/project/part-definition';
	import type { NumberKind } from '$core/units/dimension';
	import { formatQuantity } from '$core/units/quantity';
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
		/** The clause's own id. */
		clause: string;
	}
	let { values, path, part, variant, over, of, zone, clause }: Props = $props();
	const desk = useDesk();
	const groups = $derived(
		desk.model.view.zones.find(({ id }) => id === zone)?.groups.filter((one) => one.clause.id === clause) ??
			[]
	);
	/** The least and the most that an input comes to on the pieces of the clause; null where it is the same everywhere. */
	function spreadOf(input: PartInput): { low: number; high: number; key: string; kind: NumberKind } | null {
		const kind = inputKind(input);
		if (!kind || kind === 'switch' || input.options) return null;
		let [low, high] = [Infinity, -Infinity];
		for (const { perPiece } of groups)
			for (const value of perPiece.get(input.name) ?? []) {
				low = Math.min(low, value);
				high = Math.max(high, value);
			}
		return low < high ? { low, high, key: setKey(input.label, kind), kind } : null;
	}
	const shown = (value: number, kind: NumberKind) => formatQuantity(value, kind, desk.display);
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
		/>{@const spread = spreadOf(input)}{#if spread}<span class="text-ink-2 font-sans text-[12px]"
				>, comes to {shown(spread.low, spread.kind)} to {shown(
					spread.high,
					spread.kind
				)}{#if over === 'cell'}{' '}(<button
						type="button"
						class="underline decoration-dotted underline-offset-2"
						aria-label="{input.label} in colour"
						onclick={() => desk.showInColour(spread.key, zone)}>in colour</button
					>){/if}</span
			>{/if}{:else}<em>{name}</em> is no input of {part?.label ?? 'the part'};
		<button type="button" class="text-ink-2 text-[12px] underline" onclick={() => reset(name)}
			>leave it out</button
		>{/if}{/each}
