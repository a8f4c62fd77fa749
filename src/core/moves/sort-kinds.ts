import { ringsOf, strideOf, type Rings } from '../like/rings';
import { likeSets } from '../like/sets';
import type { LikeSettings } from '../project/like-schema';
import type { Steps } from '../units/steps';
import { lay, meanShapes, type Sorted } from './kind-rows';
import type { Network } from './network';

/** Cells of as many corners each, by what they are like. */
export interface RingsOf {
	readonly rings: Rings;
	readonly cells: Uint32Array;
}

export function ringsByCorners({ cellStart, corners }: Network, positions: Float64Array): RingsOf[] {
	const byCorners = new Map<number, number[]>();
	for (let c = 0; c + 1 < cellStart.length; c++) {
		const n = cellStart[c + 1]! - cellStart[c]!;
		const known = byCorners.get(n);
		if (known) known.push(c);
		else byCorners.set(n, [c]);
	}
	return [...byCorners].map(([n, list]) => {
		const cells = Uint32Array.from(list);
		return { cells, rings: ringsOf({ start: cellStart, corners }, positions, cells, n) };
	});
}

/** How many kinds cells are of, and how far those of one are apart at most (mm). */
export function* countKinds(
	all: readonly RingsOf[],
	like: LikeSettings
): Steps<{ kinds: number; spread: number }> {
	let kinds = 0;
	let spread = 0;
	for (const { rings } of all) {
		const sets = yield* likeSets(rings, like.tolerance, like.mirrored === 'together');
		kinds += sets.sizes.length;
		for (const one of sets.spread) if (one > spread) spread = one;
	}
	return { kinds, spread };
}

const shapeOf = (rings: Rings, ring: number): Float64Array => {
	const stride = strideOf(rings);
	return rings.values.slice(stride * ring, stride * (ring + 1));
};

/** Sort cells that are alike within a tolerance. */
export function* sortNear(all: readonly RingsOf[], like: LikeSettings): Steps<Sorted[]> {
	const sorted: Sorted[] = [];
	const mirrored = like.mirrored === 'together';
	for (const { rings, cells } of all) {
		const { set, sizes } = yield* likeSets(rings, like.tolerance, mirrored);
		const shapes = Array.from(sizes, (_, k) => shapeOf(rings, set.indexOf(k)));
		const of = { rings, cells, shapes, of: set };
		sorted.push({ ...of, shapes: meanShapes(of, mirrored) });
	}
	return sorted;
}

const AT_ONCE = 20_000;

/** Sort cells to so many shapes: each new one is the cell that is furthest from those there are (Gonzalez 1985; from memory). */
export function* sortInto(all: readonly RingsOf[], kinds: number, like: LikeSettings): Steps<Sorted[]> {
	const mirrored = like.mirrored === 'together';
	const found = all.map(({ rings, cells }) => ({
		rings,
		cells,
		shapes: [] as Float64Array[],
		of: new Uint32Array(rings.count),
		off: new Float64Array(rings.count).fill(Infinity)
	}));
	let looked = 0;
	for (let k = 0; k < Math.max(kinds, all.length); k++) {
		let [most, furthest] = [{ of: found[0]!, ring: 0 }, 0];
		for (const one of found)
			for (let ring = 0; ring < one.rings.count; ring++)
				if (one.off[ring]! > furthest) [most, furthest] = [{ of: one, ring }, one.off[ring]!];
		if (!(furthest > 0)) break;
		const { rings, shapes, of, off } = most.of;
		const shape = shapeOf(rings, most.ring);
		for (let ring = 0; ring < rings.count; ring++) {
			if (++looked % AT_ONCE === 0) yield k / kinds;
			const laid = lay(rings, ring, shape, mirrored, off[ring]!);
			if (laid.off >= off[ring]!) continue;
			off[ring] = laid.off;
			of[ring] = shapes.length;
		}
		shapes.push(shape);
	}
	return found.map((one) => ({ ...one, shapes: meanShapes(one, mirrored) }));
}

/**
 * The shapes anew, as their cells are now. @param among whether each cell may go to another shape that it is nearer to
 */
export function sortAnew(
	sorted: readonly Sorted[],
	now: readonly RingsOf[],
	like: LikeSettings,
	among: boolean
): Sorted[] {
	const mirrored = like.mirrored === 'together';
	return sorted.map(({ shapes, of: before }, k) => {
		const { rings, cells } = now[k]!;
		const of = new Uint32Array(rings.count);
		for (let ring = 0; ring < rings.count; ring++) {
			let own = before[ring]!;
			of[ring] = own;
			if (!among) continue;
			let least = lay(rings, ring, shapes[own]!, mirrored, Infinity).off;
			for (const [s, shape] of shapes.entries()) {
				const { off } = lay(rings, ring, shape, mirrored, least);
				if (off < least) [own, least] = [s, off];
			}
			of[ring] = own;
		}
		const next = { rings, cells, shapes, of };
		return { ...next, shapes: meanShapes(next, mirrored) };
	});
}
