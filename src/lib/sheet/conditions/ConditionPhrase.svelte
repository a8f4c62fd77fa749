<script lang="ts">
	import { followableIn } from '$core/field/followed';
	import { fieldsOver } from '$core/field/fields';
	import { compass, type Condition, type ConditionOf, type Joining } from '$core/project/condition-schema';
	import { below, type Path } from '$core/project/typed-path';
	import { conditionFormula, conditionNames } from '$core/condition/holds';
	import { shortNames } from '$core/units/formula/check';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import SeveralChip from '$lib/components/SeveralChip.svelte';
	import TextChip from '$lib/components/TextChip.svelte';
	import AmountChip from '$lib/frame/AmountChip.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import { rimLabels, rimWords } from '../words';
	import { useDesk } from '$lib/state/desk.svelte';
	import type { AskedOf } from './fresh';

	/** One condition that holds no others, in words. */
	interface Props {
		condition: Exclude<Condition, Joining>;
		path: Path<Condition>;
		of: string;
		asked: AskedOf;
	}
	let { condition, path, of, asked }: Props = $props();
	const desk = useDesk();
	const document = $derived(desk.project.document);
	const things = $derived(followableIn(document));
	const fields = $derived(fieldsOver(asked.over, things).filter(({ kind }) => kind !== 'switch'));
	const names = $derived(shortNames(Object.keys(conditionNames(asked.over, things, desk.named))));
	const set = (next: Condition, what: string) => desk.set(path, next, `${of}: ${what}`);

	const kinds = [
		{ value: 'whole', label: 'whole' },
		{ value: 'edge', label: 'edge' },
		{ value: 'strip', label: 'of end strips' },
		{ value: 'cut', label: 'cut' }
	] as const;
	const sides = (['one side', 'both sides'] as const).map((value) => ({ value, label: value }));
	const ways = compass.map((value) => ({ value, label: value }));
	const named = (names: readonly string[], known: readonly string[]) => [
		...known.map((value) => ({ value, label: value.replace('.', ' · ') })),
		...names.filter((name) => !known.includes(name)).map((value) => ({ value, label: `${value} (gone)` }))
	];
	/** A level, or none on that side. */
	const levels = $derived([
		{ value: '-', label: 'any height' },
		...document.levels.map(({ id, name }) => ({ value: id, label: name }))
	]);
	const numbers = (text: string): number[] | null => {
		const found = text
			.split(/[\s,;]+/)
			.filter(Boolean)
			.map(Number);
		return found.length && found.every((n) => Number.isInteger(n) && n >= 2) ? found : null;
	};
	type Range = ConditionOf<'range'>;
	const bounds = [
		{ value: 'at least', label: 'at least' },
		{ value: 'at most', label: 'at most' },
		{ value: 'between', label: 'from' }
	] as const;
	const boundsOf = ({ at_least, at_most }: Range) =>
		at_least === null ? 'at most' : at_most === null ? 'at least' : 'between';
	function bound(range: Range, how: (typeof bounds)[number]['value']) {
		const { at_least, at_most } = range;
		const one = at_least ?? at_most ?? 0;
		const other = typeof one === 'number' ? one * 2 || 1 : one;
		set(
			{
				...range,
				at_least:
					how === 'at most'
						? null
						: (at_least ?? (how === 'between' && typeof one === 'number' ? one / 2 : one)),
				at_most: how === 'at least' ? null : (at_most ?? (how === 'between' ? other : one))
			},
			how
		);
	}
	/** Another field starts from bounds that cut it about in the middle of what there is. */
	function ask(range: Range, name: string) {
		const field = fields.find((one) => one.name === name)!;
		const was = fields.find((one) => one.name === range.field);
		const stays = was?.kind === field.kind;
		const start = { length: 1000, area: 1e6, angle: 45, ratio: 0.5, count: 1 } as Record<string, number>;
		set(
			stays
				? { ...range, field: name }
				: { is: 'range', field: name, at_least: start[field.kind] ?? 1, at_most: null },
			field.label
		);
	}
	function checkFormula(text: string): string | null {
		try {
			conditionFormula(text, asked.over, things, desk.named);
			return null;
		} catch (error) {
			return (error as Error).message;
		}
	}
</script>

