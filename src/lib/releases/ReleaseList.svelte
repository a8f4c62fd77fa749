<script lang="ts">
	/** The releases of a project, and the next one. */
	import { MOST_RELEASE_NOTE, paperKinds } from '$lib/protocol';
	import { counted } from '$core/units/counted';
	import { formatQuantity } from '$core/units/quantity';
	import { useDesk } from '$lib/state/desk.svelte';
	import { freezeMarks } from '$lib/schedule/freeze-marks';
	import { toast } from 'svelte-sonner';
	import PartnerRows from './PartnerRows.svelte';
	import type { Releases } from './releases.svelte';

	let { releases }: { releases: Releases } = $props();
	const desk = useDesk();
	let note = $state('');
	/** Marks are to stay from this release on. */
	let freezes = $state(false);
	const frozen = $derived(desk.project.document.marks.frozen !== null);
	const day = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' });
	const saved = $derived(desk.project.saveState.is === 'saved');
	const megabytes = (bytes: number) => (bytes / 1e6).toFixed(bytes < 1e6 ? 2 : 1);
	/** Between two looks whether papers are written (ms). */
	const LOOK = 3000;
	$effect(() => {
		if (!releases.writing) return;
		const timer = setInterval(() => void releases.load(), LOOK);
		return () => clearInterval(timer);
	});
	async function make() {
		const number = await releases.make(note.trim());
		if (number === null) return;
		note = '';
		if (freezes) await freezeMarks(desk);
		freezes = false;
		toast(`Release ${number} is made, and will never change`);
	}
</script>

<section class="border-hair bg-sheet min-h-0 overflow-auto border-r px-5 py-4" aria-label="Releases">
	<form
		onsubmit={(event) => {
			event.preventDefault();
			void make();
		}}
	>
		<label class="text-ink-2 text-[12px] font-semibold" for="release-note">What the next release is for</label
		>
		<textarea
			id="release-note"
			class="border-hair mt-1 block w-full rounded border bg-white px-2 py-1.5 text-[13px]"
			rows="2"
			maxlength={MOST_RELEASE_NOTE}
			placeholder="Issued for tender"
			bind:value={note}></textarea>
		<label class="mt-2 flex items-center gap-2 text-[13px]"
			><input type="checkbox" class="accent-patina" bind:checked={freezes} />
			{frozen ? 'Freeze the marks of what came since, too' : 'Freeze all marks from then on'}</label
		>
		<div class="mt-2 flex items-center gap-3">
			<button type="submit" class="main-button" disabled={releases.making || !saved}
				>{releases.making ? 'Releasing …' : 'Release as it stands'}</button
			>
			{#if !saved}<span class="text-ink-2 text-[12px]">once all is saved</span>{/if}
		</div>
		{#if releases.failure}<p class="text-oxide mt-2 text-[13px]" role="alert">{releases.failure}</p>{/if}
	</form>
	<ul class="mt-5">
		{#each releases.cards ?? [] as { number, madeAt, note: said, pieces, summary, papers, lacking } (number)}
			<li>
				<button
					type="button"
					aria-pressed={releases.before === number}
					class={[
						'mb-1.5 w-full rounded px-3 py-2 text-left',
						releases.before === number
							? 'bg-gold-wash shadow-[inset_0_0_0_1px_#D98E1F]'
							: 'hover:bg-wash border-hair border'
					]}
					onclick={() => (releases.before = number)}
				>
					<span class="flex items-baseline justify-between gap-2"
						><b class="font-semibold">Release {number}</b><span class="text-ink-2 text-[11.5px]"
							>{day.format(new Date(madeAt))}</span
						></span
					>
					{#if said}<span class="sentence block text-[14px]! leading-snug! break-words">{said}</span>{/if}
					<span class="figures text-ink-2 text-[11.5px]"
						>{counted(pieces, 'piece')} · {formatQuantity(summary.mass_kg, 'mass')} · {counted(
							summary.flags,
							'flag'
						)}</span
					>
				</button>
				{#if releases.before === number}
					{#each papers as { kind, size } (kind)}
						{@const { label, format } = paperKinds.find((one) => one.kind === kind)!}
						<a
							class="text-patina mb-1 flex justify-between px-3 text-[12.5px] hover:underline"
							href="/api/projects/{desk.project.id}/releases/{number}/papers/{kind}"
							download
							>{label} as they were released ({format.toUpperCase()})<span
								class="figures text-ink-2 text-[11.5px]">{megabytes(size)} MB</span
							></a
						>
					{/each}
					{#if lacking}<p
							class={['mb-1 px-3 text-[12.5px]', lacking.is === 'failed' ? 'text-oxide' : 'text-ink-2']}
							role="status"
						>
							{lacking.says}{lacking.is === 'coming' ? ' …' : '.'}
							{#if lacking.is === 'failed'}<button
									type="button"
									class="plain-button"
									onclick={() => void releases.writeAgain(number)}>Try again</button
								>{/if}
						</p>{/if}
					<a
						class="text-patina mb-2 block px-3 text-[12.5px] hover:underline"
						href="/api/projects/{desk.project.id}/releases/{number}/file"
						download>Release file for partners (JSON)</a
					>
					<PartnerRows {number} />{/if}
			</li>
		{:else}
			{#if releases.cards}<li class="sentence text-ink-2 text-[14px]!">
					None yet. A release is a dated copy of all pieces that nobody can change; what comes after is
					compared with it.
				</li>{/if}
		{/each}
	</ul>
</section>
