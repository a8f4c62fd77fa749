import type { ClauseGroup, Model } from '../cladding/model';
import { cross, dot, length, pointAt, subtract, unit, type Vector } from '../geometry/vector';
import type { Kind } from '../like/kinds';
import { kindsOfRows } from '../schedule/kind-of-row';
import { sourcesOf, type GroupSource } from '../schedule/sources';
import { instancesOf, type ElementTable } from '../part/element-table';
import { placesOf, trianglesOf } from '../part/places';
import type { PartBody } from './piece-bodies';

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
/** Numbers of a frame: its origin, and the ways of its x, y and z. */
const FRAME = 12;

/** The bodies of one piece after the other, without anything made for them. */
class Reader {
	places = new Float32Array(3000);
	length = 0;
	readonly parts: { element: number; triangles: ArrayLike<number>; size: number }[] = [];

	/** @returns whether there is anything */
	read({ group }: ClauseGroup, row: number): boolean {
		this.length = this.parts.length = 0;
		for (const table of group.run.elements) this.take(table, instancesOf(table).of(row));
		return this.length > 0;
	}

	private take({ element, shape }: ElementTable, instances: Uint32Array): void {
		for (let n = 0; n < instances.length; n++) {
			const own = placesOf(shape, instances[n]!);
			const size = own.length;
			if (this.length + size > this.places.length) {
				const more = new Float32Array(2 * (this.length + size));
				more.set(this.places);
				this.places = more;
			}
			this.places.set(own, this.length);
			this.length += size;
			this.parts.push({ element, triangles: trianglesOf(shape, instances[n]!), size });
		}
	}

	/** Three vertices far from one another and from one line: a frame that is read from them is exact. */
	corners(): readonly [number, number, number] | null {
		const { places, length: end } = this;
		const first = pointAt(places, 0);
		let [second, third] = [0, 0];
		let most = 0;
		for (let k = 1; 3 * k < end; k++) {
			const way = length(subtract(pointAt(places, k), first));
			if (way > most) [most, second] = [way, k];
		}
		if (!(most > 0)) return null;
		const along = unit(subtract(pointAt(places, second), first));
		let furthest = 0;
		for (let k = 1; 3 * k < end; k++) {
			const off = length(cross(along, subtract(pointAt(places, k), first)));
			if (off > furthest) [furthest, third] = [off, k];
		}
		return furthest > 0 ? [0, second, third] : null;
	}

	/** Write the frame of three of its vertices. */
	frame([a, b, c]: readonly [number, number, number], into: Float64Array, at: number): void {
		const { places } = this;
		const [ox, oy, oz] = [places[3 * a]!, places[3 * a + 1]!, places[3 * a + 2]!];
		let [x, y, z] = [places[3 * b]! - ox, places[3 * b + 1]! - oy, places[3 * b + 2]! - oz];
		const size = Math.sqrt(x * x + y * y + z * z);
		[x, y, z] = [x / size, y / size, z / size];
		const [p, q, r] = [places[3 * c]! - ox, places[3 * c + 1]! - oy, places[3 * c + 2]! - oz];
		let [u, v, w] = [y * r - z * q, z * p - x * r, x * q - y * p];
		const off = Math.sqrt(u * u + v * v + w * w);
		[u, v, w] = [u / off, v / off, w / off];
		into[at] = ox;
		into[at + 1] = oy;
		into[at + 2] = oz;
		into[at + 3] = x;
		into[at + 4] = y;
		into[at + 5] = z;
		into[at + 6] = v * z - w * y;
		into[at + 7] = w * x - u * z;
		into[at + 8] = u * y - v * x;
		into[at + 9] = u;
		into[at + 10] = v;
		into[at + 11] = w;
	}

