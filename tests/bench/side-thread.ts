import { Worker } from 'node:worker_threads';
import { SideThreads, type FromSide, type SideLine } from '../../src/core/part/threads/side-threads';
import { turn } from '../../src/core/units/turn';

function open(): SideLine {
	const worker = new Worker(new URL('./side-worker.js', import.meta.url));
	return {
		send: (message, memory) => worker.postMessage(message, memory),
		listen(take, ended) {
			worker.on('message', (message: FromSide) => take(message));
			worker.on('error', ended);
		},
		end: () => void worker.terminate()
	};
}

/** One thread beside this one, as a machine of two cores has. */
export const sideThread = (): SideThreads => new SideThreads(1, () => [open()], turn);
