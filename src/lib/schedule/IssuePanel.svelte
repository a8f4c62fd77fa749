<script lang="ts">
	import type { Role } from '$core/project/part-definition';
	import { formatNumber, formatQuantity } from '$core/units/quantity';
	import { useDesk } from '$lib/state/desk.svelte';

	const desk = useDesk();
	const rows = $derived.by(() => {
		const labels: readonly (readonly [Role, string])[] = [
			['panel', 'Panels'],
			['mullion', 'Bars'],
			['louver', 'Louver pieces'],
			['structure', 'Structure']
		];
		const groups = desk.model.view.zones.flatMap((zone) => zone.groups);
		return labels
			.map(([role, label]) => {
				const own = groups.filter((group) => group.role === role);
				const kg = own.reduce((sum, { mass }) => sum + mass.reduce((a, b) => a + b, 0), 0);
				return { label, n: own.reduce((sum, { sites }) => sum + sites.length, 0), kg };
			})
			.filter(({ label, n }) => n > 0 || label !== 'Structure');
	});
</script>

<section class="floating absolute top-3.5 left-3.5 z-10 w-[256px] px-3.5 py-3" aria-label="Issue">
	<h3 class="text-[13.5px] font-semibold">To issue</h3>
	<table class="mt-1.5 w-full text-[12.5px]">
		<tbody>
			{#each rows as row (row.label)}
				<tr
					><th class="py-0.5 text-left font-normal">{row.label}</th><td class="figures text-right text-[12px]"
						>{formatNumber(row.n)}</td
					><td class="figures text-right text-[12px]">{formatQuantity(row.kg, 'mass')}</td></tr
				>
			{/each}
		</tbody>
	</table>
	<a
		class="text-patina-deep mt-2 inline-block font-medium underline"
		href="/project/{desk.project.id}/schedule">Open the schedule</a
	>
	<p class="text-ink-2 mt-1 text-[12px]">Files are written from Export, at the top right.</p>
</section>
