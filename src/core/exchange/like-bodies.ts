import type { ClauseGroup } from '../cladding/model';
import { cross, dot, length, pointAt, subtract, unit, type Vector } from '../geometry/vector';
import type { Kind } from '../like/kinds';
import { kindsOfRows } from '../schedule/kind-of-row';
import type { GroupSource } from '../schedule/sources';
import { bodiesOf, type PartBody } from './piece-bodies';

/** Where a body stands. */
export interface Frame {
	readonly origin: Vector;
	readonly x: Vector;
	readonly y: Vector;
	readonly z: Vector;
}

/** A body that several pieces have, each turned and moved. */
export interface LikeBody {
	readonly clause: ClauseGroup;
	/** In its own frame. */
	readonly parts: readonly PartBody[];
	/** The vertices that its frame is read from. */
	readonly corners: readonly [number, number, number];
	/** How many pieces have it. */
	pieces: number;
}

/** A body, and where it stands. */
interface Standing {
	readonly body: LikeBody;
	readonly frame: Frame;
}

/** Vertices that are off by no more (mm) are the same: bodies are kept in 32 bits. */
const SAME = 0.02;
/** Of one kind so many different bodies are kept to be found again. */
const MOST_BODIES = 4;

const joined = (parts: readonly PartBody[]) => {
	const places = new Float64Array(parts.reduce((sum, { places }) => sum + places.length, 0));
	let at = 0;
	for (const part of parts) {
		places.set(part.places, at);
		at += part.places.length;
	}
	return places;
};

/** Three vertices far from one another and from one line: a frame that is read from them is exact. */
function cornersFor(places: Float64Array): readonly [number, number, number] | null {
	const first = pointAt(places, 0);
	let [second, third] = [0, 0];
	let most = 0;
	for (let k = 1; k < places.length / 3; k++) {
		const way = length(subtract(pointAt(places, k), first));
		if (way > most) [most, second] = [way, k];
	}
	if (!(most > 0)) return null;
	const along = unit(subtract(pointAt(places, second), first));
	let furthest = 0;
	for (let k = 1; k < places.length / 3; k++) {
		const off = length(cross(along, subtract(pointAt(places, k), first)));
		if (off > furthest) [furthest, third] = [off, k];
	}
	return furthest > 0 ? [0, second, third] : null;
}

function frameAt(places: Float64Array, [a, b, c]: readonly [number, number, number]): Frame {
	const origin = pointAt(places, a);
	const x = unit(subtract(pointAt(places, b), origin));
	const z = unit(cross(x, subtract(pointAt(places, c), origin)));
	return { origin, x, y: cross(z, x), z };
}

const within = ({ origin, x, y, z }: Frame, places: PartBody['places']): Float64Array => {
	const own = new Float64Array(places.length);
	for (let k = 0; k < places.length; k += 3) {
		const p = subtract([places[k]!, places[k + 1]!, places[k + 2]!], origin);
		[own[k], own[k + 1], own[k + 2]] = [dot(p, x), dot(p, y), dot(p, z)];
	}
	return own;
};

/** Where a piece is another body turned and moved; null where it is not. */
function frameOf(body: LikeBody, parts: readonly PartBody[], places: Float64Array): Frame | null {
	if (parts.length !== body.parts.length) return null;
	for (const [k, { element, triangles, places }] of parts.entries()) {
		const other = body.parts[k]!;
		if (element !== other.element || triangles !== other.triangles || places.length !== other.places.length)
			return null;
	}
	const frame = frameAt(places, body.corners);
	const { origin, x, y, z } = frame;
	let at = 0;
	for (const { places: wanted } of body.parts)
		for (let k = 0; k < wanted.length; k += 3, at += 3) {
			const [p, q, r] = [wanted[k]!, wanted[k + 1]!, wanted[k + 2]!];
			for (let a = 0; a < 3; a++) {
				const here = origin[a]! + p * x[a]! + q * y[a]! + r * z[a]!;
				if (!(Math.abs(here - places[at + a]!) <= SAME)) return null;
			}
		}
	return frame;
}

/** Pieces whose bodies are the same but for where they stand. */
export class LikeBodies {
	private readonly of = new Map<ClauseGroup, (Standing | null)[]>();
	private readonly byKind = new Map<Kind, LikeBody[]>();

	constructor(sources: readonly GroupSource[]) {
		for (const source of sources) this.sort(source);
	}

	private sort(source: GroupSource): void {
		const { clause, group } = source;
		const kindOf = kindsOfRows(source);
		// Where every body has triangles of its own there is nothing that could be the same.
		if (!kindOf || group.run.elements.some(({ shape }) => shape.is === 'own')) return;
		this.of.set(
			clause,
			Array.from(group.sites, (_, row) => {
				const kind = kindOf(row);
				return kind.size > 1 ? this.find(clause, kind, row) : null;
			})
		);
	}

	private find(clause: ClauseGroup, kind: Kind, row: number): Standing | null {
		const parts = bodiesOf(clause, row);
		if (!parts.length) return null;
		const places = joined(parts);
		const known = this.byKind.get(kind) ?? [];
		this.byKind.set(kind, known);
		for (const body of known) {
			const frame = frameOf(body, parts, places);
			if (!frame) continue;
			body.pieces++;
			return { body, frame };
		}
		const corners = known.length < MOST_BODIES ? cornersFor(places) : null;
		if (!corners) return null;
		const frame = frameAt(places, corners);
		const body: LikeBody = {
			clause,
			parts: parts.map((part) => ({ ...part, places: within(frame, part.places) })),
			corners,
			pieces: 1
		};
		known.push(body);
		return { body, frame };
	}

	/** The body that a piece has together with others, and where it stands; null where it has its own. */
	get(clause: ClauseGroup, row: number): Standing | null {
		const found = this.of.get(clause)?.[row];
		return found && found.body.pieces > 1 ? found : null;
	}
}
