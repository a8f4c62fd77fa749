import type { Compared } from '$core/release/compare';
import type { ReleasedPieces } from '$core/release/pieces';
import type { ReleaseCard } from '$lib/protocol';
import { writtenAt } from '$core/exchange/formats';
import { fileStem, saveFile } from '$lib/components/save-file';
import { OWN_HEADER } from '$lib/saving/line';
import type { Desk } from '$lib/state/desk.svelte';

/** A side of a comparison: a release by its number, or the model as it is. */
export type Side = number | 'today';

/** The releases of the open project, and two sides that are compared. */
export class Releases {
	cards = $state.raw<readonly ReleaseCard[] | null>(null);
	failure = $state<string | null>(null);
	/** A release is being made. */
	making = $state(false);
	before = $state<number | null>(null);
	after = $state<Side>('today');
	compared = $state.raw<Compared | null>(null);
	private readonly kept = new Map<number, Promise<ReleasedPieces | null>>();
	private asked = 0;

	constructor(private readonly desk: Desk) {}

	private async ask<Answer>(path: string, init?: RequestInit): Promise<Answer | null> {
		const answer = await fetch(`/api/projects/${this.desk.project.id}/releases${path}`, init).catch(
			() => null
		);
		const body = (await answer?.json().catch(() => null)) as (Answer & { message?: string }) | null;
		this.failure = answer?.ok ? null : (body?.message ?? 'The server does not answer');
		return answer?.ok ? body : null;
	}

	async load(): Promise<void> {
		const read = await this.ask<{ releases: ReleaseCard[] }>('');
		if (!read) return;
		this.cards = read.releases;
		this.before ??= read.releases[0]?.number ?? null;
	}

	/** Whether papers of some release are still being written. */
	get writing(): boolean {
		return (this.cards ?? []).some(({ lacking }) => lacking?.is === 'coming');
	}

	/** Papers of a release that could not be written are tried once more. */
	async writeAgain(number: number): Promise<void> {
		await fetch(`/api/projects/${this.desk.project.id}/releases/${number}/papers`, {
			method: 'POST',
			headers: OWN_HEADER
		}).catch(() => null);
		await this.load();
	}

	/** @returns its number, where it was made */
	async make(note: string): Promise<number | null> {
		this.making = true;
		try {
			const made = await this.ask<{ number: number }>('', {
				method: 'POST',
				headers: { 'content-type': 'application/json', ...OWN_HEADER },
				body: JSON.stringify({ revision: this.desk.project.revision, note })
			});
			if (!made) return null;
			this.before = made.number;
			this.after = 'today';
			await this.load();
			return made.number;
		} finally {
			this.making = false;
		}
	}

	/** What was released never changes: it is fetched once. */
	pieces(number: number): Promise<ReleasedPieces | null> {
		const known = this.kept.get(number) ?? this.ask<ReleasedPieces>(`/${number}`);
		this.kept.set(number, known);
		void known.then((pieces) => pieces || this.kept.delete(number));
		return known;
	}

	/** Compare the two sides as they are chosen. */
	async compare(): Promise<void> {
		const { before, after } = this;
		const own = ++this.asked;
		if (before === null) {
			this.compared = null;
			return;
		}
		const [first, second] = await Promise.all([
			this.pieces(before),
			after === 'today' ? null : this.pieces(after)
		]);
		if (own !== this.asked || !first || (after !== 'today' && !second)) return;
		const compared = await this.desk.model.service
			.compareReleases(first, second)
			// Another model is being made: it is compared when it stands.
			.catch(() => null);
		if (compared && own === this.asked) this.compared = compared;
	}

	/** What differs as a workbook. */
	async write(): Promise<void> {
		const { before, after, compared } = this;
		if (!compared) return;
		const { differencesFile } = await import('./differences-file');
		saveFile(
			`${fileStem(this.desk.project.document.name)}-release-${before}-${after}.xlsx`,
			await differencesFile(compared, writtenAt()),
			'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet'
		);
	}
}
