import type { ClauseGroup, FaceModel, Model, ZoneModel } from '../cladding/model';
import { pointAt, type Vector } from '../geometry/vector';
import type { ElementTable } from '../part/element-table';
import { placesOf, trianglesOf } from '../part/places';
import type { Fill, LayerName } from './drawing';
import type { Frame } from './frame';
import { Numbers } from './hidden-lines';

/** Edges between triangles that are turned less against each other are no lines: 20°. */
const CREASE = Math.cos((20 / 180) * Math.PI);

/** Triangles and edges of solids as they are seen: x to the right, y up, depth away from the eye (mm). */
export interface Solids {
	/** x y depth of every corner, three for each triangle. */
	readonly corners: Float64Array;
	/** By layer: x y depth of both ends of every edge that is turned to the eye. */
	readonly edges: ReadonlyMap<LayerName, Float64Array>;
	/** Where solids are cut: of each its rings, x y of every corner. */
	readonly cuts: readonly Fill[];
}

/** The edges of a mesh: two vertices, and the triangles on either side, -1 for none. */
type Edges = Int32Array;

const known = new WeakMap<ArrayLike<number>, Edges>();

/** Instances that have the same triangles share what is known of their edges. */
function edgesOf(triangles: ArrayLike<number>): Edges {
	const before = known.get(triangles);
	if (before) return before;
	const places = new Map<number, number>();
	const edges: number[] = [];
	for (let t = 0; t < triangles.length / 3; t++)
		for (let side = 0; side < 3; side++) {
			const [a, b] = [triangles[3 * t + side]!, triangles[3 * t + ((side + 1) % 3)]!];
			const name = Math.min(a, b) * 0x4000000 + Math.max(a, b);
			const place = places.get(name);
			if (place !== undefined && edges[place + 3] === -1) edges[place + 3] = t;
			else places.set(name, edges.push(a, b, t, -1) - 4);
		}
	const made = Int32Array.from(edges);
	known.set(triangles, made);
	return made;
}

const layerOfRole = { panel: 'panels', louver: 'louvers', structure: 'structure' } as const;

/** The layer that a group of pieces is drawn on. */
function layerOf({ group }: ClauseGroup): LayerName {
	if (group.over === 'line') return 'bars';
	if (group.over === 'node') return 'nodes';
	const { role } = group.ready.part;
	return role in layerOfRole ? layerOfRole[role as keyof typeof layerOfRole] : 'panels';
}

/** Takes meshes and keeps what of them is turned to the eye. */
export class Gathered {
	private readonly corners = new Numbers();
	private readonly edges = new Map<LayerName, Numbers>();
	private readonly cuts: Fill[] = [];
	private seen = new Float64Array(0);
	private normals = new Float64Array(0);

	/** @param from what is nearer to the eye is cut away (mm of depth) */
	constructor(
		private readonly frame: Frame,
		private readonly from = -Infinity
	) {}

	/** @param xyz mm from the origin @param triangles by vertex, outward */
	add(layer: LayerName, xyz: ArrayLike<number>, origin: Vector, triangles: ArrayLike<number>): void {
		const { right, up, away } = this.frame;
		const vertices = xyz.length / 3;
		const count = triangles.length / 3;
		if (this.seen.length < 3 * vertices) this.seen = new Float64Array(6 * vertices);
		if (this.normals.length < 3 * count) this.normals = new Float64Array(6 * count);
		const { seen, normals, from } = this;
		let [nearest, furthest] = [Infinity, -Infinity];
		for (let k = 0; k < 3 * vertices; k += 3) {
			const x = xyz[k]! + origin[0];
			const y = xyz[k + 1]! + origin[1];
			const z = xyz[k + 2]! + origin[2];
			seen[k] = x * right[0] + y * right[1] + z * right[2];
			seen[k + 1] = x * up[0] + y * up[1] + z * up[2];
			const depth = x * away[0] + y * away[1] + z * away[2];
			seen[k + 2] = depth;
			if (depth < nearest) nearest = depth;
			if (depth > furthest) furthest = depth;
		}
		if (furthest < from) return;
		const isCut = nearest < from;
		if (isCut) this.addRings(triangles, vertices);
		const outline = isCut ? this.into('outline') : null;
		for (let t = 0; t < count; t++) {
			const a = 3 * triangles[3 * t]!;
			const b = 3 * triangles[3 * t + 1]!;
			const c = 3 * triangles[3 * t + 2]!;
			const ux = seen[b]! - seen[a]!;
			const uy = seen[b + 1]! - seen[a + 1]!;
			const uz = seen[b + 2]! - seen[a + 2]!;
			const vx = seen[c]! - seen[a]!;
			const vy = seen[c + 1]! - seen[a + 1]!;
			const vz = seen[c + 2]! - seen[a + 2]!;
			const nx = uy * vz - uz * vy;
			const ny = uz * vx - ux * vz;
			const nz = ux * vy - uy * vx;
			const size = Math.sqrt(nx * nx + ny * ny + nz * nz) || 1;
			normals[3 * t] = nx / size;
			normals[3 * t + 1] = ny / size;
			normals[3 * t + 2] = nz / size;
			// To the right, up, away is a left-handed frame: outward triangles that run anticlockwise are turned to the eye.
			if (outline) {
				// The eye looks into what is cut: what is turned away closes it at its back.
				if (nz / size >= FACING) this.addCut(a, b, c, outline);
				else if (nz / size <= -FACING) this.addCut(a, c, b, outline);
				else this.addCut(a, b, c, outline);
				continue;
			}
			if (nz / size < HIDING) continue;
			for (const corner of [a, b, c]) this.corners.push(seen[corner]!, seen[corner + 1]!, seen[corner + 2]!);
		}
		this.addEdges(layer, edgesOf(triangles));
	}

