import { once } from '../units/once';
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
		this.parent = new Uint32Array(count);
		for (let k = 0; k < count; k++) this.parent[k] = k;
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

/** Rings that differ by less (mm) are one as far as rounding goes. */
const SAME = 1e-6;

/** Of the sorted edges so many from either end say where a ring stands. */
const ENDS = 2;
const PRIMES = [73_856_093, 19_349_663, 83_492_791, 49_979_687, 67_867_979];
/** A step of a measure, in tolerances, and how close to the next one others like it can be beyond it: half a tolerance. */
const STEP = 2;
const CLOSE = (0.5 + 1e-9) / STEP;
/** Stands for no leader, no member. */
const NONE = -1;
/** A table of places begins with 2 to the power of this, so that it stays small where kinds are few. */
const LEAST_BITS = 8;
/** Spreads names over the table: 2³² by the golden ratio (Knuth, The Art of Computer Programming 3, 6.4; from memory). */
const SPREAD = 0x9e3779b1;

/**
 * Leaders, rings that others lie by, under the two shortest and two longest edges and the longest diagonal of their
 * rings: none of these can differ by more than the rings themselves do, and cells of a surface, which differ in two ways,
 * are spread well by them. In wide steps, so that what differs by half the tolerance mostly stands in the same place, and
 * in the nearer neighbour of those measures that are close to it.
 *
 * A leader is named by its ring. Those of one place, and the members of one leader, follow one another in lists; places
 * stand in a table: to look them up is most of what there is to do.
 */
class Places {
	/** By a table's place: the name that stands there, the first and the last leader of it. It grows with them. */
	private names = new Int32Array(0);
	private first = new Int32Array(0);
	private last = new Int32Array(0);
	private bits = LEAST_BITS;
	private used = 0;
	/** By leader: the next one of its place, its last member, and how far the furthest of them is from it (mm). */
	readonly next: Int32Array;
	readonly lastMember: Int32Array;
	readonly radius: Float64Array;
	/** By member: the one before it. */
	readonly memberBefore: Int32Array;
	private readonly edges: Float64Array;
	private readonly scale: number;
	/** What turns the name of a ring's own place into that of a neighbour: of each measure that is close to one. */
	private readonly aside: Int32Array;
	private close = 0;
	private name = 0;

	constructor(
		private readonly rings: Rings,
		tolerance: number
	) {
		const { corners, steps, count } = rings;
		this.scale = 1 / (STEP * tolerance);
		this.clear();
		this.next = new Int32Array(count).fill(NONE);
		this.lastMember = new Int32Array(count).fill(NONE);
		this.memberBefore = new Int32Array(count).fill(NONE);
		this.radius = new Float64Array(count);
		this.edges = new Float64Array(corners);
		this.aside = new Int32Array(Math.min(2 * ENDS, corners) + Number(steps > 1));
	}

	private clear(): void {
		this.names = new Int32Array(2 ** this.bits);
		this.first = new Int32Array(2 ** this.bits).fill(NONE);
		this.last = new Int32Array(2 ** this.bits);
	}

	/** Make the table twice as large. */
	private grow(): void {
		const { names, first, last } = this;
		this.bits++;
		this.clear();
		for (let k = 0; k < names.length; k++) {
			if (first[k] === NONE) continue;
			const slot = this.slotOf(names[k]!);
			this.names[slot] = names[k]!;
			this.first[slot] = first[k]!;
			this.last[slot] = last[k]!;
		}
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
		this.name = 0;
		this.close = 0;
		for (let k = 0; k < ends; k++) this.put(k, edges[k < ENDS ? k : corners - ends + k]!);
		if (steps === 1) return;
		let across = 0;
		for (let k = corners; k < 2 * corners; k++) if (values[from + k]! > across) across = values[from + k]!;
		this.put(ends, across);
	}

	private put(measure: number, value: number): void {
		const share = value * this.scale;
		const whole = Math.floor(share);
		const prime = PRIMES[measure]!;
		const own = Math.imul(whole, prime);
		this.name ^= own;
		const over = share - whole;
		if (over > CLOSE && over < 1 - CLOSE) return;
		this.aside[this.close++] = own ^ Math.imul(whole + (over < 0.5 ? -1 : 1), prime);
	}

	/** How many places the ring can have others like it in, its own among them. */
	get count(): number {
		return 1 << this.close;
	}

	/** Where a name stands in the table, or where it would. */
	private slotOf(name: number): number {
		const { names, first } = this;
		const most = names.length - 1;
		let slot = Math.imul(name, SPREAD) >>> (32 - this.bits);
		while (first[slot] !== NONE && names[slot] !== name) slot = (slot + 1) & most;
		return slot;
	}

	/** The first leader of one of the places: 0 is the ring's own. Places that share a name are looked at together. */
	firstOf(place: number): number {
		let { name } = this;
		for (let k = 0; k < this.close; k++) if (place & (1 << k)) name ^= this.aside[k]!;
		return this.first[this.slotOf(name)]!;
	}

	/** Let a ring lead at the place that was sought last. */
	add(ring: number): void {
		if (2 * this.used >= this.names.length) this.grow();
		const slot = this.slotOf(this.name);
		if (this.first[slot] === NONE) {
			this.used++;
			this.names[slot] = this.name;
			this.first[slot] = ring;
		} else this.next[this.last[slot]!] = ring;
		this.last[slot] = ring;
	}

	/** Let a ring follow a leader. */
	follow(ring: number, leader: number, off: number): void {
		this.memberBefore[ring] = this.lastMember[leader]!;
		this.lastMember[leader] = ring;
		if (off > this.radius[leader]!) this.radius[leader] = off;
	}
}

