<script lang="ts">
	import { formatNumber } from '$core/units/quantity';
	import type { Rule, Zone } from '$core/project/schema';
	import { isAdjusting } from '$core/cladding/assign';
	import { applyEdits } from '$core/project/commands';
	import type { Edit } from '$core/project/edits';
	import { choiceLabel } from '$lib/edits/part-choices';
	import PartChip from './PartChip.svelte';
	import { addressOf } from '$lib/state/selection.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import { toast } from 'svelte-sonner';
	import Clause from '$lib/frame/Clause.svelte';
	import { CLAUSE_TONES } from '$lib/model/paint';
	import { listActions, orderOf } from './list-actions';
	import { setActions, withValue } from './piece-values';
	import { clipActions, lieActions } from './lie-actions';
	import ClipWords from './ClipWords.svelte';
	import LieWords from './LieWords.svelte';
	import PieceValues from './PieceValues.svelte';
	import { partOfVariant } from '$lib/edits/variants-on';
	import ConditionWords from './conditions/ConditionWords.svelte';
	import { askedOf } from './conditions/fresh';
	import { isWithin } from '$core/project/paths';
	import { below, pathTo, setAt, type Path } from '$core/project/typed-path';

	let { zone, rule, number }: { zone: Zone; rule: Rule; number: string } = $props();
	const desk = useDesk();

	const path = $derived(pathTo('zones', zone.id, 'rules', rule.id));
	const document = $derived(desk.project.document);
	const put = $derived(rule.put);
	const putPath = $derived(below(path, 'put') as string as Path<Exclude<Rule['put'], 'open'>>);
	const part = $derived(put === 'open' ? undefined : partOfVariant(document, put.variant));
	const problems = $derived(desk.model.view.problems.filter((problem) => isWithin(problem.at, path)));

	const state = $derived(desk.model.view.zones.find((one) => one.id === zone.id));
	const index = $derived(zone.rules.findIndex((one) => one.id === rule.id));
	const asked = $derived(askedOf('cell', document, zone, state));
	const taken = $derived(state?.assignments.reduce((sum, one) => sum + (one.taken[index] ?? 0), 0) ?? 0);
	const cells = $derived(state?.faces.reduce((sum, face) => sum + face.cells.count, 0) ?? 0);
	const before = $derived(
		state?.assignments.reduce((sum, one) => sum + one.taken.slice(0, index).reduce((a, b) => a + b, 0), 0) ??
			0
	);

	/** What the rule puts with another variant: what both parts take piece by piece stays. */
	function putOf(id: string | null): { put: Rule['put']; dropped: string[] } {
		if (id === null) return { put: 'open', dropped: [] };
		if (put === 'open') return { put: { variant: id, values: {} }, dropped: [] };
		const next = partOfVariant(document, id);
		const takes = (name: string) => {
			const kind = part?.inputs.find((one) => one.name === name)?.kind;
			return next?.inputs.some((one) => one.name === name && one.kind === kind && one.scope === 'per piece');
		};
		const stays = Object.entries(put.values).filter(([name]) => takes(name));
		const dropped = Object.keys(put.values).filter((name) => !takes(name));
		return { put: { ...put, variant: id, values: Object.fromEntries(stays) }, dropped };
	}
	function choose(id: string | null, making: readonly Edit[]) {
		const made = making.length ? applyEdits(document, making).project : document;
		const said = id === null ? 'leaves open' : `puts ${choiceLabel(made, id)}`;
		const { put: next, dropped } = putOf(id);
		desk.do(`${zone.name} rule ${number} ${said}`, ...making, setAt(below(path, 'put'), next));
		if (dropped.length && id !== null)
			toast(`${partOfVariant(made, id)?.label} takes no ${dropped.join(', ')} piece by piece: dropped`);
	}
	/** Its cells on every face, those chosen by hand left out. */
	const ownCells = () =>
		state?.assignments.map(({ rule: taking, exception, also }) =>
			rule.also
				? [...(also[index] ?? [])]
				: Array.from(taking.keys()).filter(
						(c) =>
							taking[c] === index && (exception[c] === -1 || isAdjusting(zone.exceptions[exception[c]!]!))
					)
		) ?? [];
	function selectCells() {
		const z = desk.model.view.zones.findIndex(({ id }) => id === zone.id);
		desk.activeZone = zone.id;
		desk.selection.choose(
			ownCells().flatMap((cells, face) =>
				cells.map((c) => addressOf(desk.model.view, { zone: z, face, kind: 'cell', index: c }))
			)
		);
	}
	const light = (on: boolean) => (desk.lit = on ? { zone: zone.id, cells: ownCells() } : null);
	function setValue(name: string, text: string) {
		if (put === 'open') return;
		const said = `${zone.name} rule ${number}: ${name} ${text}`;
		desk.set(below(path, 'put', 'values'), withValue(put.values, name, text), said);
	}
	const setPut = (next: Exclude<Rule['put'], 'open'>, said: string) =>
		desk.set(putPath, next, `${zone.name} rule ${number}: ${said}`);
	const hasCut = $derived(state?.faces.some(({ cells }) => cells.uncut) ?? false);
	const actions = $derived([
		{
			label: `Select its ${formatNumber(taken)} cells`,
			act: selectCells,
			disabled: taken === 0 && 'It takes none'
		},
		...(put === 'open' ? [] : setActions(part, put.values, setValue)),
		...(put === 'open' ? [] : [...lieActions(put, setPut), ...(hasCut ? clipActions(put, setPut) : [])]),
		{
			label: rule.also ? 'Take its cells for itself' : 'Put it there beside others',
			act: () =>
				desk.set(
					below(path, 'also'),
					!rule.also,
					`${zone.name} rule ${number} ${rule.also ? 'takes its cells' : 'takes no cells away'}`
				)
		},
		...listActions(desk, zone, 'rules', rule)
	]);
</script>

<Clause
	{number}
	{path}
	{problems}
	order={orderOf(desk, zone, 'rules', rule.id)}
	{actions}
	muted={rule.muted}
	effect={String(taken)}
	onchoose={selectCells}
	onlight={light}
	{...!rule.also && { tone: CLAUSE_TONES[index % CLAUSE_TONES.length]! }}
	share={{ from: cells ? before / cells : 0, size: cells ? taken / cells : 0 }}
>
	{rule.also ? 'Also put' : 'Put'}
	<PartChip
		variant={put === 'open' ? null : put.variant}
		over="cell"
		zone={zone.name}
		label="What rule {number} puts"
		nothing="nothing: leave open"
		edits={(id) => [setAt(below(path, 'put'), putOf(id).put)]}
		onchoose={choose}
	/>
	on {rule.where.of.length ? 'cells that are' : 'every cell'}{rule.where.of.length
		? ' '
		: ', '}<ConditionWords
		condition={rule.where}
		path={below(path, 'where')}
		of="{zone.name} rule {number}"
		{asked}
	/>{#if put !== 'open'}<PieceValues
			clause={rule.id}
			values={put.values}
			path={below(path, 'put', 'values')}
			{part}
			variant={put.variant}
			over="cell"
			of="{zone.name} rule {number}"
			zone={zone.id}
		/><LieWords {put} path={putPath} of="{zone.name} rule {number}" zone={zone.id} /><ClipWords
			{put}
			path={putPath}
			{part}
			{index}
			cells={ownCells}
			{state}
			of="{zone.name} rule {number}"
			zone={zone.id}
		/>{:else}<span class="full-stop">.</span>{/if}
</Clause>
