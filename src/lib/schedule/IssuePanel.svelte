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
				return { role, label, n: own.reduce((sum, { sites }) => sum + sites.length, 0), kg };
			})
			.filter(({ role, n }) => n > 0 || role === 'panel' || role === 'mullion');
	});
</script>

<section class="band" aria-label="Issue">
	<dl class="flex gap-6">
		{#each rows as row (row.label)}
			<div>
				<dt class="text-ink-2 text-[11.5px]">{row.label}</dt>
				<dd class="figures text-[12.5px]">
					{formatNumber(row.n)} <span class="text-ink-2">· {formatQuantity(row.kg, 'mass')}</span>
				</dd>
			</div>
		{/each}
	</dl>
	<span class="text-ink-2 ml-auto">Open the</span>
	<a class="plain-button" href="/project/{desk.project.id}/schedule">schedule</a>
	<a class="plain-button" href="/project/{desk.project.id}/drawings">drawings</a>
	<a class="plain-button" href="/project/{desk.project.id}/releases">releases</a>
</section>
