<script lang="ts">
	import type { ElementDefinition, PartDefinition } from '$core/project/part-definition';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import TextChip from '$lib/components/TextChip.svelte';
	import Clause from '$lib/frame/Clause.svelte';
	import type { Bench } from './bench.svelte';
	import type { Problem } from '$core/units/problem';
	import { orderStep } from './order-step';
	import { at, nameFault, rename, replaced, withAt, without, type PartPath } from './editing';
	import { orderedIn, orders } from './ordered';
	import UseChip from './UseChip.svelte';
	import { pathTo } from '$core/project/typed-path';

	/** What is ordered of a part's own steps, or of those of a group. */
	interface Props {
		bench: Bench;
		part: PartDefinition;
		path: PartPath;
		number: string;
		/** The group it stands in. */
		within?: string;
	}
	let { bench, part, path, number, within }: Props = $props();
	const list = $derived(at(part, path) as ElementDefinition[]);
	const own = $derived(
		new Set((at(part, [...path.slice(0, -1), 'steps']) as { name: string }[]).map(({ name }) => name))
	);
	const ordered = $derived(orderedIn(part));
	const orderable = $derived([...bench.made].filter(([name, is]) => own.has(name) && orders.includes(is)));
	const materialOptions = $derived([
		...part.inputs
			.filter(({ kind }) => kind === 'material')
			.map(({ name, label }) => ({ value: name, label: `${label} (input)` })),
		...bench.materials.map(({ id, label }) => ({ value: id, label }))
	]);
	const elements = (next: ElementDefinition[], what: string) =>
		bench.change(`${part.label}: ${what}`, withAt(part, path, next));
	const setElement = (k: number, next: Partial<ElementDefinition>) =>
		elements(replaced(list, k, { ...list[k]!, ...next }), `element ${list[k]!.label}`);
	function setOrdered(k: number, byEach: boolean) {
		const { each, ...whole } = list[k]!;
		if (byEach !== Boolean(each))
			elements(replaced(list, k, byEach ? { ...whole, each: true } : whole), `how ${whole.label} is ordered`);
	}
	const count = (element: ElementDefinition) =>
		(bench.piece?.elements ?? [])
			.filter(({ definition }) => definition.name === element.name)
			.reduce((sum, { table }) => sum + table.count, 0);
	/** The newest of what is not ordered yet, or else the newest. */
	const next = $derived(orderable.findLast(([name]) => !ordered.includes(name)) ?? orderable.at(-1));
	const addElement = () => orderStep(bench, part, path, next![0]);
	/** What would be ordered twice. */
	function twice({ name, of }: ElementDefinition): Problem[] {
		const others = list.filter((one) => one.name !== name && one.of.some((step) => of.includes(step)));
		return others.map(({ label, of: theirs }) => ({
			at: name,
			text: `${of.find((step) => theirs.includes(step))} is ordered as ${label} too: it would be counted and paid for twice`,
			remark: true
		}));
	}
</script>

{#each list as element, k (element.name)}
	<Clause
		number={within ? '' : `${number}.${k + 1}`}
		path={pathTo('parts', part.id, 'elements', element.name)}
		problems={[...bench.problemsAt(`element ${element.name}`), ...twice(element)]}
		effect={`${count(element)} made`}
		actions={[
			{
				label: 'One more step in it',
				act: () => setElement(k, { of: [...element.of, orderable.at(-1)?.[0] ?? element.of[0]!] })
			},
			{ label: 'Remove', act: () => elements(without(list, k), `element ${element.label} removed`) }
		]}
	>
		<TextChip
			value={element.label}
			look="name"
			label="Label of {element.name}"
			oncommit={(label) => setElement(k, { label })}
		/>, known as
		<TextChip
			value={element.name}
			look="formula"
			label="Name of {element.name}"
			check={(text) => nameFault(part, element.name, text)}
			oncommit={(text) => rename(bench, element.name, text)}
		/>: a
		<ChoiceChip
			value={element.category}
			options={(['plate', 'bar', 'blade', 'connector', 'other'] as const).map((one) => ({
				value: one,
				label: one
			}))}
			label="Category of {element.name}"
			onchoose={(category) => setElement(k, { category })}
		/>
		of
		<ChoiceChip
			value={element.material}
			options={materialOptions}
			label="Material of {element.name}"
			wrong={!materialOptions.some(({ value }) => value === element.material)}
			onchoose={(material) => setElement(k, { material })}
		/>
		made by
		{#each element.of as name, n (n)}
			<UseChip
				value={name}
				label="Step {n + 1} of {element.name}"
				sees={bench.made}
				of={orders}
				optional={element.of.length > 1}
				onchoose={(next) =>
					setElement(k, { of: next === null ? without(element.of, n) : replaced(element.of, n, next) })}
			/>
		{/each}, ordered
		<ChoiceChip
			value={element.each ? 'each' : 'whole'}
			options={[
				{ value: 'whole', label: 'as one' },
				{ value: 'each', label: 'each by itself' }
			]}
			label="How {element.name} is ordered"
			onchoose={(next) => setOrdered(k, next === 'each')}
		/>.
	</Clause>
{:else}
	{#if !within && !part.steps.some((step) => 'elements' in step || 'cases' in step || step.do === 'part')}
		<p class="sentence text-ink-2 px-11 py-2">
			Nothing is ordered yet. Make a solid or a sheet, then add an element of it.
		</p>
	{/if}
{/each}
<button
	type="button"
	class="text-ink-2 hover:text-patina-deep {within ? '' : 'mb-6'} ml-11 py-1 text-[12px] disabled:opacity-40"
	aria-label={within ? `Add an element within ${within}` : undefined}
	disabled={orderable.length === 0}
	title={orderable.length ? '' : 'A solid or a sheet is needed first'}
	onclick={addElement}>+ Element</button
>
