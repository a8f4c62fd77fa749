import '../no-evaluation';
import { expose } from 'comlink';
import { readBlockMesh } from '$core/exchange/mesh/read-block';
import type { BroughtMesh } from '$core/part/block/recipe';
import { readDxfCurves, type ReadCurves } from '$core/exchange/dxf/read-curves';
import { readIfcFaces } from '$core/exchange/ifc/read-faces';
import { readObjGrids, type FittedFaces } from '$core/exchange/obj/read-grids';
import { readStepFaces, type ReadFaces } from '$core/exchange/step/read-surfaces';

type Told = (share: number) => void;

/** The reader of IFC with its program, both fetched when they are first asked for. */
async function openIfc() {
	const [{ IfcAPI }, { default: program }] = await Promise.all([
		import('web-ifc'),
		import('web-ifc/web-ifc.wasm?url')
	]);
	const api = new IfcAPI();
	await api.Init(() => program, true);
	return api;
}

/** Reading files in a thread of its own, which is ended when the reading is given up. */
const service = {
	step: (bytes: Uint8Array, progress: Told): Promise<ReadFaces> =>
		readStepFaces(bytes, (share) => progress(share)),
	obj: (bytes: Uint8Array, progress: Told): Promise<FittedFaces> =>
		readObjGrids(new TextDecoder().decode(bytes), (share) => progress(share)),
	dxf: (bytes: Uint8Array): Promise<ReadCurves> =>
		Promise.resolve(readDxfCurves(new TextDecoder().decode(bytes))),
	ifc: (bytes: Uint8Array, progress: Told): Promise<ReadFaces> =>
		readIfcFaces(bytes, openIfc, (share) => progress(share)),
	mesh: (name: string, bytes: Uint8Array): Promise<BroughtMesh> => readBlockMesh(name, bytes)
};

export type ImportService = typeof service;
expose(service);
