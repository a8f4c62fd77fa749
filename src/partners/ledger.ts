import { appendFileSync, existsSync, mkdirSync, readFileSync, truncateSync } from 'node:fs';
import { dirname } from 'node:path';

/**
 * What a partner has written down, line by line; nothing in it is ever changed. A line counts once it is on the disk,
 * so that whoever is started again knows what it has said.
 */
export class Ledger<Entry> {
	readonly entries: Entry[] = [];

	/** @param path of the file; null to forget everything at the end */
	constructor(private readonly path: string | null) {
		if (!path) return;
		mkdirSync(dirname(path), { recursive: true });
		if (!existsSync(path)) return;
		const text = readFileSync(path);
		// What stands behind the last end of line was not written whole: it was never said.
		const whole = text.lastIndexOf('\n') + 1;
		if (whole < text.length) truncateSync(path, whole);
		for (const line of text.toString('utf8', 0, whole).split('\n'))
			if (line) this.entries.push(JSON.parse(line) as Entry);
	}

	add(...entries: readonly Entry[]): void {
		if (this.path) appendFileSync(this.path, entries.map((entry) => `${JSON.stringify(entry)}\n`).join(''));
		for (const entry of entries) this.entries.push(entry);
	}
}
