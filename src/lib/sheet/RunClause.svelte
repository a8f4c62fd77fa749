<script lang="ts">
	import type { Run, Zone } from '$core/project/schema';
	import { formatLength } from '$core/units/quantity';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import SeveralChip from '$lib/components/SeveralChip.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import Clause from '$lib/frame/Clause.svelte';
	import { listActions, orderOf } from './list-actions';
	import EndsWords from './EndsWords.svelte';
	import ConditionWords from './conditions/ConditionWords.svelte';
	import { askedOf } from './conditions/fresh';
	import { setActions, withValue } from './piece-values';
	import PartChip from './PartChip.svelte';
	import PieceValues from './PieceValues.svelte';
	import { lineKindsOf } from '$lib/edits/zone-clauses';
	import { partOfVariant } from '$lib/edits/variants-on';
	import { lineWords } from './words';
	import { isWithin } from '$core/project/paths';
	import { below, pathTo, setAt, type Path } from '$core/project/typed-path';

	let { zone, run, number }: { zone: Zone; run: Run; number: string } = $props();
	const desk = useDesk();

	const path = $derived(pathTo('zones', zone.id, 'runs', run.id));
	const document = $derived(desk.project.document);
	const problems = $derived(desk.model.view.problems.filter((problem) => isWithin(problem.at, path)));
	const state = $derived(desk.model.view.zones.find((one) => one.id === zone.id));
	const groups = $derived(
		state?.groups.filter((group) => group.clause.kind === 'run' && group.clause.id === run.id) ?? []
	);
	const metres = $derived(groups.reduce((sum, { length }) => sum + length, 0));
	const part = $derived(partOfVariant(document, run.variant));
	const over = $derived(run.over === 'chains' ? 'chain' : 'line');
	const said = $derived(`${zone.name} line run ${number}`);
	const kinds = $derived(lineKindsOf(zone));
	const asked = $derived(askedOf('line', document, zone, state));
	const setValue = (name: string, text: string) =>
		desk.set(below(path, 'values'), withValue(run.values, name, text), `${said}: ${name} ${text}`);
	const join = $derived(
		run.joined
			? {
					label: 'Leave every line by itself',
					act: () => desk.set(below(path, 'joined'), null, `${said}: every line by itself`)
				}
			: {
					label: 'Join lines to bars of a stock length',
					act: () =>
						desk.set(
							below(path, 'joined'),
							{ stock: 6000, within: 5, staggered: true },
							`${said}: joined to bars of 6 m`
						)
				}
	);
	const count = $derived(groups.reduce((sum, group) => sum + group.sites.length, 0));
</script>

<Clause
	{number}
	{path}
	{problems}
	order={orderOf(desk, zone, 'runs', run.id)}
	muted={run.muted}
	effect="{count} · {formatLength(metres, desk.display === 'ft-in' ? 'ft-in' : 'm', 0)}"
	actions={[
		...(over === 'line' ? [join] : []),
		...(over === 'line' && !run.ends
			? [
					{
						label: 'Cut its ends where lines meet',
						act: () => desk.set(below(path, 'ends'), { is: 'mitred', others: true }, `${said}: ends mitred`)
					}
				]
			: []),
		...setActions(part, run.values, setValue),
		...listActions(desk, zone, 'runs', run)
	]}
>
	Run
	<PartChip
		variant={run.variant}
		{over}
		zone={zone.name}
		label="What runs"
		edits={(id) => [setAt(below(path, 'variant'), id!)]}
		onchoose={(id, making) => desk.do(`${said}: another part`, ...making, setAt(below(path, 'variant'), id!))}
	/>
	{#if over === 'chain'}{zone.on.is === 'chains' ? 'through each chain' : 'through all stations'}{:else}{zone
			.on.is === 'path'
			? 'in'
			: 'along'}
		<SeveralChip
			values={run.lines}
			options={lineWords.filter(({ value }) => kinds.includes(value) || run.lines.includes(value))}
			label="Which lines"
			empty="no lines"
			onchoose={(lines) =>
				desk.set(below(path, 'lines'), lines, `${zone.name}: run along ${lines.join(', ') || 'no lines'}`)}
		/>{run.where.of.length ? ' where ' : ', '}<ConditionWords
			condition={run.where}
			path={below(path, 'where')}
			of={said}
			{asked}
		/>{/if}{#if run.joined}; joined where straight within <ValueChip
			path={below(path as string as Path<{ joined: { within: number } }>, 'joined', 'within')}
			value={run.joined.within}
			kind="length"
			label="Straight within"
			of={said}
			step={1}
		/> to bars of <ValueChip
			path={below(path as string as Path<{ joined: { stock: number } }>, 'joined', 'stock')}
			value={run.joined.stock}
			kind="length"
			label="Stock length"
			of={said}
			step={500}
		/> at most, spliced at nodes, <ChoiceChip
			value={run.joined.staggered ? 'yes' : 'no'}
			options={[
				{ value: 'yes', label: 'staggered' },
				{ value: 'no', label: 'in line' }
			]}
			label="How splices lie"
			onchoose={(next) =>
				desk.set(
					below(path, 'joined'),
					{ ...run.joined!, staggered: next === 'yes' },
					`${said}: splices ${next === 'yes' ? 'staggered' : 'in line'}`
				)}
		/>{/if}{#if run.ends}<EndsWords
			ends={run.ends}
			path={below(path, 'ends')}
			lines={run.lines}
			of={said}
		/>{/if}<PieceValues
		clause={run.id}
		values={run.values}
		path={below(path, 'values')}
		{part}
		variant={run.variant}
		{over}
		of={said}
		zone={zone.id}
	/><span class="full-stop">.</span>
</Clause>
