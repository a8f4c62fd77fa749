<script lang="ts">
	import { materials } from '$core/part/materials';
	import { freshName } from '$core/part/rename';
	import type {
		ElementDefinition,
		Limit,
		MeasureDefinition,
		PartDefinition
	} from '$core/project/part-definition';
	import { numberKinds, type NumberKind } from '$core/units/dimension';
	import { formatQuantity } from '$core/units/quantity';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import TextChip from '$lib/components/TextChip.svelte';
	import Clause from '$lib/sheet/Clause.svelte';
	import { useWorkbench } from '$lib/state/workbench.svelte';
	import type { Bench } from './bench.svelte';
	import { faultAt, inserted, nameFault, rename, replaced, withList, without } from './editing';
	import UseChip from './UseChip.svelte';

	/** Limits, measures, and what goes into the schedule. */
	let { bench, part, first }: { bench: Bench; part: PartDefinition; first: number } = $props();
	const workbench = useWorkbench();
	const path = $derived(`parts/${part.id}`);
	const problemsAt = (place: string) =>
		(bench.inspection?.faults ?? [])
			.filter(({ step }) => step === place)
			.map(({ text }) => ({ at: place, text }));
	/** What all steps see at the end: solids and sheets to order, numbers to bind. */
	const made = $derived(
		new Map(
			[...(bench.inspection?.steps ?? [])].flatMap(([name, { is }]) => (is ? [[name, is] as const] : []))
		)
	);
	const bindable = $derived([
		...part.inputs.map(({ name, label }) => ({ value: name, label })),
		...[...made].filter(([, is]) => is === 'number').map(([name]) => ({ value: name, label: name }))
	]);
	const materialOptions = $derived([
		...part.inputs
			.filter(({ kind }) => kind === 'material')
			.map(({ name, label }) => ({ value: name, label: `${label} (input)` })),
		...materials.map(({ id, label }) => ({ value: id, label }))
	]);
	const elements = (next: ElementDefinition[], what: string) =>
		bench.change(`${part.label}: ${what}`, withList(part, 'elements', next));
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
	const setElement = (k: number, next: Partial<ElementDefinition>) =>
		elements(
			replaced(part.elements, k, { ...part.elements[k]!, ...next }),
			`element ${part.elements[k]!.label}`
		);
	const orderable = $derived([...made].filter(([, is]) => is === 'solid' || is === 'sheet'));
	const count = (element: ElementDefinition) =>
		(bench.piece?.elements ?? []).filter(({ definition }) => definition.name === element.name).length;
	function addElement() {
		const [name] = orderable.at(-1)!;
		const element: ElementDefinition = {
			name: freshName(part, 'element'),
			label: 'Element',
			category: 'plate',
			of: [name],
			material: 'aluminium'
		};
		elements([...part.elements, element], 'an element');
	}
	const kindWords: Record<NumberKind, string> = {
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
		path="{path}/limits/{k}"
		problems={problemsAt(`limit of ${limit.of}`)}
		actions={[
			{
				label: limit.at_least ? 'No least' : 'Give a least',
				disabled: Boolean(limit.at_least) && !limit.at_most,
				act: () =>
					limit.at_least ? setLimit(k, {}, 'at_least') : setLimit(k, { at_least: limit.at_most ?? '0' })
			},
			{
				label: limit.at_most ? 'No most' : 'Give a most',
				disabled: Boolean(limit.at_most) && !limit.at_least,
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
			onchoose={(of) => setLimit(k, { of })}
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
							part.inputs.some(({ name }) => name === limit.of) ? `input ${limit.of}` : `step ${limit.of}`
						)}
					oncommit={(text) => setLimit(k, { [key]: text })}
				/>{/if}{/each}, saying
		<TextChip
			value={limit.says}
			look="name"
			label="What limit {k + 1} says"
			oncommit={(says) => setLimit(k, { says })}
		/>.
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
		path="{path}/measures/{measure.name}"
		problems={problemsAt(`measure ${measure.name}`)}
		effect={value === undefined ? '' : formatQuantity(value, measure.kind, workbench.display)}
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
{#each part.elements as element, k (element.name)}
	<Clause
		number="{first + 2}.{k + 1}"
		path="{path}/elements/{element.name}"
		problems={problemsAt(`element ${element.name}`)}
		effect={`${count(element)} made`}
		actions={[
			{
				label: 'One more step in it',
				act: () => setElement(k, { of: [...element.of, orderable.at(-1)?.[0] ?? element.of[0]!] })
			},
			{ label: 'Remove', act: () => elements(without(part.elements, k), `element ${element.label} removed`) }
		]}
	>
		<TextChip
			value={element.label}
			look="name"
			label="Label of element {k + 1}"
			oncommit={(label) => setElement(k, { label })}
		/>, known as
		<TextChip
			value={element.name}
			look="formula"
			label="Name of element {k + 1}"
			check={(text) => nameFault(part, element.name, text)}
			oncommit={(text) => rename(bench, element.name, text)}
		/>: a
		<ChoiceChip
			value={element.category}
			options={(['plate', 'bar', 'blade', 'connector', 'other'] as const).map((one) => ({
				value: one,
				label: one
			}))}
			label="Category of element {k + 1}"
			onchoose={(category) => setElement(k, { category })}
		/>
		of
		<ChoiceChip
			value={element.material}
			options={materialOptions}
			label="Material of element {k + 1}"
			wrong={!materialOptions.some(({ value }) => value === element.material)}
			onchoose={(material) => setElement(k, { material })}
		/>
		made by
		{#each element.of as name, n (n)}
			<UseChip
				value={name}
				label="Step {n + 1} of element {k + 1}"
				sees={made}
				of={['solid', 'sheet']}
				optional={element.of.length > 1}
				onchoose={(next) =>
					setElement(k, { of: next === null ? without(element.of, n) : replaced(element.of, n, next) })}
			/>
		{/each}.
	</Clause>
{:else}
	{#if !part.steps.some((step) => 'elements' in step || 'cases' in step || step.do === 'part')}
		<p class="sentence text-ink-2 px-11 py-2">
			Nothing is ordered yet. Make a solid or a sheet, then add an element of it.
		</p>
	{/if}
{/each}
<button
	type="button"
	class="text-ink-2 hover:text-patina-deep mb-6 ml-11 py-1 text-[12px] disabled:opacity-40"
	disabled={orderable.length === 0}
	title={orderable.length ? '' : 'A solid or a sheet is needed first'}
	onclick={addElement}>+ Element</button
>
