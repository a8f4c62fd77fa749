import { OWN_HEADER } from '$lib/saving/line';
import { partners, type Partner, type PartnerAnswers, type PartnerId, type SendingCard } from '$lib/protocol';

/** A piece that a partner cannot take. */
export interface Refusal {
	readonly address: string;
	readonly mark: string;
	/** Which partner, of which release, and why: a sentence. */
	readonly told: string;
}

const LOOK_MS = 1500;
export const partnerName = (partner: PartnerId): string => partners.find(({ id }) => id === partner)!.name;

/** What partners say of the releases of a project. */
export class Partners {
	/** Those that this server knows; null until it has said so. */
	known = $state.raw<readonly Partner[] | null>(null);
	sendings = $state.raw<readonly SendingCard[]>([]);
	failure = $state<string | null>(null);
	/** What the fabricator desk refused of the newest release that it has. */
	refusals = $state.raw<readonly Refusal[]>([]);
	private refusalsOf = '';

	constructor(private readonly project: string) {}

	private async ask<Answer>(path: string, init?: RequestInit): Promise<Answer | null> {
		const answer = await fetch(`/api/projects/${this.project}/${path}`, init).catch(() => null);
		const body = (await answer?.json().catch(() => null)) as (Answer & { message?: string }) | null;
		this.failure = answer?.ok ? null : (body?.message ?? 'The server does not answer');
		return answer?.ok ? body : null;
	}

	/** How far everything is. */
	async load(): Promise<void> {
		const read = await this.ask<{ partners: Partner[]; sendings: SendingCard[] }>('sendings');
		if (!read) return;
		this.known = read.partners;
		this.sendings = read.sendings;
		await this.readRefusals();
	}

	private async readRefusals(): Promise<void> {
		const newest = this.sendings.find(({ partner }) => partner === 'desk');
		if (!newest) return;
		// Answers do not change: they are read anew when there are more.
		const of = `${newest.number} ${newest.refused}`;
		if (of === this.refusalsOf) return;
		const answers = newest.refused ? await this.answers(newest.number, 'desk') : null;
		if (newest.refused && !answers) return;
		this.refusalsOf = of;
		this.refusals = (answers?.address ?? []).flatMap((address, k) =>
			answers!.is[k] === 'refused'
				? {
						address,
						mark: answers!.mark[k]!,
						told: `Refused by the fabricator desk (release ${newest.number}): ${answers!.reason[k]}`
					}
				: []
		);
	}

	/** What a partner says of the pieces of a release. */
	answers(number: number, partner: PartnerId): Promise<PartnerAnswers | null> {
		return this.ask<PartnerAnswers>(`releases/${number}/sendings/${partner}`);
	}

	private async change(number: number, partner: PartnerId, init: RequestInit): Promise<void> {
		const done = await this.ask(`releases/${number}/sendings/${partner}`, {
			...init,
			headers: { 'content-type': 'application/json', ...OWN_HEADER }
		});
		// What went wrong is said; a look at how far all is would wipe it away.
		if (done) await this.load();
	}

	/** Send a release to a partner. */
	send(number: number, partner: PartnerId): Promise<void> {
		return this.change(number, partner, { method: 'POST' });
	}

	/** Stop a sending, or let it go on at once. */
	goOn(number: number, partner: PartnerId, goesOn: boolean): Promise<void> {
		return this.change(number, partner, { method: 'PATCH', body: JSON.stringify({ goesOn }) });
	}

	/** Look again and again while somebody looks and something may still come. @returns how to stop */
	watch(): () => void {
		let left = false;
		const look = async (): Promise<void> => {
			if (!document.hidden) await this.load();
			if (!left) timer = setTimeout(look, LOOK_MS);
		};
		let timer = setTimeout(look, 0);
		return () => {
			left = true;
			clearTimeout(timer);
		};
	}
}
