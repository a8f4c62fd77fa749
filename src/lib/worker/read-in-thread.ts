import type { BroughtMesh } from '$core/part/block/recipe';
import { transfer, wrap, type Remote } from 'comlink';
import type { ImportService } from './import.worker';

/** Larger files are not read in a browser. */
const MOST_MEGABYTES = 150;

/** A reading that is under way. */
export interface Reading<T> {
	/** Refused with a sentence; with "given up" when it was cancelled. */
	readonly result: Promise<T>;
	cancel(): void;
}

/** Read a file in a thread of its own, which is ended with it. */
export function readInThread<T>(
	file: File,
	read: (service: Remote<ImportService>, bytes: Uint8Array<ArrayBuffer>) => Promise<T>
): Reading<T> {
	const worker = new Worker(new URL('./import.worker.ts', import.meta.url), { type: 'module' });
	let giveUp = () => {};
	const cancelled = new Promise<never>((_, reject) => {
		giveUp = () => reject(new Error('given up'));
	});
	const reading = async () => {
		if (file.size > MOST_MEGABYTES * 1e6)
			throw new Error(
				`it has ${Math.round(file.size / 1e6)} MB; files up to ${MOST_MEGABYTES} MB are read. Export only what is needed`
			);
		return read(wrap<ImportService>(worker), new Uint8Array(await file.arrayBuffer()));
	};
	const result = Promise.race([reading(), cancelled]).finally(() => worker.terminate());
	return { result, cancel: giveUp };
}

/** What is said of a mesh that is no solid. */
export const openWords = (name: string) =>
	`${name} has edges with a face on one side only: it is taken as a sheet with a thickness`;

/** Read the mesh of an OBJ, STL or GLB file. */
export const readMesh = (file: File): Reading<BroughtMesh> =>
	readInThread(file, (service, bytes) => service.mesh(file.name, transfer(bytes, [bytes.buffer])));
