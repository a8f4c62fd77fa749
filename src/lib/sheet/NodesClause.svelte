<script lang="ts">
	/** Parts where lines meet. */
	import type { NodePlacing, Zone } from '$core/project/schema';
	import { websAt } from '$core/project/webs-at';
	import { formatNumber } from '$core/units/quantity';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import { addressOf } from '$lib/state/selection.svelte';
	import Clause from '$lib/frame/Clause.svelte';
	import ConditionWords from './conditions/ConditionWords.svelte';
	import { askedOf } from './conditions/fresh';
	import { listActions, orderOf } from './list-actions';
	import { setActions, withValue } from './piece-values';
	import PartChip from './PartChip.svelte';
	import PieceValues from './PieceValues.svelte';
	import { partOfVariant } from '$lib/edits/variants-on';
	import { lineCountWords, nodeWords, stationWords, webWords } from './words';
	import { isWithin } from '$core/project/paths';
	import { below, pathTo, setAt } from '$core/project/typed-path';

	let { zone, placing, number }: { zone: Zone; placing: NodePlacing; number: string } = $props();
	const desk = useDesk();
	const path = $derived(pathTo('zones', zone.id, 'nodes', placing.id));
	const document = $derived(desk.project.document);
	const part = $derived(partOfVariant(document, placing.variant));
	const said = $derived(`${zone.name} nodes ${number}`);
	const problems = $derived(desk.model.view.problems.filter(({ at }) => isWithin(at, path)));
	const z = $derived(desk.model.view.zones.findIndex((one) => one.id === zone.id));
	const groups = $derived(
		desk.model.view.zones[z]?.groups.filter(
			({ clause }) => clause.kind === 'nodes' && clause.id === placing.id
		) ?? []
	);
	const count = $derived(groups.reduce((sum, { sites }) => sum + sites.length, 0));
	function selectPieces() {
		desk.selection.choose(
			groups.flatMap(({ face, over, sites }) =>
				Array.from(sites, (index) => addressOf(desk.model.view, { zone: z, face, kind: over, index }))
			)
		);
	}
	const setValue = (name: string, text: string) =>
		desk.set(below(path, 'values'), withValue(placing.values, name, text), `${said}: ${name} ${text}`);
	const hasWebs = $derived(websAt(document.zones, zone.id).length > 0);
	const lines = $derived(String(placing.lines));
	const lineOptions = $derived(
		lineCountWords.some(({ value }) => value === lines)
			? lineCountWords
			: [...lineCountWords, { value: lines, label: `${lines} lines meet` }]
	);
</script>

<Clause
	{number}
	{path}
	{problems}
	order={orderOf(desk, zone, 'nodes', placing.id)}
	muted={placing.muted}
	effect={formatNumber(count)}
	actions={[
		{
			label: `Select its ${formatNumber(count)} pieces`,
			act: selectPieces,
			disabled: count === 0 && 'It takes no node'
		},
		...setActions(part, placing.values, setValue),
		...listActions(desk, zone, 'nodes', placing)
	]}
>
	Put
	<PartChip
		variant={placing.variant}
		over="node"
		zone={zone.name}
		label="What nodes {number} carry"
		edits={(id) => [setAt(below(path, 'variant'), id!)]}
		onchoose={(id, making) => desk.do(`${said}: another part`, ...making, setAt(below(path, 'variant'), id!))}
	/>
	on
	<ChoiceChip
		value={placing.nodes}
		options={zone.on.is === 'path' ? stationWords : nodeWords}
		label="Which nodes"
		onchoose={(value) => desk.set(below(path, 'nodes'), value, `${said}: ${value} nodes`)}
	/>{#if zone.on.is !== 'path'}{' '}where
		<ChoiceChip
			value={lines}
			options={lineOptions}
			label="How many lines meet"
			onchoose={(value) =>
				desk.set(below(path, 'lines'), value === 'any' ? value : Number(value), `${said}: ${value} lines`)}
		/>{/if}{#if hasWebs},
		<ChoiceChip
			value={zone.meetsWebs ? 'met' : 'left out'}
			options={webWords}
			label="Whether webs meet at the nodes of {zone.name}"
			onchoose={(value) =>
				desk.set(
					pathTo('zones', zone.id, 'meetsWebs'),
					value === 'met',
					`webs at the nodes of ${zone.name} ${value}`
				)}
		/>{/if}{placing.where.of.length ? (zone.on.is === 'path' ? ' where ' : ' and ') : ', '}<ConditionWords
		condition={placing.where}
		path={below(path, 'where')}
		of={said}
		asked={askedOf(
			'node',
			document,
			zone,
			desk.model.view.zones.find(({ id }) => id === zone.id)
		)}
	/><PieceValues
		clause={placing.id}
		values={placing.values}
		path={below(path, 'values')}
		{part}
		variant={placing.variant}
		over="node"
		of={said}
		zone={zone.id}
	/><span class="full-stop">.</span>
</Clause>
