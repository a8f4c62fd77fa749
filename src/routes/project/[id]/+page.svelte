<script lang="ts">
	import CheckPanel from '$lib/check/CheckPanel.svelte';
	import { listenToKeys } from '$lib/frame/keys';
	import SelectionCard from '$lib/card/SelectionCard.svelte';
	import SkipLinks from '$lib/frame/SkipLinks.svelte';
	import StatusLine from '$lib/frame/StatusLine.svelte';
	import TopBar from '$lib/frame/TopBar.svelte';
	import IssuePanel from '$lib/schedule/IssuePanel.svelte';
	import FaceCard from '$lib/form/FaceCard.svelte';
	import SurfacePanel from '$lib/form/SurfacePanel.svelte';
	import FlatMap from '$lib/map/FlatMap.svelte';
	import { walk } from '$lib/map/walk';
	import ModelView from '$lib/model/ModelView.svelte';
	import BuildSheet from '$lib/sheet/BuildSheet.svelte';
	import NextAct from '$lib/start/NextAct.svelte';
	import StartOffers from '$lib/start/StartOffers.svelte';
	import { lenses, useDesk } from '$lib/state/desk.svelte';
	import { goto } from '$app/navigation';
	import Pin from '@lucide/svelte/icons/pin';
	import { pathTo } from '$core/project/typed-path';
	import { viewNames } from '$lib/model/eye';
	import { Pane, PaneGroup, PaneResizer } from 'paneforge';
	import { onMount } from 'svelte';

	const desk = useDesk();
	let model = $state<ReturnType<typeof ModelView>>();
	let card = $state<ReturnType<typeof SelectionCard>>();
	/** The sheet is as wide as its sentences want, until somebody drags it; of a hundred. */
	const sheetShare = (100 * (innerWidth < 1024 ? 340 : 392)) / innerWidth;
	/** The map has all of the room. */
	const alone = $derived(desk.mapAlone && desk.begun);
	/** Where nothing stands there is nothing to lay flat. */
	const hasMap = $derived(desk.mapShown && desk.project.document.masses.length > 0);
	/** In the order of their keys. */
	const ways = ['left', 'right', 'up', 'down'] as const;

	/** Escape leaves one thing at a time: drawing, what is shown alone, what is chosen, the clause. */
	function leave() {
		const { selection } = desk;
		if (desk.drawsGuide) desk.drawsGuide = false;
		else if (model?.leaveMeasuring()) return;
		else if (desk.isolated) desk.isolated = null;
		else if (selection.addresses.length || selection.faces.length) selection.clear();
		else selection.clause = null;
	}

	/** From the page to the first value of the clause that is worked on, or of the sheet. */
	function toClause() {
		const { clause } = desk.selection;
		const at = clause ? `[data-clause="${CSS.escape(clause)}"]` : '[data-clause]';
		const chip = document.querySelector<HTMLElement>(`${at} :is(.chip-choice, .chip-name, button)`);
		chip?.focus();
		chip?.scrollIntoView({ block: 'nearest' });
	}

	/** To what is offered over the model, or else at the end of the zone on the map. */
	function toNext() {
		const offers = [
			'[aria-label="Next"]',
			'[aria-label="Ways to start"]',
			`[data-part="zone ${desk.activeZone}"]`
		];
		for (const place of offers) {
			const offer = document.querySelector<HTMLElement>(`${place} :is(.chip-offer, li > button)`);
			if (!offer) continue;
			offer.focus();
			return;
		}
	}

	onMount(() =>
		listenToKeys({
			lens: (which) => (desk.lens = lenses[which]!.id),
			frame: () => model?.frameSelection(),
			whole: () => model?.home(),
			look: (which) => model?.look(viewNames[which]!),
			turn: (which) => model?.turn(ways[which]!),
			nearer: (which) => model?.nearer(which === 0),
			pin: () => (desk.pinned = !desk.pinned),
			hide: (which) => {
				if (which === 1) desk.visibility.showAll();
				else if (desk.activeZone) desk.visibility.toggle('zones', desk.activeZone);
			},
			lock: () => desk.activeZone && desk.visibility.lock(pathTo('zones', desk.activeZone)),
			next: toNext,
			clause: toClause,
			schedule: () => void goto(`/project/${desk.project.id}/schedule`),
			walk: (which) => walk(desk, ways[which % ways.length]!, which >= ways.length),
			alone: () => desk.isolate(),
			byHand: () => card?.chooseException(),
			section: () => model?.toggleSection(),
			measure: () => (desk.measures = !desk.measures),
			hold: (which) => {
				if (which === 1) desk.model.runOnce();
				else desk.model.hold(!desk.model.held);
			},
			flags: (which) => desk.walkFlags(which === 0 ? 1 : -1),
			labels: () => (desk.labels = !desk.labels),
			map: () => (desk.mapShown = !desk.mapShown),
			mapAlone: () => (desk.mapAlone = !desk.mapAlone),
			leave
		})
	);