	/** Whether it is a body that stands in a frame. */
	isIn({ parts }: LikeBody, frames: Float64Array, at: number): boolean {
		const { places } = this;
		const [ox, oy, oz] = [frames[at]!, frames[at + 1]!, frames[at + 2]!];
		const [xx, xy, xz] = [frames[at + 3]!, frames[at + 4]!, frames[at + 5]!];
		const [yx, yy, yz] = [frames[at + 6]!, frames[at + 7]!, frames[at + 8]!];
		const [zx, zy, zz] = [frames[at + 9]!, frames[at + 10]!, frames[at + 11]!];
		let n = 0;
		for (let k = 0; k < parts.length; k++) {
			const wanted = parts[k]!.places;
			for (let v = 0; v < wanted.length; v += 3, n += 3) {
				const [p, q, r] = [wanted[v]!, wanted[v + 1]!, wanted[v + 2]!];
				if (!(Math.abs(ox + p * xx + q * yx + r * zx - places[n]!) <= SAME)) return false;
				if (!(Math.abs(oy + p * xy + q * yy + r * zy - places[n + 1]!) <= SAME)) return false;
				if (!(Math.abs(oz + p * xz + q * yz + r * zz - places[n + 2]!) <= SAME)) return false;
			}
		}
		return true;
	}

	/** Whether it has the same triangles as a body. */
	isLike({ parts }: LikeBody): boolean {
		return (
			parts.length === this.parts.length &&
			parts.every(({ element, triangles, places }, k) => {
				const own = this.parts[k]!;
				return element === own.element && triangles === own.triangles && places.length === own.size;
			})
		);
	}

	/** Its bodies as they are in a frame. */
	within({ origin, x, y, z }: Frame): PartBody[] {
		let n = 0;
		return this.parts.map(({ element, triangles, size }) => {
			const own = new Float64Array(size);
			for (let k = 0; k < size; k += 3, n += 3) {
				const p = subtract([this.places[n]!, this.places[n + 1]!, this.places[n + 2]!], origin);
				[own[k], own[k + 1], own[k + 2]] = [dot(p, x), dot(p, y), dot(p, z)];
			}
			return { element, places: own, triangles };
		});
	}
}

function frameFrom(frames: Float64Array, at: number): Frame {
	const vector = (k: number): Vector => [frames[k]!, frames[k + 1]!, frames[k + 2]!];
	return { origin: vector(at), x: vector(at + 3), y: vector(at + 6), z: vector(at + 9) };
}

/** Pieces whose bodies are the same but for where they stand. */
export class LikeBodies {
	private readonly of = new Map<
		ClauseGroup,
		{ readonly bodies: (LikeBody | null)[]; readonly frames: Float64Array }
	>();
	private readonly byKind = new Map<Kind, LikeBody[]>();
	private readonly reader = new Reader();

	constructor(sources: readonly GroupSource[]) {
		for (const source of sources) this.sort(source);
	}

	private sort(source: GroupSource): void {
		const { clause, group } = source;
		const kindOf = kindsOfRows(source);
		// Where every body has triangles of its own there is nothing that could be the same.
		if (!kindOf || group.run.elements.some(({ shape }) => shape.is === 'own')) return;
		const frames = new Float64Array(FRAME * group.sites.length);
		const bodies = Array.from(group.sites, (_, row) => {
			const kind = kindOf(row);
			return kind.size > 1 ? this.find(clause, kind, row, frames) : null;
		});
		this.of.set(clause, { bodies, frames });
	}

	private find(clause: ClauseGroup, kind: Kind, row: number, frames: Float64Array): LikeBody | null {
		const { reader } = this;
		if (!reader.read(clause, row)) return null;
		const known = this.byKind.get(kind) ?? [];
		this.byKind.set(kind, known);
		const at = FRAME * row;
		for (const body of known) {
			if (!reader.isLike(body)) continue;
			reader.frame(body.corners, frames, at);
			if (!reader.isIn(body, frames, at)) continue;
			body.pieces++;
			return body;
		}
		const corners = known.length < MOST_BODIES ? reader.corners() : null;
		if (!corners) return null;
		reader.frame(corners, frames, at);
		const body: LikeBody = { clause, parts: reader.within(frameFrom(frames, at)), corners, pieces: 1 };
		known.push(body);
		return body;
	}

	/** The body that a piece has together with others, and where it stands; null where it has its own. */
	get(clause: ClauseGroup, row: number): Standing | null {
		const found = this.of.get(clause);
		const body = found?.bodies[row];
		return body && body.pieces > 1 ? { body, frame: frameFrom(found.frames, FRAME * row) } : null;
	}
}

const known = new WeakMap<Model, LikeBodies>();

/** Those of a model, looked for once. */
export function likeBodiesOf(model: Model): LikeBodies {
	const found = known.get(model) ?? new LikeBodies(sourcesOf(model));
	known.set(model, found);
	return found;
}
