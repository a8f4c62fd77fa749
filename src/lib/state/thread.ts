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

/** Leave a thread that has nothing to do to the next project, as if new. @returns false when there is one already */
export function leaveThread(thread: Thread): boolean {
	if (spare) return false;
	spare = thread;
	void thread.service.begin(0);
	return true;
}
