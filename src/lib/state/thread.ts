/** The threads that compute models: one for each open project, and a spare one that is there before it is needed. */

export const startThread = () =>
	new Worker(new URL('../worker/chain.worker.ts', import.meta.url), { type: 'module' });

/** Started while a project is still on its way, or left by the one before. */
let spare: Worker | null = null;

/** Have a thread ready. */
export function warmUp(): void {
	spare ??= startThread();
}

export function takeThread(): Worker {
	const thread = spare ?? startThread();
	spare = null;
	return thread;
}

/** Leave a thread that has nothing to do to the next project. @returns false when there is one already */
export function leaveThread(thread: Worker): boolean {
	if (spare) return false;
	spare = thread;
	return true;
}
