<script lang="ts">
	import { freshName } from '$core/part/rename';
	import type { PartDefinition, PartInput } from '$core/project/part-definition';
	import Plus from '@lucide/svelte/icons/plus';
	import { DropdownMenu } from 'bits-ui';
	import TextChip from '$lib/components/TextChip.svelte';
	import type { Bench } from './bench.svelte';
	import { withList } from './editing';
	import InputClause from './InputClause.svelte';
	import OutcomeClauses from './OutcomeClauses.svelte';
	import StepList from './StepList.svelte';

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
		<h2 class="text-[13.5px] font-semibold">
			<TextChip
				value={part.label}
				label="Name of the part"
				look="name"
				oncommit={(label) => bench.change(`${part.label} is called ${label}`, { ...part, label })}
			/>
			<span class="font-normal">hangs on {anchorWords}</span>
		</h2>
		<span class="figures text-ink-2 ml-auto text-[11.5px]">{part.role}</span>
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
	<StepList {bench} {part} path={['steps']} number="2" />
	<OutcomeClauses {bench} {part} first={3} />
</section>
