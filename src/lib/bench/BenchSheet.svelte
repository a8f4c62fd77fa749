<script lang="ts">
	import { freshName } from '$core/part/rename';
	import type { AnyStep, PartDefinition, PartInput, Step } from '$core/project/part-definition';
	import Plus from '@lucide/svelte/icons/plus';
	import { DropdownMenu } from 'bits-ui';
	import { toast } from 'svelte-sonner';
	import TextChip from '$lib/components/TextChip.svelte';
	import type { Bench } from './bench.svelte';
	import { inserted, withList } from './editing';
	import InputClause from './InputClause.svelte';
	import OutcomeClauses from './OutcomeClauses.svelte';
	import StepClause from './StepClause.svelte';
	import { newStep, stepGroups } from './step-words';

	/** The part as sentences: inputs, steps, limits, measures, elements. */
	let { bench, part }: { bench: Bench; part: PartDefinition } = $props();

	const anchorWords = $derived.by(() => {
		const { anchor } = part;
		if (anchor.kind === 'pair') return 'a line of the grid';
		const of: Record<typeof anchor.kind, string> = {
			ring: 'cells',
			node: 'nodes',
			chain: 'chains of nodes',
			'double ring': 'cells with a second layer'
		};
		return anchor.corners === 'any'
			? `${of[anchor.kind]} of any number of corners`
			: `${of[anchor.kind]} of ${anchor.corners} corners`;
	});
	/** After the chosen step, or at the end. */
	const at = $derived.by(() => {
		const chosen = part.steps.findIndex(({ name }) => name === bench.step);
		return chosen < 0 ? part.steps.length : chosen + 1;
	});
	/** What a new step would see: what the next one does, or what is there at the end. */
	const sees = $derived.by(() => {
		const { steps } = bench.inspection ?? { steps: new Map<string, never>() };
		const next = part.steps[at];
		if (next && steps.get(next.name)) return steps.get(next.name)!.sees as ReadonlyMap<string, string>;
		const last = part.steps.at(-1);
		const view = last && steps.get(last.name);
		if (!view) return bench.given;
		return new Map<string, string>([...view.sees, ...(view.is ? [[last.name, view.is] as const] : [])]);
	});
	function addStep(kind: Step['do']) {
		const made = newStep(kind, freshName(part, kind.replaceAll(' ', '_')), sees);
		if ('missing' in made) {
			toast(`A ${made.missing} is needed for that first; none is there yet`);
			return;
		}
		const step = made.step as unknown as AnyStep;
		if (bench.change(`${part.label}: ${kind}`, withList(part, 'steps', inserted(part.steps, at, step))))
			bench.step = step.name;
	}
	const kinds: readonly {
		readonly kind: PartInput['kind'];
		/** Not the name of a function. */
		readonly name: string;
		readonly label: string;
		readonly given: Partial<PartInput>;
	}[] = [
		{ kind: 'length', name: 'size', label: 'a length', given: { default: 100, min: 0, max: 1000 } },
		{ kind: 'angle', name: 'tilt', label: 'an angle', given: { default: 0, min: -90, max: 90 } },
		{ kind: 'ratio', name: 'share', label: 'a ratio', given: { default: 0.5, min: 0, max: 1 } },
		{ kind: 'count', name: 'times', label: 'a count', given: { default: 3, min: 1, max: 50 } },
		{ kind: 'switch', name: 'on', label: 'a switch', given: { default: false } },
		{
			kind: 'choice',
			name: 'way',
			label: 'a choice',
			given: {
				default: 'first',
				options: [
					{ name: 'first', label: 'the first' },
					{ name: 'second', label: 'the second' }
				]
			}
		},
		{ kind: 'material', name: 'finish', label: 'a material', given: { default: 'aluminium' } },
		{ kind: 'text', name: 'words', label: 'a text', given: { default: 'text' } }
	];
	function addInput({ kind, name: wanted, given }: (typeof kinds)[number]) {
		const name = freshName(part, wanted);
		const label = `${name[0]!.toUpperCase()}${name.slice(1)}`;
		const input = { name, label, kind, scope: 'shared', ...given } as PartInput;
		bench.change(`${part.label}: an input`, withList(part, 'inputs', [...part.inputs, input]));
	}
