<script module lang="ts">
	/** "0 0, 50 0, 50 80" as corners, and back. */
	function outlineOf(text: string): number[][] {
		return text.split(',').map((pair) => pair.trim().split(/\s+/).map(Number));
	}
	const outlineText = (corners: unknown) => (corners as number[][]).map((p) => p.join(' ')).join(', ');
	/** Formulas with semicolons between, or one. */
	function several(text: string): unknown {
		const parts = text.split(';').map((one) => one.trim());
		return parts.length > 1 ? parts : parts[0];
	}
</script>

<script lang="ts">
	import type { AnyStep, Each } from '$core/project/part-definition';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import NumberChip from '$lib/components/NumberChip.svelte';
	import TextChip from '$lib/components/TextChip.svelte';
	import { identifier } from '$core/project/identifier';
	import type { Bench } from './bench.svelte';
	import { replaced, without } from './editing';
	import MeshChip from './MeshChip.svelte';
	import { profiles } from './profiles';
	import type { Field } from './step-words';
	import UseChip from './UseChip.svelte';

	/** One value in a step's sentence. */
	interface Props {
		bench: Bench;
		step: AnyStep;
		field: Field;
		/** Names the step can use, with their types. */
		sees: ReadonlyMap<string, string>;
		/** Null takes the value out. */
		set: (key: string, value: unknown) => void;
		/** Takes another step in the place of this one. */
		replace: (step: AnyStep) => void;
		/** What would be wrong with a value, or null. */
		check: (key: string, value: unknown) => string | null;
	}
	let { bench, step, field, sees, set, replace, check }: Props = $props();
	const values = $derived(step as unknown as Record<string, unknown>);
	const value = $derived(values[field.key]);
	const label = $derived(`${field.key} of ${step.name}`);
	/** Lengths that steps over ways know without making them. */
	const OF_WAYS = (['across', 'deep', 'middle'] as const).map((name) => [name, 'number'] as const);
	const GATHERED = ['point', 'path', 'ring'];
	const onStage = ['point', 'path', 'ring', 'rings', 'plane', 'sheet', 'solid', 'fitted block'];
	/** Which value is being picked: a field's own, or one of several by its place. */
	let picking = $state<number | null>(null);
	/** Picking on the stage, where values of such types lie somewhere. */
	function pickOf(of: readonly string[], n: number, taken: (name: string) => void) {
		if (!of.some((is) => onStage.includes(is))) return {};
		const now = picking === n && bench.pick !== null;
		return {
			picking: now,
			onpick: () => {
				bench.step = step.name;
				picking = now ? null : n;
				bench.pick = now
					? null
					: {
							of: of.filter((is) => onStage.includes(is)),
							sees,
							take: (name: string) => {
								bench.pick = null;
								taken(name);
							}
						};
			}
		};
	}
	const profile = $derived((values['profile'] ?? {}) as Record<string, unknown>);
	const setProfile = (next: Record<string, unknown>) => set('profile', next);
	const subPart = $derived(step.do === 'part' ? bench.library.find(({ id }) => id === step.part) : undefined);
	const bound = $derived((values['values'] ?? {}) as Record<string, string>);
	function bind(name: string, text: string | null) {
		const rest = Object.entries(bound).filter(([known]) => known !== name);
		set('values', Object.fromEntries(text === null ? rest : [...rest, [name, text]]));
	}
	const gathers = $derived(step.do === 'each' ? step.gathers : []);
	/** What is made in each turn and can be gathered. */
	const madeWithin = $derived(
		new Map<string, string>([
			...(step.do === 'each' && step.over === 'ways' ? OF_WAYS : []),
			...(step.do === 'each' ? step.steps : []).flatMap(({ name }) => {
				const made = bench.inspection?.steps.get(name);
				const can = made?.is === 'number' ? made.kind === 'length' : GATHERED.includes(made?.is ?? '');
				return can ? [[name, made!.is!] as const] : [];
			})
		])
	);
	/** Points become a ring or a path, rings and lengths stay what they are. */
	function gatheredAs(of: string, as: Each['gathers'][number]['as'] = 'ring') {
		const is = madeWithin.get(of);
		if (is === 'ring') return 'rings';
		if (is === 'number') return 'lengths';
		return as === 'path' ? 'path' : 'ring';
	}
	const setGather = (n: number, next: Partial<Each['gathers'][number]>) =>
		set('gathers', replaced(gathers, n, { ...gathers[n]!, ...next }));
	const named = (text: string) => {
		const read = identifier.safeParse(text);
		return read.success ? null : read.error.issues[0]!.message;
	};
</script>

