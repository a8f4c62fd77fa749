import { Chain } from '$core/chain/chain';
import { Files, filesIn } from '$core/project/files';
import type { Project } from '$core/project/schema';
import {
	byKey,
	countReleased,
	releasedNumbers,
	releasedPieces,
	releasedTexts,
	type ReleasedPieces
} from '$core/release/pieces';
import { releaseFile } from '$core/release/file';
import type { ReleaseFile } from '$core/release/file-schema';
import { summarise } from '$core/schedule/summary';
import { turn } from '$core/units/turn';
import type { Lacking, ReleaseCard } from '$lib/protocol';
import { sql } from 'kysely';
import { randomUUID } from 'node:crypto';
import type { Connection, Database } from './database';
import type { StoredFiles } from './files';
import type { Projects } from './projects';
import { NotFound, Refused } from './refusals';
import { LOCAL_OWNER } from './saving';

/** Rows of one insertion. */
const PAGE = 10_000;
/** The largest that a place can be. */
const LAST_PLACE = 2_147_483_647;
/** A computation goes on this long before other requests are let in (ms). */
const A_BREATH = 30;

/** Dated copies of projects. They are computed here, from the document as it is kept: nobody sends numbers. */
export class Releases {
	constructor(
		private readonly db: Database,
		private readonly projects: Projects,
		private readonly stored: StoredFiles
	) {}

	/**
	 * All of a project, the newest first.
	 * @param lacking why papers of a release are not there, by its id
	 * @throws NotFound
	 */
	async list(project: string, lacking: (release: string) => Lacking): Promise<ReleaseCard[]> {
		const known = await this.db
			.selectFrom('project')
			.select('id')
			.where('id', '=', project)
			.where('deleted_at', 'is', null)
			.executeTakeFirst();
		if (!known) throw new NotFound('there is no such project');
		const rows = await this.db
			.selectFrom('release')
			.select(['id', 'number', 'revision', 'note', 'author', 'pieces', 'summary', 'made_at'])
			.where('project_id', '=', project)
			.orderBy('number', 'desc')
			.execute();
		const ids = rows.map(({ id }) => id);
		const papers = ids.length
			? await this.db
					.selectFrom('release_paper')
					.select(['release_id', 'kind', 'size'])
					.where('release_id', 'in', ids)
					.orderBy('kind')
					.execute()
			: [];
		return rows.map(({ id, made_at, ...row }) => {
			const own = papers.flatMap(({ release_id, kind, size }) => (release_id === id ? [{ kind, size }] : []));
			return { ...row, madeAt: made_at.toISOString(), papers: own, lacking: own.length ? null : lacking(id) };
		});
	}

	/** The pieces of one. @throws NotFound */
	async pieces(project: string, number: number): Promise<ReleasedPieces> {
		const release = await this.db
			.selectFrom('release')
			.select('id')
			.where('project_id', '=', project)
			.where('number', '=', number)
			.executeTakeFirst();
		if (!release) throw new NotFound(`there is no release ${number}`);
		return keptPieces(this.db, release.id);
	}

	/** One as a file for partners. @throws NotFound */
	async file(project: string, number: number): Promise<ReleaseFile> {
		const release = await this.db
			.selectFrom('release')
			.select(['revision', 'note', 'made_at'])
			.where('project_id', '=', project)
			.where('number', '=', number)
			.executeTakeFirst();
		if (!release) throw new NotFound(`there is no release ${number}`);
		const { id, name } = await this.projects.state(project, release.revision);
		return releaseFile(
			{ project: { id, name }, number, at: release.made_at.toISOString(), note: release.note },
			await this.pieces(project, number)
		);
	}

	/**
	 * Release a project as it stands.
	 * @param revision that its window has; another one is refused
	 * @returns its number
	 * @throws NotFound; Refused where the project has moved on, or cannot be computed whole
	 */
	async make(project: string, revision: number, note: string): Promise<number> {
		const { document, revision: newest } = await this.projects.open(project);
		if (newest !== revision)
			throw new Refused(
				409,
				`the project is at revision ${newest} by now, not ${revision}: look at it again`
			);
		const model = await this.compute(document);
		const pieces = releasedPieces(model);
		const id = randomUUID();
		return this.db.transaction().execute(async (connection) => {
			// One after the other: numbers of a project follow each other.
			await sql`select 1 from project where id = ${project} for update`.execute(connection);
			const { most } = await connection
				.selectFrom('release')
				.select((of) => of.fn.coalesce(of.fn.max('number'), sql<number>`0`).as('most'))
				.where('project_id', '=', project)
				.executeTakeFirstOrThrow();
			const number = most + 1;
			await connection
				.insertInto('release')
				.values({
					id,
					project_id: project,
					number,
					revision,
					note,
					author: LOCAL_OWNER,
					pieces: countReleased(pieces),
					document: JSON.stringify(document),
					summary: JSON.stringify(summarise(model))
				})
				.execute();
			await insertPieces(connection, id, pieces);
			return number;
		});
	}

	/** The model of a document. @throws Refused where a part of it cannot be made */
	private async compute(document: Project) {
		const files = new Files();
		for (const hash of filesIn(document).keys()) files.take(hash, await this.stored.text(hash));
		let told = performance.now();
		const model = await new Chain(files).run(document, {
			step: async () => {
				if (performance.now() - told < A_BREATH) return;
				await turn();
				told = performance.now();
			}
		});
		const refusals = model.problems.filter(({ remark }) => !remark);
		if (refusals.length)
			throw new Refused(
				422,
				`a part of it cannot be made: ${refusals
					.slice(0, 5)
					.map(({ at, text }) => `${at}: ${text}`)
					.join('; ')}`
			);
		return model;
	}
}

/** The pieces of a release as they are kept. @param from, to places among them, which count from 1 */
export async function keptPieces(
	db: Database,
	release: string,
	from = 1,
	to = LAST_PLACE
): Promise<ReleasedPieces> {
	const rows = await db
		.selectFrom('release_row')
		.select([...releasedTexts, ...releasedNumbers])
		.where('release_id', '=', release)
		.where('place', '>=', from)
		.where('place', '<', to)
		.orderBy('place')
		.execute();
	return {
		texts: byKey(releasedTexts, (key) => rows.map((row) => row[key])),
		numbers: byKey(releasedNumbers, (key) => rows.map((row) => row[key]))
	};
}

/** Column by column, some thousand rows at once. */
async function insertPieces(
	connection: Connection,
	id: string,
	{ texts, numbers }: ReleasedPieces
): Promise<void> {
	const count = texts.address.length;
	for (let from = 0; from < count; from += PAGE) {
		const to = Math.min(count, from + PAGE);
		const columns = [
			...releasedTexts.map((key) => sql`${texts[key].slice(from, to)}::text[]`),
			...releasedNumbers.map((key) => sql`${numbers[key].slice(from, to)}::double precision[]`)
		];
		const names = [...releasedTexts, ...releasedNumbers].map((key) => sql.ref(key));
		await sql`insert into release_row (release_id, place, ${sql.join(names)})
			select ${id}, ${from} + of.place, ${sql.join(names.map((name) => sql`of.${name}`))}
			from unnest(${sql.join(columns)}) with ordinality as of (${sql.join(names)}, place)`.execute(connection);
	}
}
