<script lang="ts">
	/** How a part lies on its cells, as far as the rule says it. */
	import { lieInputs } from '$core/cladding/lies';
	import type { Driver } from '$core/project/driver-schema';
	import type { Rule, SaidLie } from '$core/project/schema';
	import { below, type Path } from '$core/project/typed-path';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import DriverWords from './drivers/DriverWords.svelte';
	import { withSaid } from './lie-actions';

	type Put = Exclude<Rule['put'], 'open'>;
	interface Props {
		put: Put;
		path: Path<Put>;
		/** The clause, for undo. */
		of: string;
		zone: string;
	}
	let { put, path, of, zone }: Props = $props();
	const desk = useDesk();
	const words = { flip: 'inside out', mirror: 'the opposite hand' } as const;
	const isDriven = (value: SaidLie[keyof SaidLie]): value is Driver =>
		typeof value === 'string' || typeof value === 'object';
	const blades = { standing: false, sizes: { depth: 180, spacing: 250 } };
	const reset = (key: keyof SaidLie) =>
		desk.set(path, withSaid(put, key, undefined), `${of}: ${key} as drawn`);
</script>

{#each ['turn', 'flip', 'mirror'] as const as key (key)}
	{@const value = put[key]}
	{#if isDriven(value)};
		<DriverWords
			input={lieInputs[key]}
			driver={value}
			path={below(path, key) as string as Path<Driver>}
			over="cell"
			{blades}
			{of}
			{zone}
			onreset={() => reset(key)}
		/>{:else if key === 'turn' && typeof value === 'number'}; turned by <ValueChip
			path={below(path, 'turn') as string as Path<number>}
			{value}
			kind="count"
			label="Turn"
			{of}
		/>
		{Math.abs(value) === 1 ? 'corner' : 'corners'}
		<button
			type="button"
			class="text-ink-2 text-[12px] underline"
			aria-label="Not turned"
			onclick={() => reset('turn')}>reset</button
		>{:else if value && key !== 'turn'}; {words[key]}
		<button
			type="button"
			class="text-ink-2 text-[12px] underline"
			aria-label="Not {words[key]}"
			onclick={() => reset(key)}>reset</button
		>{/if}
{/each}
