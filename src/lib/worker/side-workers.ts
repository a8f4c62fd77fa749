import { turn } from '$core/units/turn';
import { SideThreads, type FromSide, type SideLine } from '$core/part/threads/side-threads';

/** The page and the thread that asks keep a core each: on a machine of two the others would only be in their way. */
const spare = () =>
	typeof Worker === 'undefined' ? 0 : Math.max(0, (navigator.hardwareConcurrency || 1) - 2);
/** More threads than this wait for the one that hands out their work. */
const MOST = 7;

function open(): SideLine {
	const worker = new Worker(new URL('./program.worker.ts', import.meta.url), { type: 'module' });
	return {
		send: (message, memory) => worker.postMessage(message, memory),
		listen(take, ended) {
			worker.addEventListener('message', ({ data }: MessageEvent<FromSide>) => take(data));
			worker.addEventListener('error', () => {
				worker.terminate();
				ended();
			});
		},
		end: () => worker.terminate()
	};
}

/** Threads that run the programs of parts beside the one that computes models, as many as the machine has cores for. */
export function sideWorkers(): SideThreads {
	const most = Math.min(MOST, spare());
	return new SideThreads(most, () => Array.from({ length: most }, open), most ? turn : async () => {});
}
