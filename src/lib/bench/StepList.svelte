<script lang="ts">
	import { freshName } from '$core/part/rename';
	import type { AnyStep, PartDefinition } from '$core/project/part-definition';
	import Plus from '@lucide/svelte/icons/plus';
	import { DropdownMenu } from 'bits-ui';
	import { toast } from 'svelte-sonner';
	import type { Bench } from './bench.svelte';
	import { at, inserted, seenAt, withAt, type PartPath } from './editing';
	import GroupClauses from './GroupClauses.svelte';
	import StepClause from './StepClause.svelte';
	import StepList from './StepList.svelte';
	import { newStep } from './new-step';
	import { stepGroups } from './step-groups';

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
<DropdownMenu.Root>
	<DropdownMenu.Trigger
		class="text-ink-2 hover:text-patina-deep ml-11 flex items-center gap-1 py-1 text-[12px]"
		aria-label={within ? `Add a step within ${within}` : undefined}
		><Plus size={13} />Step{bench.step && place < steps.length
			? ` after ${bench.step}`
			: ''}</DropdownMenu.Trigger
	>
	<DropdownMenu.Portal>
		<DropdownMenu.Content
			class="floating z-50 max-h-[var(--bits-dropdown-menu-content-available-height)] w-[520px] columns-3 gap-1 overflow-auto p-1.5"
			side="right"
			align="end"
			collisionPadding={8}
		>
			{#each stepGroups as group (group.label)}
				<DropdownMenu.Group class="mb-1.5 break-inside-avoid">
					<DropdownMenu.GroupHeading class="text-ink-2 px-2 pt-1.5 text-[11px] font-semibold"
						>{group.label}</DropdownMenu.GroupHeading
					>
					{#each group.steps as kind (kind)}
						<DropdownMenu.Item
							class="data-highlighted:bg-wash cursor-pointer rounded px-2 py-0.5 outline-none"
							onSelect={() => addStep(kind)}>{kind}</DropdownMenu.Item
						>
					{/each}
				</DropdownMenu.Group>
			{/each}
		</DropdownMenu.Content>
	</DropdownMenu.Portal>
</DropdownMenu.Root>
