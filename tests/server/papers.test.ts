import { expect } from 'chai';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { root } from '../../scripts/lib/system.mjs';
import { readProjectText } from '../../src/core/project/read';
import type { PaperKind, ReleaseCard } from '../../src/lib/protocol';
import { ask, create, launch, query, running, type Running } from './running';

const small = readProjectText(
	readFileSync(new URL('../../docs/examples/small.json', import.meta.url), 'utf8')
);
const PROGRAM = join(root, 'build/cli/zyg.js');

async function released(): Promise<string> {
	const id = await create(small);
	expect((await ask('POST', `/api/projects/${id}/releases`, { revision: 0, note: '' })).status).to.equal(201);
	return id;
}
const cardOf = async ({ address }: Pick<Running, 'address'>, id: string): Promise<ReleaseCard> => {
	const answer = await fetch(`${address}/api/projects/${id}/releases`);
	return ((await answer.json()) as { releases: ReleaseCard[] }).releases[0]!;
};
async function until(
	server: Running,
	id: string,
	holds: (card: ReleaseCard) => boolean
): Promise<ReleaseCard> {
	for (const end = Date.now() + 90_000; ;) {
		const card = await cardOf(server, id);
		if (holds(card)) return card;
		if (Date.now() > end) throw new Error(`it has not come to that: ${JSON.stringify(card.lacking)}`);
		await new Promise((resolve) => setTimeout(resolve, 100));
	}
}

/** A server that writes papers with a program. */
async function withPapers(program: string, act: (server: Running) => Promise<void>): Promise<void> {
	const server = await launch(running.databaseUrl, { PAPERS: program });
	try {
		await act(server);
	} finally {
		await server.stop();
	}
}

describe('papers of releases', function () {
	this.timeout(180_000);

	it('drawings and schedules are kept, byte for byte what is written of its document; the database refuses to change them', async () => {
		const id = await released();
		expect((await cardOf(running, id)).lacking?.is).to.equal('none kept');
		await withPapers(PROGRAM, async (server) => {
			const { papers, lacking, madeAt } = await until(server, id, (card) => card.papers.length === 2);
			expect(lacking).to.equal(null);
			const { Chain } = await import('../../src/core/chain/chain');
			const { formats } = await import('../../src/core/exchange/formats');
			const { drawingFonts } = await import('../../src/cli/fonts');
			const { quickPacking } = await import('../../src/cli/packing');
			const day = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeZone: 'UTC' });
			const of = {
				model: await new Chain().run(small),
				project: small,
				at: madeAt.slice(0, 19),
				released: `1, ${day.format(new Date(madeAt))}`,
				fonts: drawingFonts,
				packing: quickPacking
			};
			for (const [kind, format] of [
				['drawings', 'pdf'],
				['schedules', 'xlsx']
			] as const) {
				const answer = await fetch(`${server.address}/api/projects/${id}/releases/1/papers/${kind}`);
				const content = Buffer.from(await answer.arrayBuffer());
				const own = await formats.find((one) => one.id === format)!.write(of);
				expect(content.equals(Buffer.from(own as Uint8Array)), kind).to.equal(true);
				expect(papers.find((one) => one.kind === kind)!.size).to.equal(content.length);
			}
		});
		const mine = `release_id in (select id from release where project_id = '${id}')`;
		for (const text of [
			`update release_paper set content = '' where ${mine}`,
			`delete from release_paper where ${mine}`,
			'truncate release_paper'
		])
			await query(text).then(
				() => expect.fail(`the database took: ${text}`),
				(error: Error) => expect(error.message, text).to.contain('what was released is never changed')
			);
		await query(
			`insert into release_paper select release_id, kind, sha256, size, '', made_at from release_paper where ${mine}`
		).then(
			() => expect.fail('the database took a second one'),
			(error: Error) => expect(error.message).to.contain('release_paper_key')
		);
	});

	it('a server that ends meanwhile loses none: the next one writes them', async () => {
		const id = await released();
		await withPapers(PROGRAM, async (server) => {
			const { lacking } = await cardOf(server, id);
			expect(lacking?.is).to.equal('coming');
		});
		expect((await cardOf(running, id)).papers).to.deep.equal([]);
		await withPapers(PROGRAM, async (server) => {
			const { papers } = await until(server, id, (card) => card.papers.length === 2);
			expect(papers.map(({ kind }) => kind)).to.have.members(['drawings', 'schedules'] satisfies PaperKind[]);
		});
	});

	it('what cannot be written is told with the reason, and tried again when it is asked for', async () => {
		const folder = mkdtempSync(join(tmpdir(), 'papers-test-'));
		const program = join(folder, 'program.mjs');
		writeFileSync(program, `console.error('no room on the disk'); process.exit(1);`);
		const id = await released();
		try {
			await withPapers(program, async (server) => {
				const { lacking } = await until(server, id, (card) => card.lacking?.is === 'failed');
				expect(lacking!.says).to.equal(
					'Its drawings and schedules could not be written: no room on the disk'
				);
				// What writes them is mended.
				writeFileSync(program, `await import(${JSON.stringify(PROGRAM)});`);
				const again = await fetch(`${server.address}/api/projects/${id}/releases/1/papers`, {
					method: 'POST',
					headers: { 'x-zygaster': '1' }
				});
				expect(again.status).to.equal(202);
				await until(server, id, (card) => card.papers.length === 2);
			});
		} finally {
			rmSync(folder, { recursive: true });
		}
	});
});
