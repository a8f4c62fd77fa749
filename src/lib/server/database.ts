import { Kysely, Migrator, PostgresDialect } from 'kysely';
import pg from 'pg';
import { migrations } from './migrations';
import type { Schema } from './schema';

export type Database = Kysely<Schema>;

/** Connect to a database; destroy it to close its pool. */
export function connect(url: string): Database {
	return new Kysely<Schema>({
		dialect: new PostgresDialect({ pool: new pg.Pool({ connectionString: url, max: 10 }) })
	});
}

/** Bring the tables up to date. @throws the error of the migration that failed */
export async function migrate(db: Database): Promise<void> {
	const migrator = new Migrator({ db, provider: { getMigrations: async () => migrations } });
	const { error } = await migrator.migrateToLatest();
	if (error) throw error;
}
