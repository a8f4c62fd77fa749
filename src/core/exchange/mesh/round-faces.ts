import type { Surface } from '../../geometry/surface';
import { distance, dot, type Vector } from '../../geometry/vector';
import { throughPoints } from '../../mass/net';
import type { FlatFace } from './flat-faces';

/** Facets that lean from each other by less than eight degrees tell of one round side; a tower of 24 sides is meant so. */
const ROUND = Math.cos((8 * Math.PI) / 180);
/** One is at most so many times as wide as the next: a straight side that runs on into a bow is no facet of it. */
const WIDER = 2;
/** Fewer facets are corners, not a bow. */
const FEWEST = 3;
const [CORNERS, OPPOSITE] = [4, 2];

/** A side of a facet: between its corner of that number and the next. */
interface Side {
	readonly facet: number;
	readonly side: number;
}

const keyOf = (a: Vector, b: Vector) => `${a.join(' ')} ${b.join(' ')}`;

/** Facets of four corners, and what each runs on into. */
class Facets {
	private readonly sides = new Map<string, Side>();

	constructor(private readonly faces: readonly FlatFace[]) {
		faces.forEach(({ loops }, facet) => {
			if (loops.length !== 1 || loops[0]!.length !== CORNERS) return;
			for (let side = 0; side < CORNERS; side++)
				this.sides.set(keyOf(this.corner(facet, side), this.corner(facet, side + 1)), { facet, side });
		});
	}

	corner(facet: number, k: number): Vector {
		return this.faces[facet]!.loops[0]![k % CORNERS]!;
	}

	/** Between a side and the one opposite to it. */
	private width({ facet, side }: Side): number {
		const way = (k: number) => distance(this.corner(facet, k), this.corner(facet, k + 1));
		return (way(side + 1) + way(side + 3)) / 2;
	}

	/** The side of the facet that goes on beyond another as one bow; null where there is none. */
	beyond(from: Side): Side | null {
		const [a, b] = [this.corner(from.facet, from.side), this.corner(from.facet, from.side + 1)];
		const found = this.sides.get(keyOf(b, a));
		if (!found || dot(this.faces[from.facet]!.normal, this.faces[found.facet]!.normal) < ROUND) return null;
		const [one, other] = [this.width(from), this.width(found)];
		return Math.max(one, other) <= WIDER * Math.min(one, other) ? found : null;
	}

	/** The side that a facet is bent over, the other way from the one opposite; null where it bends both ways, or none. */
	bentOver(facet: number): Side | null {
		if (!this.sides.has(keyOf(this.corner(facet, 0), this.corner(facet, 1)))) return null;
		const bends = [0, 1].map((side) =>
			[side, side + OPPOSITE].some((one) => this.beyond({ facet, side: one }) !== null)
		);
		return bends[0] === bends[1] ? null : { facet, side: bends[0] ? 0 : 1 };
	}
}

/** Facets one after the other: of each the side where it is entered. */
function bowOf(facets: Facets, start: Side): readonly Side[] {
	const leave = ({ facet, side }: Side): Side => ({ facet, side: (side + OPPOSITE) % CORNERS });
	const isBent = ({ facet }: Side) => facets.bentOver(facet) !== null;
	/** From a side on, over the facets that follow. */
	const walk = (from: Side): Side[] => {
		const found: Side[] = [];
		const seen = new Set([from.facet]);
		for (
			let at = facets.beyond(from);
			at && isBent(at) && !seen.has(at.facet);
			at = facets.beyond(leave(at))
		) {
			seen.add(at.facet);
			found.push(at);
		}
		return found;
	};
	const on = walk(leave(start));
	const isClosed = on.length > 0 && facets.beyond(leave(on.at(-1)!))?.facet === start.facet;
	const back = isClosed ? [] : walk(start).map(leave).reverse();
	return [...back, start, ...on];
}

/**
 * Sides of a body that are told in many narrow facets, as the round ones that they tell of: through the edges of all
 * facets, straight from the foot of each to its head. What is round two ways stays as it is.
 *
 * ```ts
 * const { round, flat } = roundFaces(flatFaces(Float64Array.of(0, 0, 0, 9, 0, 0, 9, 9, 0), [0, 1, 2])); // one, flat
 * ```
 * @returns surfaces that are seen from outside, and the faces that belong to none
 */
export function roundFaces(faces: readonly FlatFace[]): {
	readonly round: readonly Surface[];
	readonly flat: readonly FlatFace[];
} {
	const facets = new Facets(faces);
	const taken = new Set<number>();
	const round: Surface[] = [];
	faces.forEach((_, facet) => {
		const start = taken.has(facet) ? null : facets.bentOver(facet);
		if (!start) return;
		const bow = bowOf(facets, start);
		if (bow.length < FEWEST) return;
		for (const one of bow) taken.add(one.facet);
		// Corners run to the left of a facet's rim: where it is entered from head to foot, where it is left back up.
		const [first] = bow as readonly [Side];
		const foot = [facets.corner(first.facet, first.side + 1)];
		const head = [facets.corner(first.facet, first.side)];
		for (const { facet: next, side } of bow) {
			foot.push(facets.corner(next, side + OPPOSITE));
			head.push(facets.corner(next, side + OPPOSITE + 1));
		}
		round.push(throughPoints([foot, head], [3, 1]).surface);
	});
	return { round, flat: faces.filter((_, facet) => !taken.has(facet)) };
}
