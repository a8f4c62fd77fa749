import { expose } from 'comlink';
import { readStepFaces, type ReadFaces } from '$core/exchange/step/read-surfaces';

/** Reading files in a thread of its own, which is ended when the reading is given up. */
const service = {
	step(bytes: Uint8Array, progress: (share: number) => void): Promise<ReadFaces> {
		return readStepFaces(bytes, (share) => progress(share));
	}
};

export type ImportService = typeof service;
expose(service);
