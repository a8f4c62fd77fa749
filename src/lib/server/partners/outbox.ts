import { progressSteps, type Batch, type News, type PieceAnswer } from '$core/partner/message-schema';
import { filePieces } from '$core/release/file';
import type { Partner, PartnerId } from '$lib/protocol';
import { sql } from 'kysely';
import type { Database } from '../database';
import { keptPieces } from '../releases';
import { QueueLoop } from '../queue-loop';
import { askNews, sendBatch, type Wait } from './line';

export interface Patience {
	/** Messages under way at once. */
	readonly atOnce: number;
	/** For an answer (ms). */
	readonly wait: number;
	/** Before the second try (ms); twice as long before each that follows. */
	readonly pause: number;
	readonly longestPause: number;
	/** Between two looks at a queue that is empty, and between two at the news of a partner (ms). */
	readonly look: number;
}

export const usualPatience: Patience = {
	atOnce: 4,
	wait: 10_000,
	pause: 1000,
	longestPause: 300_000,
	look: 2000
};

interface Leased {
	sending_id: string;
	batch: number;
	key: string;
	from_place: number;
	to_place: number;
	tries: number;
	partner: PartnerId;
	release_id: string;
	number: number;
	project_id: string;
	made_at: Date;
	name: string;
	of: number;
}

interface Watched {
	id: string;
	partner: PartnerId;
	release_id: string;
	project_id: string;
	number: number;
	news_from: number;
}

const RANK = Object.fromEntries(progressSteps.map((step, rank) => [step, rank + 1]));
const told = (error: unknown) => (error instanceof Error ? error.message : String(error)).slice(0, 1000);

/**
 * The queue to the partners. It lies in the database: what is under way when a server ends goes out again from the
 * next, under the key it had. A message is tried until it is answered; several servers share one queue.
 */
export class Outbox {
	private readonly loop: QueueLoop;

	constructor(
		private readonly db: Database,
		private readonly known: ReadonlyMap<PartnerId, Partner>,
		private readonly patience: Patience = usualPatience
	) {
		this.loop = new QueueLoop(() => this.step(), patience.look);
	}

	start(): void {
		if (this.known.size) this.loop.start();
	}

	/** Something is to go out. */
	wake(): void {
		this.loop.wake();
	}

	/** Nothing more goes out; what is under way is broken off, and goes out again from the next server. */
	stop(): Promise<void> {
		return this.loop.stop();
	}

	private async step(): Promise<boolean> {
		let sent = 0;
		try {
			sent = await this.sendDue();
			await this.lookForNews();
		} catch (error) {
			// The database does not answer for the moment: what is leased comes back by itself.
			console.error('the queue to the partners waits:', told(error));
		}
		return sent > 0;
	}

	private get wait(): Wait {
		return { ms: this.patience.wait, ended: this.loop.ended };
	}

	/** Send what is due, some messages at once, until nothing is. @returns how many went out */
	private async sendDue(): Promise<number> {
		let sent = 0;
		let due: Leased[] = [];
		let coming: Promise<void> | null = null;
		// One that waits for an answer holds up none of the others.
		const next = async (): Promise<Leased | undefined> => {
			if (!due.length) {
				coming ??= this.lease()
					.then((leased) => void (due = leased))
					.finally(() => (coming = null));
				await coming;
			}
			return this.loop.isGoing ? due.pop() : undefined;
		};
		const runner = async (): Promise<void> => {
			for (let one = await next(); one; one = await next()) {
				await this.sendOne(one);
				sent++;
			}
		};
		await Promise.all(Array.from({ length: this.patience.atOnce }, runner));
		// What was taken and did not go out is there for whoever comes next.
		await Promise.all(due.map((one) => this.putOff(one, 0, null)));
		return sent;
	}

	/** Take messages that are due for as long as sending them may last; nobody else takes them meanwhile. */
	private async lease(): Promise<Leased[]> {
		const { atOnce, wait } = this.patience;
		const many = 4 * atOnce;
		const { rows } = await sql<Leased>`
			with due as (
				select b.sending_id, b.batch from sending_batch b join sending s on s.id = b.sending_id
				where b.answered_at is null and b.next_at <= now() and (b.leased_until is null or b.leased_until < now())
					and s.stopped_at is null and s.partner in (${sql.join([...this.known.keys()])})
				order by b.next_at limit ${many} for update of b skip locked
			), taken as (
				update sending_batch b set leased_until = now() + ${4 * wait + 10_000}::int * interval '1 ms', tries = tries + 1
				from due where due.sending_id = b.sending_id and due.batch = b.batch returning b.*
			)
			select t.sending_id, t.batch, t.key, t.from_place, t.to_place, t.tries, s.partner, s.release_id, r.number,
				r.project_id, r.made_at, coalesce(r.document->>'name', '') as name,
				(select count(*)::int from sending_batch where sending_id = t.sending_id) as of
			from taken t join sending s on s.id = t.sending_id join release r on r.id = s.release_id
			order by t.batch desc`.execute(this.db);
		return rows;
	}

