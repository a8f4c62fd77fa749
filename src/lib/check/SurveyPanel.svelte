<script lang="ts">
	/** Points that were measured on the site: where they are in the model, what no longer fits, and the way to fit it. */
	import FilePicker from '$lib/components/FilePicker.svelte';
	import X from '@lucide/svelte/icons/x';
	import { readPoints } from '$core/exchange/csv/read-points';
	import { formatNumber, formatQuantity } from '$core/units/quantity';
	import { readLines } from '$lib/components/read-lines';
	import { fitToSurvey } from '$lib/edits/fit-to-survey';
	import { useDesk } from '$lib/state/desk.svelte';
	import { surveySteps } from '$lib/state/survey.svelte';
	import { toast } from 'svelte-sonner';
	import { untrack } from 'svelte';

	const desk = useDesk();
	const { survey } = desk;
	let input: FilePicker;
	let wrong = $state<string | null>(null);
	$effect(() => {
		void [survey.points, survey.within, desk.model.runs];
		if (!desk.model.behind && !desk.model.view.partial) untrack(() => void survey.look());
	});

	async function read(file: File) {
		try {
			survey.points = readPoints(await readLines(file, 'Survey'));
			survey.file = file.name;
			wrong = null;
		} catch (error) {
			// What was brought in before stays.
			wrong = `${file.name} cannot be taken: ${(error as Error).message}.`;
		}
	}
	const text = (mm: number) => formatQuantity(mm, 'length', desk.display);
	const found = $derived(survey.found);
	const counts = $derived.by(() => {
		const counts = surveySteps.map(() => 0);
		for (const { away } of found?.cells.flat() ?? [])
			for (const way of away) if (way >= 0) counts[surveySteps.findIndex(({ upTo }) => way <= upTo)]!++;
		return counts;
	});
	const tooFar = $derived(found ? survey.cellsBy('change', survey.gives) : []);
	const isKnown = $derived((found?.cells ?? []).flat().some(({ change }) => change.some((one) => one >= 0)));
	const furthest = $derived(
		(found?.cells ?? []).flat().reduce((most, { away }) => {
			for (const way of away) if (way > most) most = way;
			return most;
		}, 0)
	);
	const lost = $derived(
		found
			? ([
					['at no node within the distance', found.nothing],
					['between two nodes, and could mean either', found.between],
					['at a node that another point is nearer to', found.twice]
				] as const)
			: []
	);
	const LISTED = 6;
	const names = (points: readonly number[]) =>
		points
			.slice(0, LISTED)
			.map((p) => survey.points!.names[p])
			.join(', ') + (points.length > LISTED ? ` and ${formatNumber(points.length - LISTED)} more` : '');
	/** There is something to be moved. */
	const FITTED = 0.01;
	const canFit = $derived((found?.fits ?? []).some((fit) => fit && fit.ahead > FITTED));
	function fit() {
		const done = fitToSurvey(desk, found!.fits);
		if (done)
			toast(
				`${formatNumber(done.moved)} nodes stand where they were measured${done.following ? `; ${formatNumber(done.following)} are made by patterns and trims between others, and go with these` : ''}`,
				{ duration: 8000 }
			);
	}
	/** A number that is typed in the panel, while it is one. */
	function typed(event: Event, set: (value: number) => void) {
		const value = Number((event.target as HTMLInputElement).value);
		if (value > 0) set(value);
	}
</script>

<aside
	class="floating absolute top-[70px] left-3.5 z-10 max-h-[calc(100%-120px)] w-[310px] overflow-auto px-3.5 py-3 text-[12.5px] max-xl:max-h-[calc(100%-150px)]"
	aria-label="Survey"
	data-testid="survey"
