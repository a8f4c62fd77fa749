<script lang="ts">
	import type { Project } from '$core/project/schema';
	import { counted } from '$core/units/counted';
	import { LiveModel } from '$lib/state/model.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import { onMount } from 'svelte';

	/** A document of the past, computed in a worker of its own; null while it is fetched. */
	const desk = useDesk();
	let { document }: { document: Project | null } = $props();
	const model = new LiveModel(desk.project.files);
	let picture = $state<string | null>(null);
	let pieces = $state(0);

	onMount(() => () => model.close());
	$effect(() => {
		picture = null;
		if (document) model.request(document);
	});
	$effect(() => {
		void model.runs;
		if (model.behind || !document) return;
		void model.service.picture().then((drawn) => {
			pieces = drawn.pieces;
			picture = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(drawn.picture)}`;
		});
	});
	const cells = $derived(
		model.view.zones.reduce(
			(sum, zone) => sum + zone.faces.reduce((ofZone, face) => ofZone + face.cells.count, 0),
			0
		)
	);
</script>

<div
	class="border-hair relative mx-6 min-h-0 flex-1 rounded-md border bg-[radial-gradient(120%_90%_at_50%_20%,#FBF9F3_0,#EFEADD_100%)]"
	data-testid="past"
	data-ready={picture !== null}
>
	{#if picture}
		<img src={picture} alt="The model as it was" class="absolute inset-0 size-full object-contain p-4" />
	{:else}
		<p class="text-ink-2 absolute inset-0 grid place-items-center" role="status">
			{model.failure ?? (document ? 'computing that state …' : 'reading that state …')}
		</p>
	{/if}
</div>
<p class="figures text-ink-2 px-6 py-3 text-[11.5px]">
	{#if document && picture}
		{counted(document.masses.length, 'mass', 'masses')} · {counted(document.zones.length, 'zone')} · {counted(
			cells,
			'cell'
		)} · {counted(pieces, 'piece')}{#if model.view.problems.length}
			· {model.view.problems.length === 1 ? 'one clause' : `${model.view.problems.length} clauses`} needed attention{/if}
	{:else}&nbsp;{/if}
</p>
