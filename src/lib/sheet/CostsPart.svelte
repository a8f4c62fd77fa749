<script lang="ts">
	/** What the model costs by rates of the project's own, zone by zone. */
	import { partsOf } from '$core/cladding/kit';
	import { pathTo } from '$core/project/typed-path';
	import { formatNumber } from '$core/units/quantity';
	import TextChip from '$lib/components/TextChip.svelte';
	import { money, newRate } from '$lib/edits/rates';
	import { useDesk } from '$lib/state/desk.svelte';
	import AddOne from '$lib/components/AddOne.svelte';
	import RateClause from './RateClause.svelte';
	import SheetHeading from './SheetHeading.svelte';

	let { number, read }: { number: number; read: boolean } = $props();
	const desk = useDesk();
	const { document } = $derived(desk.project);
	const { rates, currency } = $derived(document.cost);
	const cost = $derived(desk.totals.now?.cost);
	/** Whatever is built of: materials of the pieces there are, and parts. */
	const materials = $derived(
		new Map(
			desk.model.view.zones
				.flatMap(({ groups }) => groups.flatMap(({ elements }) => elements.map(({ material }) => material)))
				.map(({ id, label }) => [id, label])
		)
	);
	const parts = $derived(
		partsOf(document).filter(({ id }) => document.variants.some(({ part }) => part === id))
	);
	const offers = $derived([
		...[...materials].map(([id, label]) => ({ label, of: { material: id }, per: 'mass' as const })),
		...parts.map(({ id, label }) => ({ label: `every ${label}`, of: { part: id }, per: 'piece' as const })),
		{ label: 'every kind of pieces', of: {}, per: 'kind' as const }
	]);
	function add({ label, of, per }: (typeof offers)[number]) {
		const { rate, edit } = newRate(document, of, per);
		if (desk.do(`a rate of ${label}`.slice(0, 200), edit))
			desk.selection.clause = pathTo('cost', 'rates', rate.id);
	}
	/** By zone: what it costs, and a m² of its cells. */
	const zones = $derived(
		desk.model.view.zones.flatMap(({ id, faces }) => {
			const own = cost?.zones.get(id) ?? 0;
			if (!own) return [];
			const area = faces.reduce(
				(sum, { measures }) => sum + measures.area.reduce((a, b) => a + b, 0) / 1e6,
				0
			);
			const name = document.zones.find((zone) => zone.id === id)?.name ?? id;
			return [{ id, name, own, perArea: area > 0 ? own / area : null }];
		})
	);
</script>

<SheetHeading
	part="cost"
	{number}
	title="Costs"
	count={rates.length && cost ? money(Math.round(cost.total), currency) : 'no rates yet'}
	{read}
>
	{#each rates as rate, k (rate.id)}
		<RateClause {rate} number="{number}.{k + 1}" />
	{/each}
	<div class="text-ink-2 ml-11 flex items-baseline gap-4 text-[12px]">
		<AddOne label="Rate" {offers} onadd={add} />
		{#if rates.length}<span
				>in <TextChip
					value={currency}
					label="Currency"
					look="formula"
					oncommit={(text) => desk.set(pathTo('cost', 'currency'), text, `costs in ${text}`)}
				/></span
			>{:else}<span>Rates are your own: what a m², a m, a kg, a piece or a kind costs.</span>{/if}
	</div>
	{#if zones.length}
		<dl
			class="[&_dd]:figures mr-3.5 ml-11 grid grid-cols-[1fr_auto_auto] gap-x-4 py-1 text-[12px] [&_dd]:text-right"
			aria-label="Costs by zone"
		>
			{#each zones as { id, name, own, perArea } (id)}
				<dt class="truncate">{name}</dt>
				<dd>{money(Math.round(own), currency)}</dd>
				<dd class="text-ink-2">{perArea === null ? '' : `${formatNumber(perArea)} ${currency}/m²`}</dd>
			{/each}
		</dl>
	{/if}
</SheetHeading>
