<script lang="ts">
	/** What came, went and is another one; a row leads to its piece. */
	import type { Difference } from '$core/release/compare';
	import { formatNumber } from '$core/units/quantity';
	import { useDesk } from '$lib/state/desk.svelte';
	import { goto } from '$app/navigation';

	let { differences }: { differences: readonly Difference[] } = $props();
	const desk = useDesk();
	/** So many are listed before the rest is asked for. */
	const PAGE = 300;
	let pages = $state(1);
	const listed = $derived(differences.slice(0, pages * PAGE));
	const colours = { added: 'text-patina', removed: 'text-oxide', changed: 'text-ink' } as const;
	function show({ address, is }: Difference) {
		if (is === 'removed') return;
		desk.selection.choose([address]);
		void goto(`/project/${desk.project.id}`);
	}
</script>

<!-- A region that scrolls has to be reached by keyboard -->
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="min-h-0 overflow-auto" role="region" aria-label="Differences" tabindex="0">
	<table class="w-full border-collapse text-[13px]">
		<thead class="bg-sheet sticky top-0">
			<tr class="border-ink border-b text-left">
				{#each ['Mark', 'List', '', 'What changed'] as head, k (k)}<th class="px-3 py-1.5 font-semibold"
						>{head}</th
					>{/each}
			</tr>
		</thead>
		<tbody>
			{#each listed as one (`${one.list} ${one.address}`)}
				<tr class="border-hair/70 hover:bg-sheet border-b align-baseline">
					<td class="figures px-3 py-1 text-[12px] whitespace-nowrap">
						{#if one.is === 'removed'}{one.mark}{:else}<button
								type="button"
								class="text-patina hover:underline"
								onclick={() => show(one)}>{one.mark}</button
							>{/if}</td
					>
					<td class="text-ink-2 px-3 py-1">{one.list}</td>
					<td class={['px-3 py-1', colours[one.is]]}>{one.is}</td>
					<td class="px-3 py-1">{one.told}</td>
				</tr>
			{/each}
		</tbody>
	</table>
	{#if listed.length < differences.length}<button
			type="button"
			class="text-patina m-3 text-[13px] hover:underline"
			onclick={() => pages++}>{formatNumber(differences.length - listed.length)} more …</button
		>{/if}
</div>
