import type { Model } from '../cladding/model';
import { Bodies } from './bodies';
import { commonBody } from './common-body';
import { nearPairs } from './near-pairs';

/** Pairs of pieces that reach into each other, the deepest first. A piece is a row of a group of a zone. */
export interface Clashes {
	/** Pieces that clash at all: places of their zones, serials of their groups, and rows. */
	readonly zone: Uint32Array;
	readonly group: Float64Array;
	readonly row: Uint32Array;
	/** The two of each pair, by number among these pieces. */
	readonly one: Uint32Array;
	readonly other: Uint32Array;
	/** mm */
	readonly depth: Float64Array;
	/** Where, x y z (mm). */
	readonly at: Float64Array;
	/** Pairs of elements whose boxes met, and were looked at. */
	readonly looked: number;
}

/** Is told how much is done, and lets others in; what it throws gives the search up. */
export type Step = (share: number) => Promise<void> | void;

/** Boxes that reach into each other by less (mm) touch: meshes are kept in single precision. */
const TOUCHING = 0.05;
/** Pairs between two calls of the step. */
const AT_ONCE = 100;

/**
 * Find the pieces of a model that reach into each other by more than a bound. Those that only touch do not, and what
 * bars and connectors that meet at a node have in common there is their joint.
 *
 * ```ts
 * const { one, depth } = await findClashes(model, 2);
 * ```
 * @param deeper mm; of what is thinner than twice that, half of its width
 * @throws what the step throws
 */
export async function findClashes(model: Model, deeper: number, step: Step = () => {}): Promise<Clashes> {
	const bodies = new Bodies(model, deeper / 2);
	const { piece, count } = bodies;
	/** The deepest of every pair of pieces, by their numbers. */
	const deepest = new Map<number, { depth: number; at: readonly number[] }>();
	const pieces = bodies.rows.length;
	let looked = 0;
	await step(0);
	for (const [a, b] of nearPairs(bodies.bounds, TOUCHING)) {
		if (piece[a] === piece[b] || bodies.areJoined(piece[a]!, piece[b]!)) continue;
		if (++looked % AT_ONCE === 0) await step(Math.min(1, looked / (8 * count)));
		const common = commonBody(bodies.body(a), bodies.body(b));
		if (!common) continue;
		const [low, high] = [Math.min(piece[a]!, piece[b]!), Math.max(piece[a]!, piece[b]!)];
		const pair = low * pieces + high;
		const known = deepest.get(pair);
		if (!known || known.depth < common.depth) deepest.set(pair, common);
	}
	const found = [...deepest].sort(([, a], [, b]) => b.depth - a.depth);
	const numbers = new Map<number, number>();
	const numberOf = (one: number) => {
		const known = numbers.get(one) ?? numbers.size;
		numbers.set(one, known);
		return known;
	};
	const one = Uint32Array.from(found, ([pair]) => numberOf(Math.floor(pair / pieces)));
	const other = Uint32Array.from(found, ([pair]) => numberOf(pair % pieces));
	const involved = [...numbers.keys()];
	const serial = (k: number) => model.zones[bodies.zones[k]!]!.model!.groups[bodies.groups[k]!]!.serial;
	return {
		zone: Uint32Array.from(involved, (k) => bodies.zones[k]!),
		group: Float64Array.from(involved, serial),
		row: Uint32Array.from(involved, (k) => bodies.rows[k]!),
		one,
		other,
		depth: Float64Array.from(found, ([, { depth }]) => depth),
		at: Float64Array.from(found.flatMap(([, { at }]) => [...at])),
		looked
	};
}
