import { loadSolids } from '$core/geometry/solid/library';

/** Blocks are made on the page itself, as they are looked at. */
export const load = () => loadSolids();
