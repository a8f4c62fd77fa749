// Prints the projects of a database as JSON: id, name, revision and the number of the document at it.
import { hashOf } from '../src/core/project/hash';
import { connect } from '../src/lib/server/database';
import { Documents, epochOf, snapshot } from '../src/lib/server/documents';

const url = process.env['DATABASE_URL'];
if (!url) throw new Error('DATABASE_URL is not set');

async function main(): Promise<void> {
	const db = connect(url!, 1);
	const documents = new Documents(db);
	try {
		const found = await snapshot(db, async (connection) => {
			const epoch = await epochOf(connection);
			const rows = await connection
				.selectFrom('project')
				.select(['id', 'name', 'revision'])
				.orderBy('id')
				.execute();
			const numbers: unknown[] = [];
			for (const row of rows)
				numbers.push({ ...row, hash: hashOf(await documents.at(connection, epoch, row.id, row.revision)) });
			return numbers;
		});
		console.log(JSON.stringify(found));
	} finally {
		await db.destroy();
	}
}

main().catch((error: unknown) => {
	console.error(error);
	process.exit(1);
});
