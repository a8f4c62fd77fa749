<script lang="ts">
	import { lookings, paperNames } from '$core/project/drawings-schema';
	import type { Page } from '$core/drawing/drawing';
	import { insertAt, pathTo } from '$core/project/typed-path';
	import AddOne from '$lib/components/AddOne.svelte';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import Plus from '@lucide/svelte/icons/plus';
	import { LayingOut } from '$lib/drawings/laying-out.svelte';
	import OwnSheetBar from '$lib/drawings/OwnSheetBar.svelte';
	import OwnSheetLayer from '$lib/drawings/OwnSheetLayer.svelte';
	import DrawnPage from '$lib/drawings/DrawnPage.svelte';
	import { middleOf } from '$lib/drawings/middle';
	import SectionWords from '$lib/drawings/SectionWords.svelte';
	import SheetList from '$lib/drawings/SheetList.svelte';
	import WriteMenu from '$lib/drawings/WriteMenu.svelte';
	import TitleBlockLines from '$lib/drawings/TitleBlockLines.svelte';
	import { SheetWriter } from '$lib/drawings/writer.svelte';
	import { freshId } from '$lib/edits/fresh-id';
	import StatusLine from '$lib/frame/StatusLine.svelte';
	import TopBar from '$lib/frame/TopBar.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import type { ListedSheet } from '$lib/worker/drawings';
	import { Releases } from '$lib/releases/releases.svelte';
	import { onMount, untrack } from 'svelte';

	const desk = useDesk();
	const releases = new Releases(desk);
	onMount(() => void releases.load());
	const writer = new SheetWriter(desk);
	let sheets = $state.raw<readonly ListedSheet[]>([]);
	let number = $state('A-01');
	let pages = $state.raw<readonly Page[]>([]);
	/** Which of the pages of the sheet is looked at. */
	let at = $state(0);
	/** How large it is shown: 1 fits the room. */
	let near = $state(1);
	let failure = $state<string | null>(null);
	const shown = $derived(sheets.find((one) => one.number === number) ?? sheets[0] ?? null);
	const page = $derived(pages[Math.min(at, pages.length - 1)] ?? null);
	const papers = paperNames.map((value) => ({ value, label: value }));

	const day = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium' });
	const dayOf = (moment: string) => day.format(new Date(moment));
	/** What leads to the releases. */
	const releasesTold = $derived.by(() => {
		const [newest] = releases.cards ?? [];
		return newest ? `Releases: ${newest.number}, the last of ${dayOf(newest.madeAt)}` : 'Releases: none yet';
	});
	/** Counts up whenever sheets are others than they were. */
	let revision = $state(0);
	$effect(() => {
		void desk.model.runs;
		if (desk.model.behind) return;
		const { service } = desk.model;
		const { cloudsSince: since } = desk;
		const newest = releases.cards?.[0] ?? null;
		const clouded = async () => {
			const released = since === null ? null : await releases.pieces(since);
			const clouds = released && { released, since: `release ${since}` };
			await service.drawAfter({ last: newest && `${newest.number}, ${dayOf(newest.madeAt)}`, clouds });
			sheets = await service.sheets();
			revision++;
		};
		// Another model is being made: its sheets are asked for when it stands.
		untrack(() => void clouded().catch(() => null));
	});
	const cloudChoices = $derived([
		{ value: '', label: 'no clouds' },
		...(releases.cards ?? []).map(({ number: n }) => ({
			value: String(n),
			label: `clouds where they differ from release ${n}`
		}))
	]);
	const sections = $derived(desk.project.document.drawings.sections);
	const sectionOffers = lookings.map((looking) => ({ label: `looking ${looking}`, looking }));
	/** Through the middle of all there is; where else it is to cut is said in its sentence. */
	function addSection({ looking }: (typeof sectionOffers)[number]) {
		const [x, y] = middleOf(desk.model.view.zones.flatMap(({ faces }) => faces));
		const at = Math.round(looking === 'north' || looking === 'south' ? y : x);
		const section = { id: freshId('section', sections), looking, at };
		if (
			desk.do(
				`section looking ${looking}`,
				insertAt(pathTo('drawings', 'sections'), sections.length, section)
			)
		)
			choose(`S-${String(sections.length).padStart(2, '0')}`);
	}
	const own = $derived(desk.project.document.drawings.sheets);
	/** The sheet by hand that is shown. */
	const ownSheet = $derived(shown?.group === 'own' ? (own[Number(shown.number.slice(2)) - 1] ?? null) : null);
	const laying = new LayingOut(desk, () => ownSheet);
	function addSheet() {
		const id = freshId('sheet', own);
		const sheet = { id, title: `Sheet ${own.length + 1}`, views: [], dimensions: [], written: [] };
		if (desk.do(`${sheet.title} laid out by hand`, insertAt(pathTo('drawings', 'sheets'), own.length, sheet)))
			choose(`L-${String(own.length).padStart(2, '0')}`);
	}
	/** The section that is shown. */
	const section = $derived(
		shown?.group === 'sections' ? (sections[Number(shown.number.slice(2)) - 1] ?? null) : null
	);
	let asked = 0;
	$effect(() => {
		void revision;
		if (!shown) return;
		const turn = ++asked;
		const { service } = desk.model;
		const isOwn = shown.group === 'own';
		void Promise.all([service.pages(shown.number), isOwn ? service.sheetLayout(shown.number) : null])
			.then(([made, layout]) => {
				if (turn !== asked) return;
				pages = made;
				laying.layout = layout;
				failure = null;
			})
			.catch((error: unknown) => {
				if (turn === asked) failure = `This sheet cannot be drawn: ${(error as Error).message}`;
			});
	});
	function choose(next: string) {
		number = next;
		laying.chosen = laying.measuring = null;
		untrack(() => (at = 0));
	}
	const NEAREST = 8;
	const closer = (factor: number) => (near = Math.max(1, Math.min(NEAREST, near * factor)));
