<script lang="ts">
	import X from '@lucide/svelte/icons/x';
	import { below, pathTo } from '$core/project/typed-path';
	import { formatNumber, formatQuantity } from '$core/units/quantity';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import KindCurve from './KindCurve.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import { ALONE, kindPalette } from '$lib/state/kind-colours';

	/** How many different pieces there are, and which are alike. */
	const desk = useDesk();
	const { like } = $derived(desk.project.document);
	const kinds = $derived(desk.kinds.listed ?? []);
	$effect(() => {
		const { over } = desk.kinds;
		const { tolerance, mirrored } = like;
		if (over !== 'cell' && !desk.model.behind && !desk.model.view.partial)
			void desk.kinds.lookAt(over, { tolerance, mirrored });
	});
	const words = { cell: 'pieces on cells', line: 'bars', node: 'pieces on nodes' };
	const pieces = $derived(kinds.reduce((sum, { size }) => sum + size, 0));
	const single = $derived(kinds.filter(({ size }) => size === 1).length);
	const nameOf = (id: string | null) =>
		desk.project.document.variants.find((one) => one.id === id)?.name ?? '';
	/** So many are listed: more are read in the schedule. */
	const LISTED = 200;
	let chosen = $state<number | null>(null);
	function choose(index: number) {
		chosen = index;
		desk.selection.choose(desk.kinds.addressesOf(index).reverse());
	}
</script>

<aside
	class="floating absolute top-[70px] left-3.5 z-10 max-h-[calc(100%-120px)] w-[300px] overflow-auto px-3.5 py-3 text-[12.5px] max-xl:max-h-[calc(100%-150px)]"
	aria-label="Kinds"
	data-testid="kinds"
>
	<h3 class="flex items-start justify-between gap-2 text-[13.5px] font-semibold">
		Kinds
		<button
			type="button"
			class="text-ink-2 hover:bg-wash rounded"
			aria-label="Close the kinds"
			onclick={() => (desk.kinds.shown = false)}><X size={14} /></button
		>
	</h3>
	<p class="sentence text-[14px]!">
		<ChoiceChip
			value={desk.kinds.over}
			options={[
				{ value: 'cell', label: 'Pieces on cells' },
				{ value: 'line', label: 'Bars' },
				{ value: 'node', label: 'Pieces on nodes' }
			]}
			label="Kinds of"
			onchoose={(over) => {
				desk.kinds.over = over;
				chosen = null;
			}}
		/> are alike within <ValueChip
			path={below(pathTo('like'), 'tolerance')}
			value={like.tolerance}
			kind="length"
			label="Tolerance"
			of="Kinds"
			step={0.5}
			min={0.001}
		/>, mirror images <ChoiceChip
			value={like.mirrored}
			options={[
				{ value: 'apart', label: 'apart' },
				{ value: 'together', label: 'together' }
			]}
			label="Mirror images"
			onchoose={(mirrored) =>
				desk.set(below(pathTo('like'), 'mirrored'), mirrored, `mirror images ${mirrored}`)}
		/>.
	</p>
	<p class="mt-2" role="status">
		{#if !desk.kinds.listed}looking …{:else if !kinds.length}There are no {words[desk.kinds.over]} yet.{:else}
			<b class="font-semibold">{formatNumber(kinds.length)} {kinds.length === 1 ? 'kind' : 'kinds'}</b> among
			{formatNumber(pieces)}
			{words[desk.kinds.over]}; {#if single}{formatNumber(single)} of them {single === 1 ? 'is' : 'are'} of one
				piece alone{#if desk.kinds.over === 'cell'},
					<span
						class="border-ink/20 inline-block size-2.5 rounded-[2px] border"
						style:background={ALONE}
						aria-hidden="true"
					></span> grey{/if}{:else}none of one piece alone{/if}.{/if}
	</p>
	{#if kinds.length}{#if desk.kinds.over === 'cell'}<KindCurve />{/if}
		<ul class="mt-2" aria-label="Kinds of pieces">
			{#each kinds.slice(0, LISTED) as kind (kind.index)}
				<li class="border-hair border-t">
					<button
						type="button"
						class={[
							'hover:bg-wash flex w-full items-baseline gap-2 px-1 py-1 text-left',
							chosen === kind.index && 'bg-wash'
						]}
						aria-pressed={chosen === kind.index}
						onclick={() => choose(kind.index)}
						>{#if desk.kinds.over === 'cell'}<span
								class="border-ink/20 size-2.5 shrink-0 self-center rounded-[2px] border"
								style:background={kindPalette[desk.kinds.places[kind.index]!]}
								aria-hidden="true"
							></span>{/if}<span class="figures w-12 shrink-0 font-semibold">{kind.name}</span>
						<span class="text-ink-2 min-w-0 truncate">{nameOf(kind.variant)}</span>
						<span class="figures ml-auto shrink-0">{formatNumber(kind.size)}</span>
						<span
							class="figures text-ink-2 w-14 shrink-0 text-right"
							title="How far they are from the first of them at most"
							>{kind.size > 1 ? `± ${formatQuantity(kind.spread, 'length', desk.display)}` : ''}</span
						></button
					>
				</li>
			{/each}
		</ul>
		{#if kinds.length > LISTED}<p class="text-ink-2 mt-1.5">
				{formatNumber(kinds.length - LISTED)} more, with fewer pieces each.
			</p>{/if}{/if}
</aside>
