import { Kysely, Migrator, PostgresDialect, type Transaction } from 'kysely';
import pg from 'pg';
import { migrations } from './migrations';
import type { Schema } from './schema';

export type Database = Kysely<Schema>;
/** One connection, in one transaction: what a request reads and writes with, from its first query to its last. */
export type Connection = Transaction<Schema>;

const CONNECT_MS = 4000;
const LOCK_MS = 4000;
const STATEMENT_MS = 30_000;

/**
 * Connect to a database; destroy it to close its pool.
 * Nothing waits for ever: for a connection, a lock or a statement there is a time, and then an error.
 */
export function connect(url: string, connections = 10): Database {
	const pool = new pg.Pool({
		connectionString: url,
		max: connections,
		connectionTimeoutMillis: CONNECT_MS,
		lock_timeout: LOCK_MS,
		statement_timeout: STATEMENT_MS,
		idle_in_transaction_session_timeout: STATEMENT_MS
	});
	// A connection that breaks is taken out of the pool; who was using it gets the error from the query.
	pool.on('error', () => {});
	pool.on('connect', (client) => client.on('error', () => {}));
	return new Kysely<Schema>({
		dialect: new PostgresDialect({ pool: { connect: () => living(pool), end: () => pool.end() } })
	});
}

/**
 * A connection that answers. One may have ended while it lay in the pool, before anybody here was told; what is asked
 * of it first belongs to no request yet, so that another one can be taken in its place.
 */
async function living(pool: pg.Pool): Promise<pg.PoolClient> {
	for (let others = pool.options.max; ; others--) {
		const client = await pool.connect();
		try {
			await client.query('select 1');
			return client;
		} catch (error) {
			client.release(true);
			if (others === 0 || !isPassing(error)) throw error;
		}
	}
}

/** Bring the tables up to date. @throws the error of the migration that failed */
export async function migrate(db: Database): Promise<void> {
	const migrator = new Migrator({ db, provider: { getMigrations: async () => migrations } });
	const { error } = await migrator.migrateToLatest();
	if (error) throw error;
}

/** Whether every migration has been made. @throws when the database does not answer */
export async function isUpToDate(db: Database): Promise<boolean> {
	const migrator = new Migrator({ db, provider: { getMigrations: async () => migrations } });
	return (await migrator.getMigrations()).every(({ executedAt }) => executedAt !== undefined);
}

/** Errors of PostgreSQL by which it says that it cannot for the moment: no connection, no lock, shutting down. */
const PASSING = /^(08|53|57P0|55P03|57014|40)/;
const NETWORK = ['ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'ETIMEDOUT', 'ENOTFOUND'];

/** Whether the same request may well succeed a moment later. */
export function isPassing(error: unknown): boolean {
	if (!(error instanceof Error)) return false;
	const { code } = error as { code?: unknown };
	if (typeof code === 'string') return PASSING.test(code) || NETWORK.includes(code);
	return /timeout exceeded when trying to connect|Connection terminated|pool after calling end|Client has encountered a connection error|not queryable/.test(
		error.message
	);
}