</script>

<section
	class="border-hair bg-sheet h-full overflow-y-auto border-r pb-8"
	aria-label="Sentences of the part"
	data-testid="bench-sheet"
>
	<header class="flex items-baseline gap-2 px-4.5 pt-4 pb-1">
		<h1 class="text-[13.5px] font-semibold">
			<TextChip
				value={part.label}
				label="Name of the part"
				look="name"
				oncommit={(label) => bench.change(`${part.label} is called ${label}`, { ...part, label })}
			/>
			<span class="font-normal">hangs on {anchorWords}</span>
		</h1>
		<span class="figures text-ink-2 ml-auto text-[11.5px]">{part.family}</span>
	</header>
	<p class="sentence text-ink-2 px-4.5 pb-1 [&_button]:text-left">
		<TextChip
			value={part.use || 'What it is for'}
			label="What the part is for"
			look="name"
			oncommit={(use) => bench.change(`${part.label}: what it is for`, { ...part, use })}
		/>
	</p>
	{#if bench.behind}
		<p class="text-oxide-deep bg-oxide-wash mx-4.5 mb-1 rounded px-2 py-1.5 text-[12px]" role="status">
			Something below cannot be; the stage shows the part as it last worked.
		</p>
	{/if}

	<header class="mt-2 flex items-baseline gap-2 px-4.5 pb-1">
		<span class="figures text-ink-3 w-[26px] text-[12px]">1</span>
		<h2 class="text-[12.5px] font-semibold tracking-wide">Inputs</h2>
		<span class="figures text-ink-2 ml-auto text-[11.5px]">{part.inputs.length}</span>
	</header>
	{#each part.inputs as input, k (input.name)}
		<InputClause {bench} {part} {k} number="1.{k + 1}" />
	{/each}
	<DropdownMenu.Root>
		<DropdownMenu.Trigger
			class="text-ink-2 hover:text-patina-deep ml-11 flex items-center gap-1 py-1 text-[12px]"
			><Plus size={13} />Input</DropdownMenu.Trigger
		>
		<DropdownMenu.Portal>
			<DropdownMenu.Content class="floating z-50 min-w-40 p-1" align="start">
				{#each kinds as one (one.kind)}
					<DropdownMenu.Item
						class="data-highlighted:bg-wash cursor-pointer rounded px-2 py-1 outline-none"
						onSelect={() => addInput(one)}>{one.label}</DropdownMenu.Item
					>
				{/each}
			</DropdownMenu.Content>
		</DropdownMenu.Portal>
	</DropdownMenu.Root>

	<header class="mt-3 flex items-baseline gap-2 px-4.5 pb-1">
		<span class="figures text-ink-3 w-[26px] text-[12px]">2</span>
		<h2 class="text-[12.5px] font-semibold tracking-wide">Make</h2>
		<span class="figures text-ink-2 ml-auto text-[11.5px]">{part.steps.length} steps</span>
	</header>
	{#each part.steps as step, k (step.name)}
		<StepClause {bench} {part} {k} number="2.{k + 1}" />
	{:else}
		<p class="sentence text-ink-2 px-11 py-2">No steps yet. Begin with an inset of the cell, or a line.</p>
	{/each}
	<DropdownMenu.Root>
		<DropdownMenu.Trigger
			class="text-ink-2 hover:text-patina-deep ml-11 flex items-center gap-1 py-1 text-[12px]"
			><Plus size={13} />Step{bench.step && at < part.steps.length
				? ` after ${bench.step}`
				: ''}</DropdownMenu.Trigger
		>
		<DropdownMenu.Portal>
			<DropdownMenu.Content
				class="floating z-50 max-h-[var(--bits-dropdown-menu-content-available-height)] w-[460px] columns-3 gap-1 overflow-auto p-1.5"
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
	<OutcomeClauses {bench} {part} first={3} />
</section>
