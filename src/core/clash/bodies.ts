import type { Model } from '../cladding/model';
import type { ElementTable } from '../part/element-table';
import { placesOf, trianglesOf } from '../part/places';
import { bodyOf, type Body } from './body';
import { endsOf, meetAtNode } from './joints';

/** The elements of all pieces of a model: their boxes at once, their meshes when they are asked for. */
export class Bodies {
	/** Low x y z and high x y z of each (mm). */
	readonly bounds: Float64Array;
	/** The number of the piece that each belongs to. */
	readonly piece: Uint32Array;
	/** Of each piece: its zone, its group among those of the zone, and its row there. */
	readonly zones: Uint32Array;
	readonly groups: Uint32Array;
	readonly rows: Uint32Array;
	private readonly tables: { readonly table: ElementTable; readonly origin: readonly number[] }[] = [];
	private readonly tableOf: Uint32Array;
	private readonly instanceOf: Uint32Array;
	private readonly made: (Body | undefined)[];
	private readonly ends: (Float64Array | undefined)[];

	/** @param inset how far meshes are drawn in at most (mm): what only touches is apart then */
	constructor(
		private readonly model: Model,
		private readonly inset: number
	) {
		const groups = model.zones.flatMap(({ model: zone }, z) =>
			(zone?.groups ?? []).map(({ group, face }, g) => ({ group, z, g, origin: zone!.faces[face]!.origin }))
		);
		const count = groups.reduce((sum, { group }) => sum + tablesCount(group.run.elements), 0);
		const pieces = groups.reduce((sum, { group }) => sum + group.sites.length, 0);
		this.bounds = new Float64Array(6 * count);
		this.piece = new Uint32Array(count);
		this.tableOf = new Uint32Array(count);
		this.instanceOf = new Uint32Array(count);
		this.made = new Array<Body | undefined>(count);
		this.ends = new Array<Float64Array | undefined>(pieces);
		this.zones = new Uint32Array(pieces);
		this.groups = new Uint32Array(pieces);
		this.rows = new Uint32Array(pieces);
		let [piece, body] = [0, 0];
		for (const { group, z, g, origin } of groups) {
			this.zones.fill(z, piece, piece + group.sites.length);
			this.groups.fill(g, piece, piece + group.sites.length);
			for (let row = 0; row < group.sites.length; row++) this.rows[piece + row] = row;
			for (const table of group.run.elements) {
				const at = this.tables.push({ table, origin }) - 1;
				for (let k = 0; k < table.count; k++, body++) {
					this.piece[body] = piece + table.row[k]!;
					this.tableOf[body] = at;
					this.instanceOf[body] = k;
					bound(placesOf(table.shape, k), origin, this.bounds, 6 * body);
				}
			}
			piece += group.sites.length;
		}
	}

	get count(): number {
		return this.piece.length;
	}

	/** Whether two pieces meet at a node. */
	areJoined(one: number, other: number): boolean {
		return meetAtNode(this.endsOf(one), this.endsOf(other));
	}

	private endsOf(piece: number): Float64Array {
		const { groups, faces } = this.model.zones[this.zones[piece]!]!.model!;
		const { group, face } = groups[this.groups[piece]!]!;
		return (this.ends[piece] ??= endsOf(group, faces[face]!, this.rows[piece]!));
	}

	/** The mesh of one, made when it is first asked for. */
	body(k: number): Body {
		const known = this.made[k];
		if (known) return known;
		const { table, origin } = this.tables[this.tableOf[k]!]!;
		const places = placesOf(table.shape, this.instanceOf[k]!);
		const triangles = trianglesOf(table.shape, this.instanceOf[k]!);
		const vertices = new Float64Array(places.length);
		for (let v = 0; v < vertices.length; v++) vertices[v] = places[v]! + origin[v % 3]!;
		return (this.made[k] = bodyOf(vertices, triangles, this.inset));
	}
}

const tablesCount = (tables: readonly ElementTable[]) => tables.reduce((sum, { count }) => sum + count, 0);

function bound(places: Float32Array, origin: readonly number[], bounds: Float64Array, at: number): void {
	for (let a = 0; a < 3; a++) {
		let [low, high] = [Infinity, -Infinity];
		for (let k = a; k < places.length; k += 3) {
			const value = places[k]!;
			if (value < low) low = value;
			if (value > high) high = value;
		}
		bounds[at + a] = low + origin[a]!;
		bounds[at + 3 + a] = high + origin[a]!;
	}
}
