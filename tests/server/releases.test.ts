import { expect } from 'chai';
import { readFileSync } from 'node:fs';
import { randomUUID } from 'node:crypto';
import { readProjectText } from '../../src/core/project/read';
import type { ReleasedPieces } from '../../src/core/release/pieces';
import type { ReleaseCard } from '../../src/lib/protocol';
import { ask, create, open, query, save } from './running';

const small = readProjectText(
	readFileSync(new URL('../../docs/examples/small.json', import.meta.url), 'utf8')
);

const refused = async (text: string) =>
	query(text).then(
		() => expect.fail(`the database took: ${text}`),
		(error: Error) => expect(error.message, text).to.contain('what was released is never changed')
	);

const send = (id: string, body: unknown) =>
	ask<{ number?: number; message?: string }>('POST', `/api/projects/${id}/releases`, body);
const read = async <T>(path: string) => (await ask<T>('GET', `/api/projects/${path}`)).body;

describe('releases', () => {
	it('are numbered, dated, kept with the pieces that the chain makes of the document', async () => {
		const id = await create(small);
		const made = await send(id, { revision: 0, note: 'Issued for tender' });
		expect([made.status, made.body]).to.deep.equal([201, { number: 1 }]);
		const { releases } = await read<{ releases: ReleaseCard[] }>(`${id}/releases`);
		const pieces = await read<ReleasedPieces>(`${id}/releases/1`);
		const { Chain } = await import('../../src/core/chain/chain');
		const { countReleased, releasedPieces } = await import('../../src/core/release/pieces');
		const own = releasedPieces(await new Chain().run(small));
		expect(
			releases.map(({ number, note, revision, pieces: many }) => [number, note, revision, many])
		).to.deep.equal([[1, 'Issued for tender', 0, countReleased(own)]]);
		expect(pieces).to.deep.equal(own);
		expect(Math.abs(Date.parse(releases[0]!.madeAt) - Date.now())).to.be.below(60_000);
	});

	it('stay as they are when the project goes on; the next one is compared with them', async () => {
		const id = await create(small);
		await send(id, { revision: 0 });
		const before = await read<ReleasedPieces>(`${id}/releases/1`);
		const { epoch } = await open(id);
		const [zone] = small.zones;
		const command = {
			kind: 'do',
			id: randomUUID(),
			window: randomUUID(),
			label: 'joint',
			edits: [{ do: 'set', path: `zones/${zone!.id}/code`, value: 'QX' }]
		};
		await save(id, { epoch, base: 0, commands: [command] });
		const late = await send(id, { revision: 0 });
		expect(late.status).to.equal(409);
		expect(late.body.message).to.contain('at revision 1 by now, not 0');
		expect((await send(id, { revision: 1 })).body.number).to.equal(2);
		expect(await read<ReleasedPieces>(`${id}/releases/1`)).to.deep.equal(before);
		const { compareReleased } = await import('../../src/core/release/compare');
		const { differences } = compareReleased(before, await read<ReleasedPieces>(`${id}/releases/2`));
		expect(differences.length).to.be.above(0);
		expect(differences.every(({ is, what }) => is === 'changed' && what.join() === 'mark')).to.equal(true);
	});

	it('as a file for partners one has its name for good, its note and every piece with its points', async () => {
		const { releaseFileSchema } = await import('../../src/core/release/file-schema');
		const id = await create(small);
		await send(id, { revision: 0, note: 'For the workshop' });
		const file = releaseFileSchema.parse(await read(`${id}/releases/1/file`));
		expect([file.project.name, file.number, file.note]).to.deep.equal([small.name, 1, 'For the workshop']);
		const { texts } = await read<ReleasedPieces>(`${id}/releases/1`);
		expect(file.pieces.map(({ mark }) => mark)).to.deep.equal(texts.mark);
		expect(file.pieces.every(({ anchors }) => anchors.length >= 1)).to.equal(true);
		expect((await ask('GET', `/api/projects/${id}/releases/2/file`)).status).to.equal(404);
	});

	it('two that are made at once get two numbers', async () => {
		const id = await create(small);
		const made = await Promise.all([
			send(id, { revision: 0 }),
			send(id, { revision: 0 }),
			send(id, { revision: 0 })
		]);
		expect(made.map(({ body }) => body.number).sort()).to.deep.equal([1, 2, 3]);
	});

	it('the database itself refuses to change or to remove them, or to add to them later', async () => {
		const id = await create(small);
		await send(id, { revision: 0 });
		await refused(`update release set note = 'another' where project_id = '${id}'`);
		await refused(`delete from release where project_id = '${id}'`);
		await refused('truncate release_row');
		await refused(
			`update release_row set mass = 0 where release_id in (select id from release where project_id = '${id}')`
		);
		await refused(
			`delete from release_row where release_id in (select id from release where project_id = '${id}')`
		);
		await refused(
			`insert into release_row select release_id, place + 100000, list, address, mark, part, variant, kind, materials, anchors, area, length, long_side, short_side, smallest_angle, mass, x, y, z from release_row`
		);
	});

	it('are refused in words: of no such project, of one that cannot be made whole, with a note too long', async () => {
		expect((await send(randomUUID(), { revision: 0 })).status).to.equal(404);
		const id = await create(small);
		expect((await send(id, { revision: 0, note: 'x'.repeat(3000) })).status).to.equal(400);
		const [mass] = small.masses;
		const broken = {
			...small,
			zones: small.zones.map((zone) => ({ ...zone, faces: [{ mass: mass!.id, face: 'nowhere' }] }))
		} as typeof small;
		const { status, body } = await send(await create(broken), { revision: 0 });
		expect(status).to.equal(422);
		expect(body.message).to.match(/^a part of it cannot be made: zones\//);
		expect((await ask('GET', `/api/projects/${id}/releases/7`)).status).to.equal(404);
	});
});
