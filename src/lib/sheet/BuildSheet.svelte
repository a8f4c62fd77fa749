<script lang="ts">
	import { onMount, tick, untrack } from 'svelte';
	import { groupOf } from '$lib/edits/groups';
	import CompareDialog from '$lib/compare/CompareDialog.svelte';
	import { useDesk, type Lens } from '$lib/state/desk.svelte';
	import { find } from '$lib/state/selection.svelte';
	import { partOfPath, type SheetPart } from '$lib/state/sheet-state.svelte';
	import KitPart from './KitPart.svelte';
	import GroupHeading from './GroupHeading.svelte';
	import CostsPart from './CostsPart.svelte';
	import LimitsPart from './LimitsPart.svelte';
	import MassesPart from './MassesPart.svelte';
	import Outline from './Outline.svelte';
	import { clauseOf } from '$lib/state/clause-of';
	import ZonePart from './ZonePart.svelte';

	const desk = useDesk();
	const document = $derived(desk.project.document);
	const zones = $derived(document.zones);
	let list = $state<HTMLElement>();
	/** The zone whose settings are compared. */
	let comparing = $state<string | null>(null);
	const compared = $derived(zones.find((zone) => zone.id === comparing));

	/** How many parts are there: they come one by one, so that the model can be drawn in between. */
	function oneByOne(set: (count: number) => void): () => void {
		let count = 0;
		let next: ReturnType<typeof setTimeout>;
		const more = () => {
			count = count <= zones.length ? count + 1 : Infinity;
			set(count);
			if (Number.isFinite(count)) next = setTimeout(more);
		};
		next = setTimeout(more);
		return () => clearTimeout(next);
	}
	let shown = $state(0);
	onMount(() => oneByOne((count) => (shown = count)));
	/** How many folded parts are put together all the same: whoever looks for something looks for words. */
	let read = $state(0);
	$effect(() => {
		if (!desk.finding) return;
		const stop = oneByOne((count) => (read = count));
		return () => {
			stop();
			read = 0;
		};
	});

	const partAt = (part: SheetPart) => list?.querySelector(`[data-part="${CSS.escape(part)}"]`);
	function go(part: SheetPart) {
		desk.sheet.follow(part);
		if (part.startsWith('zone ')) desk.activeZone = part.slice(5);
		void tick().then(() => partAt(part)?.scrollIntoView({ block: 'start' }));
	}

	/** A lens brings the sheet to its part; nothing is hidden. */
	const lensTarget: Record<Lens, () => { part: SheetPart; within?: string }> = {
		form: () => ({ part: 'masses' }),
		'set-out': () => ({ part: `zone ${desk.activeZone}` }),
		clad: () => ({ part: `zone ${desk.activeZone}`, within: '[data-part="cladding"]' }),
		check: () => ({ part: `zone ${desk.activeZone}` }),
		issue: () => ({ part: 'kit' })
	};
	let lensSeen = desk.lens;
	untrack(() => desk.sheet.follow(lensTarget[lensSeen]().part));
	$effect(() => {
		const { lens } = desk;
		if (lens === lensSeen) return;
		lensSeen = lens;
		if (desk.turned) {
			desk.turned = false;
			return;
		}
		const { part, within } = untrack(lensTarget[lens]);
		desk.sheet.follow(part);
		void tick().then(() => {
			const at = partAt(part);
			(within ? at?.querySelector(within) : at)?.scrollIntoView({ block: 'start' });
		});
	});
	/** The clause that is worked on is in sight. It may be on a part that is still to come. */
	$effect(() => {
		const path = desk.selection.clause;
		void shown;
		if (!path) return;
		untrack(() => desk.sheet.follow(partOfPath(path)));
		void tick().then(() =>
			list?.querySelector(`[data-clause="${CSS.escape(path)}"]`)?.scrollIntoView({ block: 'nearest' })
		);
	});
	/**
	 * What is chosen in the model, on the map or in the schedule brings the clause that put it there; what a clause of
	 * the sheet chooses leaves one there.
	 */
	$effect(() => {
		const { last } = desk.selection;
		if (!last || list?.contains(globalThis.document.activeElement)) return;
		untrack(() => {
			const found = find(desk.model.view, last);
			const path = found && clauseOf(desk.model.view, zones, found);
			if (path) desk.selection.clause = path;
		});
	});

	/** Which pieces are alike, and what they cost, is known of every model that stands, once nothing more of it comes. */
	const QUIET = 400;
	$effect(() => {
		const { view, behind } = desk.model;
		const { like, cost, heat } = document;
		if (behind || view.partial) return;
		let left = false;
		const later = setTimeout(async () => {
			await desk.kinds.look(like, () => left);
			if (!left) await desk.totals.look({ cost, like, heat }, () => left);
		}, QUIET);
		return () => {
			left = true;
			clearTimeout(later);
		};
	});

	/** The part that is worked on, while it is in sight; else the one that takes most of it. */
	let now = $state<SheetPart>('masses');
	const LEAST_SEEN = 80;
	let looking = 0;
	function look() {
		cancelAnimationFrame(looking);
		looking = requestAnimationFrame(() => {
			if (!list) return;
			const { top, bottom } = list.getBoundingClientRect();
			let most = 0;
			for (const part of list.querySelectorAll<HTMLElement>(':scope > [data-part]')) {
				const box = part.getBoundingClientRect();
				const seen = Math.min(bottom, box.bottom) - Math.max(top, box.top);
				const name = part.dataset['part'] as SheetPart;
				const weight = name === desk.sheet.followed && seen > LEAST_SEEN ? Infinity : seen;
				if (weight > most) [most, now] = [weight, name];
			}
		});
	}
	$effect(() => {
		void [shown, desk.sheet.open];
		look();
	});
</script>

<section
	class="bg-sheet h-full overflow-auto pb-24"
	aria-label="Build sheet"
	bind:this={list}
	data-testid="sheet"
	onscroll={look}
>
	<Outline {now} ongo={go} />
	<MassesPart read={read > 0} />
	{#each zones.slice(0, shown) as zone, index (zone.id)}
		{@const group = groupOf(document, 'zones', zone.id)}
		{@const before = groupOf(document, 'zones', zones[index - 1]?.id ?? '')}
		{#if before && !group}<div class="border-hair border-t"></div>{/if}
		{#if group && before !== group}
			<GroupHeading {group} list="zones" />
		{/if}
		{#if !group || !desk.sheet.isGroupFolded('zones', group.id) || desk.sheet.followed === `zone ${zone.id}` || read > index + 1}
			<ZonePart {zone} {index} read={read > index + 1} oncompare={() => (comparing = zone.id)} />
		{/if}
	{/each}
	{#if shown > zones.length}<KitPart number={zones.length + 2} read={read > zones.length} />
		<LimitsPart number={zones.length + 3} read={read > zones.length} />
		<CostsPart number={zones.length + 4} read={read > zones.length} />{/if}
</section>
{#if compared}<CompareDialog zone={compared} onleave={() => (comparing = null)} />{/if}
