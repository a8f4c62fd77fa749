<script lang="ts">
	import type { AnyStep, Case, PartDefinition } from '$core/project/part-definition';
	import TextChip from '$lib/components/TextChip.svelte';
	import type { Bench } from './bench.svelte';
	import { faultAt, withAt, without, type PartPath } from './editing';
	import ElementList from './ElementList.svelte';
	import type { Snippet } from 'svelte';

	/** What stands in a group: its steps and what is ordered of them, case by case where it has cases. */
	interface Props {
		bench: Bench;
		part: PartDefinition;
		/** Of the group itself. */
		path: PartPath;
		step: AnyStep;
		number: string;
		/** Its steps: by the path of their list, and what they stand within. */
		list: Snippet<[PartPath, string]>;
	}
	let { bench, part, path, step, number, list }: Props = $props();
	const setCases = (next: Case[]) =>
		bench.change(`${part.label}: cases of ${step.name}`, withAt(part, [...path, 'cases'], next));
	const bounds = [
		['from', 'from'],
		['below', 'below']
	] as const;
	/** A bound moved, and with it the one of the case that it parts this one from. */
	function withBound(cases: readonly Case[], c: number, key: 'from' | 'below', text: string): PartDefinition {
		const was = cases[c]![key];
		const other = key === 'from' ? 'below' : 'from';
		const next = cases.map((one, n) => {
			if (n === c) return { ...one, [key]: text };
			return one[other] === was ? { ...one, [other]: text } : one;
		});
		return withAt(part, [...path, 'cases'], next);
	}
	/** A case split in two, at a bound that is then typed. */
	function split(cases: readonly Case[], c: number) {
		const { from, below } = cases[c]!;
		const between =
			from !== undefined && below !== undefined
				? `(${from} + ${below}) / 2`
				: from !== undefined
					? `2 * ${from}`
					: below !== undefined
						? `${below} / 2`
						: '1';
		const upper: Case = { from: between, ...(below !== undefined && { below }), steps: [], elements: [] };
		setCases([...cases.slice(0, c), { ...cases[c]!, below: between }, upper, ...cases.slice(c + 1)]);
	}
</script>

{#snippet content(at: PartPath, of: string)}
	<div class="border-hair ml-8 border-l" role="group" aria-label="Within {of}">
		{@render list([...at, 'steps'], of)}
		<ElementList {bench} {part} path={[...at, 'elements']} {number} within={of} />
	</div>
{/snippet}

{#if step.do === 'each' || step.do === 'repeat' || step.do === 'along'}
	{@render content(path, step.name)}
{:else if step.do === 'cases'}
	{#each step.cases as one, c (c)}
		<p class="sentence py-1 pr-3 pl-11">
			{#each bounds as [key, words] (key)}
				{#if one[key] !== undefined}{words}
					<TextChip
						value={one[key]}
						look="formula"
						label="{words} of case {c + 1} of {step.name}"
						check={(text) => faultAt(bench, withBound(step.cases, c, key, text), `step ${step.name}`)}
						oncommit={(text) =>
							bench.change(
								`${part.label}: case ${c + 1} of ${step.name}`,
								withBound(step.cases, c, key, text)
							)}
					/>{/if}
			{/each}
			<button
				type="button"
				class="text-patina-deep text-[12px] underline"
				aria-label="Split case {c + 1} of {step.name}"
				onclick={() => split(step.cases, c)}>split</button
			>
			{#if step.cases.length > 1}<button
					type="button"
					class="text-ink-3 text-[12px] underline"
					aria-label="Remove case {c + 1} of {step.name}"
					onclick={() => setCases(without(step.cases, c))}>out</button
				>{/if}
		</p>
		{@render content([...path, 'cases', c], `case ${c + 1} of ${step.name}`)}
	{/each}
{/if}