</script>

<svelte:head><title>{desk.project.document.name} · Zygaster</title></svelte:head>

<div class="relative grid h-screen grid-rows-[46px_1fr_28px]">
	<!-- The first cells come before all that can be done with them. -->
	{#if desk.begun}
		<SkipLinks />
		<TopBar>
			{#snippet middle()}
				<div class="flex h-full gap-0.5">
					<div class="flex h-full gap-0.5" role="tablist" aria-label="Lenses">
						{#each lenses as lens, k (lens.id)}
							<button
								type="button"
								role="tab"
								aria-selected={desk.lens === lens.id}
								class="flex h-full items-center gap-[7px] border-b-2 px-3 {desk.lens === lens.id
									? 'border-patina text-ink font-semibold'
									: 'text-ink-2 border-transparent font-medium'}"
								onclick={() => (desk.lens = lens.id)}
								><kbd class="key-cap max-lg:hidden">{k + 1}</kbd>{lens.label}</button
							>
						{/each}
					</div>
					<button
						type="button"
						class={[
							'mx-1 grid size-6 place-items-center self-center rounded',
							desk.pinned ? 'bg-wash text-patina-deep' : 'text-ink-3 hover:text-ink'
						]}
						aria-pressed={desk.pinned}
						aria-label="Stay in this lens"
						title={desk.pinned
							? 'Stays in this lens whatever is changed (P)'
							: 'A change brings the lens that shows it; stay here instead (P)'}
						onclick={() => (desk.pinned = !desk.pinned)}><Pin size={14} /></button
					>
				</div>
			{/snippet}
		</TopBar>
	{:else}
		<p class="border-hair bg-sheet flex items-center gap-2 border-b px-3.5 text-[14.5px] font-semibold">
			<img src="/mark.svg" alt="" class="size-5" />Zygaster
		</p>
	{/if}
	<main class="min-h-0">
		<PaneGroup direction="horizontal" autoSaveId="sheet and picture">
			<Pane defaultSize={sheetShare} minSize={18} maxSize={60} order={1} class="min-h-0">
				{#if desk.begun}<BuildSheet />{/if}
			</Pane>
			<PaneResizer class="divider" aria-label="Width of the build sheet" />
			<Pane order={2} class="min-h-0">
				<PaneGroup direction="vertical" autoSaveId="model and map">
					<!-- Hidden, not left out: how it is looked at stays. -->
					<Pane defaultSize={68} minSize={25} order={1} class="relative min-h-0 {alone ? 'hidden' : ''}">
						<ModelView bind:this={model} />
						{#if desk.begun}
							{#if !desk.project.document.masses.length}<StartOffers />
							{:else if desk.lens === 'clad' || desk.lens === 'set-out'}<NextAct />{/if}
							{#if desk.lens === 'form'}<SurfacePanel /><FaceCard />{/if}
							{#if desk.painted === 'check' && desk.lens !== 'form'}<CheckPanel />{/if}
							{#if desk.lens === 'issue' && desk.painted !== 'check'}<IssuePanel />{/if}
							{#if desk.lens !== 'form' && !desk.measures}<SelectionCard bind:this={card} />{/if}
						{/if}
					</Pane>
					{#if hasMap && !alone}
						<PaneResizer class="divider divider-level" aria-label="Height of the flat map" />
					{/if}
					{#if hasMap || alone}
						<Pane defaultSize={32} minSize={12} order={2} class="min-h-0">
							{#if desk.begun}<FlatMap />{/if}
						</Pane>
					{/if}
				</PaneGroup>
			</Pane>
		</PaneGroup>
	</main>
	{#if desk.begun}<StatusLine />{/if}
</div>
