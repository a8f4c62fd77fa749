<script lang="ts">
	/** What would bring pieces inside a limit: each is tried in the model's thread before it is offered. */
	import { worstBeyond } from '$core/cladding/flag-table';
	import { partsOf } from '$core/cladding/kit';
	import { measuresFor } from '$core/limit/measures';
	import { applyEdits } from '$core/project/commands';
	import type { Limit } from '$core/project/limit-schema';
	import { counted } from '$core/units/counted';
	import { formatNumber } from '$core/units/quantity';
	import { fixesFor, type Fix } from '$lib/edits/fixes';
	import { useDesk } from '$lib/state/desk.svelte';
	import type { ProjectTrial } from '$lib/worker/trials';

	interface Props {
		/** The id of the zone whose pieces they are. */
		zone: string;
		limit: Limit;
	}
	let { zone: id, limit }: Props = $props();
	const desk = useDesk();
	/** Flags that are worse than this are no share of a bound. */
	const NO_SHARE = 1e5;
	const OTHERWISE = 1.5;
	const MOST_SHARE = 6;

	const zone = $derived(desk.project.document.zones.find((one) => one.id === id));
	const measure = $derived(
		measuresFor(partsOf(desk.project.document), desk.project.document).find((one) => one.id === limit.of)
	);
	const groups = $derived(
		(desk.model.view.zones.find((one) => one.id === id)?.groups ?? [])
			.map(({ variantId, flags }) => ({ variantId, ...worstBeyond(flags, limit.id) }))
			.filter(({ rows }) => rows.length)
	);
	const count = $derived(groups.reduce((sum, { rows }) => sum + rows.length, 0));
	const share = $derived.by(() => {
		const badness = groups.flatMap((group) => group.badness).filter((one) => one < NO_SHARE);
		const worst = badness.length ? Math.max(...badness) : OTHERWISE - 1;
		return Math.min(MOST_SHARE, limit.than === 'most' ? 1 + worst : 1 / Math.max(1 / MOST_SHARE, 1 - worst));
	});
	const fixes = $derived.by(() => {
		if (!zone || !measure || !groups.length) return [];
		const variants = desk.project.document.variants.filter((variant) =>
			groups.some(({ variantId }) => variantId === variant.id)
		);
		return fixesFor(desk.project.document, zone, limit, measure.kind, share, variants, desk.display);
	});
	let asked = $state(false);
	let results = $state.raw<ReadonlyMap<string, ProjectTrial>>(new Map());
	let ended = $state(false);

	async function tryAll() {
		asked = true;
		const { kept } = desk.project;
		for (const { label, edits } of fixes) {
			const result = await desk.model.service
				.tryOut(applyEdits(kept, edits).project, id, limit.id)
				.catch((error: Error): ProjectTrial => ({ problem: error.message }));
			// Another edit has come: what was tried is of a project that is not there any more.
			if (!result || desk.project.kept !== kept) return (ended = true);
			results = new Map([...results, [label, result]]);
		}
	}
	const take = ({ label, edits }: Fix) => desk.do(`${zone!.name}: ${label}`, ...edits);
</script>

{#if fixes.length}
	<div class="mt-1 text-[12px]" data-testid="bring-inside">
		{#if !asked}
			<button
				type="button"
				class="text-patina-deep text-left underline decoration-dotted underline-offset-2"
				onclick={tryAll}
				>What would bring the {measure?.label}{count === 1 ? '' : ` of these ${formatNumber(count)}`} inside?</button
			>
		{:else}
			<ul
				class="border-hair grid gap-y-1.5 border-l-2 pl-2"
				aria-label="What would bring the {measure?.label} inside"
			>
				{#each fixes as fix (fix.label)}
					{@const result = results.get(fix.label)}
					<li>
						<span class="block first-letter:uppercase">{fix.label}</span>
						{#if !result}<span class="text-ink-2" role="status"
								>{ended ? 'not tried: another edit came' : 'being tried …'}</span
							>
						{:else if 'problem' in result}<span class="text-oxide">{result.problem}.</span>
						{:else}
							<span class="text-ink-2 block"
								><b class={['figures font-semibold', result.beyond === 0 ? 'text-patina-deep' : 'text-ink']}
									>{formatNumber(result.beyond)} of {formatNumber(count)}</b
								>
								left beyond it, of {counted(result.pieces, 'piece')}{#if result.flagged > result.beyond}; {formatNumber(
										result.flagged
									)}
									flagged in all{/if}</span
							>
							<button type="button" class="text-patina-deep font-medium underline" onclick={() => take(fix)}
								>Take it</button
							>
						{/if}
					</li>
				{/each}
			</ul>
		{/if}
	</div>
{/if}
