<script lang="ts">
	import { inputKind } from '$core/part/inputs';
	import type { PartDefinition, PartInput } from '$core/project/part-definition';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import NumberChip from '$lib/components/NumberChip.svelte';
	import TextChip from '$lib/components/TextChip.svelte';
	import Clause from '$lib/frame/Clause.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import type { Bench } from './bench.svelte';
	import { moved, nameFault, rename, replaced, withList, without } from './editing';
	import { pathTo } from '$core/project/typed-path';

	let { bench, part, k, number }: { bench: Bench; part: PartDefinition; k: number; number: string } =
		$props();
	const desk = useDesk();
	const input = $derived(part.inputs[k]!);
	const kind = $derived(inputKind(input));
	const value = $derived(bench.inputs[input.name] ?? input.default);
	const place = $derived(`input ${input.name}`);
	const problems = $derived(bench.problemsAt(place, `limit of ${input.name}`));
	const change = (next: Partial<PartInput>, what: string) =>
		bench.change(
			`${part.label}: ${input.label} ${what}`,
			withList(part, 'inputs', replaced(part.inputs, k, { ...input, ...next }))
		);
	const list = (next: PartInput[], what: string) =>
		bench.change(`${part.label}: ${input.label} ${what}`, withList(part, 'inputs', next));
	const [low, high] = $derived([input.min ?? 0, input.max ?? Math.max(1, 2 * Number(input.default))]);
	/** A slider over so large a range is of use only near the ordinary values. */
	const reach = $derived(
		kind === 'length' || kind === 'area'
			? Math.min(high, Math.max(4 * Math.abs(Number(input.default)), low + (high - low) / 10))
			: high
	);
	const foot = $derived(low < 0 ? Math.max(low, -reach) : low);
	const sliderStep = $derived(
		kind === 'ratio' ? 0.01 : kind === 'count' ? 1 : Math.max(0.5, Math.round((reach - foot) / 200))
	);
</script>

<Clause
	{number}
	path={pathTo('parts', part.id, 'inputs', input.name)}
	{problems}
	actions={[
		{
			label: 'Move up',
			disabled: k === 0 && 'It is the first',
			act: () => list(moved(part.inputs, k, k - 1), 'moved up')
		},
		{
			label: 'Make this the default',
			disabled: value === input.default && 'It is the default',
			act: () => change({ default: value }, `default ${String(value)}`)
		},
		{ label: 'Remove', act: () => list(without(part.inputs, k), 'removed') }
	]}
>
	<span class="flex items-center gap-2">
		<span class="min-w-0"
			><TextChip
				value={input.label}
				label="Label of the input {input.name}"
				look="name"
				oncommit={(label) => change({ label }, `is called ${label}`)}
			/></span
		>
		<span class="ml-auto flex shrink-0 items-center gap-2">
			{#if input.kind === 'material'}
				<ChoiceChip
					value={String(value)}
					options={bench.materials.map((one) => ({ value: one.id, label: one.label }))}
					label="Tried {input.label}"
					onchoose={(next) => bench.setInput(input.name, next)}
				/>
			{:else if input.options}
				<ChoiceChip
					value={String(value)}
					options={input.options.map((one) => ({ value: one.name, label: one.label }))}
					label="Tried {input.label}"
					onchoose={(next) => bench.setInput(input.name, next)}
				/>
			{:else if input.kind === 'switch'}
				<ChoiceChip
					value={value ? 'yes' : 'no'}
					options={[
						{ value: 'yes', label: 'yes' },
						{ value: 'no', label: 'no' }
					]}
					label="Tried {input.label}"
					onchoose={(next) => bench.setInput(input.name, next === 'yes')}
				/>
			{:else if kind}
				<input
					type="range"
					class="accent-patina h-1 w-[104px]"
					min={foot}
					max={reach}
					step={sliderStep}
					value={Number(value)}
					aria-label="Try {input.label}"
					oninput={(event) => bench.setInput(input.name, Number(event.currentTarget.value))}
				/>
				<NumberChip
					value={Number(value)}
					{kind}
					display={desk.display}
					label="Tried {input.label}"
					min={low}
					max={high}
					onpreview={(next) => bench.setInput(input.name, next)}
					oncommit={(next) => bench.setInput(input.name, next)}
				/>
			{:else}
				<TextChip
					value={String(value)}
					label="Tried {input.label}"
					look="formula"
					oncommit={(next) => bench.setInput(input.name, next)}
				/>
			{/if}
		</span>
	</span>
	<span class="text-ink-2 block text-[13px] leading-snug"
		>known as <TextChip
			value={input.name}
			label="Name of the input {input.label}"
			look="formula"
			check={(text) => nameFault(part, input.name, text)}
			oncommit={(text) => rename(bench, input.name, text)}
		/>,
		<span class="whitespace-nowrap"
			><ChoiceChip
				value={input.scope}
				options={[
					{ value: 'shared', label: 'shared' },
					{ value: 'per piece', label: 'per piece' }
				]}
				label="Scope of {input.label}"
				onchoose={(scope) => change({ scope }, scope)}
			/>{#if kind && kind !== 'switch' && !input.options},{/if}</span
		>{#if kind && kind !== 'switch' && !input.options}{' '}from
			<NumberChip
				value={low}
				{kind}
				display={desk.display}
				label="Least {input.label}"
				oncommit={(min) => change({ min }, `from ${min}`)}
			/>
			to
			<NumberChip
				value={high}
				{kind}
				display={desk.display}
				label="Most {input.label}"
				oncommit={(max) => change({ max }, `up to ${max}`)}
			/>{/if}</span
	>
</Clause>
