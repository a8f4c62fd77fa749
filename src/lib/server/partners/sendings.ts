import { MOST_PIECES_OF_A_BATCH } from '$core/partner/message-schema';
import { partners, type Partner, type PartnerAnswers, type PartnerId, type SendingCard } from '$lib/protocol';
import { sql } from 'kysely';
import type { Database } from '../database';
import { NotFound, Refused } from '../refusals';
import { LOCAL_OWNER } from '../saving';

const nameOf = (partner: PartnerId) => partners.find(({ id }) => id === partner)!.name;

/** Releases on their way to partners: what is to go out, what was said to it. */
export class Sendings {
	/** @param perBatch pieces of a message */
	constructor(
		private readonly db: Database,
		private readonly known: ReadonlyMap<PartnerId, Partner>,
		private readonly perBatch = MOST_PIECES_OF_A_BATCH
	) {}

	/** Partners that this server has the address of. */
	get partners(): Partner[] {
		return [...this.known.values()];
	}

	private async releaseOf(project: string, number: number): Promise<{ id: string; pieces: number }> {
		const release = await this.db
			.selectFrom('release')
			.select(['id', 'pieces'])
			.where('project_id', '=', project)
			.where('number', '=', number)
			.executeTakeFirst();
		if (!release) throw new NotFound(`there is no release ${number}`);
		return release;
	}

	/** Put a release in the queue to a partner. @throws NotFound; Refused where it is there already, or has no pieces */
	async send(project: string, number: number, partner: PartnerId): Promise<void> {
		if (!this.known.has(partner)) throw new Refused(409, `this server knows no ${nameOf(partner)}`);
		const { id, pieces } = await this.releaseOf(project, number);
		if (!pieces) throw new Refused(422, `release ${number} has no pieces: there is nothing to send`);
		const per = this.perBatch;
		await this.db.transaction().execute(async (connection) => {
			const sending = await connection
				.insertInto('sending')
				.values({ id: sql`gen_random_uuid()`, release_id: id, partner, author: LOCAL_OWNER })
				.onConflict((conflict) => conflict.doNothing())
				.returning('id')
				.executeTakeFirst();
			if (!sending)
				throw new Refused(409, `release ${number} went to the ${nameOf(partner)} already; it gets it once`);
			// Places count from 1.
			await sql`insert into sending_batch (sending_id, batch, from_place, to_place)
				select ${sending.id}::uuid, k + 1, k * ${per}::int + 1, least((k + 1) * ${per}::int, ${pieces}::int) + 1
				from generate_series(0, ${Math.ceil(pieces / per) - 1}::int) as of (k)`.execute(connection);
		});
	}

	/** How far the releases of a project have come, the newest first. */
	async list(project: string): Promise<SendingCard[]> {
		const { rows } = await sql<
			Omit<SendingCard, 'madeAt' | 'trouble'> & {
				madeAt: Date;
				failing: number;
				tries: number;
				failure: string | null;
				nextAt: Date | null;
			}
		>`
			select r.number, s.partner, s.made_at as "madeAt", s.stopped_at is not null as stopped, r.pieces, b.*, a.*
			from sending s join release r on r.id = s.release_id
			cross join lateral (
				select count(*)::int as batches, count(answered_at)::int as answered,
					(count(*) filter (where answered_at is null and failure is not null))::int as failing,
					coalesce(max(tries) filter (where answered_at is null and failure is not null), 0)::int as tries,
					(array_agg(failure order by tries desc, batch) filter (where answered_at is null and failure is not null))[1] as failure,
					min(next_at) filter (where answered_at is null and failure is not null) as "nextAt"
				from sending_batch where sending_id = s.id
			) b
			cross join lateral (
				select (count(*) filter (where "is" = 'accepted'))::int as accepted,
					(count(*) filter (where "is" = 'refused'))::int as refused, max(lead_days) as "leadDays",
					(count(*) filter (where progress = 'made'))::int as made,
					(count(*) filter (where progress = 'delivered'))::int as delivered,
					(count(*) filter (where progress = 'set'))::int as "set"
				from sending_answer where sending_id = s.id
			) a
			where r.project_id = ${project}::uuid order by r.number desc, s.partner`.execute(this.db);
		return rows.map(({ madeAt, failing, tries, failure, nextAt, ...card }) => ({
			...card,
			madeAt: madeAt.toISOString(),
			trouble: failure && nextAt ? { batches: failing, tries, failure, nextAt: nextAt.toISOString() } : null
		}));
	}

	/** What a partner says of the pieces of a release, in their order. @throws NotFound */
	async answers(project: string, number: number, partner: PartnerId): Promise<PartnerAnswers> {
		const { id } = await this.releaseOf(project, number);
		const rows = await this.db
			.selectFrom('sending_answer as a')
			.innerJoin('sending as s', 's.id', 'a.sending_id')
			.innerJoin('release_row as r', (join) =>
				join.onRef('r.release_id', '=', 's.release_id').onRef('r.place', '=', 'a.place')
			)
			.select(['r.list', 'r.address', 'r.mark', 'a.is', 'a.reason', 'a.lead_days', 'a.progress'])
			.where('s.release_id', '=', id)
			.where('s.partner', '=', partner)
			.orderBy('a.place')
			.execute();
		return {
			list: rows.map((row) => row.list),
			address: rows.map((row) => row.address),
			mark: rows.map((row) => row.mark),
			is: rows.map((row) => row.progress ?? row.is),
			reason: rows.map((row) => row.reason),
			leadDays: rows.map((row) => row.lead_days)
		};
	}

	/** Stop a sending, or let it go on at once. @throws NotFound */
	async goOn(project: string, number: number, partner: PartnerId, goesOn: boolean): Promise<void> {
		const { id } = await this.releaseOf(project, number);
		const sending = await this.db
			.updateTable('sending')
			.set({ stopped_at: goesOn ? null : sql`now()`, news_at: sql`now()` })
			.where('release_id', '=', id)
			.where('partner', '=', partner)
			.returning('id')
			.executeTakeFirst();
		if (!sending) throw new NotFound(`release ${number} did not go to the ${nameOf(partner)}`);
		if (goesOn)
			await this.db
				.updateTable('sending_batch')
				.set({ next_at: sql`now()` })
				.where('sending_id', '=', sending.id)
				.where('answered_at', 'is', null)
				.execute();
	}
}
