import type { Difference } from '$core/release/compare';
import type { PartnerAnswers, PartnerId } from '$lib/protocol';
import { partnerName } from '$lib/state/partners.svelte';
import type { Told, ToldWord } from '$lib/state/told-colours.svelte';

/** What a difference is shown as: the first that fits. */
const differenceWords: readonly (ToldWord & { readonly is: (one: Difference) => boolean })[] = [
	{ label: 'added', colour: '#4F8C7B', is: ({ is }) => is === 'added' },
	{
		label: 'another size, angle or mass',
		colour: '#D98E1F',
		is: ({ what }) => what.some((one) => one === 'size' || one === 'angle' || one === 'mass')
	},
	{
		label: 'another part or material',
		colour: '#8C6FA5',
		is: ({ what }) => what.some((one) => one === 'part' || one === 'variant' || one === 'material')
	},
	{ label: 'moved only', colour: '#6C93B8', is: ({ what }) => what.includes('place') },
	{ label: 'another mark only', colour: '#C2AE6D', is: () => true }
];

/** A comparison as colours of the model: of what is still in it. */
export function differencesTold(title: string, differences: readonly Difference[]): Told {
	return {
		title,
		words: differenceWords,
		pieces: differences
			.filter(({ is }) => is !== 'removed')
			.map((one) => ({ address: one.address, word: differenceWords.findIndex(({ is }) => is(one)) }))
	};
}

const answerWords: Readonly<Record<PartnerAnswers['is'][number], ToldWord>> = {
	refused: { label: 'refused', colour: '#C4563F' },
	accepted: { label: 'accepted', colour: '#D9CBA6' },
	made: { label: 'made', colour: '#E2A95B' },
	delivered: { label: 'delivered', colour: '#7FA8C4' },
	set: { label: 'set', colour: '#4F8C7B' }
};
const order = ['refused', 'accepted', 'made', 'delivered', 'set'] as const;

/** What a partner says of a release as colours of the model. */
export function answersTold(partner: PartnerId, number: number, answers: PartnerAnswers): Told {
	const said = new Set(answers.is);
	const words = order.filter((word) => said.has(word));
	return {
		title: `Release ${number} at the ${partnerName(partner)}`,
		words: words.map((word) => answerWords[word]),
		pieces: answers.address.map((address, k) => ({
			address,
			word: words.indexOf(answers.is[k]!)
		}))
	};
}