	private async sendOne(one: Leased): Promise<void> {
		const partner = this.known.get(one.partner)!;
		try {
			const pieces = await keptPieces(this.db, one.release_id, one.from_place, one.to_place);
			const batch: Batch = {
				format: 'zygaster batch',
				version: 1,
				project: { id: one.project_id, name: one.name },
				release: one.number,
				at: one.made_at.toISOString(),
				batch: one.batch,
				of: one.of,
				pieces: filePieces(pieces)
			};
			const said = await sendBatch(partner, one.key, batch, this.wait);
			if ('later' in said) await this.putOff(one, said.seconds * 1000, null);
			else await this.keep(one, said);
		} catch (error) {
			if (this.loop.ended.aborted) await this.putOff(one, 0, null);
			else await this.putOff(one, this.pauseAfter(one.tries), told(error));
		}
	}

	/** Twice as long each time, and never all at once. (ms) */
	private pauseAfter(tries: number): number {
		const { pause, longestPause } = this.patience;
		return Math.min(longestPause, pause * 2 ** Math.min(30, tries - 1)) * (1 + Math.random() / 4);
	}

	private async putOff({ sending_id, batch }: Leased, ms: number, failure: string | null): Promise<void> {
		await this.db
			.updateTable('sending_batch')
			.set({
				next_at: sql`now() + ${Math.round(ms)}::int * interval '1 ms'`,
				leased_until: null,
				...(failure !== null && { failure })
			})
			.where('sending_id', '=', sending_id)
			.where('batch', '=', batch)
			.where('answered_at', 'is', null)
			.execute();
	}

	/** Keep what was said: of each piece once, with the message marked as answered, or nothing of it. */
	private async keep({ sending_id, batch, from_place }: Leased, said: readonly PieceAnswer[]): Promise<void> {
		await this.db.transaction().execute(async (connection) => {
			const answered = await connection
				.updateTable('sending_batch')
				.set({ answered_at: sql`now()`, leased_until: null })
				.where('sending_id', '=', sending_id)
				.where('batch', '=', batch)
				.where('answered_at', 'is', null)
				.returning('batch')
				.executeTakeFirst();
			// Another server was quicker: what it kept stands.
			if (!answered) return;
			await connection
				.insertInto('sending_answer')
				.values(
					said.map(({ is, reason, lead_days }, k) => ({
						sending_id,
						place: from_place + k,
						is,
						reason,
						lead_days
					}))
				)
				.execute();
		});
	}

	/** Ask the site what has become of pieces that it has and that are not set yet. */
	private async lookForNews(): Promise<void> {
		const { rows } = await sql<Watched>`
			update sending s set news_at = now() + ${this.patience.look}::int * interval '1 ms'
			from release r
			where r.id = s.release_id and s.partner = 'site' and s.stopped_at is null and s.news_at <= now()
				and s.partner in (${sql.join([...this.known.keys()])})
				and exists (select 1 from sending_answer a where a.sending_id = s.id and a."is" = 'accepted'
					and a.progress is distinct from 'set')
			returning s.id, s.partner, s.release_id, s.news_from, r.project_id, r.number`.execute(this.db);
		for (const one of rows) {
			const partner = this.known.get(one.partner)!;
			try {
				const news = await askNews(partner, one.project_id, one.number, one.news_from, this.wait);
				// A diary that is shorter than it was is another one: it is read from its begin.
				const next = news.next < one.news_from ? 0 : news.next;
				if (next !== one.news_from) await this.keepNews(one, news.pieces, next);
			} catch {
				// It is asked again; nothing is lost, since it keeps its diary.
				await sql`update sending set news_at = now() + interval '1 minute' where id = ${one.id}`.execute(
					this.db
				);
			}
		}
	}

	/** A piece never goes back: the furthest that was said of it stands. */
	private async keepNews({ id, release_id }: Watched, pieces: News['pieces'], next: number): Promise<void> {
		const rank = sql`case a.progress ${sql.join(
			progressSteps.map((step) => sql`when ${step} then ${RANK[step]!}::int`),
			sql` `
		)} else 0 end`;
		await this.db.transaction().execute(async (connection) => {
			await sql`
				update sending_answer a set progress = n.step
				from (
					select r.place, (array_agg(n.step order by n.rank desc))[1] as step, max(n.rank) as rank
					from unnest(${pieces.map(({ list }) => list)}::text[], ${pieces.map(({ address }) => address)}::text[],
						${pieces.map(({ is }) => is)}::text[], ${pieces.map(({ is }) => RANK[is]!)}::int[])
						as n (list, address, step, rank)
					join release_row r on r.release_id = ${release_id} and r.list = n.list and r.address = n.address
					group by r.place
				) n
				where a.sending_id = ${id} and a.place = n.place and n.rank > ${rank}`.execute(connection);
			await connection.updateTable('sending').set({ news_from: next }).where('id', '=', id).execute();
		});
	}
}
