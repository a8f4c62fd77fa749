<script lang="ts">
	import { freshName } from '$core/part/rename';
	import type { Limit, MeasureDefinition, PartDefinition } from '$core/project/part-definition';
	import { numberKinds, type NumberKind } from '$core/units/dimension';
	import { formatQuantity } from '$core/units/quantity';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import TextChip from '$lib/components/TextChip.svelte';
	import Clause from '$lib/frame/Clause.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import type { Bench } from './bench.svelte';
	import { faultAt, inserted, replaced, withList, without } from './editing';
	import ElementList from './ElementList.svelte';
	import { below, pathTo } from '$core/project/typed-path';

	/** Limits, measures, and what goes into the schedule. */
	let { bench, part, first }: { bench: Bench; part: PartDefinition; first: number } = $props();
	const desk = useDesk();
	const path = $derived(pathTo('parts', part.id));
	const bindable = $derived([
		...part.inputs.map(({ name, label }) => ({ value: name, label })),
		...[...bench.made].filter(([, is]) => is === 'number').map(([name]) => ({ value: name, label: name })),
		...part.measures.map(({ name, label }) => ({ value: name, label }))
	]);
	/** Where faults of a limit's bounds are told: at what it binds. */
	const placeOf = (name: string) => {
		const has = (list: readonly { readonly name: string }[]) => list.some((one) => one.name === name);
		return `${has(part.inputs) ? 'input' : has(part.measures) ? 'measure' : 'step'} ${name}`;
	};
	const limits = (next: Limit[], what: string) =>
		bench.change(`${part.label}: ${what}`, withList(part, 'limits', next));
	const measures = (next: MeasureDefinition[], what: string) =>
		bench.change(`${part.label}: ${what}`, withList(part, 'measures', next));
	const setLimit = (k: number, next: Partial<Limit>, out?: 'at_least' | 'at_most') => {
		const { at_least, at_most, ...rest } = { ...part.limits[k]!, ...next };
		const limit: Limit = {
			...rest,
			...(at_least !== undefined && out !== 'at_least' && { at_least }),
			...(at_most !== undefined && out !== 'at_most' && { at_most })
		};
		limits(replaced(part.limits, k, limit), `limit of ${limit.of}`);
	};
	const setMeasure = (k: number, next: Partial<MeasureDefinition>) =>
		measures(
			replaced(part.measures, k, { ...part.measures[k]!, ...next }),
			`measure ${part.measures[k]!.label}`
		);
	const kindWords: Record<NumberKind, string> = {
		hours: 'hours',
		stress: 'stress',
		pressure: 'pressure',
		force: 'force',
		inertia: 'second moment of area',
		transmittance: 'transmittance',
		length: 'length',
		angle: 'angle',
		ratio: 'ratio',
		count: 'count',
		area: 'area',
		volume: 'volume',
		mass: 'mass',
		switch: 'yes or no'
	};
	const bounds = [
		['at_least', 'at least'],
		['at_most', 'at most']
	] as const;
</script>

