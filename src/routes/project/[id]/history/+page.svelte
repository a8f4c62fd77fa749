<script lang="ts">
	import { hashOf } from '$core/project/hash';
	import type { Project } from '$core/project/schema';
	import { formatNumber } from '$core/units/quantity';
	import StatusLine from '$lib/frame/StatusLine.svelte';
	import TopBar from '$lib/frame/TopBar.svelte';
	import { backTo, byDay, type HistoryEntry } from '$lib/history/entries';
	import PastState from '$lib/history/PastState.svelte';
	import { fetchFiles } from '$lib/saving/fetch-files';
	import { OWN_HEADER } from '$lib/saving/line';
	import { useDesk } from '$lib/state/desk.svelte';
	import { untrack } from 'svelte';
	import { toast } from 'svelte-sonner';

	const desk = useDesk();
	const { project } = desk;
	let entries = $state.raw<readonly HistoryEntry[]>([]);
	let more = $state(true);
	let failure = $state<string | null>(null);
	let loading = $state(false);
	let chosen = $state.raw<HistoryEntry | null>(null);
	let past = $state.raw<Project | null>(null);
	const days = $derived(byDay(entries));
	const time = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit', second: '2-digit' });
	const moment = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'medium' });

	async function ask<T>(path: string): Promise<T | null> {
		const answer = await fetch(`/api/projects/${project.id}/${path}`).catch(() => null);
		const body = await answer?.json().catch(() => null);
		failure = answer?.ok ? null : (body?.message ?? 'The server does not answer');
		return answer?.ok ? (body as T) : null;
	}

	const NEWEST = 2_147_483_647;
	const page = (before: number) => ask<{ entries: HistoryEntry[] }>(`history?as=list&before=${before}`);

	/** What was done since the list was read, at its head. */
	async function loadNewer() {
		loading = entries.length === 0;
		const read = await page(NEWEST);
		loading = false;
		if (!read) return;
		const known = entries[0]?.revision ?? 0;
		const newer = read.entries.filter(({ revision }) => revision > known);
		if (newer.length === read.entries.length) {
			entries = newer;
			more = newer.length > 0 && newer.at(-1)!.revision > 1;
		} else entries = [...newer, ...entries];
	}

	async function loadOlder() {
		loading = true;
		const read = await page(entries.at(-1)!.revision);
		loading = false;
		if (!read) return;
		entries = [...entries, ...read.entries];
		more = read.entries.length > 0 && read.entries.at(-1)!.revision > 1;
	}

	async function look(entry: HistoryEntry) {
		chosen = entry;
		past = null;
		const read = await ask<{ revision: number; document: Project }>(`states/${entry.revision}`);
		if (!read) return;
		await fetchFiles(project.files, read.document);
		if (chosen?.revision === read.revision) past = read.document;
	}

	const saving = $derived(project.saveState.is);
	$effect(() => {
		void project.document;
		if (saving === 'saved') untrack(() => void loadNewer());
	});

	const isNow = $derived(past !== null && hashOf(past) === hashOf(project.kept));

	function bringBack() {
		if (!past || !chosen) return;
		const edits = backTo(project.kept, past);
		const label = `back to ${chosen.revision}: ${chosen.label}`;
		if (desk.do(label, ...edits)) toast('The project is as it was then. Undo takes this back.');
	}

	async function copy() {
		if (!chosen) return;
		const answer = await fetch(`/api/projects/${project.id}/duplicate`, {
			method: 'POST',
			headers: { 'content-type': 'application/json', ...OWN_HEADER },
			body: JSON.stringify({ revision: chosen.revision })
		}).catch(() => null);
		if (answer?.ok) toast('A copy of that state is among the projects.');
		else toast.error('The server does not answer; no copy was made');
	}
</script>

<svelte:head><title>History · {project.document.name} · Zygaster</title></svelte:head>

<div class="grid h-screen grid-rows-[46px_1fr_28px]">
	<TopBar page="History">{#snippet middle()}<span></span>{/snippet}</TopBar>
	<main class="grid min-h-0 grid-cols-[minmax(360px,440px)_1fr]">
		<section class="border-hair bg-sheet min-h-0 overflow-auto border-r" aria-label="Changes">
			{#each days as day (day.title)}
				<h2 class="border-hair bg-sheet text-ink-2 sticky top-0 border-b px-5 py-2 text-[12px] font-semibold">
					{day.title} <span class="figures font-normal">· {formatNumber(day.entries.length)}</span>
				</h2>
				<ul>
					{#each day.entries as entry (entry.revision)}
						{@const isChosen = chosen?.revision === entry.revision}
						<li>
							<button
								type="button"
								aria-pressed={isChosen}
								class="hover:bg-wash grid w-full grid-cols-[66px_1fr_auto] items-baseline gap-2 px-5 py-1.5 text-left {isChosen
									? 'bg-gold-wash shadow-[inset_3px_0_0_#D98E1F]'
									: ''}"
								onclick={() => look(entry)}
							>
								<span class="figures text-ink-2 text-[11.5px]">{time.format(new Date(entry.madeAt))}</span>
								<span class="sentence min-w-0 text-[14px]! leading-snug! break-words"
									>{#if entry.kind !== 'do'}<span class="text-ink-2"
											>{entry.kind === 'undo' ? 'taken back: ' : 'done again: '}</span
										>{/if}{entry.label}</span
								>
								<span class="text-ink-3 text-[11.5px]"
									>{entry.window === project.window ? 'here' : 'elsewhere'}</span
								>
							</button>
						</li>
					{/each}
				</ul>
			{:else}
				{#if !loading && !failure}
					<p class="sentence text-ink-2 px-6 py-10 text-center">
						Nothing was changed yet. Every change will stand here, with who made it and when.
					</p>
				{/if}
			{/each}
			{#if failure}
				<p class="text-oxide-deep px-5 py-4" role="alert">
					{failure}. <button type="button" class="underline" onclick={loadNewer}>Try again</button>
				</p>
			{:else if loading}<p class="text-ink-2 px-5 py-4">reading …</p>
			{:else if more && entries.length}
				<p class="px-5 py-4">
					<button type="button" class="plain-button" onclick={loadOlder}>Show older changes</button>
				</p>
			{/if}
		</section>
		<section class="flex min-h-0 flex-col" aria-label="The project as it was">
			{#if chosen}
				<header class="flex flex-wrap items-center gap-3 px-6 py-4">
					<div class="mr-auto min-w-0">
						<h2 class="truncate text-[20px]" style:font-family="var(--font-serif)">After “{chosen.label}”</h2>
						<p class="figures text-ink-2 text-[11.5px]">
							revision {chosen.revision} · {moment.format(new Date(chosen.madeAt))} · {chosen.author ===
							'local'
								? 'at this machine'
								: chosen.author}
						</p>
					</div>
					<button type="button" class="plain-button" onclick={copy}>Make a copy of it</button>
					<button
						type="button"
						class="main-button disabled:opacity-40"
						disabled={!past || isNow}
						onclick={bringBack}>{isNow ? 'This is how it is now' : 'Bring this state back'}</button
					>
				</header>
				<PastState document={past} />
			{:else}
				<p class="sentence text-ink-2 m-auto max-w-sm text-center">
					Choose a change to see the project as it was after it. It can be brought back, which undo takes back
					again, or copied to a project of its own.
				</p>
			{/if}
		</section>
	</main>
	<StatusLine />
</div>
