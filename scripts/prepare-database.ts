// Bring the database up to date and load the demo project once; again, beside the old one, when the file has changed.
import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { Chain } from '../src/core/chain/chain';
import { writePicture } from '../src/core/exchange/picture/write';
import { readProjectText } from '../src/core/project/read';
import { countPieces } from '../src/core/schedule/pieces';
import { connect, migrate } from '../src/lib/server/database';
import { Documents } from '../src/lib/server/documents';
import { moveLargeValues } from '../src/lib/server/files';
import { Projects } from '../src/lib/server/projects';

const url = process.env['DATABASE_URL'];
if (!url) throw new Error('DATABASE_URL is not set');

async function main(): Promise<void> {
	const db = connect(url!);
	try {
		await migrate(db);
		await moveLargeValues(db);
		const projects = new Projects(db, new Documents(db));
		const demo = await readFile('demo/tidal-lido.json', 'utf8');
		const edition = createHash('sha256').update(demo).digest('hex').slice(0, 16);
		await projects.addOnce(`demo project ${edition}`, async () => {
			const document = readProjectText(demo);
			const model = await new Chain().run(document);
			return [document, { pieces: countPieces(model), picture: writePicture(model) }];
		});
	} finally {
		await db.destroy();
	}
}

main().catch((error: unknown) => {
	console.error(error);
	process.exit(1);
});