	private into(layer: LayerName): Numbers {
		const known = this.edges.get(layer) ?? new Numbers();
		this.edges.set(layer, known);
		return known;
	}

	/** What of a triangle lies behind the cut, and the line in which it is cut. */
	private addCut(a: number, b: number, c: number, outline: Numbers): void {
		const { seen, from } = this;
		const kept: number[][] = [];
		const line: number[][] = [];
		const corners = [a, b, c].map((k) => [seen[k]!, seen[k + 1]!, seen[k + 2]!]);
		corners.forEach((p, k) => {
			const q = corners[(k + 1) % 3]!;
			if (p[2]! >= from) kept.push(p);
			if (p[2]! >= from === q[2]! >= from) return;
			const t = (from - p[2]!) / (q[2]! - p[2]!);
			const crossing = [p[0]! + t * (q[0]! - p[0]!), p[1]! + t * (q[1]! - p[1]!), from];
			kept.push(crossing);
			line.push(crossing);
		});
		for (let k = 1; k + 1 < kept.length; k++) this.corners.push(...kept[0]!, ...kept[k]!, ...kept[k + 1]!);
		if (line.length === 2) outline.push(...line[0]!, ...line[1]!);
	}

	/**
	 * The rings in which a solid is cut: from triangle to triangle over the edges that cross the plane. A sheet without
	 * thickness has none that close.
	 */
	private addRings(triangles: ArrayLike<number>, vertices: number): void {
		const { seen, from } = this;
		// By the edge that a triangle's cut begins at: the one that it ends at.
		const next = new Map<number, number>();
		const nameOf = (a: number, b: number) => (a < b ? a * vertices + b : b * vertices + a);
		for (let t = 0; t < triangles.length; t += 3) {
			let [entry, exit] = [-1, -1];
			for (let side = 0; side < 3; side++) {
				const [a, b] = [triangles[t + side]!, triangles[t + ((side + 1) % 3)]!];
				const isBehind = seen[3 * a + 2]! >= from;
				if (isBehind === seen[3 * b + 2]! >= from) continue;
				if (isBehind) exit = nameOf(a, b);
				else entry = nameOf(a, b);
			}
			if (entry >= 0) next.set(entry, exit);
		}
		const rings: Float64Array[] = [];
		for (const [first] of next) {
			const ring: number[] = [];
			let name: number | undefined = first;
			for (; name !== undefined && next.has(name);) {
				const [a, b] = [3 * Math.floor(name / vertices), 3 * (name % vertices)];
				const t = (from - seen[a + 2]!) / (seen[b + 2]! - seen[a + 2]!);
				ring.push(seen[a]! + t * (seen[b]! - seen[a]!), seen[a + 1]! + t * (seen[b + 1]! - seen[a + 1]!));
				const to: number = next.get(name)!;
				next.delete(name);
				name = to;
			}
			if (name === first && ring.length > 4) rings.push(Float64Array.from(ring));
		}
		if (rings.length) this.cuts.push(rings);
	}

