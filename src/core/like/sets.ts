import { differenceOf, strideOf, type Rings } from './rings';

/** Rings that are alike, in sets. */
export interface LikeSets {
	/** The set of every ring: those with most members come first. */
	readonly set: Uint32Array;
	/** How many are in each. */
	readonly sizes: Uint32Array;
	/** How far the members of each are from its first one at most (mm). */
	readonly spread: Float64Array;
}

/** Sets that are joined as more is known of them. */
class Joined {
	private readonly parent: Uint32Array;

	constructor(count: number) {
		this.parent = Uint32Array.from({ length: count }, (_, k) => k);
	}

	of(k: number): number {
		const { parent } = this;
		let at = k;
		while (parent[at] !== at) at = parent[at] = parent[parent[at]!]!;
		return at;
	}

	join(a: number, b: number): void {
		const [p, q] = [this.of(a), this.of(b)];
		if (p !== q) this.parent[Math.max(p, q)] = Math.min(p, q);
	}
}

/** A ring that others lie by, and those. */
interface Leader {
	readonly ring: number;
	readonly members: number[];
	/** How far the furthest of them is (mm). */
	radius: number;
}

/** Rings that differ by less (mm) are one as far as rounding goes. */
const SAME = 1e-6;

/**
 * Leaders by the shortest and longest edge and the longest diagonal of their rings: none of these can differ by more than
 * the rings themselves do. Steps of the tolerance, so that what differs by half of it stands in the same place or in the
 * nearer neighbour each way.
 */
class Places {
	private readonly places = new Map<number, Leader[]>();
	private readonly at = new Int32Array(3);
	private readonly side = new Int32Array(3);

	constructor(
		private readonly rings: Rings,
		private readonly tolerance: number
	) {}

	/** Find where a ring stands. */
	seek(ring: number): void {
		const { corners, steps, values } = this.rings;
		const from = strideOf(this.rings) * ring;
		let [short, long, across] = [Infinity, 0, 0];
		for (let k = 0; k < corners; k++) {
			const edge = values[from + k]!;
			if (edge < short) short = edge;
			if (edge > long) long = edge;
			if (steps > 1 && values[from + corners + k]! > across) across = values[from + corners + k]!;
		}
		this.put(0, short);
		this.put(1, long);
		this.put(2, across);
	}

	private put(axis: number, value: number): void {
		const share = value / this.tolerance;
		const whole = Math.floor(share);
		this.at[axis] = whole;
		this.side[axis] = share - whole < 0.5 ? -1 : 1;
	}

	/** Those of one of the eight places: 0 is the ring's own. Places that share a name are looked at together. */
	leaders(place: number): readonly Leader[] {
		return this.places.get(this.nameOf(place)) ?? NONE;
	}

	/** Let one stand at the place that was sought last. */
	add(leader: Leader): void {
		const name = this.nameOf(0);
		const known = this.places.get(name);
		if (known) known.push(leader);
		else this.places.set(name, [leader]);
	}

	private nameOf(place: number): number {
		const { at, side } = this;
		const i = at[0]! + (place & 1 ? side[0]! : 0);
		const j = at[1]! + (place & 2 ? side[1]! : 0);
		const k = at[2]! + (place & 4 ? side[2]! : 0);
		return (Math.imul(i, 73_856_093) ^ Math.imul(j, 19_349_663) ^ Math.imul(k, 83_492_791)) >>> 0;
	}
}
const NONE: readonly Leader[] = [];

