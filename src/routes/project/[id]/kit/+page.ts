import { loadSolids } from '$core/part/block/solids';

/** Blocks are made on the page itself, as they are looked at. */
export const load = () => loadSolids();
