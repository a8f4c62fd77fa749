import { expect } from 'chai';
import { randomInt, randomUUID } from 'node:crypto';
import pg from 'pg';
import { Files, filesIn, hashOfFile } from '../../src/core/project/files';
import { hashOf } from '../../src/core/project/hash';
import { readProject } from '../../src/core/project/read';
import type { Project } from '../../src/core/project/schema';
import { connect } from '../../src/lib/server/database';
import { moveLargeValues } from '../../src/lib/server/files';
import { importedForm, importedMass } from '../saving/large';
import { START } from '../saving/wardrobe';
import { ask, create, open, running, save } from './running';

const withMass = (bulge: number): Project => readProject({ ...START, masses: [importedMass('skin', bulge)] });
const inserting = (value: unknown) => ({
	kind: 'do',
	id: randomUUID(),
	window: randomUUID(),
	label: 'a mass from a file',
	edits: [{ do: 'insert', path: 'masses', index: 0, value }]
});

async function query<T extends pg.QueryResultRow>(text: string, values: unknown[] = []): Promise<T[]> {
	const client = new pg.Client({ connectionString: running.databaseUrl });
	await client.connect();
	const { rows } = await client.query<T>(text, values);
	await client.end();
	return rows;
}

describe('files on the server', () => {
	it('a project file is taken with what is large in files, once for all projects, and copied by name', async () => {
		const document = withMass(311);
		const id = await create(document);
		const opened = await open(id);
		expect(JSON.stringify(opened.document).length).to.be.lessThan(4000);
		const [hash] = [...filesIn(opened.document).keys()] as [string];
		const { status, headers, body } = await ask<unknown>('GET', `/api/files/${hash}`);
		expect(status).to.equal(200);
		expect(headers.get('cache-control')).to.match(/immutable/);
		const files = new Files();
		files.take(hash, JSON.stringify(body));
		expect(files.wholeProject(opened.document)).to.deep.equal(document);
		await create(document);
		const copy = await ask<{ id: string }>('POST', `/api/projects/${id}/duplicate`, {});
		expect(filesIn((await open(copy.body.id)).document)).to.deep.equal(new Map([[hash, 'faces']]));
		const [{ times }] = (await query<{ times: number }>(
			'select count(*)::int as times from file where hash = $1',
			[hash]
		)) as [{ times: number }];
		expect(times).to.equal(1);
	});

	it('a file that is not what it is called, or none of ours, is refused', async () => {
		const text = JSON.stringify({ faces: importedForm(1).faces });
		const wrong = await ask('PUT', `/api/files/${'a'.repeat(64)}`, text);
		expect([wrong.status, wrong.body.message]).to.deep.equal([
			400,
			`what was sent is not the file ${'a'.repeat(64)}`
		]);
		for (const content of ['{"pictures":[]}', '{"faces":[{"name":7}]}', '[]']) {
			const { status, body } = await ask('PUT', `/api/files/${hashOfFile(content)}`, content);
			expect(status).to.equal(422);
			expect(body.message).to.match(/is wanted here|none of what can stand here/);
		}
		expect((await ask('PUT', `/api/files/${hashOfFile(text)}`, text)).status).to.equal(204);
		expect((await ask('PUT', `/api/files/${hashOfFile(text)}`, text)).status).to.equal(204);
	});

	it('a command is refused whose file is not there, is of another kind, or stands in it', async () => {
		const id = await create(START);
		const { epoch } = await open(id);
		const files = new Files();
		// The database may have been here before: a mass that nobody has sent yet.
		const mass = withMass(randomInt(1e6) / 7).masses[0]!;
		const kept = files.detach(mass);
		const [hash] = [...filesIn(kept).keys()] as [string];
		const mesh = { vertices: Array.from({ length: 9000 }, (_, k) => k / 9000) };
		const other = hashOfFile(JSON.stringify(mesh));
		expect((await ask('PUT', `/api/files/${other}`, mesh)).status).to.equal(204);
		const commands = [
			inserting(kept),
			inserting({ ...kept, form: { ...kept.form, faces: { file: other } } }),
			inserting(mass)
		];
		const { body } = await save(id, { epoch, base: 0, commands });
		expect(body.refused.map(({ message }) => message)).to.deep.equal([
			`“a mass from a file” names files that are not on the server: ${hash}`,
			`“a mass from a file” names files that are not on the server: ${other}`,
			'“a mass from a file” holds values so large that they are sent as files before it'
		]);
		expect((await ask('PUT', `/api/files/${hash}`, files.text(hash))).status).to.equal(204);
		const again = await save(id, { epoch, base: 0, commands: [inserting(kept)] });
		expect(again.body.refused).to.deep.equal([]);
		expect((await open(id)).document.masses[0]).to.deep.equal(kept);
		const answer = await ask('POST', '/api/projects', {
			document: { ...START, masses: [{ ...kept, form: { ...kept.form, faces: { file: 'b'.repeat(64) } } }] }
		});
		expect([answer.status, answer.body.message]).to.deep.equal([
			422,
			`the project names files that are not on this server: ${'b'.repeat(64)}`
		]);
	});

	it('documents and commands from before there were files are moved, and mean the same', async () => {
		const whole = withMass(99);
		const id = await create(START);
		// As an earlier release left them.
		await query('update project_document set document = $2, bytes = 40000 where project_id = $1', [
			id,
			JSON.stringify(whole)
		]);
		const edits = JSON.stringify([{ do: 'set', path: 'masses', value: withMass(77).masses }]);
		const inverse = JSON.stringify([{ do: 'set', path: 'masses', value: whole.masses }]);
		await query(
			`insert into project_edit (project_id, revision, kind, label, edits, inverse, author, touched)
			 values ($1, 1, 'do', 'old', $2, $3, 'local', '["masses"]')`,
			[id, edits, inverse]
		);
		await query('update project set revision = 1 where id = $1', [id]);
		await query("delete from milestone where name = 'large values in files'");
		const db = connect(running.databaseUrl);
		await moveLargeValues(db);
		await db.destroy();
		const opened = await open(id);
		expect(JSON.stringify(opened).length).to.be.lessThan(8000);
		const files = new Files();
		for (const hash of filesIn(opened).keys())
			files.take(hash, JSON.stringify((await ask<unknown>('GET', `/api/files/${hash}`)).body));
		expect(files.wholeProject(opened.document)).to.deep.equal(withMass(77));
		const { body } = await ask<{ document: Project }>('GET', `/api/projects/${id}/states/0`);
		expect(files.wholeProject(body.document)).to.deep.equal(whole);
		expect(opened.hash).to.equal(hashOf(opened.document));
		expect(files.whole(opened.history[0]!.inverse)).to.deep.equal(JSON.parse(inverse));
	});
});