{#snippet amount(range: Range, key: 'at_least' | 'at_most', label: string)}
	{@const value = range[key]}
	{#if value !== null}<AmountChip
			{value}
			path={below(path as Path<Range>, key) as string as Path<number | string>}
			kind={fields.find(({ name }) => name === range.field)?.kind ?? 'ratio'}
			{label}
			{of}
			lengthStep={100}
		/>{/if}
{/snippet}

{#if condition.is === 'kind'}<SeveralChip
		values={condition.of}
		options={kinds}
		label="Kinds of cells"
		empty="of no kind"
		joiner="or"
		onchoose={(chosen) => set({ is: 'kind', of: chosen }, `${chosen.join(' or ')} cells`)}
	/>{:else if condition.is === 'corners'}with
	<TextChip
		value={condition.of.join(', ')}
		label={asked.over === 'node' ? 'How many lines' : 'How many corners'}
		look="formula"
		check={(text) => (numbers(text) ? null : 'Whole numbers are wanted, as in 3, 4')}
		oncommit={(text) => set({ is: 'corners', of: numbers(text)! }, `${text} corners`)}
	/>
	{asked.over === 'node' ? 'lines' : 'corners'}{:else if condition.is === 'slot'}in slot
	<SeveralChip
		values={condition.of}
		options={named(condition.of, asked.slots)}
		label="Slots"
		empty="none"
		joiner="or"
		onchoose={(chosen) => set({ is: 'slot', of: chosen }, `slot ${chosen.join(' or ')}`)}
	/>{:else if condition.is === 'rim'}lying
	<SeveralChip
		values={condition.of}
		options={rimWords}
		label="Which rims"
		empty="on no rim"
		joiner="or"
		onchoose={(chosen) => set({ is: 'rim', of: chosen }, chosen.map((side) => rimLabels[side]).join(' or '))}
	/>{:else if condition.is === 'beside'}with
	<ChoiceChip
		value={condition.variant}
		options={document.variants.map(({ id, name }) => ({ value: id, label: name }))}
		label="Beside which part"
		onchoose={(variant) => set({ ...condition, variant }, `beside ${variant}`)}
	/>
	on
	<ChoiceChip
		value={condition.on}
		options={sides}
		label="On how many sides"
		onchoose={(on) => set({ ...condition, on }, `on ${on}`)}
	/>{:else if condition.is === 'face'}on
	<SeveralChip
		values={condition.of}
		options={named(condition.of, asked.faces)}
		label="Faces"
		empty="no face"
		joiner="or"
		onchoose={(chosen) => set({ is: 'face', of: chosen }, `on ${chosen.join(' or ')}`)}
	/>{:else if condition.is === 'looks'}looking
	<ChoiceChip
		value={condition.towards}
		options={ways}
		label="Which way they look"
		onchoose={(towards) => set({ ...condition, towards }, `looking ${towards}`)}
	/>
	within <ValueChip
		path={below(path as Path<typeof condition>, 'within')}
		value={condition.within}
		kind="angle"
		label="Within"
		{of}
		step={5}
		min={1}
		max={180}
	/>{:else if condition.is === 'levels'}above
	<ChoiceChip
		value={condition.above ?? '-'}
		options={levels}
		label="Above which level"
		onchoose={(id) => set({ ...condition, above: id === '-' ? null : id }, `above ${id}`)}
	/>, below
	<ChoiceChip
		value={condition.below ?? '-'}
		options={levels}
		label="Below which level"
		onchoose={(id) => set({ ...condition, below: id === '-' ? null : id }, `below ${id}`)}
	/>{:else if condition.is === 'every'}every
	<ValueChip
		path={below(path as Path<typeof condition>, 'step')}
		value={condition.step}
		kind="count"
		label="Every so many"
		{of}
		min={1}
	/>
	<ChoiceChip
		value={condition.by}
		options={[
			{ value: 'cells', label: 'cells' },
			{ value: 'bays', label: 'bays' },
			{ value: 'courses', label: 'courses' }
		]}
		label="Counted by"
		onchoose={(by) => set({ ...condition, by }, `every so many ${by}`)}
	/>
	from <ValueChip
		path={below(path as Path<typeof condition>, 'from')}
		value={condition.from}
		kind="count"
		label="Counted from"
		{of}
		min={1}
	/>{:else if condition.is === 'chance'}by chance
	<ValueChip
		path={below(path as Path<typeof condition>, 'share')}
		value={condition.share}
		kind="ratio"
		label="Share by chance"
		{of}
		step={0.05}
		min={0}
		max={1}
	/>
	of them, seed <ValueChip
		path={below(path as Path<typeof condition>, 'seed')}
		value={condition.seed}
		kind="count"
		label="Seed"
		{of}
	/>{:else if condition.is === 'range'}<ChoiceChip
		value={condition.field}
		options={fields.some(({ name }) => name === condition.field)
			? fields.map(({ name, label }) => ({ value: name, label }))
			: [
					{ value: condition.field, label: `${condition.field} (gone)` },
					...fields.map(({ name, label }) => ({ value: name, label }))
				]}
		label="What is asked for"
		onchoose={(name) => ask(condition, name)}
	/>
	<ChoiceChip
		value={boundsOf(condition)}
		options={bounds}
		label="Bounds"
		onchoose={(how) => bound(condition, how)}
	/>
	{@render amount(
		condition,
		'at_least',
		'At least'
	)}{#if boundsOf(condition) === 'between'}{' '}to{' '}{/if}{@render amount(
		condition,
		'at_most',
		'At most'
	)}{:else if condition.is === 'inside'}inside
	<ChoiceChip
		value={condition.guide}
		options={named(
			[condition.guide],
			document.guides.filter(({ closed }) => closed).map(({ id }) => id)
		)}
		label="Inside which guide"
		onchoose={(guide) => set({ is: 'inside', guide }, `inside ${guide}`)}
	/>{:else}<TextChip
		value={condition.formula}
		look="formula"
		label="Formula of the condition"
		{names}
		check={checkFormula}
		oncommit={(formula) => set({ is: 'formula', formula }, formula.slice(0, 100))}
	/>{/if}