>
	<h3 class="flex items-start justify-between gap-2 text-[13.5px] font-semibold">
		Survey
		<button
			type="button"
			class="text-ink-2 hover:bg-wash rounded"
			aria-label="Close the survey"
			onclick={() => (survey.shown = false)}><X size={14} /></button
		>
	</h3>
	<p class="text-ink-2 mt-1 leading-snug">
		{#if survey.file}{survey.file}: {formatNumber(survey.points!.names.length)} points{:else}Points that were
			measured on the site, as CSV or XLSX: a name and x, y, z in every line, in mm or headed “x (m)”. A point
			called by the address of a node is at that node.{/if}
	</p>
	<button type="button" class="plain-button mt-1.5" onclick={() => input.ask()}
		>{survey.file ? 'Bring in another' : 'Bring in measured points'}</button
	>
	<FilePicker bind:this={input} label="A survey" endings={['csv', 'xlsx']} onfile={(one) => void read(one)} />
	{#if wrong}<p class="text-oxide mt-1.5" role="alert">{wrong}</p>{/if}
	{#if survey.points}
		<p class="sentence mt-2 text-[14px]!">
			Points are at nodes within <input
				class="chip-input"
				type="number"
				min="1"
				step="10"
				value={survey.within}
				aria-label="How near a point has to be to its node, in mm"
				onchange={(event) => typed(event, (value) => (survey.within = value))}
			/>
			mm; joints give
			<input
				class="chip-input"
				type="number"
				min="0.5"
				step="1"
				value={survey.gives}
				aria-label="By how much a cell may change, in mm"
				onchange={(event) => typed(event, (value) => (survey.gives = value))}
			/> mm.
		</p>
		{#if !found}<p role="status" class="mt-1">looking …</p>{:else}
			<p class="mt-1" role="status">
				<b class="font-semibold">{formatNumber(found.count)} points</b> are at nodes{#if found.count}, the
					furthest
					{text(furthest)} away{/if}.
			</p>
			{#each lost as [what, points] (what)}{#if points.length}<p class="text-oxide leading-snug">
						{formatNumber(points.length)}
						{points.length === 1 ? 'is' : 'are'}
						{what}: {names(points)}.
					</p>{/if}{/each}
			{#if found.count}
				<ul class="mt-1.5" aria-label="How far corners are away">
					{#each surveySteps as { upTo, colour }, k (upTo)}{#if counts[k]}<li class="border-hair border-t">
								<button
									type="button"
									class="hover:bg-wash flex w-full items-center gap-2 px-1 py-0.5 text-left"
									title="Choose them"
									onclick={() =>
										desk.selection.choose(
											survey.cellsBy('away', surveySteps[k - 1]?.upTo ?? -1, upTo).reverse()
										)}
									><span
										class="border-ink/20 size-3 shrink-0 rounded-[2px] border"
										style:background={colour}
										aria-hidden="true"
									></span>{upTo === Infinity
										? `more than ${surveySteps[k - 1]!.upTo} mm`
										: `up to ${upTo} mm`}<span class="figures ml-auto"
										>{formatNumber(counts[k]!)} {counts[k] === 1 ? 'cell' : 'cells'}</span
									></button
								>
							</li>{/if}{/each}
				</ul>
				<p class="mt-1.5 leading-snug">
					{#if tooFar.length}<button
							type="button"
							class="text-oxide underline decoration-dotted underline-offset-2"
							onclick={() => desk.selection.choose([...tooFar].reverse())}
							>{formatNumber(tooFar.length)} {tooFar.length === 1 ? 'cell' : 'cells'}</button
						>
						{tooFar.length === 1 ? 'changes' : 'change'} by more than joints give: what was made for {tooFar.length ===
						1
							? 'it'
							: 'them'} no longer fits.{:else if isKnown}No cell whose corners were measured changes by more
						than joints give: what was made fits.{:else}No cell has two measured corners: whether what was
						made fits cannot be told.{/if}
				</p>
				<button type="button" class="main-button mt-2" disabled={!canFit} onclick={fit}
					>Fit the model to the survey</button
				>
			{/if}
		{/if}
	{/if}
</aside>

<style>
	.chip-input {
		width: 3.6em;
		border: 0;
		border-bottom: 1px solid var(--color-patina);
		background: var(--color-wash);
		font: 600 13px var(--font-mono);
		color: var(--color-patina-deep);
		padding: 0 2px;
	}
</style>