{#snippet link(words: string, name: string, act: () => void)}
	<button type="button" class="text-patina-deep text-[12px] underline" aria-label={name} onclick={act}
		>{words}</button
	>
{/snippet}

{#if field.is === 'use'}
	<UseChip
		value={value as string | undefined}
		{label}
		{sees}
		of={field.of}
		optional={field.optional ?? false}
		onchoose={(name) => set(field.key, name)}
		{...pickOf(field.of, 0, (name) => set(field.key, name))}
	/>
{:else if field.is === 'uses'}
	{@const names = [(value ?? []) as string | string[]].flat()}
	{@const setNames = (next: string[]) => set(field.key, next.length ? next : null)}
	{#each names as name, n (n)}
		<UseChip
			value={name}
			label="{field.key} {n + 1} of {step.name}"
			{sees}
			of={field.of}
			optional={names.length > 1 || (field.optional ?? false)}
			onchoose={(next) => setNames(next === null ? without(names, n) : replaced(names, n, next))}
			{...pickOf(field.of, n, (next) => setNames(replaced(names, n, next)))}
		/>{' '}
	{/each}
	{@const fitting = [...sees].findLast(([, is]) => field.of.includes(is))}
	{#if names.length || fitting}
		{@render link(
			names.length ? field.of[0]! : 'none',
			names.length ? `One more ${field.of[0]} for ${step.name}` : `Give ${label}`,
			() => setNames([...names, names.at(-1) ?? fitting![0]])
		)}
	{:else}none{/if}
{:else if field.is === 'formula'}
	{#if field.optional && value === undefined}
		{@render link('none', `Give ${label}`, () => set(field.key, field.given))}
	{:else}
		<TextChip
			value={String(value)}
			look="formula"
			{label}
			check={(text) => check(field.key, text)}
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
		check={(text) => check(field.key, several(text))}
		oncommit={(text) => set(field.key, several(text))}
	/>
{:else if field.is === 'corners'}
	<TextChip
		value={outlineText(value)}
		look="formula"
		{label}
		check={(text) => check(field.key, outlineOf(text))}
		oncommit={(text) => set(field.key, outlineOf(text))}
	/>
{:else if field.is === 'mesh'}
	{#if step.do === 'block mesh' || step.do === 'block sheet'}<MeshChip {step} {replace} />{/if}
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
	/>{#if step.do === 'each' && step.over === 'small rings'}
		{#each ['across', 'up'] as const as key (key)}
			{' '}{key}
			<NumberChip
				value={step[key] ?? 2}
				kind="count"
				label="{key} of {step.name}"
				min={1}
				max={20}
				oncommit={(next) => set(key, Math.round(next))}
			/>
		{/each}
	{/if}
{:else if field.is === 'name'}
	<TextChip
		value={String(value ?? 'turn')}
		look="name"
		{label}
		check={named}
		oncommit={(text) => set(field.key, text)}
	/>
{:else if field.is === 'part'}
	<ChoiceChip
		value={String(value)}
		options={bench.library
			.filter(({ id }) => id !== bench.id)
			.map((one) => ({ value: one.id, label: one.label }))}
		{label}
		onchoose={(next) => set('part', next)}
	/>
{:else if field.is === 'values'}
	{#each subPart?.inputs.filter(({ kind }) => kind !== 'text') ?? [] as input (input.name)}
		<span class="whitespace-nowrap"
			>{', '}{input.label.toLowerCase()}
			{#if bound[input.name] === undefined}{@render link(
					'as it comes',
					`Bind ${input.name} of ${step.name}`,
					() => bind(input.name, String(input.kind === 'length' ? `${input.default} mm` : input.default))
				)}{:else}<TextChip
					value={bound[input.name]!}
					look="formula"
					label="{input.name} of {step.name}"
					check={(text) => check('values', { ...bound, [input.name]: text })}
					oncommit={(text) => bind(input.name, text)}
				/><button
					type="button"
					class="text-ink-3 ml-0.5 text-[11px] underline"
					aria-label="Leave {input.name} of {step.name} as it comes"
					onclick={() => bind(input.name, null)}>out</button
				>{/if}</span
		>
	{/each}
{:else if field.is === 'gathers'}
	{#each gathers as gather, n (n)}
		{' '}<span
			>{n ? 'and ' : 'and gather '}<UseChip
				value={gather.of}
				label="gathered {n + 1} of {step.name}"
				sees={madeWithin}
				of={[...GATHERED, 'number']}
				optional
				onchoose={(next) =>
					next === null
						? set('gathers', without(gathers, n))
						: setGather(n, { of: next, as: gatheredAs(next, gather.as) })}
			/>{#if gather.as === 'rings' || gather.as === 'lengths'}{' '}as {gather.as}{:else}
				as a <ChoiceChip
					value={gather.as}
					options={[
						{ value: 'ring', label: 'ring' },
						{ value: 'path', label: 'path' }
					]}
					label="what {gather.name} is"
					onchoose={(as) => setGather(n, { as })}
				/>{/if} called <TextChip
				value={gather.name}
				look="name"
				label="Name of what is gathered {n + 1} of {step.name}"
				check={named}
				oncommit={(name) => setGather(n, { name })}
			/></span
		>
	{/each}
	{#if step.do === 'each' && madeWithin.size}
		{' '}{@render link('gather', `Gather what ${step.name} makes`, () => {
			const of = [...madeWithin.keys()].at(-1)!;
			const as = gatheredAs(of);
			const name = `${step.name}_${as === 'rings' || as === 'lengths' ? as : 'points'}`;
			set('gathers', [...gathers, { name, of, as }]);
		})}
	{/if}
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
				check={(typed) => check('profile', { ...profile, [key]: typed })}
				oncommit={(typed) => setProfile({ ...profile, [key]: typed })}
			/></span
		>
	{/each}
	{#if profile['outline']}
		<TextChip
			value={outlineText(profile['outline'])}
			look="formula"
			label="outline of {step.name}"
			check={(typed) => check('profile', { ...profile, outline: outlineOf(typed) })}
			oncommit={(typed) => setProfile({ ...profile, outline: outlineOf(typed) })}
		/>
	{/if}
{/if}