</script>

<svelte:head><title>Drawings · {desk.project.document.name} · Zygaster</title></svelte:head>

<div class="grid h-screen grid-rows-[46px_1fr_28px]">
	<TopBar page="Drawings">
		{#snippet middle()}
			<p class="sentence flex h-full items-center gap-1.5 text-[14px]!">
				Sheets of <ChoiceChip
					value={desk.project.document.drawings.paper}
					options={papers}
					label="Paper"
					onchoose={(paper) => desk.set(pathTo('drawings', 'paper'), paper, `drawings on ${paper}`)}
				/>
				{#if releases.cards?.length}with <ChoiceChip
						value={String(desk.cloudsSince ?? '')}
						options={cloudChoices}
						label="Clouds"
						onchoose={(value) => (desk.cloudsSince = value ? Number(value) : null)}
					/>{/if}
				<span class="ml-3"><TitleBlockLines /></span>
				<span class="ml-3 flex items-center gap-3">
					<AddOne label="Section" offers={sectionOffers} onadd={addSection} />
					<button
						type="button"
						class="text-ink-2 hover:text-patina-deep flex items-center gap-1 py-1 font-sans text-[12px]"
						onclick={addSheet}><Plus size={13} />Sheet by hand</button
					>
				</span>
			</p>
		{/snippet}
	</TopBar>
	<main class="grid min-h-0 grid-cols-[260px_minmax(0,1fr)]">
		<div class="grid min-h-0 grid-rows-[1fr_auto]">
			<SheetList {sheets} shown={shown?.number ?? null} onchoose={choose} />
			<a
				class="border-hair bg-sheet text-patina border-t border-r px-5 py-2 text-[12.5px] hover:underline"
				href="/project/{desk.project.id}/releases">{releasesTold}</a
			>
		</div>
		<div class="grid min-h-0 grid-rows-[44px_1fr]">
			<div class="border-hair flex items-center gap-3 border-b px-4">
				{#if shown && section}<b class="font-semibold">{shown.number}</b>
					<SectionWords {section} name={shown.number} />
				{:else if shown && ownSheet}<OwnSheetBar number={shown.number} {laying} />
				{:else}<b class="truncate font-semibold">{shown ? `${shown.number} ${shown.title}` : ''}</b>{/if}
				{#if pages.length > 1}<span class="text-ink-2 flex items-center gap-1">
						<button
							type="button"
							class="plain-button"
							disabled={at === 0}
							onclick={() => at--}
							aria-label="Sheet before">‹</button
						>
						<span class="figures text-[12px]">{Math.min(at, pages.length - 1) + 1} of {pages.length}</span>
						<button
							type="button"
							class="plain-button"
							disabled={at >= pages.length - 1}
							onclick={() => at++}
							aria-label="Sheet after">›</button
						>
					</span>{/if}
				<span class="ml-auto flex items-center gap-1">
					<button
						type="button"
						class="plain-button"
						disabled={near <= 1}
						onclick={() => closer(1 / 1.5)}
						aria-label="Smaller">−</button
					>
					<button type="button" class="plain-button" disabled={near === 1} onclick={() => (near = 1)}
						>Whole sheet</button
					>
					<button
						type="button"
						class="plain-button"
						disabled={near >= NEAREST}
						onclick={() => closer(1.5)}
						aria-label="Larger">+</button
					>
				</span>
				{#if writer.share !== null}
					<span class="text-ink-2 flex items-center gap-2" role="status"
						>Writing, {Math.round(100 * writer.share)} % done
						<button type="button" class="plain-button" onclick={() => writer.end()}>Cancel</button></span
					>
				{:else if shown && page}<WriteMenu {sheets} {shown} {page} {writer} />{/if}
			</div>
			<!-- A region that scrolls has to be reached by keyboard -->
			<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
			<div
				class="bg-wash min-h-0 overflow-auto p-5"
				role="region"
				aria-label="The sheet"
				tabindex="0"
				data-testid="sheet"
				data-drawn={shown && page ? page.title : ''}
			>
				{#if failure}<p class="sentence text-oxide p-6">{failure}</p>
				{:else if !page}<p class="sentence text-ink-2 p-6">
						{desk.model.behind ? 'Computing the model …' : 'Drawing …'}
					</p>
				{:else}
					<div
						class="border-hair relative mx-auto border bg-white shadow-[0_2px_14px_rgba(30,25,10,0.16)]"
						style:aspect-ratio="{page.width} / {page.height}"
						style:width="min({near * 100}%, calc({near} * (100vh - 168px) * {page.width / page.height}))"
					>
						<DrawnPage {page} />
						{#if shown && ownSheet}<OwnSheetLayer
								number={shown.number}
								width={page.width}
								height={page.height}
								{laying}
							/>{/if}
					</div>
				{/if}
			</div>
		</div>
	</main>
	<StatusLine />
</div>
