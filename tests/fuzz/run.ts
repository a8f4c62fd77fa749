import { fork } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import type { Outcome } from './one';

/** A document may take so much of a processor's time (a busy machine is not its fault, but makes it dearer), and so much memory. */
const MOST_MS = 10_000;
const LOOK_MS = 250;
const TICKS_PER_SECOND = 100;
const MOST_MB = 2000;

/** What a process has had of the processors (ms). */
function processorMs(pid: number): number {
	try {
		const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
		const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
		return ((Number(fields[11]) + Number(fields[12])) * 1000) / TICKS_PER_SECOND;
	} catch {
		return 0;
	}
}

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
				execArgv: [
					`--max-old-space-size=${MOST_MB}`,
					'--max-semi-space-size=64',
					'--import',
					'./scripts/typescript.mjs'
				],
				cwd: fileURLToPath(new URL('../../', import.meta.url))
			});
			let ended = false;
			let began = 0;
			let spent = 0;
			const timer = setInterval(() => {
				const ms = processorMs(child.pid!) - spent;
				if (began && ms > MOST_MS) give(`${next}: took longer than ${MOST_MS / 1000} s`);
			}, LOOK_MS);
			const watch = () => {
				began = Date.now();
				spent = processorMs(child.pid!);
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
				clearInterval(timer);
				if (!ended && code !== 0) faults.push(`${next++}: the process ended (${signal ?? code})`);
				resolve();
			});
		});
	return { made, faults, longest };
}
