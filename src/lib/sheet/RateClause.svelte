<script lang="ts">
	/** What something costs, and what that comes to. */
	import { materialsOf, partsOf } from '$core/cladding/kit';
	import type { Rate } from '$core/project/rates-schema';
	import { below, pathTo, removeAt } from '$core/project/typed-path';
	import { formatNumber } from '$core/units/quantity';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import NumberChip from '$lib/components/NumberChip.svelte';
	import { money, rateWords } from '$lib/edits/rates';
	import Clause from '$lib/frame/Clause.svelte';
	import { useDesk } from '$lib/state/desk.svelte';

	let { rate, number }: { rate: Rate; number: string } = $props();
	const desk = useDesk();
	const { document } = $derived(desk.project);
	const { currency } = $derived(document.cost);
	const path = $derived(pathTo('cost', 'rates', rate.id));
	const cost = $derived(desk.totals.now?.cost.rates.get(rate.id));
	const units = { area: ' m²', length: ' m', mass: ' kg', piece: ' pieces', kind: ' kinds' } as const;
	const options = $derived([
		{ value: 'all', label: 'all that is built' },
		...materialsOf(document).map(({ id, label }) => ({ value: `material ${id}`, label })),
		...partsOf(document)
			.filter(({ id }) => document.variants.some(({ part }) => part === id) || rate.part === id)
			.map(({ id, label }) => ({ value: `part ${id}`, label: `every ${label}` }))
	]);
	const of = $derived(rate.material ? `material ${rate.material}` : rate.part ? `part ${rate.part}` : 'all');
	const name = $derived(options.find(({ value }) => value === of)?.label ?? of);
	function choose(next: string) {
		const [kind, id = ''] = next.split(' ');
		desk.set(
			path,
			{ ...rate, material: kind === 'material' ? id : null, part: kind === 'part' ? id : null },
			'a rate for something else'
		);
	}
	/** Kinds are of pieces, whatever they are made of. */
	const wordsFor = $derived(
		Object.entries(rateWords)
			.filter(([per]) => rate.material === null || per !== 'kind')
			.map(([value, label]) => ({ value: value as Rate['per'], label }))
	);
</script>

<Clause
	{number}
	{path}
	muted={rate.muted}
	effect={rate.muted || !cost ? '' : money(Math.round(cost.cost), currency)}
	problems={rate.material !== null && rate.per === 'kind'
		? [{ at: path, text: 'kinds are of pieces, not of a material; choose a part, or all', remark: true }]
		: []}
	actions={[
		{
			label: rate.muted ? 'Unmute' : 'Mute',
			act: () => desk.set(below(path, 'muted'), !rate.muted, `rate ${rate.muted ? 'unmuted' : 'muted'}`)
		},
		{ label: 'Remove', act: () => desk.do(`rate of ${name} removed`, removeAt(path)) }
	]}
>
	<ChoiceChip value={of} {options} label="What costs" onchoose={choose} /> costs <NumberChip
		value={rate.rate}
		kind="ratio"
		label="Rate of {name}"
		step={1}
		min={0}
		oncommit={(value) => desk.set(below(path, 'rate'), value, `rate of ${name} ${formatNumber(value, 2)}`)}
	/>
	{currency}
	<ChoiceChip
		value={rate.per}
		options={wordsFor}
		label="For what"
		onchoose={(per) => desk.set(below(path, 'per'), per, `rate of ${name} ${rateWords[per]}`)}
	/><span class="full-stop">.</span>
	{#snippet outcome()}{#if cost && !rate.muted}{formatNumber(
				cost.amount,
				rate.per === 'piece' || rate.per === 'kind' ? 0 : 1
			)}{units[rate.per]}{/if}{/snippet}
</Clause>
