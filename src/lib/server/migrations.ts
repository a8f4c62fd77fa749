import { sql, type Kysely, type Migration } from 'kysely';

/** All migrations, by name and in order. A migration that has landed is never changed. */
export const migrations: Record<string, Migration> = {
	'001-projects': {
		async up(db: Kysely<unknown>) {
			await db.schema
				.createTable('project')
				.addColumn('id', 'uuid', (c) => c.primaryKey())
				.addColumn('owner', 'text', (c) => c.notNull())
				.addColumn('name', 'text', (c) => c.notNull())
				.addColumn('revision', 'integer', (c) => c.notNull())
				.addColumn('pieces', 'integer', (c) => c.notNull().defaultTo(0))
				.addColumn('picture', 'text')
				.addColumn('created_at', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
				.addColumn('changed_at', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
				.addColumn('deleted_at', 'timestamptz')
				.execute();
			await db.schema
				.createTable('project_document')
				.addColumn('project_id', 'uuid', (c) => c.notNull().references('project.id').onDelete('cascade'))
				.addColumn('revision', 'integer', (c) => c.notNull())
				.addColumn('document', 'jsonb', (c) => c.notNull())
				.addPrimaryKeyConstraint('project_document_key', ['project_id', 'revision'])
				.execute();
			await db.schema
				.createTable('project_edit')
				.addColumn('project_id', 'uuid', (c) => c.notNull().references('project.id').onDelete('cascade'))
				.addColumn('revision', 'integer', (c) => c.notNull())
				.addColumn('kind', 'text', (c) => c.notNull())
				.addColumn('label', 'text', (c) => c.notNull())
				.addColumn('edits', 'jsonb', (c) => c.notNull())
				.addColumn('inverse', 'jsonb', (c) => c.notNull())
				.addColumn('author', 'text', (c) => c.notNull())
				.addColumn('made_at', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
				.addPrimaryKeyConstraint('project_edit_key', ['project_id', 'revision'])
				.execute();
			await db.schema
				.createTable('milestone')
				.addColumn('name', 'text', (c) => c.primaryKey())
				.addColumn('reached_at', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
				.execute();
			await db.schema
				.createIndex('project_by_owner')
				.on('project')
				.columns(['owner', 'changed_at'])
				.execute();
		},
		async down(db: Kysely<unknown>) {
			for (const table of ['milestone', 'project_edit', 'project_document', 'project'])
				await db.schema.dropTable(table).execute();
		}
	},
	'002-exactly-once': {
		async up(db: Kysely<unknown>) {
			await db.schema
				.alterTable('project_edit')
				.addColumn('id', 'uuid', (c) => c.notNull().defaultTo(sql`gen_random_uuid()`))
				.addColumn('window', 'uuid', (c) => c.notNull().defaultTo('00000000-0000-4000-8000-000000000000'))
				.addColumn('of', 'uuid')
				.addColumn('touched', 'jsonb', (c) => c.notNull().defaultTo('[]'))
				.execute();
			await db.schema
				.alterTable('project_edit')
				.addUniqueConstraint('project_edit_once', ['project_id', 'id'])
				.execute();
			await db.schema
				.alterTable('project_document')
				.addColumn('bytes', 'integer', (c) => c.notNull().defaultTo(0))
				.execute();
			await sql`update project_document set bytes = octet_length(document::text)`.execute(db);
			await db.schema
				.alterTable('project')
				.addColumn('bytes_since_snapshot', 'bigint', (c) => c.notNull().defaultTo(0))
				.execute();
			await db.schema
				.createTable('database_epoch')
				.addColumn('id', 'uuid', (c) => c.primaryKey().defaultTo(sql`gen_random_uuid()`))
				.addColumn('began_at', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
				.execute();
			await sql`insert into database_epoch default values`.execute(db);
		},
		async down(db: Kysely<unknown>) {
			await db.schema.dropTable('database_epoch').execute();
			await db.schema.alterTable('project').dropColumn('bytes_since_snapshot').execute();
			await db.schema.alterTable('project_document').dropColumn('bytes').execute();
			await db.schema.alterTable('project_edit').dropConstraint('project_edit_once').execute();
			await db.schema
				.alterTable('project_edit')
				.dropColumn('id')
				.dropColumn('window')
				.dropColumn('of')
				.dropColumn('touched')
				.execute();
		}
	},
	'003-files': {
		async up(db: Kysely<unknown>) {
			await db.schema
				.createTable('file')
				.addColumn('hash', 'text', (c) => c.primaryKey())
				.addColumn('kind', 'text', (c) => c.notNull())
				.addColumn('content', 'text', (c) => c.notNull())
				.addColumn('made_at', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
				.execute();
		},
		async down(db: Kysely<unknown>) {
			await db.schema.dropTable('file').execute();
		}
	},
	'004-project-id': {
		async up(db: Kysely<unknown>) {
			// All states of a project have one id, whatever they are called.
			await sql`update project_document set document = jsonb_set(document, '{id}', to_jsonb(project_id::text))
				where document->'id' is null`.execute(db);
		},
		async down(db: Kysely<unknown>) {
			await sql`update project_document set document = document - 'id' where document->>'version' <> '5'`.execute(
				db
			);
		}
	},
	'005-releases': {
		async up(db: Kysely<unknown>) {
			await db.schema
				.createTable('release')
				.addColumn('id', 'uuid', (c) => c.primaryKey())
				.addColumn('project_id', 'uuid', (c) => c.notNull().references('project.id'))
				.addColumn('number', 'integer', (c) => c.notNull())
				.addColumn('revision', 'integer', (c) => c.notNull())
				.addColumn('note', 'text', (c) => c.notNull())
				.addColumn('author', 'text', (c) => c.notNull())
				.addColumn('pieces', 'integer', (c) => c.notNull())
				.addColumn('document', 'jsonb', (c) => c.notNull())
				.addColumn('summary', 'jsonb', (c) => c.notNull())
				.addColumn('made_at', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
				.addUniqueConstraint('release_number', ['project_id', 'number'])
				.execute();
			await db.schema
				.createTable('release_row')
				.addColumn('release_id', 'uuid', (c) => c.notNull().references('release.id'))
				.addColumn('place', 'integer', (c) => c.notNull())
				.addColumn('list', 'text', (c) => c.notNull())
				.addColumn('address', 'text', (c) => c.notNull())
				.addColumn('mark', 'text', (c) => c.notNull())
				.addColumn('part', 'text', (c) => c.notNull())
				.addColumn('variant', 'text', (c) => c.notNull())
				.addColumn('kind', 'text', (c) => c.notNull())
				.addColumn('materials', 'text', (c) => c.notNull())
				.addColumn('anchors', 'text', (c) => c.notNull())
				.addColumn('area', 'double precision')
				.addColumn('length', 'double precision')
				.addColumn('long_side', 'double precision')
				.addColumn('short_side', 'double precision')
				.addColumn('smallest_angle', 'double precision')
				.addColumn('mass', 'double precision')
				.addColumn('x', 'double precision')
				.addColumn('y', 'double precision')
				.addColumn('z', 'double precision')
				.addPrimaryKeyConstraint('release_row_key', ['release_id', 'place'])
				.execute();
			// Whoever asks, and whatever with: what was released stays as it is.
			await sql`create function refuse_change() returns trigger language plpgsql as $$
				begin raise exception 'what was released is never changed' using errcode = 'check_violation'; end $$`.execute(
				db
			);
			for (const table of ['release', 'release_row'])
				await sql`create trigger never_changed before update or delete or truncate on ${sql.table(table)}
					for each statement execute function refuse_change()`.execute(db);
			// Rows are added while their release is made, and never after.
			await sql`create function refuse_late_row() returns trigger language plpgsql as $$
				begin
					if exists (select 1 from release_row_new n join release r on r.id = n.release_id where r.made_at <> now())
					then raise exception 'what was released is never changed' using errcode = 'check_violation'; end if;
					return null;
				end $$`.execute(db);
			await sql`create trigger never_late after insert on release_row
				referencing new table as release_row_new
				for each statement execute function refuse_late_row()`.execute(db);
		},
		async down(db: Kysely<unknown>) {
			for (const table of ['release_row', 'release']) await db.schema.dropTable(table).execute();
			await sql`drop function refuse_change`.execute(db);
			await sql`drop function refuse_late_row`.execute(db);
		}
	},
	'006-partners': {
		async up(db: Kysely<unknown>) {
			await db.schema
				.createTable('sending')
				.addColumn('id', 'uuid', (c) => c.primaryKey().defaultTo(sql`gen_random_uuid()`))
				.addColumn('release_id', 'uuid', (c) => c.notNull().references('release.id'))
				.addColumn('partner', 'text', (c) => c.notNull())
				.addColumn('author', 'text', (c) => c.notNull())
				.addColumn('made_at', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
				.addColumn('stopped_at', 'timestamptz')
				.addColumn('news_from', 'integer', (c) => c.notNull().defaultTo(0))
				.addColumn('news_at', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
				// A partner gets a release once.
				.addUniqueConstraint('sending_once', ['release_id', 'partner'])
				.execute();
			await db.schema
				.createTable('sending_batch')
				.addColumn('sending_id', 'uuid', (c) => c.notNull().references('sending.id'))
				.addColumn('batch', 'integer', (c) => c.notNull())
				.addColumn('key', 'uuid', (c) => c.notNull().defaultTo(sql`gen_random_uuid()`))
				.addColumn('from_place', 'integer', (c) => c.notNull())
				.addColumn('to_place', 'integer', (c) => c.notNull())
				.addColumn('answered_at', 'timestamptz')
				.addColumn('tries', 'integer', (c) => c.notNull().defaultTo(0))
				.addColumn('next_at', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
				.addColumn('leased_until', 'timestamptz')
				.addColumn('failure', 'text')
				.addPrimaryKeyConstraint('sending_batch_key', ['sending_id', 'batch'])
				.execute();
			await db.schema
				.createIndex('sending_batch_due')
				.on('sending_batch')
				.column('next_at')
				.where(sql.ref('answered_at'), 'is', null)
				.execute();
			await db.schema
				.createTable('sending_answer')
				.addColumn('sending_id', 'uuid', (c) => c.notNull().references('sending.id'))
				.addColumn('place', 'integer', (c) => c.notNull())
				.addColumn('is', 'text', (c) => c.notNull())
				.addColumn('reason', 'text', (c) => c.notNull())
				.addColumn('lead_days', 'integer')
				.addColumn('progress', 'text')
				.addPrimaryKeyConstraint('sending_answer_key', ['sending_id', 'place'])
				.execute();
		},
		async down(db: Kysely<unknown>) {
			for (const table of ['sending_answer', 'sending_batch', 'sending'])
				await db.schema.dropTable(table).execute();
		}
	},
	'007-release-papers': {
		async up(db: Kysely<unknown>) {
			await db.schema
				.createTable('release_paper')
				.addColumn('release_id', 'uuid', (c) => c.notNull().references('release.id'))
				.addColumn('kind', 'text', (c) => c.notNull().check(sql`kind in ('drawings', 'schedules')`))
				.addColumn('sha256', 'text', (c) => c.notNull())
				.addColumn('size', 'integer', (c) => c.notNull())
				.addColumn('content', 'bytea', (c) => c.notNull())
				.addColumn('made_at', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
				// Each once: what was written first stays.
				.addPrimaryKeyConstraint('release_paper_key', ['release_id', 'kind'])
				.execute();
			// They are packed already.
			await sql`alter table release_paper alter column content set storage external`.execute(db);
			await sql`create trigger never_changed before update or delete or truncate on release_paper
				for each statement execute function refuse_change()`.execute(db);
		},
		async down(db: Kysely<unknown>) {
			await db.schema.dropTable('release_paper').execute();
		}
	},
	'008-small-pictures': {
		/** Large models had pictures that a list took seconds to draw; they are drawn anew when their project is opened. */
		async up(db: Kysely<unknown>) {
			await sql`update project set picture = null where length(picture) > 1000000`.execute(db);
		},
		async down() {}
	}
};
