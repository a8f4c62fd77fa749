<script lang="ts">
	import type { AnyStep, PartDefinition } from '$core/project/part-definition';
	import { freshName } from '$core/part/rename';
	import { formatQuantity, significant } from '$core/units/quantity';
	import { useDesk } from '$lib/state/desk.svelte';
	import Clause from '$lib/frame/Clause.svelte';
	import TextChip from '$lib/components/TextChip.svelte';
	import type { Bench } from './bench.svelte';
	import {
		at,
		faultAt,
		inserted,
		moved,
		nameFault,
		rename,
		withAt,
		without,
		withValue,
		type PartPath
	} from './editing';
	import LiePreview from './LiePreview.svelte';
	import { orderStep } from './order-step';
	import { namesUsed, orders } from './ordered';
	import StepChip from './StepChip.svelte';
	import { sentences } from './step-words';
	import { pathTo } from '$core/project/typed-path';

	/** One step of a list of steps; of a group its head. */
	interface Props {
		bench: Bench;
		part: PartDefinition;
		/** Of the list. */
		path: PartPath;
		k: number;
		number: string;
	}
	let { bench, part, path, k, number }: Props = $props();
	/** Whole numbers of steps in groups of groups would not fit. */
	const shown = $derived(number.split('.').length > 3 ? `…${number.split('.').slice(-2).join('.')}` : number);
	const desk = useDesk();
	const list = $derived(at(part, path) as AnyStep[]);
	const step = $derived(list[k]!);
	const view = $derived(bench.inspection?.steps.get(step.name));
	const sees = $derived(view?.sees ?? new Map<string, string>());
	const place = $derived(`step ${step.name}`);
	const problems = $derived(bench.problemsAt(place));
	const withStep = (next: AnyStep): PartDefinition => withAt(part, [...path, k], next);
	const set = (key: string, value: unknown) =>
		bench.change(`${part.label}: ${step.name}`, withStep(withValue(step, key, value)));
	const replace = (next: AnyStep) =>
		bench.change(`${part.label}: ${step.name} from a newer file`, withStep(next));
	const check = (key: string, value: unknown) => faultAt(bench, withStep(withValue(step, key, value)), place);
	const setList = (next: AnyStep[], label: string) =>
		bench.change(`${part.label}: ${label}`, withAt(part, path, next));
	const shownNumber = $derived.by(() => {
		const value = view?.number ? bench.piece?.results.get(view.number) : undefined;
		if (value === undefined || bench.behind) return null;
		const kind = view?.kind ?? null;
		if (view?.makes === 'yes or no') return value ? 'yes' : 'no';
		return kind && kind !== 'ratio' ? formatQuantity(value, kind, desk.display) : significant(value, 5);
	});
	/** It makes something to order, and nothing is made of it: no element, no other step. */
	const isUnordered = $derived(
		orders.includes(view?.is ?? '') && !step.muted && !namesUsed(part).has(step.name)
	);
	const actions = $derived([
		{
			label: 'Move up',
			disabled: k === 0 && 'It is the first',
			act: () => setList(moved(list, k, k - 1), `${step.name} moved up`)
		},
		{
			label: 'Move down',
			disabled: k === list.length - 1 && 'It is the last',
			act: () => setList(moved(list, k, k + 1), `${step.name} moved down`)
		},
		{
			label: step.muted ? 'Unmute' : 'Mute',
			act: () => set('muted', step.muted ? null : true)
		},
		{
			label: 'Duplicate',
			act: () =>
				setList(
					inserted(list, k + 1, { ...step, name: freshName(part, step.name) } as AnyStep),
					`${step.name} copied`
				)
		},
		{ label: 'Remove', act: () => setList(without(list, k), `${step.name} removed`) }
	]);
</script>

<!-- svelte-ignore a11y_no_static_element_interactions -->
<div
	onfocusin={() => (bench.step = step.name)}
	onpointerdown={() => (bench.step = step.name)}
	data-step={step.name}
>
	<Clause
		number={shown}
		path={pathTo('parts', part.id, 'steps', step.name)}
		{problems}
		{actions}
		muted={step.muted ?? false}
		effect={shownNumber ?? view?.makes ?? ''}
	>
		{#each sentences[step.do] as piece, n (n)}<span
				>{n &&
				!(typeof piece === 'string' && piece.startsWith(',')) &&
				!(typeof piece !== 'string' && piece.is === 'values')
					? ' '
					: ''}{#if typeof piece === 'string'}{piece}{:else}<StepChip
						{bench}
						{step}
						field={piece}
						{sees}
						{set}
						{replace}
						{check}
					/>{/if}</span
			>{/each}<span>; call it </span>
		<span class="whitespace-nowrap"
			><TextChip
				value={step.name}
				label="Name of step {number}"
				look="name"
				check={(text) => nameFault(part, step.name, text)}
				oncommit={(text) => rename(bench, step.name, text)}
			/>.</span
		>
		{#if isUnordered}<button
				type="button"
				class="text-patina-deep ml-1 font-sans text-[12px] underline"
				onclick={() => orderStep(bench, part, [...path.slice(0, -1), 'elements'], step.name)}
				>order it as an element</button
			>{/if}
		{#if step.do === 'fit block' && view}<LiePreview {bench} lie={view.lie} />{/if}
	</Clause>
</div>
