<script module lang="ts">
	/** "0 0, 50 0, 50 80" as corners, and back. */
	function outlineOf(text: string): number[][] {
		return text.split(',').map((pair) => pair.trim().split(/\s+/).map(Number));
	}
	const outlineText = (corners: unknown) => (corners as number[][]).map((p) => p.join(' ')).join(', ');
</script>

<script lang="ts">
	import type { AnyStep, PartDefinition } from '$core/project/part-definition';
	import { freshName } from '$core/part/rename';
	import { formatQuantity } from '$core/units/quantity';
	import { useWorkbench } from '$lib/state/workbench.svelte';
	import Clause from '$lib/sheet/Clause.svelte';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import NumberChip from '$lib/components/NumberChip.svelte';
	import TextChip from '$lib/components/TextChip.svelte';
	import type { Bench } from './bench.svelte';
	import {
		faultAt,
		inserted,
		moved,
		nameFault,
		rename,
		replaced,
		withList,
		without,
		withValue
	} from './editing';
	import { profiles, sentences, type Field } from './step-words';
	import UseChip from './UseChip.svelte';

	let { bench, part, k, number }: { bench: Bench; part: PartDefinition; k: number; number: string } =
		$props();
	const workbench = useWorkbench();
	const step = $derived(part.steps[k]!);
	const view = $derived(bench.inspection?.steps.get(step.name));
	const sees = $derived(view?.sees ?? new Map<string, string>());
	const place = $derived(`step ${step.name}`);
	const problems = $derived(
		(bench.inspection?.faults ?? [])
			.filter((fault) => fault.step === place)
			.map(({ text }) => ({ at: place, text }))
	);
	const values = $derived(step as unknown as Record<string, unknown>);
	const withStep = (next: AnyStep): PartDefinition => withList(part, 'steps', replaced(part.steps, k, next));
	const set = (key: string, value: unknown) =>
		bench.change(`${part.label}: ${step.name}`, withStep(withValue(step, key, value)));
	const check = (key: string, read: (text: string) => unknown) => (text: string) =>
		faultAt(bench, withStep(withValue(step, key, read(text))), place);
	const several = (text: string): unknown => {
		const parts = text.split(';').map((one) => one.trim());
		return parts.length > 1 ? parts : parts[0];
	};
	const onStage = ['point', 'path', 'ring'];
	let picked = $state<string | null>(null);
	/** Picking on the stage, where values of such types lie somewhere. */
	function pickOf(key: string, of: readonly string[]) {
		if (!of.some((is) => onStage.includes(is))) return {};
		const picking = picked === key && bench.pick !== null;
		return {
			picking,
			onpick: () => {
				bench.step = step.name;
				picked = picking ? null : key;
				bench.pick = picking
					? null
					: {
							of: of.filter((is) => onStage.includes(is)),
							sees,
							take: (name) => {
								bench.pick = null;
								set(key, name);
							}
						};
			}
		};
	}
	const profile = $derived((values['profile'] ?? {}) as Record<string, unknown>);
	const setProfile = (next: Record<string, unknown>) => set('profile', next);
	const list = (next: AnyStep[], label: string) =>
		bench.change(`${part.label}: ${label}`, withList(part, 'steps', next));
	const shownNumber = $derived.by(() => {
		const value = view?.number ? bench.piece?.results.get(view.number) : undefined;
		if (value === undefined || bench.behind) return null;
		const kind = view?.kind ?? null;
		if (view?.makes === 'yes or no') return value ? 'yes' : 'no';
		return kind && kind !== 'ratio'
			? formatQuantity(value, kind, workbench.display)
			: String(Number(value.toPrecision(5)));
	});
	const actions = $derived([
		{
			label: 'Move up',
			disabled: k === 0,
			act: () => list(moved(part.steps, k, k - 1), `${step.name} moved up`)
		},
		{
			label: 'Move down',
			disabled: k === part.steps.length - 1,
			act: () => list(moved(part.steps, k, k + 1), `${step.name} moved down`)
		},
		{
			label: step.muted ? 'Unmute' : 'Mute',
			act: () => set('muted', step.muted ? null : true)
		},
		{
			label: 'Duplicate',
			act: () =>
				list(
					inserted(part.steps, k + 1, { ...step, name: freshName(part, step.name) } as AnyStep),
					`${step.name} copied`
				)
		},
		{ label: 'Remove', act: () => list(without(part.steps, k), `${step.name} removed`) }
	]);
	/** Groups are told in words; their own steps are changed in the part's file. */
	const groupWords = $derived.by(() => {
		if (step.do === 'each')
			return `For all ${step.over} of ${step.of}: ${step.steps.map(({ name }) => name).join(', ')}`;
		if (step.do === 'repeat')
			return `${step.times ? `Repeat ${step.times} times${step.when ? ` when ${step.when}` : ''}` : `When ${step.when ?? ''}`}: ${step.steps.map(({ name }) => name).join(', ')}`;
		if (step.do === 'cases')
			return `By ${step.of}: ${step.cases.map((one) => `${one.from ? `from ${one.from}` : ''}${one.below ? ` below ${one.below}` : ''} ${one.steps.map(({ name }) => name).join(', ')}`).join('; ')}`;
		if (step.do === 'part') return `Put the part ${step.part} on ${step.on.join(', ')}`;
		return '';
	});
	const isGroup = $derived(
		step.do === 'each' || step.do === 'repeat' || step.do === 'cases' || step.do === 'part'
	);
