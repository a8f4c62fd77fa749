<script lang="ts">
	/** What pieces of a material have to stay within; each leads to its limit in the sheet. */
	import { goto } from '$app/navigation';
	import { partsOf } from '$core/cladding/kit';
	import { measuresFor } from '$core/limit/measures';
	import { limitsOfProject } from '$core/limit/shipped';
	import type { Material } from '$core/project/material-schema';
	import { pathTo } from '$core/project/typed-path';
	import { formatQuantity } from '$core/units/quantity';
	import { inRadians } from '$core/units/scale';
	import { changeLimit, newLimit } from '$lib/edits/limits';
	import AddOne from '$lib/components/AddOne.svelte';
	import { useDesk } from '$lib/state/desk.svelte';

	let { material }: { material: Material } = $props();
	const desk = useDesk();
	const { document } = $derived(desk.project);
	const measures = $derived(measuresFor(partsOf(document), document));
	/** What is said of glass holds for every material that counts as glass. */
	const limits = $derived(
		limitsOfProject(document).filter(
			(limit) => limit.material === material.id || (limit.material === 'glass' && material.glass)
		)
	);
	const offers = $derived(
		measures
			.filter(({ id }) => /^(sheet|plate|glass|bar|piece)\./.test(id))
			.map(({ id, label, kind }) => ({ id, label, kind }))
	);
	const show = (id: string) => {
		desk.selection.clause = pathTo('limits', id);
		void goto(`/project/${desk.project.id}`);
	};
	function add({ id, label, kind }: (typeof offers)[number]) {
		const { limit } = newLimit(document, id, kind === 'stress' ? 20 : kind === 'mass' ? 100 : 1000);
		if (
			desk.do(
				`a limit of ${label} for ${material.label}`.slice(0, 200),
				changeLimit(document, limit, { material: material.id })
			)
		)
			show(limit.id);
	}
	const boundText = (of: string, bound: number) => {
		const kind = measures.find(({ id }) => id === of)?.kind ?? 'ratio';
		return formatQuantity(kind === 'angle' ? inRadians(bound) : bound, kind, desk.display);
	};
</script>

<ul class="mt-1 text-[12px]" aria-label="Limits of {material.label}">
	{#each limits as { id, of, than, bound, muted } (id)}
		<li class={muted ? 'text-ink-3 line-through' : 'text-ink-2'}>
			<button type="button" class="hover:text-patina-deep text-left hover:underline" onclick={() => show(id)}
				>{measures.find((one) => one.id === of)?.label ?? of}
				{than === 'most' ? '≤' : '≥'}
				<span class="figures">{boundText(of, bound)}</span></button
			>
		</li>
	{/each}
</ul>
<AddOne label="Limit" {offers} onadd={add} />
