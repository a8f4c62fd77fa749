<script lang="ts">
	import { materialsOf, partsOf } from '$core/cladding/kit';
	import type { PieceMeasure } from '$core/limit/measure';
	import type { Limit } from '$core/project/limit-schema';
	import { pathTo } from '$core/project/typed-path';
	import { formatNumber } from '$core/units/quantity';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import NumberChip from '$lib/components/NumberChip.svelte';
	import { changeLimit, dropLimit, shippedAs } from '$lib/edits/limits';
	import Clause from '$lib/frame/Clause.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import { piecesBeyond } from '$lib/state/flagged';

	/** What a measure of pieces has to stay within, and what goes beyond it. */
	interface Props {
		limit: Limit;
		measures: readonly PieceMeasure[];
		/** How many pieces go beyond it. */
		beyond: number;
		number: string;
	}
	let { limit, measures, beyond, number }: Props = $props();
	const desk = useDesk();
	const { document } = $derived(desk.project);
	const path = $derived(pathTo('limits', limit.id));
	const measure = $derived(measures.find(({ id }) => id === limit.of));
	const label = $derived(measure?.label ?? limit.of);
	const shipped = $derived(shippedAs(limit.id));
	const isOwn = $derived(document.limits.some(({ id }) => id === limit.id));
	const change = (next: Partial<Limit>, said: string) =>
		desk.do(`limit of ${label} ${said}`.slice(0, 200), changeLimit(document, limit, next));

	/** Whose pieces it is about, as one choice. */
	const scopes = $derived([
		{ value: 'all', label: 'all pieces' },
		...materialsOf(document).map(({ id, label }) => ({
			value: `material ${id}`,
			label: `pieces of ${label}`
		})),
		...document.zones.map(({ id, name }) => ({ value: `zone ${id}`, label: `pieces of ${name}` })),
		...partsOf(document)
			.filter(({ id }) => document.variants.some(({ part }) => part === id) || limit.part === id)
			.map(({ id, label }) => ({ value: `part ${id}`, label: `every ${label}` }))
	]);
	const scope = $derived(
		limit.material
			? `material ${limit.material}`
			: limit.part
				? `part ${limit.part}`
				: limit.zone
					? `zone ${limit.zone}`
					: 'all'
	);
	function choose(next: string) {
		const [kind, id = ''] = next.split(' ');
		const of = (wanted: string) => (kind === wanted ? id : null);
		change({ material: of('material'), part: of('part'), zone: of('zone') }, 'of other pieces');
	}
	const chosen = () => piecesBeyond(desk.model.view, limit.id);
	function walk() {
		// The card tells of the last one: of what goes furthest.
		desk.selection.choose(chosen().reverse());
		desk.framings++;
	}
</script>

<Clause
	{number}
	{path}
	muted={limit.muted}
	effect={limit.muted
		? ''
		: measure?.lacks
			? `waits for ${measure.lacks}`
			: beyond
				? `${formatNumber(beyond)} beyond`
				: 'all within'}
	{...beyond && { onchoose: walk }}
	problems={measure
		? []
		: [
				{
					at: path,
					text: `no part of this project reports ${limit.of}; choose another measure`,
					remark: true
				}
			]}
	actions={[
		{
			label: limit.muted ? 'Unmute' : 'Mute',
			act: () => change({ muted: !limit.muted }, limit.muted ? 'unmuted' : 'muted')
		},
		...(shipped && isOwn
			? [
					{
						label: 'As it ships',
						act: () => desk.do(`limit of ${label} as it ships`, dropLimit(limit))
					}
				]
			: []),
		...(shipped
			? []
			: [{ label: 'Remove', act: () => desk.do(`limit of ${label} removed`, dropLimit(limit)) }])
	]}
>
	The <ChoiceChip
		value={limit.of}
		options={measure
			? measures.map(({ id, label }) => ({ value: id, label }))
			: [{ value: limit.of, label: limit.of }, ...measures.map(({ id, label }) => ({ value: id, label }))]}
		label="What is limited"
		wrong={!measure}
		onchoose={(of) => change({ of }, 'of another measure')}
	/>
	of <ChoiceChip value={scope} options={scopes} label="Whose" onchoose={choose} /> is <ChoiceChip
		value={limit.than}
		options={[
			{ value: 'most', label: 'at most' },
			{ value: 'least', label: 'at least' }
		]}
		label="Which way"
		onchoose={(than) => change({ than }, than === 'most' ? 'at most' : 'at least')}
	/>
	<NumberChip
		value={limit.bound}
		kind={measure?.kind ?? 'ratio'}
		label="Bound of {label}"
		display={desk.display}
		oncommit={(bound) => change({ bound }, 'moved')}
	/><span class="full-stop">.</span>
	{#snippet outcome()}{#if desk.selection.clause === path}{#if limit.source}<p>
					{limit.source}.
				</p>{/if}{#if measure}<p data-testid="how">
					Reckoned: {measure.how}.
				</p>{/if}{/if}{/snippet}
</Clause>
