import { fork } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import type { Outcome } from './one';

/** A document may take so long, and so much memory. */
const MOST_MS = 10_000;
const MOST_MB = 2000;

export interface Fuzzed {
	readonly made: number;
	readonly faults: readonly string[];
	readonly longest: { readonly number: number; readonly ms: number };
}

/** Run documents from one number to another, each within its time and memory; a worker that breaks either is ended. */
export async function fuzz(from: number, to: number): Promise<Fuzzed> {
	const faults: string[] = [];
	let made = 0;
	let longest = { number: from, ms: 0 };
	let next = from;
	while (next < to)
		await new Promise<void>((resolve) => {
			const child = fork(fileURLToPath(new URL('./one.ts', import.meta.url)), [`${next}`, `${to}`], {
				execArgv: [`--max-old-space-size=${MOST_MB}`, '--import', './scripts/typescript.mjs'],
				cwd: fileURLToPath(new URL('../../', import.meta.url))
			});
			let ended = false;
			let began = Date.now();
			let timer: NodeJS.Timeout | undefined;
			const watch = () => {
				clearTimeout(timer);
				began = Date.now();
				timer = setTimeout(() => give(`${next}: took longer than ${MOST_MS / 1000} s`), MOST_MS);
			};
			const give = (fault: string) => {
				faults.push(fault);
				next++;
				ended = true;
				child.kill('SIGKILL');
			};
			child.on('message', (said) => {
				const message = said as Outcome | { begins: true; number: number };
				if ('begins' in message) {
					next = message.number;
					return watch();
				}
				const ms = Date.now() - began;
				if (ms > longest.ms) longest = { number: message.number, ms };
				if (message.fault) faults.push(`${message.number}: ${message.fault}`);
				if (message.made) made++;
				next = message.number + 1;
			});
			child.on('exit', (code, signal) => {
				clearTimeout(timer);
				if (!ended && code !== 0) faults.push(`${next++}: the process ended (${signal ?? code})`);
				resolve();
			});
		});
	return { made, faults, longest };
}
