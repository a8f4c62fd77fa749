<script lang="ts">
	import { formatNumber } from '$core/units/quantity';
	import { cornersOf } from '$core/part/anchors';
	import type { Rule, Zone } from '$core/project/schema';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import NumberChip from '$lib/components/NumberChip.svelte';
	import { addressOf } from '$lib/state/selection.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import { toast } from 'svelte-sonner';
	import Clause from './Clause.svelte';
	import { listActions } from './list-actions';
	import { setActions, withValue } from './piece-values';
	import PieceValues from './PieceValues.svelte';
	import { partOfVariant, variantLabel, variantsOn } from '$lib/edits/variants-on';
	import { cellWords, cornerWords } from './words';
	import { isWithin } from '$core/project/paths';
	import { below, pathTo } from '$core/project/typed-path';

	let { zone, rule, number }: { zone: Zone; rule: Rule; number: string } = $props();
	const desk = useDesk();

	const path = $derived(pathTo('zones', zone.id, 'rules', rule.id));
	const document = $derived(desk.project.document);
	const putOptions = $derived([
		...variantsOn(document, 'cell'),
		{ value: '-', label: 'nothing: leave open' }
	]);
	const put = $derived(rule.put);
	const part = $derived(put === 'open' ? undefined : partOfVariant(document, put.variant));
	const problems = $derived(desk.model.view.problems.filter((problem) => isWithin(problem.at, path)));

	const state = $derived(desk.model.view.zones.find((one) => one.id === zone.id));
	const index = $derived(zone.rules.findIndex((one) => one.id === rule.id));
	const slots = $derived([...new Set(state?.faces.flatMap((face) => face.slots) ?? [])]);
	const slotOptions = $derived([
		{ value: 'any', label: 'any slot' },
		...slots.map((slot) => ({ value: slot, label: slot })),
		...(rule.slot === 'any' || slots.includes(rule.slot)
			? []
			: [{ value: rule.slot, label: `${rule.slot} (gone)` }])
	]);
	const count = (pick: 'taken' | 'passed') =>
		state?.assignments.reduce((sum, one) => sum + (one[pick][index] ?? 0), 0) ?? 0;
	const taken = $derived(count('taken'));
	const passed = $derived(count('passed'));
	const cells = $derived(state?.faces.reduce((sum, face) => sum + face.cells.count, 0) ?? 0);
	const before = $derived(
		state?.assignments.reduce((sum, one) => sum + one.taken.slice(0, index).reduce((a, b) => a + b, 0), 0) ??
			0
	);

	function choose(id: string) {
		const label =
			id === '-'
				? `${zone.name} rule ${number} leaves open`
				: `${zone.name} rule ${number}: ${variantLabel(document, id)}`;
		if (id === '-' || put === 'open') {
			desk.set(below(path, 'put'), id === '-' ? 'open' : { variant: id, values: {} }, label);
			return;
		}
		// Formulas stay where the other part takes such a value piece by piece too.
		const next = partOfVariant(document, id);
		const takes = (name: string) => {
			const kind = part?.inputs.find((one) => one.name === name)?.kind;
			return next?.inputs.some((one) => one.name === name && one.kind === kind && one.scope === 'per piece');
		};
		const stays = Object.entries(put.values).filter(([name]) => takes(name));
		const dropped = Object.keys(put.values).filter((name) => !takes(name));
		desk.set(below(path, 'put'), { variant: id, values: Object.fromEntries(stays) }, label);
		if (dropped.length) toast(`${next?.label} takes no ${dropped.join(', ')} piece by piece: dropped`);
	}
	function selectCells() {
		if (!state) return;
		const z = desk.model.view.zones.indexOf(state);
		desk.activeZone = zone.id;
		desk.selection.choose(
			state.assignments.flatMap((assignment, face) =>
				Array.from(assignment.rule.keys())
					.filter((c) => assignment.rule[c] === index && assignment.exception[c] === -1)
					.map((c) => addressOf(desk.model.view, { zone: z, face, kind: 'cell', index: c }))
			)
		);
	}
	function setValue(name: string, text: string | null) {
		if (put === 'open') return;
		const said = `${zone.name} rule ${number}: ${name} ${text ?? 'from the variant'}`;
		desk.set(below(path, 'put', 'values'), withValue(put.values, name, text), said);
	}
	const actions = $derived([
		{
			label: `Select its ${formatNumber(taken)} cells`,
			act: selectCells,
			disabled: taken === 0 && 'It takes none'
		},
		...(put === 'open' ? [] : setActions(part, put.values, setValue)),
		...(rule.courses
			? [
					{
						label: 'All courses',
						act: () => desk.set(below(path, 'courses'), null, `${zone.name} rule ${number}: all courses`)
					}
				]
			: [
					{
						label: 'Only some courses',
						act: () =>
							desk.set(
								below(path, 'courses'),
								[1, state?.faces[0]?.grid.up.steps ?? 1],
								`${zone.name} rule ${number}: some courses`
							)
					}
				]),
		...(slots.length > 1 && rule.slot === 'any'
			? [
					{
						label: 'Only cells of one slot',
						act: () =>
							desk.set(below(path, 'slot'), slots[0]!, `${zone.name} rule ${number}: slot ${slots[0]}`)
					}
				]
			: []),
		rule.every
			? {
					label: 'All of them, not every other',
					act: () => desk.set(below(path, 'every'), null, `${zone.name} rule ${number}: all of them`)
				}
			: {
					label: 'Only every other one',
					act: () =>
						desk.set(
							below(path, 'every'),
							{ step: 2, from: 1, by: 'cells' },
							`${zone.name} rule ${number}: every other one`
						)
				},
		...listActions(desk, zone, 'rules', rule)
	]);
