<script lang="ts">
	/** One release with the partners: what each of them says, and what can be done about it. */
	import { formatNumber } from '$core/units/quantity';
	import type { PartnerId, SendingCard } from '$lib/protocol';
	import { useDesk } from '$lib/state/desk.svelte';
	import { partnerName } from '$lib/state/partners.svelte';
	import { goto } from '$app/navigation';
	import { answersTold } from './told';

	let { number }: { number: number } = $props();
	const desk = useDesk();
	const { partners } = desk;
	let sending = $state<PartnerId | null>(null);
	const clock = new Intl.DateTimeFormat('en-GB', { timeStyle: 'medium' });
	const cardOf = (partner: PartnerId) =>
		partners.sendings.find((one) => one.number === number && one.partner === partner);

	async function send(partner: PartnerId) {
		sending = partner;
		await partners.send(number, partner);
		sending = null;
	}
	async function show(partner: PartnerId) {
		const answers = await partners.answers(number, partner);
		if (!answers) return;
		desk.showTold(answersTold(partner, number, answers));
		await goto(`/project/${desk.project.id}`);
	}
	/** How far it is, in a sentence. */
	function said({ accepted, refused, leadDays, made, delivered, set, partner }: SendingCard): string {
		const parts = [`${formatNumber(accepted)} accepted`];
		if (refused) parts.push(`${formatNumber(refused)} refused`);
		if (partner === 'site')
			parts.push(
				`${formatNumber(made)} made, ${formatNumber(delivered)} delivered, ${formatNumber(set)} set`
			);
		else if (leadDays !== null) parts.push(`ready in ${formatNumber(leadDays)} working days`);
		return parts.join(' · ');
	}
</script>

{#each partners.known ?? [] as { id: partner, address } (partner)}
	{@const card = cardOf(partner)}
	<div class="border-hair mx-3 mb-2 border-t pt-1.5 text-[12.5px]" data-testid="partner {partner}">
		<p class="flex items-baseline justify-between gap-2">
			<b class="font-semibold first-letter:uppercase">{partnerName(partner)}</b>
			<a
				class="text-ink-2 text-[11px] hover:underline"
				href={address}
				target="_blank"
				rel="noreferrer"
				title="A program of its own that ships with the application">simulated · its page</a
			>
		</p>
		{#if !card}
			<button
				type="button"
				class="plain-button mt-1"
				disabled={sending !== null}
				onclick={() => void send(partner)}
				>{sending === partner ? 'Sending …' : `Send release ${number} to it`}</button
			>
		{:else}
			{@const left = card.batches - card.answered}
			{#if left}<progress
					class="mt-1 h-1.5 w-full"
					max={card.batches}
					value={card.answered}
					aria-label="Messages that the {partnerName(partner)} has answered"
				></progress>{/if}
			<p class="figures text-[12px]">
				{said(card)}{left ? ` · ${formatNumber(left)} of ${formatNumber(card.batches)} messages to come` : ''}
			</p>
			{#if card.stopped}<p class="text-oxide">Stopped; what is not answered stays in the queue.</p>
			{:else if card.trouble}
				{@const { batches, tries, failure, nextAt } = card.trouble}
				<p class="text-oxide" role="status">
					{formatNumber(batches)}
					{batches === 1 ? 'message has' : 'messages have'} to go again: {failure}{#if tries > 1}
						({formatNumber(tries)} tries){/if}. Next at {clock.format(new Date(nextAt))}.
				</p>
			{/if}
			<p class="mt-1 flex flex-wrap gap-x-3 gap-y-1">
				{#if card.answered}<button
						type="button"
						class="text-patina hover:underline"
						onclick={() => void show(partner)}>Show in colour</button
					>{/if}
				{#if left && !card.stopped}
					{#if card.trouble}<button
							type="button"
							class="text-patina hover:underline"
							onclick={() => void partners.goOn(number, partner, true)}>Try now</button
						>{/if}
					<button
						type="button"
						class="text-patina hover:underline"
						onclick={() => void partners.goOn(number, partner, false)}>Stop</button
					>
				{:else if card.stopped}<button
						type="button"
						class="text-patina hover:underline"
						onclick={() => void partners.goOn(number, partner, true)}>Go on</button
					>{/if}
			</p>
		{/if}
	</div>
{/each}
{#if partners.failure}<p class="text-oxide mx-3 mb-2 text-[12.5px]" role="alert">{partners.failure}</p>{/if}
{#if partners.known && !partners.known.length}<p class="text-ink-2 mx-3 mb-2 text-[12px]">
		This server knows no partners: they are started with it by <code>npm start</code>.
	</p>{/if}