	private addEdges(layer: LayerName, edges: Edges): void {
		const { seen, normals, from } = this;
		const into = this.into(layer);
		for (let k = 0; k < edges.length; k += 4) {
			const one = 3 * edges[k + 2]!;
			const other = 3 * edges[k + 3]!;
			const faces = normals[one + 2]! >= FACING;
			const isRim = other < 0;
			if (!faces && (isRim || normals[other + 2]! < FACING)) continue;
			const turn = isRim
				? -1
				: normals[one]! * normals[other]! +
					normals[one + 1]! * normals[other + 1]! +
					normals[one + 2]! * normals[other + 2]!;
			// An outline is drawn however little it is turned.
			if (turn > CREASE && faces === normals[other + 2]! >= FACING) continue;
			const [a, b] = [3 * edges[k]!, 3 * edges[k + 1]!];
			const [ad, bd] = [seen[a + 2]!, seen[b + 2]!];
			if (ad < from && bd < from) continue;
			// Of an edge that is cut the part behind the plane.
			const [s, e] = [ad < from ? (from - ad) / (bd - ad) : 0, bd < from ? (from - ad) / (bd - ad) : 1];
			const at = (k: number, t: number) => seen[a + k]! + t * (seen[b + k]! - seen[a + k]!);
			into.push(at(0, s), at(1, s), at(2, s), at(0, e), at(1, e), at(2, e));
		}
	}

	done(): Solids {
		return {
			corners: this.corners.all,
			edges: new Map([...this.edges].map(([layer, numbers]) => [layer, numbers.all])),
			cuts: this.cuts
		};
	}
}
/** Triangles that are turned less to the eye are seen along their plane. */
const FACING = 1e-6;
/**
 * Those that are turned less hide nothing: they are slivers of a thousandth of their height, and where their corners are
 * rounded to single precision their planes lie anywhere.
 */
const HIDING = 1e-3;

/** All elements of some pieces. @param rows null for all of the group */
export function addPieces(
	into: Gathered,
	face: FaceModel,
	clause: ClauseGroup,
	rows: ReadonlySet<number> | null
): void {
	const layer = layerOf(clause);
	const add = ({ shape, count, row }: ElementTable) => {
		for (let k = 0; k < count; k++)
			if (!rows || rows.has(row[k]!)) into.add(layer, placesOf(shape, k), face.origin, trianglesOf(shape, k));
	};
	clause.group.run.elements.forEach(add);
}

/** Cells that nothing stands on, as sheets without thickness that are turned to the eye either way. */
function addBareCells(into: Gathered, zone: ZoneModel, f: number): void {
	const { cells, grid } = zone.faces[f]!;
	const taken = new Uint8Array(cells.count);
	for (const { group, face } of zone.groups)
		if (face === f && group.over === 'cell') for (const site of group.sites) taken[site] = 1;
	for (let c = 0; c < cells.count; c++) {
		if (taken[c]) continue;
		const nodes = cells.corners.subarray(cells.start[c]!, cells.start[c + 1]!);
		const xyz = Array.from(nodes).flatMap((node) => pointAt(grid.positions, node));
		const fan = fanOf(nodes.length);
		into.add('cells', xyz, [0, 0, 0], fan.front);
		into.add('cells', xyz, [0, 0, 0], fan.back);
	}
}
const fans = new Map<number, { readonly front: readonly number[]; readonly back: readonly number[] }>();
function fanOf(corners: number) {
	const before = fans.get(corners);
	if (before) return before;
	const front: number[] = [];
	for (let k = 1; k + 1 < corners; k++) front.push(0, k, k + 1);
	const fan = { front, back: [...front].reverse() };
	fans.set(corners, fan);
	return fan;
}

/**
 * All that stands in some zones, as it is seen.
 *
 * ```ts
 * const { corners } = solidsOf(model, lookingAlong([0, 1, 0]), null);
 * ```
 * @param zones places of them in the project; null for all
 * @param from what is nearer to the eye is cut away (mm of depth)
 */
export function solidsOf(
	model: Model,
	frame: Frame,
	zones: readonly number[] | null,
	from = -Infinity
): Solids {
	const into = new Gathered(frame, from);
	for (const [z, { model: zone }] of model.zones.entries()) {
		if (!zone || (zones && !zones.includes(z))) continue;
		for (const clause of zone.groups) addPieces(into, zone.faces[clause.face]!, clause, null);
		for (const f of zone.faces.keys()) addBareCells(into, zone, f);
	}
	return into.done();
}