</script>

<Clause
	{number}
	{path}
	{problems}
	{actions}
	muted={rule.muted}
	effect={String(taken)}
	share={{ from: cells ? before / cells : 0, size: cells ? taken / cells : 0 }}
>
	Put
	<ChoiceChip
		value={put === 'open' ? '-' : put.variant}
		options={putOptions}
		label="What rule {number} puts"
		onchoose={choose}
	/>
	on
	<ChoiceChip
		value={rule.cells}
		options={cellWords}
		label="Which cells"
		onchoose={(value) => desk.set(below(path, 'cells'), value, `${zone.name} rule ${number}: ${value} cells`)}
	/>
	with
	<ChoiceChip
		value={String(rule.corners)}
		options={cornerWords}
		label="How many corners"
		onchoose={(value) =>
			desk.set(
				below(path, 'corners'),
				value === 'any' ? value : Number(value),
				`${zone.name} rule ${number}: ${value} corners`
			)}
	/>{#if rule.slot !== 'any'}{' '}in
		<ChoiceChip
			value={rule.slot}
			options={slotOptions}
			label="Which slot"
			onchoose={(value) => desk.set(below(path, 'slot'), value, `${zone.name} rule ${number}: slot ${value}`)}
		/>{/if}{#if rule.every}{', '}every
		<NumberChip
			value={rule.every.step}
			kind="count"
			label="Every so many"
			min={1}
			oncommit={(value) =>
				desk.set(below(path, 'every', 'step'), value, `${zone.name} rule ${number}: every ${value}`)}
		/>
		<ChoiceChip
			value={rule.every.by}
			options={[
				{ value: 'cells', label: 'cells' },
				{ value: 'bays', label: 'bays' },
				{ value: 'courses', label: 'courses' }
			]}
			label="Counted by"
			onchoose={(by) =>
				desk.set(below(path, 'every', 'by'), by, `${zone.name} rule ${number}: every so many ${by}`)}
		/>
		from
		<NumberChip
			value={rule.every.from}
			kind="count"
			label="Counted from"
			min={1}
			oncommit={(value) =>
				desk.set(below(path, 'every', 'from'), value, `${zone.name} rule ${number}: from ${value}`)}
		/>{/if}{#if rule.courses}{' '}
		{@const [first, last] = rule.courses}
		in courses
		<NumberChip
			value={first}
			kind="count"
			label="First course"
			min={1}
			oncommit={(value) =>
				desk.set(below(path, 'courses', 0), value, `${zone.name} rule ${number}: from course ${value}`)}
		/>
		to
		<NumberChip
			value={last}
			kind="count"
			label="Last course"
			min={1}
			oncommit={(value) =>
				desk.set(below(path, 'courses', 1), value, `${zone.name} rule ${number}: to course ${value}`)}
		/>{/if}{#if put !== 'open'}<PieceValues values={put.values} {part} over="cell" onset={setValue} />{/if}.
	{#if passed > 0}<span class="text-ink-2 font-sans text-[12px]"
			>Passes over {formatNumber(passed)} cells: {part?.label} needs {part && cornersOf(part.anchor)} corners.</span
		>{/if}
</Clause>
