<script lang="ts">
	import type { Zone } from '$core/project/schema';
	import { pathTo } from '$core/project/typed-path';
	import { counted } from '$core/units/counted';
	import { clauseNumbers, hasCells, zonePart } from '$lib/edits/zone-clauses';
	import { useDesk } from '$lib/state/desk.svelte';
	import ByHandClause from './ByHandClause.svelte';
	import LayerClause from './LayerClause.svelte';
	import MeasureClause from './MeasureClause.svelte';
	import MovesClause from './MovesClause.svelte';
	import NextParts from './NextParts.svelte';
	import NodesClause from './NodesClause.svelte';
	import PatternClause from './PatternClause.svelte';
	import RuleClause from './RuleClause.svelte';
	import RunClause from './RunClause.svelte';
	import SettingOutClause from './SettingOutClause.svelte';
	import SheetHeading from './SheetHeading.svelte';
	import SliverClause from './SliverClause.svelte';
	import TiedClause from './TiedClause.svelte';
	import StandingClause from './standing/StandingClause.svelte';
	import { standingWords } from './words';
	import ZoneClause from './ZoneClause.svelte';

	interface Props {
		zone: Zone;
		index: number;
		read: boolean;
		oncompare: () => void;
	}
	let { zone, index, read, oncompare }: Props = $props();
	const desk = useDesk();
	const n = $derived(zonePart(index));
	const path = $derived(pathTo('zones', zone.id));
	const numbers = $derived(clauseNumbers(zone));
	const state = $derived(desk.model.view.zones.find((one) => one.id === zone.id));
	const words = $derived(standingWords[zone.on.is]);
	const isBefore = $derived(
		zone.on.is === 'layer' && typeof zone.on.depth === 'string' && !zone.on.depth.trim().startsWith('-')
	);
	const title = $derived(isBefore ? 'Grid before' : words.title);
	const sites = $derived(state?.faces.reduce((sum, face) => sum + words.count(face), 0) ?? 0);
	/** While a first model is made, what has come of it is told. */
	const isBehind = $derived(state?.behind && !(desk.model.view.partial && sites > 0));
	const isActive = $derived(desk.activeZone === zone.id);
</script>

<SheetHeading
	part="zone {zone.id}"
	number={n}
	title="{title} · {zone.name}"
	count={isBehind ? (desk.model.view.partial ? '…' : 'behind') : counted(sites, words.one)}
	current={isActive}
	{read}
	ontitle={() => (desk.activeZone = zone.id)}
>
	{#snippet beside()}
		{#if desk.visibility.isHidden('zones', zone.id)}<button
				type="button"
				class="text-ink-2 shrink-0 text-[11px] underline"
				onclick={() => desk.visibility.toggle('zones', zone.id)}>hidden</button
			>{/if}
		{#if desk.visibility.isLocked(path)}<button
				type="button"
				class="text-ink-2 shrink-0 text-[11px] underline"
				onclick={() => desk.visibility.lock(path)}>locked</button
			>{/if}
		{#if isActive}<span class="text-patina shrink-0 text-[11px] font-medium">on the map</span>{/if}
	{/snippet}
	{#if zone.on.is === 'faces'}
		<ZoneClause {zone} number="{n}.1" />
	{:else}
		<StandingClause {zone} number="{n}.1" />
	{/if}
	{#if zone.on.is === 'faces' && zone.setOutAs !== null}
		<TiedClause {zone} number="{n}.{numbers.across}" />
	{:else if zone.on.is === 'faces' || zone.on.is === 'path'}
		<SettingOutClause {zone} number="{n}.{numbers.across}" direction="across" />
	{/if}
	{#if zone.on.is === 'faces' && zone.setOutAs === null}
		<SettingOutClause {zone} number="{n}.{numbers.up}" direction="up" />
		<MeasureClause {zone} number="{n}.{numbers.along}" />
	{/if}
	{#if zone.on.is === 'faces'}
		{#each zone.moves as moves, k (moves.id)}
			<MovesClause {zone} {moves} number="{n}.{numbers.moves(k)}" />
		{/each}
	{/if}
	{#if hasCells(zone)}
		<PatternClause {zone} number="{n}.{numbers.pattern}" {oncompare} />
		<SliverClause {zone} number="{n}.{numbers.slivers}" />
		<LayerClause {zone} number="{n}.{numbers.layer}" />
	{/if}
	<div data-part="cladding" class="scroll-mt-16">
		{#each zone.rules as rule, k (rule.id)}
			<RuleClause {zone} {rule} number="{n}.{numbers.rule(k)}" />
		{/each}
		{#if zone.exceptions.length}<ByHandClause {zone} number="{n}.{numbers.exceptions}" />{/if}
		{#each zone.runs as run, k (run.id)}
			<RunClause {zone} {run} number="{n}.{numbers.run(k)}" />
		{/each}
		{#each zone.nodes as placing, k (placing.id)}
			<NodesClause {zone} {placing} number="{n}.{numbers.nodes(k)}" />
		{/each}
		<NextParts {zone} />
	</div>
</SheetHeading>
