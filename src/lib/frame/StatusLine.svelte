<script lang="ts">
	import { counted } from '$core/units/counted';
	import { formatNumber } from '$core/units/quantity';
	import { useDesk } from '$lib/state/desk.svelte';
	import { modelSize } from '$lib/state/model-size';

	const desk = useDesk();
	const { model } = desk;
	const counts = $derived.by(() => {
		let cells = 0;
		let pieces = 0;
		let bars = 0;
		for (const zone of model.view.zones) {
			if (!zone.bare) cells += zone.faces.reduce((sum, face) => sum + face.cells.count, 0);
			for (const group of zone.groups) {
				if (group.over === 'line') bars += group.sites.length;
				else pieces += group.sites.length;
			}
		}
		return { cells, pieces, bars, flags: desk.flags.all.length };
	});
	/** Every piece that something is told of; the card tells of the worst. */
	const chooseFlagged = () => desk.selection.choose(desk.flags.all.map(({ address }) => address).reverse());
	/** From here on it is told what a model takes (bytes). */
	const LARGE = 100e6;
	const size = $derived(modelSize(model.view));
	const megabytes = $derived(formatNumber(Math.max(1, Math.round(size.bytes / 1e6))));
	const sizeWords = $derived(
		`${formatNumber(size.triangles)} triangles; the model takes ${megabytes} MB of this page’s memory${desk.sparing ? `; pieces that are far are drawn as their cells until you come near. Pictures and exports have all of them` : ''}`
	);
	const problems = $derived(model.view.problems.filter(({ remark }) => !remark).length);
	const remarks = $derived(model.view.problems.length - problems);
	/** What is left out and still there. */
	const hidden = $derived.by(() => {
		const { hidden } = desk.visibility;
		const { zones, masses } = desk.project.document;
		const there = (list: readonly { id: string }[], ids: readonly string[]) =>
			list.filter(({ id }) => ids.includes(id)).length;
		return (
			there(zones, hidden.zones) +
			there(masses, hidden.masses) +
			there(zones, hidden.layers) +
			hidden.kinds.length +
			hidden.lines.length
		);
	});
	const report = $derived(model.report);
	const reported = $derived(
		desk.project.document.zones.find((zone) => zone.id === report?.zone)?.name ?? 'A zone'
	);
</script>

<footer
	class="figures border-hair bg-sheet text-ink-2 flex h-7 items-center gap-4.5 border-t px-3.5 text-[11.5px]"
	data-testid="status"
	data-runs={model.runs}
	data-behind={model.behind}
>
	<span data-testid="cell-count">{counted(counts.cells, 'cell')}</span>
	<span>{counted(counts.pieces, 'piece')}</span>
	<span>{counted(counts.bars, 'bar')}</span>
	{#if counts.flags}<span class="flex items-center gap-1.5"
			><button
				type="button"
				class="text-oxide underline decoration-dotted underline-offset-2"
				title="To the worst of them; ] and [ walk on and back"
				aria-label="{counted(counts.flags, 'flag')}: to the worst"
				onclick={() => desk.walkFlags(1)}>{counted(counts.flags, 'flag')}</button
			>{#if desk.flags.at >= 0}<button
					type="button"
					class="hover:text-ink px-0.5"
					aria-label="To the flag before"
					onclick={() => desk.walkFlags(-1)}>‹</button
				><span>{formatNumber(desk.flags.at + 1)}</span><button
					type="button"
					class="hover:text-ink px-0.5"
					aria-label="To the next flag"
					onclick={() => desk.walkFlags(1)}>›</button
				><button
					type="button"
					class="hover:text-ink underline decoration-dotted underline-offset-2"
					aria-label="Choose all flagged pieces"
					onclick={chooseFlagged}>all</button
				>{/if}</span
		>{:else}<span>0 flags</span>{/if}
	{#if desk.isolated}
		<span class="text-ink"
			>{formatNumber(desk.isolated.length)} shown alone
			<button type="button" class="ml-1 underline" onclick={() => desk.isolate()}>Show all</button></span
		>
	{/if}
	{#if hidden}
		<span class="text-ink"
			>{formatNumber(hidden)} left out of the picture
			<button type="button" class="ml-1 underline" onclick={() => desk.visibility.showAll()}>Show all</button
			></span
		>
	{/if}
	{#if report}
		<span data-testid="layout-report"
			>{reported}: {formatNumber(report.kept)} addresses kept, {formatNumber(report.fresh)} new, {formatNumber(
				report.gone
			)} gone{#if report.moved}; {report.moved}
				{report.moved === 1 ? 'exception' : 'exceptions'} at their place again{/if}{#if report.waiting};
				<span class="text-oxide">{report.waiting} waiting</span>{/if}
			<button type="button" class="ml-1 underline" onclick={() => (model.report = null)}>ok</button></span
		>
	{/if}
	<span class="ml-auto flex items-center gap-3" role="status">
		{#if model.paused}
			<span class="text-oxide"
				>Computing is paused: the last time, this window did not outlive it. Mute or change what was too much,
				then</span
			>
			<button type="button" class="plain-button py-0!" onclick={() => model.resume()}>Compute</button>
		{:else if model.failure}
			<span class="text-oxide">The model stopped: {model.failure}. The last good one stays.</span>
		{:else if model.held && !model.progress}
			<span class="text-ink"
				>{model.waiting
					? `held: ${formatNumber(model.waiting)} ${model.waiting === 1 ? 'edit waits' : 'edits wait'}, the model is the one before`
					: 'held: edits are collected'}</span
			>
			{#if model.waiting}<button type="button" class="plain-button py-0!" onclick={() => model.runOnce()}
					>Run</button
				>{/if}
			<button type="button" class="underline" onclick={() => model.hold(false)}>Go on by itself</button>
		{:else if model.progress || (model.behind && !model.cancelled)}
			{#if model.progress}
				<progress
					class="h-1 w-32"
					max={model.progress.of}
					value={model.progress.done}
					aria-label={model.progress.what}
				></progress>
			{/if}
			<span>{model.progress ? `${model.progress.what} …` : 'computing …'}</span>
			<button type="button" class="underline" onclick={() => model.cancel()}>Cancel</button>
		{:else if model.cancelled}
			<span class="text-ink">Cancelled; the model shown is the one before</span>
			<button type="button" class="plain-button py-0!" onclick={() => model.resume()}>Compute</button>
		{:else if problems}
			<span class="text-oxide"
				>{problems === 1 ? 'one clause needs' : `${problems} clauses need`} attention; the last good model stays</span
			>
		{:else}
			<span class="text-patina-deep" title={sizeWords}>up to date · {formatNumber(model.view.ms, 0)} ms</span>
			{#if size.bytes > LARGE}<span title={sizeWords}>{megabytes} MB</span>{/if}
			<button
				type="button"
				class="text-ink-2 hover:text-ink underline decoration-dotted underline-offset-2"
				title="Edits are collected, and the model stays as it is until it is run (Q)"
				onclick={() => model.hold(true)}>hold</button
			>
			{#if remarks}<span>{remarks === 1 ? 'one remark' : `${formatNumber(remarks)} remarks`}</span>{/if}
		{/if}
	</span>
</footer>
