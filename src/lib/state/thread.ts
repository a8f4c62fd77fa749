import { wrap, type Remote } from 'comlink';
import type { ChainService } from '../worker/chain-service';

/** The threads that compute models: one for each open project, and a spare one that is there before it is needed. */
export interface Thread {
	readonly worker: Worker;
	/** The only line to it: where a second one is let go, the thread takes it that nobody asks it any more. */
	readonly service: Remote<ChainService>;
	/** It has read its programs: what it is told from now on reaches it even while the page is busy. */
	readonly awake: Promise<void>;
}

export function startThread(): Thread {
	const worker = new Worker(new URL('../worker/chain.worker.ts', import.meta.url), { type: 'module' });
	const service = wrap<ChainService>(worker);
	return { worker, service, awake: service.begin(0) };
}

/** Started while a project is still on its way, or left by the one before. */
let spare: Thread | null = null;

/** Have a thread ready. @param practise while there is time: nothing is waited for yet */
export function warmUp(practise: boolean): void {
	if (spare) return;
	spare = startThread();
	if (practise) void spare.service.practise();
}

export function takeThread(): Thread {
	const thread = spare ?? startThread();
	spare = null;
	return thread;
}

/** A thread that has not answered so long after it was left (ms) is in the middle of something, and is ended. */
const LONGEST_ANSWER_MS = 2000;

/** Leave a thread to the next project, as if new: it is there once it has let go of all that it was asked here. */
export function leaveThread({ worker, service }: Thread): void {
	const late = setTimeout(() => worker.terminate(), LONGEST_ANSWER_MS);
	const awake = service.begin(0);
	void awake.then(() => {
		clearTimeout(late);
		if (spare) worker.terminate();
		else spare = { worker, service, awake };
	});
}
