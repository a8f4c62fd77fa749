<script lang="ts">
	/** Pieces that reach into each other: what was found, by the parts they are, to be walked and kept as intended. */
	import X from '@lucide/svelte/icons/x';
	import { formatLength, formatNumber } from '$core/units/quantity';
	import { insertAt, pathTo, removeAt } from '$core/project/typed-path';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import { twoOf, type ClashesOfTwo } from '$lib/state/clash-search.svelte';

	const desk = useDesk();
	const search = desk.clashes;
	const said = $derived(desk.project.document.clashes);
	/** Those that are intended, by their two variants. */
	const intended = $derived(new Map(said.intended.map(({ id, one, other }) => [twoOf(one, other), id])));
	const told = $derived(search.byTwo.filter(({ id }) => !intended.has(id)));
	const meant = $derived(search.byTwo.filter(({ id }) => intended.has(id)));
	const total = $derived(told.reduce((sum, { clashes }) => sum + clashes.length, 0));
	let walked = $state.raw<{ readonly id: string; readonly at: number } | null>(null);

	const nameOf = ({ one, other }: ClashesOfTwo) =>
		`${one.part} · ${one.variant} and ${other.part} · ${other.variant}`;
	const depth = (mm: number) => formatLength(mm, desk.display, 0);

	/** All of them are marked, or those of the two that are pointed at; none beside the one that is walked to. */
	function mark(only: readonly ClashesOfTwo[] = walked ? [] : told) {
		search.marked = search.sitesOf(only.flatMap(({ clashes }) => clashes));
	}
	$effect(() => {
		mark();
		return () => (search.marked = []);
	});

	function walk(two: ClashesOfTwo, at: number) {
		const n = two.clashes.length;
		const clash = two.clashes[(at + n) % n]!;
		walked = { id: two.id, at: (at + n) % n };
		const { one, other } = search.found!;
		desk.selection.choose([one[clash]!, other[clash]!].flatMap((k) => search.piece(k)?.address ?? []));
		desk.framings++;
	}
	function intend(two: ClashesOfTwo, on: boolean) {
		const list = pathTo('clashes', 'intended');
		const id = `intended-${crypto.randomUUID().slice(0, 8)}`;
		const value = { id, one: two.one.variantId, other: two.other.variantId };
		desk.do(
			`${nameOf(two)} ${on ? 'are meant to' : 'are not meant to'} reach into each other`.slice(0, 200),
			on
				? insertAt(list, said.intended.length, value)
				: removeAt(pathTo('clashes', 'intended', intended.get(two.id)!))
		);
	}
</script>

<aside
	class="floating absolute top-[70px] left-3.5 z-10 max-h-[calc(100%-120px)] w-[300px] overflow-auto px-3.5 py-3 text-[12.5px] max-xl:max-h-[calc(100%-150px)]"
	aria-label="Clashes"
	data-testid="clashes"
>
	<h3 class="flex items-start justify-between gap-2 text-[13.5px] font-semibold">
		Clashes
		<button
			type="button"
			class="text-ink-2 hover:bg-wash rounded"
			aria-label="Close the clashes"
			onclick={() => search.close()}><X size={14} /></button
		>
	</h3>
	<p class="sentence text-[14px]!">
		Pieces that reach into each other by more than <ValueChip
			path={pathTo('clashes', 'deeper')}
			value={said.deeper}
			kind="length"
			label="Depth"
			of="Clashes"
			step={1}
			min={0.1}
		/>, joints of bars at nodes left out.
	</p>
	{#if search.share !== null}
		<p class="mt-2 flex items-center gap-2" role="status">
			<progress class="h-1 w-32" max="1" value={search.share} aria-label="Looking for clashes"></progress>
			looking …
			<button type="button" class="underline" onclick={() => search.end()}>Cancel</button>
		</p>
	{:else}
		<p class="mt-2" role="status">
			{#if search.failure}<span class="text-oxide">The search stopped: {search.failure}.</span>
			{:else if search.isBehind}<span class="text-oxide">The model has changed since.</span>
			{:else if search.found}{total
					? `${formatNumber(total)} ${total === 1 ? 'clash' : 'clashes'}`
					: meant.length
						? 'None but those that are intended'
						: 'None: nothing reaches into anything else'}.{/if}
			<button type="button" class="plain-button ml-1" onclick={() => search.look(said.deeper)}
				>{search.found ? 'Look again' : 'Look'}</button
			>
		</p>
	{/if}
	{#snippet row(two: ClashesOfTwo, on: boolean)}
		<li class="border-hair border-t py-1.5" onpointerenter={() => mark([two])} onpointerleave={() => mark()}>
			<button
				type="button"
				class="hover:text-patina-deep block w-full text-left leading-snug"
				onfocus={() => mark([two])}
				onblur={() => mark()}
				onclick={() => walk(two, walked?.id === two.id ? walked.at + 1 : 0)}
				><span>{two.one.part} · {two.one.variant}</span>
				<span class="text-ink-2">and</span>
				{two.other.part} · {two.other.variant}</button
			>
			<p class="figures text-ink-2 flex items-center justify-between gap-2 text-[11.5px]">
				<span>{formatNumber(two.clashes.length)}, deepest {depth(two.deepest)}</span>
				<button type="button" class="font-sans underline" onclick={() => intend(two, !on)}
					>{on ? 'tell of them' : 'intended'}</button
				>
			</p>
			{#if walked?.id === two.id}
				<p class="figures text-patina-deep flex items-center gap-1 text-[11.5px]">
					<button
						type="button"
						class="hover:bg-wash rounded px-1"
						aria-label="The clash before"
						onclick={() => walk(two, walked!.at - 1)}>‹</button
					>
					{formatNumber(walked.at + 1)} of {formatNumber(two.clashes.length)}
					<button
						type="button"
						class="hover:bg-wash rounded px-1"
						aria-label="The next clash"
						onclick={() => walk(two, walked!.at + 1)}>›</button
					>
					<span class="ml-1">{depth(search.found!.depth[two.clashes[walked.at]!] ?? 0)} deep</span>
				</p>
			{/if}
		</li>
	{/snippet}
	{#if told.length}<ul class="mt-2" aria-label="Parts that clash">
			{#each told as two (two.id)}{@render row(two, false)}{/each}
		</ul>{/if}
	{#if meant.length}
		<h4 class="text-ink-2 mt-3 text-[11.5px]">Intended</h4>
		<ul aria-label="Parts that are meant to reach into each other">
			{#each meant as two (two.id)}{@render row(two, true)}{/each}
		</ul>
	{/if}
</aside>
