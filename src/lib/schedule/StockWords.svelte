<script lang="ts">
	/** What bars or plates are cut from, material by material. */
	import { materialsOf } from '$core/cladding/kit';
	import { stockLengthOf, stockSheetOf } from '$core/cutting/shipped';
	import { below, insertAt, pathTo, setAt } from '$core/project/typed-path';
	import { cellsOf, type Column } from '$core/schedule/column';
	import { formatNumber } from '$core/units/quantity';
	import NumberChip from '$lib/components/NumberChip.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import type { ScheduleList } from './list.svelte';

	let { list }: { list: ScheduleList } = $props();
	const materialNames = (column: Column | undefined) => (column ? cellsOf(column) : []);
	const desk = useDesk();
	const path = pathTo('stock');
	const stock = $derived(desk.project.document.stock);
	const names = $derived(new Set<unknown>(materialNames(list.column('material'))));
	const materials = $derived(materialsOf(desk.project.document).filter(({ label }) => names.has(label)));

	function setLength(id: string, label: string, length: number) {
		const own = stock.lengths.some((one) => one.id === id);
		const edit = own
			? setAt(pathTo('stock', 'lengths', id, 'length'), length)
			: insertAt(pathTo('stock', 'lengths'), stock.lengths.length, { id, length });
		desk.do(`bars of ${label} ${formatNumber(length)} mm long`, edit);
	}
	function setSheet(id: string, label: string, [long, short]: readonly [number, number]) {
		const own = stock.sheets.some((one) => one.id === id);
		const edit = own
			? setAt(pathTo('stock', 'sheets', id), { id, long, short })
			: insertAt(pathTo('stock', 'sheets'), stock.sheets.length, { id, long, short });
		desk.do(`sheets of ${label} ${formatNumber(long)} × ${formatNumber(short)} mm`, edit);
	}
</script>

<section class="mt-4" aria-label="Cut from">
	<h2 class="mb-1 font-semibold">Cut from</h2>
	<ul class="sentence text-[14px]!">
		{#each materials as { id, label } (id)}
			<li>
				{label}, {#if list.name === 'lengths'}bars of <NumberChip
						value={stockLengthOf(stock, id)}
						kind="length"
						label="Length of {label} bars"
						display={desk.display}
						step={100}
						min={1}
						oncommit={(length) => setLength(id, label, length)}
					/>{:else}{@const [long, short] = stockSheetOf(stock, id)}sheets of <NumberChip
						value={long}
						kind="length"
						label="Long side of {label} sheets"
						display={desk.display}
						step={50}
						min={1}
						oncommit={(next) => setSheet(id, label, [next, short])}
					/> by <NumberChip
						value={short}
						kind="length"
						label="Short side of {label} sheets"
						display={desk.display}
						step={50}
						min={1}
						oncommit={(next) => setSheet(id, label, [long, next])}
					/>{/if}
			</li>
		{/each}
		<li>
			{#if list.name === 'lengths'}the saw takes <ValueChip
					path={below(path, 'saw')}
					value={stock.saw}
					kind="length"
					label="Width of the saw"
					of="Stock"
					step={1}
					min={0}
				/>{:else}<ValueChip
					path={below(path, 'gap')}
					value={stock.gap}
					kind="length"
					label="Between two plates"
					of="Stock"
					step={1}
					min={0}
				/> stay between two plates{/if}
		</li>
	</ul>
</section>
