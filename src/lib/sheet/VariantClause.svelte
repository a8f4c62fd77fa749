<script lang="ts">
	import { counted } from '$core/units/counted';
	import { goto } from '$app/navigation';
	import { materialsOf, partsOf } from '$core/cladding/kit';
	import { swapPart } from '$core/cladding/swap';
	import { siteOf } from '$core/part/anchors';
	import type { PartDefinition, PartInput } from '$core/project/part-definition';
	import type { Variant } from '$core/project/schema';
	import type { NumberKind } from '$core/units/dimension';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import NumberChip from '$lib/components/NumberChip.svelte';
	import TextChip from '$lib/components/TextChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import { toast } from 'svelte-sonner';
	import Clause from '$lib/frame/Clause.svelte';
	import { removal } from '$lib/edits/removal';
	import { usersOf } from '$lib/edits/users';
	import { freshId } from '$lib/edits/fresh-id';
	import { isWithin } from '$core/project/paths';
	import { below, insertAt, pathTo, removeAt } from '$core/project/typed-path';

	let { variant, number }: { variant: Variant; number: string } = $props();
	const desk = useDesk();

	const path = $derived(pathTo('variants', variant.id));
	const document = $derived(desk.project.document);
	const part = $derived(partsOf(document).find((one) => one.id === variant.part));
	const problems = $derived(desk.model.view.problems.filter((problem) => isWithin(problem.at, path)));
	const pieces = $derived(
		desk.model.view.zones.reduce(
			(sum, zone) =>
				sum +
				zone.groups
					.filter((group) => group.variantId === variant.id)
					.reduce((n, group) => n + group.sites.length, 0),
			0
		)
	);
	const valueOf = (input: PartInput) => variant.values[input.name] ?? input.default;
	/** A value that the variant does not have yet is set with all others, so that undo takes it out again. */
	const edit = (name: string, value: unknown) => ({
		do: 'set' as const,
		path: below(path, 'values'),
		value: { ...variant.values, [name]: value }
	});
	const commit = (input: PartInput, value: unknown, was: unknown = valueOf(input)) =>
		desk.do(
			`${part?.label} ${variant.name}: ${input.label.toLowerCase()} ${String(was)} → ${String(value)}`,
			edit(input.name, value)
		);

	const cornersIn = ({ anchor }: PartDefinition) => ('corners' in anchor ? anchor.corners : 2);
	/** Parts that hang on the same. */
	const others = $derived(partsOf(document).filter((one) => !part || siteOf(one) === siteOf(part)));
	function swap(id: string) {
		const to = others.find((one) => one.id === id);
		if (!to) return;
		const { edits, kept, dropped } = swapPart(document, variant, part ?? { ...to, inputs: [] }, to);
		if (!desk.do(`${variant.name}: ${part?.label ?? variant.part} → ${to.label}`, ...edits)) return;
		const said = [
			kept.length ? `kept ${kept.join(', ').toLowerCase()}` : 'no values in common',
			...(dropped.length ? [`dropped ${dropped.join(', ').toLowerCase()}`] : []),
			...(siteOf(to) === 'cell' && cornersIn(to) !== 'any'
				? [`it takes cells of ${cornersIn(to)} corners only`]
				: [])
		];
		toast(`${to.label} in place of ${part?.label ?? variant.part}: ${said.join('; ')}`, { duration: 8000 });
	}
	function duplicate() {
		const id = freshId(variant.id, document.variants);
		desk.do(
			`variant ${variant.name} copied`,
			insertAt(pathTo('variants'), document.variants.length, { ...variant, id, name: `${variant.name} copy` })
		);
	}
</script>

<Clause
	{number}
	{path}
	{problems}
	effect={counted(pieces, 'piece')}
	actions={[
		{
			label: 'To the bench',
			act: () => void goto(`/project/${desk.project.id}/part/${variant.part}`)
		},
		{ label: 'Duplicate', act: duplicate },
		removal(desk, {
			label: 'Remove',
			name: `${part?.label ?? variant.part} · ${variant.name}`,
			edit: removeAt(path),
			users: () => usersOf(document, 'variants', variant.id)
		})
	]}
>
	<ChoiceChip
		value={variant.part}
		options={others.map((one) => ({ value: one.id, label: one.label }))}
		label="Part of the variant {variant.name}"
		wrong={!part}
		onchoose={swap}
	/>
	<TextChip
		value={variant.name}
		label="Name of the variant"
		look="name"
		oncommit={(text) => desk.set(below(path, 'name'), text, `variant name ${text}`)}
	/>:
	{#each part?.inputs ?? [] as input, k (input.name)}
		{@const kind = input.kind as NumberKind}
		<span class="whitespace-nowrap"
			>{input.label.toLowerCase()}
			{#if input.kind === 'material'}
				<ChoiceChip
					value={String(valueOf(input))}
					options={materialsOf(document).map((one) => ({ value: one.id, label: one.label }))}
					label={input.label}
					onchoose={(value) => commit(input, value)}
				/>
			{:else if input.options}
				<ChoiceChip
					value={String(valueOf(input))}
					options={input.options.map((one) => ({ value: one.name, label: one.label }))}
					label={input.label}
					onchoose={(value) => commit(input, value)}
				/>
			{:else if input.kind === 'text'}
				<TextChip
					value={String(valueOf(input))}
					look="name"
					label={input.label}
					oncommit={(value) => commit(input, value)}
				/>
			{:else if input.kind === 'switch'}
				<ChoiceChip
					value={valueOf(input) ? 'yes' : 'no'}
					options={[
						{ value: 'yes', label: 'yes' },
						{ value: 'no', label: 'no' }
					]}
					label={input.label}
					onchoose={(value) => commit(input, value === 'yes')}
				/>
			{:else}
				<NumberChip
					value={Number(valueOf(input))}
					{kind}
					display={desk.display}
					label={input.label}
					min={input.min ?? -Infinity}
					max={input.max ?? Infinity}
					step={kind === 'length' ? 5 : 1}
					onpreview={(value) => desk.project.preview(edit(input.name, value))}
					onpreviewend={() => desk.project.dropPreview()}
					oncommit={(value, was) => commit(input, value, was)}
				/>
			{/if}{k + 1 < (part?.inputs.length ?? 0) ? ',' : '.'}</span
		>{' '}
	{/each}
</Clause>