{#snippet head(number: number, title: string, note: string)}
	<header class="mt-3 flex items-baseline gap-2 px-4.5 pb-1.5">
		<span class="figures text-ink-3 w-[26px] text-[12px]">{number}</span>
		<h2 class="text-[12.5px] font-semibold tracking-wide">{title}</h2>
		<span class="figures text-ink-2 ml-auto text-[11.5px]">{note}</span>
	</header>
{/snippet}

{@render head(first, 'Limits', `${part.limits.length}`)}
{#each part.limits as limit, k (k)}
	<Clause
		number="{first}.{k + 1}"
		path={below(path, 'limits', k)}
		problems={bench.problemsAt(`limit of ${limit.of}`)}
		actions={[
			{
				label: limit.at_least ? 'No least' : 'Give a least',
				disabled: Boolean(limit.at_least) && !limit.at_most && 'A limit needs one of them; remove it instead',
				act: () =>
					limit.at_least ? setLimit(k, {}, 'at_least') : setLimit(k, { at_least: limit.at_most ?? '0' })
			},
			{
				label: limit.at_most ? 'No most' : 'Give a most',
				disabled: Boolean(limit.at_most) && !limit.at_least && 'A limit needs one of them; remove it instead',
				act: () =>
					limit.at_most ? setLimit(k, {}, 'at_most') : setLimit(k, { at_most: limit.at_least ?? '0' })
			},
			{ label: 'Remove', act: () => limits(without(part.limits, k), `limit of ${limit.of} removed`) }
		]}
	>
		<ChoiceChip
			value={limit.then}
			options={[
				{ value: 'hold', label: 'Hold' },
				{ value: 'flag', label: 'Flag' }
			]}
			label="What limit {k + 1} does"
			onchoose={(then) => setLimit(k, { then })}
		/>
		<ChoiceChip
			value={limit.of}
			options={bindable}
			label="What limit {k + 1} binds"
			wrong={!bindable.some(({ value }) => value === limit.of)}
			onchoose={(of) =>
				setLimit(k, part.measures.some(({ name }) => name === of) ? { of, then: 'flag' } : { of })}
		/>
		{#each bounds as [key, words] (key)}{#if limit[key]}{' '}{words}
				<TextChip
					value={limit[key]}
					look="formula"
					label="{words} of limit {k + 1}"
					check={(text) =>
						faultAt(
							bench,
							withList(part, 'limits', replaced(part.limits, k, { ...limit, [key]: text })),
							placeOf(limit.of)
						)}
					oncommit={(text) => setLimit(k, { [key]: text })}
				/>{/if}{/each}, saying
		<TextChip
			value={limit.says}
			look="name"
			label="What limit {k + 1} says"
			after="."
			oncommit={(says) => setLimit(k, { says })}
		/>
	</Clause>
{/each}
<button
	type="button"
	class="text-ink-2 hover:text-patina-deep ml-11 py-1 text-[12px] disabled:opacity-40"
	disabled={bindable.length === 0}
	onclick={() =>
		limits(
			[
				...part.limits,
				{ of: bindable[0]!.value, at_least: '0', then: 'flag', says: 'less than it should be' }
			],
			'a limit'
		)}>+ Limit</button
>

{@render head(first + 1, 'Measures', `${part.measures.length} columns`)}
{#each part.measures as measure, k (measure.name)}
	{@const value = bench.piece?.results.get(measure.name)}
	<Clause
		number="{first + 1}.{k + 1}"
		path={below(path, 'measures', measure.name)}
		problems={bench.problemsAt(`measure ${measure.name}`)}
		effect={value === undefined ? '' : formatQuantity(value, measure.kind, desk.display)}
		actions={[
			{ label: 'Remove', act: () => measures(without(part.measures, k), `measure ${measure.label} removed`) }
		]}
	>
		Report
		<TextChip
			value={measure.label}
			look="name"
			label="Label of measure {k + 1}"
			oncommit={(label) => setMeasure(k, { label })}
		/>,
		<ChoiceChip
			value={measure.kind}
			options={numberKinds.map((kind) => ({ value: kind, label: kindWords[kind] }))}
			label="Kind of measure {k + 1}"
			onchoose={(kind) => setMeasure(k, { kind })}
		/>
		of
		<TextChip
			value={measure.value}
			look="formula"
			label="Formula of measure {k + 1}"
			check={(text) =>
				faultAt(
					bench,
					withList(part, 'measures', replaced(part.measures, k, { ...measure, value: text })),
					`measure ${measure.name}`
				)}
			oncommit={(text) => setMeasure(k, { value: text })}
		/>.
	</Clause>
{/each}
<button
	type="button"
	class="text-ink-2 hover:text-patina-deep ml-11 py-1 text-[12px]"
	onclick={() =>
		measures(
			inserted(part.measures, part.measures.length, {
				name: freshName(part, 'measure'),
				label: 'Measure',
				kind: 'length',
				value: '0 mm'
			}),
			'a measure'
		)}>+ Measure</button
>

{@render head(first + 2, 'Goes into the schedule as', `${bench.piece?.elements.length ?? 0} elements`)}
<ElementList {bench} {part} path={['elements']} number={String(first + 2)} />
