import { join } from 'node:path';
import { fabricatorDesk } from './desk/desk';
import { servePartner } from './server';
import { siteReceiver } from './site/site';
import { moodFrom } from './troubles';

/** A partner as a program of its own: PARTNER is desk or site, PORT where it answers, LEDGER the folder it writes to. */
async function main(): Promise<void> {
	const { PARTNER, PORT = '0', LEDGER } = process.env;
	const mood = moodFrom(process.env);
	const folder = LEDGER || null;
	if (PARTNER === 'site') {
		const site = siteReceiver(folder, mood);
		await servePartner(site, Number(PORT));
		// A site on which something happens while one looks.
		setInterval(() => site.work(PIECES_A_SECOND), 1000);
	} else await servePartner(fabricatorDesk(folder && join(folder, 'messages.jsonl'), mood), Number(PORT));
}
const PIECES_A_SECOND = 20;

main().catch((error: unknown) => {
	console.error(error);
	process.exit(1);
});
