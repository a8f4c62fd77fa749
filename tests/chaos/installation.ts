import { spawn, type ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from '../../scripts/lib/system.mjs';

const READY_MS = 90_000;

/** `npm start` with data of its own, and the processes it made, to be killed. */
export class Installation {
	private starter: ChildProcess | null = null;
	private said = '';
	starts = 0;

	constructor(
		readonly data: string,
		readonly port: number
	) {}

	/** Start without waiting. */
	launch(): ChildProcess {
		this.starts++;
		this.said = '';
		// A database of its own, whatever the tests around it use.
		const settings = { ...process.env };
		delete settings['DATABASE_URL'];
		const starter = spawn(process.execPath, ['scripts/start.mjs'], {
			cwd: root,
			env: { ...settings, ZYGASTER_DATA: this.data, PORT: String(this.port), MOST_REQUESTS: '100000' },
			stdio: ['ignore', 'pipe', 'pipe'],
			detached: true
		});
		for (const stream of [starter.stdout, starter.stderr])
			stream?.on('data', (text: Buffer) => (this.said += text.toString()));
		this.starter = starter;
		return starter;
	}

	/** Start, and wait until it says that it is ready. @throws when it ends or takes too long: with what it said */
	async start(): Promise<void> {
		const starter = this.launch();
		for (const until = Date.now() + READY_MS; !this.said.includes('Zygaster is ready');) {
			if (starter.exitCode !== null || Date.now() > until)
				throw new Error(`it did not start (code ${starter.exitCode}):\n${this.said}`);
			await new Promise((resolve) => setTimeout(resolve, 50));
		}
	}

	get saidSoFar(): string {
		return this.said;
	}

	private get serverPid(): number {
		return JSON.parse(readFileSync(join(this.data, `server-${this.port}.json`), 'utf8')).pid;
	}

	private get postmasterPid(): number {
		return Number(readFileSync(join(this.data, 'pg/postmaster.pid'), 'utf8').split('\n')[0]);
	}

	/** End processes of this installation the hard way. @returns which were there */
	kill(...which: readonly ('starter' | 'server' | 'database')[]): string[] {
		return which.filter((one) => {
			try {
				if (one === 'starter') {
					if (!this.starter?.pid || this.starter.exitCode !== null) return false;
					// Its group: what it has in hand (npm, initdb, the preparation) goes with it.
					process.kill(-this.starter.pid, 'SIGKILL');
				} else process.kill(one === 'server' ? this.serverPid : this.postmasterPid, 'SIGKILL');
				return true;
			} catch {
				return false;
			}
		});
	}

	/** Stop in order. */
	async stop(): Promise<void> {
		const { starter } = this;
		if (!starter || starter.exitCode !== null || starter.signalCode !== null) return;
		const ended = new Promise((resolve) => starter.once('exit', resolve));
		starter.kill('SIGTERM');
		await ended;
	}
}
