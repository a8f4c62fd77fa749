<script lang="ts">
	import { freshName } from '$core/part/rename';
	import type { AnyStep, PartDefinition } from '$core/project/part-definition';
	import { toast } from 'svelte-sonner';
	import type { Bench } from './bench.svelte';
	import { at, inserted, seenAt, withAt, type PartPath } from './editing';
	import GroupClauses from './GroupClauses.svelte';
	import StepClause from './StepClause.svelte';
	import StepList from './StepList.svelte';
	import { newStep } from './new-step';
	import StepPicker from './StepPicker.svelte';

	/** A list of steps, the part's own or those of a group, and how it grows. */
	interface Props {
		bench: Bench;
		part: PartDefinition;
		path: PartPath;
		/** Before the numbers of its steps. */
		number: string;
		/** The group it stands in. */
		within?: string;
	}
	let { bench, part, path, number, within }: Props = $props();
	const steps = $derived(at(part, path) as AnyStep[]);
	const numberOf = (k: number) => `${number}.${k + 1}`;
	/** After the chosen step, or at the end. */
	const place = $derived.by(() => {
		const chosen = steps.findIndex(({ name }) => name === bench.step);
		return chosen < 0 ? steps.length : chosen + 1;
	});
	function addStep(kind: AnyStep['do']) {
		const sees = seenAt(bench, part, path, place);
		const made = newStep(kind, freshName(part, kind.replaceAll(' ', '_')), sees);
		if ('missing' in made) {
			toast(`A ${made.missing} is needed for that first; none is there yet`);
			return;
		}
		const step = made.step as unknown as AnyStep;
		if (bench.change(`${part.label}: ${kind}`, withAt(part, path, inserted(steps, place, step))))
			bench.step = step.name;
	}
</script>

{#each steps as step, k (step.name)}
	<StepClause {bench} {part} {path} {k} number={numberOf(k)} />
	<GroupClauses {bench} {part} path={[...path, k]} {step} number={numberOf(k)}>
		{#snippet list(inner, of)}
			<StepList {bench} {part} path={inner} number={numberOf(k)} within={of} />
		{/snippet}
	</GroupClauses>
{:else}
	<p class="sentence text-ink-2 px-11 py-2">
		{within ? 'No steps in it yet.' : 'No steps yet. Begin with an inset of the cell, or a line.'}
	</p>
{/each}
<StepPicker
	say="Step{bench.step && place < steps.length ? ` after ${bench.step}` : ''}"
	{...within && { label: `Add a step within ${within}` }}
	onchoose={addStep}
/>