/** Rings that differ by half the tolerance at most, joined one by one. */
class NearRings {
	readonly joined: Joined;
	/** By ring: the one it lies by, itself where it leads, and how far from it (mm). */
	readonly leader: Uint32Array;
	readonly off: Float64Array;
	private readonly places: Places;
	private readonly half: number;

	constructor(
		private readonly rings: Rings,
		tolerance: number,
		private readonly mirrored: boolean
	) {
		this.half = tolerance / 2;
		this.joined = new Joined(rings.count);
		this.leader = new Uint32Array(rings.count);
		this.off = new Float64Array(rings.count);
		this.places = new Places(rings, tolerance);
	}

	private differ(a: number, b: number, most: number): number {
		return differenceOf(this.rings, a, b, most, this.mirrored);
	}

	/** Join a ring to those before it. */
	take(ring: number): void {
		const { places, joined, half } = this;
		places.seek(ring);
		let leader = places.firstOf(0);
		let off = Infinity;
		for (; leader !== NONE; leader = places.next[leader]!) {
			off = this.differ(ring, leader, half);
			if (off !== Infinity) break;
		}
		this.leader[ring] = leader === NONE ? ring : leader;
		this.off[ring] = leader === NONE ? 0 : off;
		// Joined to it first: of others in the same set nothing has to be looked at.
		if (leader !== NONE) joined.join(ring, leader);
		// Whoever is near to this one has been joined to its leader.
		if (leader !== NONE && off < SAME) return;
		for (let place = 0; place < places.count; place++)
			for (let other = places.firstOf(place); other !== NONE; other = places.next[other]!)
				if (joined.of(ring) !== joined.of(other) && this.isNear(ring, other)) joined.join(ring, other);
		if (leader !== NONE) places.follow(ring, leader, off);
		else places.add(ring);
	}

	/** Whether a ring is near to a leader or to one of its members. */
	private isNear(ring: number, leader: number): boolean {
		const { places, half } = this;
		const off = this.differ(ring, leader, half + places.radius[leader]!);
		if (off <= half) return true;
		if (off === Infinity) return false;
		for (let one = places.lastMember[leader]!; one !== NONE; one = places.memberBefore[one]!)
			if (this.differ(ring, one, half) <= half) return true;
		return false;
	}
}

/** Rings that are joined between two breaths. */
const AT_ONCE = 1000;

/** Join rings that differ by half the tolerance at most. */
function* joinNear(rings: Rings, tolerance: number, mirrored: boolean): Steps<NearRings> {
	const near = new NearRings(rings, tolerance, mirrored);
	for (let from = 0; from < rings.count; from += AT_ONCE) {
		yield from;
		const to = Math.min(from + AT_ONCE, rings.count);
		for (let ring = from; ring < to; ring++) near.take(ring);
	}
	return near;
}

/**
 * Of a set that is spread wider than the tolerance: each ring goes to one that it is within half of it from.
 * @param places where those of sets that were cut before may stand
 */
function cutApart(
	rings: Rings,
	members: readonly number[],
	tolerance: number,
	mirrored: boolean,
	places: Places
): Spread[] {
	const sets = new Map<number, { members: number[]; spread: number }>();
	let last = NONE;
	const takes = (leader: number, ring: number): boolean => {
		const set = sets.get(leader);
		const off = set ? differenceOf(rings, ring, leader, tolerance / 2, mirrored) : Infinity;
		if (!set || off === Infinity) return false;
		set.members.push(ring);
		set.spread = Math.max(set.spread, off);
		last = leader;
		return true;
	};
	const isTaken = (ring: number): boolean => {
		for (let place = 0; place < places.count; place++)
			for (let leader = places.firstOf(place); leader !== NONE; leader = places.next[leader]!)
				if (takes(leader, ring)) return true;
		return false;
	};
	for (const ring of members) {
		// Neighbours are often alike.
		if (takes(last, ring)) continue;
		places.seek(ring);
		if (isTaken(ring)) continue;
		places.add(ring);
		sets.set(ring, { members: [ring], spread: 0 });
		last = ring;
	}
	return [...sets.values()];
}

/** A set, and how far it is spread from its first ring (mm). */
interface Spread {
	readonly members: readonly number[];
	readonly spread: number;
}

/** How far a set is spread from its first ring; Infinity where that is more than a bound (mm). */
function spreadOf(rings: Rings, members: readonly number[], most: number, mirrored: boolean): number {
	let spread = 0;
	for (let k = 1; k < members.length && spread <= most; k++)
		spread = Math.max(spread, differenceOf(rings, members[0]!, members[k]!, most, mirrored));
	return spread;
}

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
	const { joined, leader, off } = yield* joinNear(rings, tolerance, mirrored);
	const whole = new Map<number, number[]>();
	for (let ring = 0; ring < rings.count; ring++) {
		const root = joined.of(ring);
		const known = whole.get(root);
		if (known) known.push(ring);
		else whole.set(root, [ring]);
	}
	const places = once(() => new Places(rings, tolerance));
	const sets = [...whole.values()].flatMap((members): Spread[] => {
		// Where all lie by the first it is known how far they are from it.
		const spread = members.every((ring) => leader[ring] === members[0])
			? members.reduce((most, ring) => Math.max(most, off[ring]!), 0)
			: spreadOf(rings, members, tolerance, mirrored);
		if (isWithin(rings, members, spread, tolerance, mirrored)) return [{ members, spread }];
		return cutApart(rings, members, tolerance, mirrored, places());
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