</script>

{#snippet chip(field: Field)}
	{@const value = values[field.key]}
	{@const label = `${field.key} of ${step.name}`}
	{#if field.is === 'use'}
		<UseChip
			value={value as string | undefined}
			{label}
			{sees}
			of={field.of}
			optional={field.optional ?? false}
			onchoose={(name) => set(field.key, name)}
			{...pickOf(field.key, field.of)}
		/>
	{:else if field.is === 'uses'}
		{@const names = value as string[]}
		{#each names as name, n (n)}
			<UseChip
				value={name}
				label="{field.key} {n + 1} of {step.name}"
				{sees}
				of={field.of}
				optional={names.length > 1}
				onchoose={(next) => set(field.key, next === null ? without(names, n) : replaced(names, n, next))}
			/>
		{/each}
		<button
			type="button"
			class="text-patina-deep text-[12px] underline"
			aria-label="One more {field.of[0]} for {step.name}"
			onclick={() => set(field.key, [...names, names.at(-1)])}>{field.of[0]}</button
		>
	{:else if field.is === 'formula'}
		{#if field.optional && value === undefined}
			<button
				type="button"
				class="text-ink-3 text-[12px] underline"
				aria-label="Give {label}"
				onclick={() => set(field.key, field.given)}>none</button
			>
		{:else}
			<TextChip
				value={String(value)}
				look="formula"
				{label}
				check={check(field.key, (text) => text)}
				oncommit={(text) => set(field.key, text)}
			/>{#if field.optional}<button
					type="button"
					class="text-ink-3 ml-0.5 text-[11px] underline"
					aria-label="Take {label} out"
					onclick={() => set(field.key, null)}>out</button
				>{/if}
		{/if}
	{:else if field.is === 'formulas'}
		<TextChip
			value={Array.isArray(value) ? value.join('; ') : String(value)}
			look="formula"
			{label}
			check={check(field.key, several)}
			oncommit={(text) => set(field.key, several(text))}
		/>
	{:else if field.is === 'corners'}
		<TextChip
			value={outlineText(value)}
			look="formula"
			{label}
			check={check(field.key, outlineOf)}
			oncommit={(text) => set(field.key, outlineOf(text))}
		/>
	{:else if field.is === 'mesh'}
		<span class="text-ink-2"
			>{values['source'] ? `of ${values['source']}, ` : ''}{(values['triangles'] as number[]).length / 3} triangles</span
		>
	{:else if field.is === 'whole'}
		<NumberChip
			value={Number(value)}
			kind="count"
			{label}
			min={1}
			max={200}
			oncommit={(next) => set(field.key, Math.round(next))}
		/>
	{:else if field.is === 'words'}
		<ChoiceChip
			value={String(value)}
			options={Object.entries(field.words).map(([id, words]) => ({ value: id, label: words }))}
			{label}
			onchoose={(next) => set(field.key, next)}
		/>
	{:else}
		<ChoiceChip
			value={String(profile['shape'])}
			options={Object.entries(profiles).map(([id, one]) => ({ value: id, label: one.label }))}
			label="Section of {step.name}"
			onchoose={(shape) => setProfile({ shape, ...profiles[shape]!.values })}
		/>
		{#each Object.entries(profile).filter(([key]) => key !== 'shape' && key !== 'outline') as [key, text] (key)}
			<span class="whitespace-nowrap"
				>{key}
				<TextChip
					value={String(text)}
					look="formula"
					label="{key} of {step.name}"
					check={check('profile', (typed) => ({ ...profile, [key]: typed }))}
					oncommit={(typed) => setProfile({ ...profile, [key]: typed })}
				/></span
			>
		{/each}
		{#if profile['outline']}
			<TextChip
				value={outlineText(profile['outline'])}
				look="formula"
				label="outline of {step.name}"
				check={check('profile', (typed) => ({ ...profile, outline: outlineOf(typed) }))}
				oncommit={(typed) => setProfile({ ...profile, outline: outlineOf(typed) })}
			/>
		{/if}
	{/if}
{/snippet}

<!-- svelte-ignore a11y_no_static_element_interactions -->
<div
	onfocusin={() => (bench.step = step.name)}
	onpointerdown={() => (bench.step = step.name)}
	data-step={step.name}
>
	<Clause
		{number}
		path="parts/{part.id}/steps/{step.name}"
		{problems}
		{actions}
		muted={step.muted ?? false}
		effect={shownNumber ?? view?.makes ?? ''}
	>
		{#if isGroup}<span>{groupWords}</span
			>{:else}{#each sentences[step.do as keyof typeof sentences] as piece, n (n)}<span
					>{n && !(typeof piece === 'string' && piece.startsWith(','))
						? ' '
						: ''}{#if typeof piece === 'string'}{piece}{:else}{@render chip(piece)}{/if}</span
				>{/each}{/if}<span>; call it </span>
		<TextChip
			value={step.name}
			label="Name of step {number}"
			look="name"
			check={(text) => nameFault(part, step.name, text)}
			oncommit={(text) => rename(bench, step.name, text)}
		/>.
	</Clause>
</div>