/** Join rings that differ by half the tolerance at most. */
function joinNear(rings: Rings, tolerance: number, mirrored: boolean): Joined {
	const half = tolerance / 2;
	const joined = new Joined(rings.count);
	const places = new Places(rings, tolerance);
	for (let ring = 0; ring < rings.count; ring++) {
		places.seek(ring);
		let own: Leader | null = null;
		for (let place = 0; place < 8; place++) {
			let isThere = false;
			for (const leader of places.leaders(place)) {
				const off = differenceOf(rings, ring, leader.ring, half + leader.radius, mirrored);
				if (off === Infinity) continue;
				if (off > half) {
					if (leader.members.some((one) => differenceOf(rings, ring, one, half, mirrored) <= half))
						joined.join(ring, leader.ring);
					continue;
				}
				joined.join(ring, leader.ring);
				if (place > 0 || own) continue;
				own = leader;
				leader.radius = Math.max(leader.radius, off);
				// Whoever is near to this one has been joined to its leader.
				if (off < SAME) {
					isThere = true;
					break;
				}
			}
			if (isThere) break;
		}
		if (own) own.members.push(ring);
		else places.add({ ring, members: [], radius: 0 });
	}
	return joined;
}

/** Of a set that is spread wider than the tolerance: each ring goes to the first that it is within half of it from. */
function cutApart(
	rings: Rings,
	members: readonly number[],
	tolerance: number,
	mirrored: boolean
): number[][] {
	const places = new Places(rings, tolerance);
	const sets = new Map<number, number[]>();
	for (const ring of members) {
		places.seek(ring);
		let found: number | null = null;
		for (let place = 0; place < 8 && found === null; place++)
			for (const leader of places.leaders(place))
				if (differenceOf(rings, ring, leader.ring, tolerance / 2, mirrored) !== Infinity) {
					found = leader.ring;
					break;
				}
		if (found !== null) sets.get(found)!.push(ring);
		else {
			places.add({ ring, members: [], radius: 0 });
			sets.set(ring, [ring]);
		}
	}
	return [...sets.values()];
}

/** How far a set is spread from its first ring. */
const spreadOf = (rings: Rings, [first, ...others]: readonly number[], mirrored: boolean): number => {
	let most = 0;
	for (const ring of others) most = Math.max(most, differenceOf(rings, first!, ring, Infinity, mirrored));
	return most;
};

/** Sets of no more than so many are looked at pair by pair. */
const FEW = 40;

/** Whether any two of a set are within the tolerance of each other. @param spread from its first ring */
function isWithin(
	rings: Rings,
	members: readonly number[],
	spread: number,
	tolerance: number,
	mirrored: boolean
): boolean {
	if (spread <= tolerance / 2) return true;
	if (spread > tolerance || members.length > FEW) return false;
	return members.every((a, k) =>
		members.slice(0, k).every((b) => differenceOf(rings, a, b, tolerance, mirrored) !== Infinity)
	);
}

/**
 * Rings that are the same within a tolerance, as sets: any two of a set differ by no more than it. Two that differ by half
 * of it are in one set, unless others join them to a row that is spread wider than the tolerance: that is cut where it has
 * to be.
 *
 * ```ts
 * const { sizes } = likeSets(rings, 2, false); // how many of each kind
 * ```
 * @param tolerance mm, above 0 @param mirrored whether mirror images are alike
 */
export function likeSets(rings: Rings, tolerance: number, mirrored: boolean): LikeSets {
	const joined = joinNear(rings, tolerance, mirrored);
	const whole = new Map<number, number[]>();
	for (let ring = 0; ring < rings.count; ring++) {
		const root = joined.of(ring);
		const known = whole.get(root);
		if (known) known.push(ring);
		else whole.set(root, [ring]);
	}
	const sets = [...whole.values()].flatMap((members): { members: readonly number[]; spread: number }[] => {
		const spread = spreadOf(rings, members, mirrored);
		if (isWithin(rings, members, spread, tolerance, mirrored)) return [{ members, spread }];
		return cutApart(rings, members, tolerance, mirrored).map((some) => ({
			members: some,
			spread: spreadOf(rings, some, mirrored)
		}));
	});
	sets.sort((a, b) => b.members.length - a.members.length || a.members[0]! - b.members[0]!);
	const set = new Uint32Array(rings.count);
	for (const [k, { members }] of sets.entries()) for (const ring of members) set[ring] = k;
	return {
		set,
		sizes: Uint32Array.from(sets, ({ members }) => members.length),
		spread: Float64Array.from(sets, ({ spread }) => spread)
	};
}
