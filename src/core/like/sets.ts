import type { Steps } from '../units/steps';
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

/** Of the sorted edges so many from either end say where a ring stands. */
const ENDS = 2;
const PRIMES = [73_856_093, 19_349_663, 83_492_791, 49_979_687, 67_867_979];

/**
 * Leaders by the two shortest and two longest edges and the longest diagonal of their rings: none of these can differ by
 * more than the rings themselves do, and cells of a surface, which differ in two ways, are spread well by them. Steps of
 * the tolerance, so that what differs by half of it stands in the same place or in the nearer neighbour each way.
 */
class Places {
	private readonly places = new Map<number, Leader[]>();
	private readonly edges: Float64Array;
	/** Of each measure: what the ring's own step, and the nearer one beside it, are to a place's name. */
	private readonly own: Int32Array;
	private readonly beside: Int32Array;
	/** How many places a ring can have others like it in, its own among them. */
	readonly count: number;

	constructor(
		private readonly rings: Rings,
		private readonly tolerance: number
	) {
		const { corners, steps } = rings;
		this.edges = new Float64Array(corners);
		const measures = Math.min(2 * ENDS, corners) + Number(steps > 1);
		this.own = new Int32Array(measures);
		this.beside = new Int32Array(measures);
		this.count = 2 ** measures;
	}

	/** Find where a ring stands. */
	seek(ring: number): void {
		const { corners, steps, values } = this.rings;
		const { edges } = this;
		const from = strideOf(this.rings) * ring;
		for (let k = 0; k < corners; k++) {
			const edge = values[from + k]!;
			let at = k;
			for (; at > 0 && edges[at - 1]! > edge; at--) edges[at] = edges[at - 1]!;
			edges[at] = edge;
		}
		const ends = Math.min(2 * ENDS, corners);
		for (let k = 0; k < ends; k++) this.put(k, edges[k < ENDS ? k : corners - ends + k]!);
		if (steps === 1) return;
		let across = 0;
		for (let k = corners; k < 2 * corners; k++) if (values[from + k]! > across) across = values[from + k]!;
		this.put(ends, across);
	}

	private put(measure: number, value: number): void {
		const share = value / this.tolerance;
		const whole = Math.floor(share);
		const prime = PRIMES[measure]!;
		this.own[measure] = Math.imul(whole, prime);
		this.beside[measure] = Math.imul(whole + (share - whole < 0.5 ? -1 : 1), prime);
	}

	/** Those of one of the places: 0 is the ring's own. Places that share a name are looked at together. */
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
		const { own, beside } = this;
		let name = 0;
		for (let k = 0; k < own.length; k++) name ^= place & (1 << k) ? beside[k]! : own[k]!;
		return name;
	}
}
const NONE: readonly Leader[] = [];

/** Rings that are joined between two breaths. */
const AT_ONCE = 1000;

/** Join rings that differ by half the tolerance at most. */
function* joinNear(rings: Rings, tolerance: number, mirrored: boolean): Steps<Joined> {
	const half = tolerance / 2;
	const joined = new Joined(rings.count);
	const places = new Places(rings, tolerance);
	/** The first leader in a ring's own place that it is near to, and how far from it. */
	const leaderOf = (ring: number) => {
		for (const leader of places.leaders(0)) {
			const off = differenceOf(rings, ring, leader.ring, half, mirrored);
			if (off !== Infinity) return { leader, off };
		}
		return null;
	};
	for (let ring = 0; ring < rings.count; ring++) {
		if (ring % AT_ONCE === 0) yield ring;
		places.seek(ring);
		const own = leaderOf(ring);
		// Joined to it first: of others in the same set nothing has to be looked at.
		if (own) joined.join(ring, own.leader.ring);
		// Whoever is near to this one has been joined to its leader.
		if (own && own.off < SAME) continue;
		for (let place = 0; place < places.count; place++)
			for (const { ring: first, members, radius } of places.leaders(place)) {
				if (joined.of(ring) === joined.of(first)) continue;
				const off = differenceOf(rings, ring, first, half + radius, mirrored);
				if (off === Infinity) continue;
				if (off <= half || members.some((one) => differenceOf(rings, ring, one, half, mirrored) <= half))
					joined.join(ring, first);
			}
		if (own) {
			own.leader.members.push(ring);
			own.leader.radius = Math.max(own.leader.radius, own.off);
		} else places.add({ ring, members: [], radius: 0 });
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
		for (let place = 0; place < places.count && found === null; place++)
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
 * const { sizes } = atOnce(likeSets(rings, 2, false)); // how many of each kind
 * ```
 * @param tolerance mm, above 0 @param mirrored whether mirror images are alike
 * @returns in steps: how many rings have been looked at, now and then, and the sets at last
 */
export function* likeSets(rings: Rings, tolerance: number, mirrored: boolean): Steps<LikeSets> {
	const joined = yield* joinNear(rings, tolerance, mirrored);
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
