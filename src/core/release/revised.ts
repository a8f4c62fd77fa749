import type { Model } from '../cladding/model';
import type { Revised } from '../drawing/clouds';
import type { Vector } from '../geometry/vector';
import { compareReleased } from './compare';
import { releasedPieces, type ReleasedPieces } from './pieces';

/**
 * What of a model is another one than it was released, for the clouds of its drawings.
 *
 * ```ts
 * const revised = revisedSince(releasedPieces(model), 'release 2', model);
 * const book = bookOf(model, '2026-11-30', { last: '2, 27 Nov 2026', revised });
 * ```
 * @param since as it is called on the drawings
 */
export function revisedSince(released: ReleasedPieces, since: string, model: Model): Revised {
	const { differences } = compareReleased(released, releasedPieces(model));
	const changed = new Set<string>();
	const removed = new Set<string>();
	for (const { is, list, address } of differences)
		if (is === 'removed') removed.add(`${list} ${address}`);
		else changed.add(address);
	const { texts, numbers } = released;
	const gone = texts.address.flatMap((address, k): Vector[] => {
		const [x, y, z] = [numbers.x[k], numbers.y[k], numbers.z[k]];
		const isPlaced = typeof x === 'number' && typeof y === 'number' && typeof z === 'number';
		return isPlaced && removed.has(`${texts.list[k]!} ${address}`) ? [[x, y, z]] : [];
	});
	return { since, changed, gone };
}
