<script lang="ts">
	import { partsOf } from '$core/cladding/kit';
	import type { PieceMeasure } from '$core/limit/measure';
	import { measuresFor } from '$core/limit/measures';
	import { limitsOfProject } from '$core/limit/shipped';
	import { pathTo } from '$core/project/typed-path';
	import { formatNumber } from '$core/units/quantity';
	import { newLimit } from '$lib/edits/limits';
	import { useDesk } from '$lib/state/desk.svelte';
	import { countsBeyond } from '$lib/state/flagged';
	import AddOne from '$lib/components/AddOne.svelte';
	import HeatClause from './HeatClause.svelte';
	import LimitClause from './LimitClause.svelte';
	import LoadsClause from './LoadsClause.svelte';
	import SheetHeading from './SheetHeading.svelte';

	let { number, read }: { number: number; read: boolean } = $props();
	const desk = useDesk();
	const { document } = $derived(desk.project);
	const limits = $derived(limitsOfProject(document));
	const counts = $derived(countsBeyond(desk.model.view));
	const beyond = $derived(limits.reduce((sum, { id }) => sum + (counts.get(id) ?? 0), 0));
	const used = $derived(
		partsOf(document).filter(({ id }) => document.variants.some(({ part }) => part === id))
	);
	const measures = $derived(measuresFor(used, document));
	/** Limits that say something: about materials and parts that there are, or of the project's own. */
	let all = $state(false);
	const materials = $derived(
		new Set(
			desk.model.view.zones.flatMap(({ groups }) =>
				groups.flatMap(({ elements }) =>
					elements.flatMap(({ material }) => (material.glass ? [material.id, 'glass'] : [material.id]))
				)
			)
		)
	);
	const told = $derived(
		limits.filter(
			({ id, material }) =>
				all || material === null || materials.has(material) || document.limits.some((own) => own.id === id)
		)
	);

	/** A new limit begins where nothing goes beyond it in a round number of the unit. */
	const BEGINNINGS: Partial<Record<PieceMeasure['kind'], number>> = {
		length: 1000,
		area: 1e6,
		volume: 1e9,
		mass: 100,
		angle: 45,
		count: 10,
		stress: 20,
		inertia: 100,
		force: 5
	};
	function add({ id, label, kind }: PieceMeasure) {
		const { limit, edit } = newLimit(document, id, BEGINNINGS[kind] ?? 1);
		if (desk.do(`a limit of ${label}`.slice(0, 200), edit))
			desk.selection.clause = pathTo('limits', limit.id);
	}
</script>

<SheetHeading
	part="limits"
	{number}
	title="Limits"
	count={beyond ? `${formatNumber(beyond)} beyond` : 'all within'}
	{read}
>
	{#each told as limit, k (limit.id)}
		<LimitClause {limit} {measures} beyond={counts.get(limit.id) ?? 0} number="{number}.{k + 1}" />
	{/each}
	<LoadsClause number="{number}.{told.length + 1}" />
	<HeatClause number="{number}.{told.length + 2}" />
	<div class="ml-11 flex items-center gap-4">
		<AddOne label="Limit" offers={measures} onadd={add} />
		{#if all || told.length < limits.length}<button
				type="button"
				class="text-ink-2 hover:text-patina-deep text-[12px] underline decoration-dotted underline-offset-2"
				onclick={() => (all = !all)}
				>{all
					? 'only those of materials there are'
					: `${limits.length - told.length} more, of materials there are none of`}</button
			>{/if}
	</div>
</SheetHeading>
