import { NO_CELL } from './edges';
import type { RimmedFace, SharedRim } from './shared-rims';
import { ALONG, NO_DIRECTION } from '../geometry/tolerance';

/**
 * The nodes of a face where lines meet, by their place in the grid. Each is once in its zone: one on a rim that faces
 * share belongs to the first of them, with the lines of all.
 */
export interface Nodes {
	/** The lines that meet at node n: start[n] .. start[n + 1]; none where no cell is, or another face has it. */
	readonly start: Uint32Array;
	/**
	 * Where each line goes from there: flat x y z, length 1. Counter-clockwise seen from outside, from the one that
	 * goes to the right.
	 */
	readonly ways: Float64Array;
	/** How long each of these lines is (mm). */
	readonly spans: Float64Array;
	/** Each of these lines: the face it is of, its number there. */
	readonly lines: { readonly face: Uint16Array; readonly edge: Uint32Array };
	/** Flat x y z, length 1: the mean of the faces that meet there. */
	readonly normals: Float64Array;
	/** 1 where a line with a cell on one side only ends, and at the loose ends of lines without cells. */
	readonly rim: Uint8Array;
}

/** A net of lines that ends at nodes of a face: its nodes from one on are those of the face, in their order. */
export interface MetNet {
	readonly net: RimmedFace;
	readonly face: number;
	readonly from: number;
}

/** Ways that close a turn up to this (rad) are the first one, a little off. */
const FULL = 2 * Math.PI - 1e-6;
/** Ways whose turns differ by less (rad) lie over one another. */
const SAME_TURN = 1e-7;

/** Nodes of several faces, numbered through; those that are one have one number. */
class Union {
	readonly first: readonly number[];
	private readonly parent: Uint32Array;

	constructor(faces: readonly RimmedFace[]) {
		let count = 0;
		this.first = faces.map(({ grid }) => {
			const here = count;
			count += grid.positions.length / 3;
			return here;
		});
		this.parent = Uint32Array.from({ length: count }, (_, k) => k);
	}

	get size(): number {
		return this.parent.length;
	}

	/** The lowest number of what it is one with. */
	of(face: number, node: number): number {
		let k = this.first[face]! + node;
		while (this.parent[k] !== k) k = this.parent[k] = this.parent[this.parent[k]!]!;
		return k;
	}

	/** What the nodes of a face are numbered; -1 for one that is there already. */
	numbersOf(face: number): Int32Array {
		const first = this.first[face]!;
		const end = this.first[face + 1] ?? this.size;
		return Int32Array.from({ length: end - first }, (_, n) =>
			this.of(face, n) === first + n ? first + n : -1
		);
	}

	join(a: number, b: number): void {
		if (a !== b) this.parent[Math.max(a, b)] = Math.min(a, b);
	}
}

/** Join the ends of rims that are one line, whichever way each runs. */
function joinEnds(faces: readonly RimmedFace[], shared: readonly SharedRim[], union: Union): void {
	const gap = (f: number, a: number, g: number, b: number) => {
		const [p, q] = [faces[f]!.grid.positions, faces[g]!.grid.positions];
		return Math.hypot(p[3 * a]! - q[3 * b]!, p[3 * a + 1]! - q[3 * b + 1]!, p[3 * a + 2]! - q[3 * b + 2]!);
	};
	for (const { face, edge, other, otherEdge } of shared) {
		const [one, two] = [faces[face]!.edges, faces[other]!.edges];
		const [a, b, c, d] = [one.from[edge]!, one.to[edge]!, two.from[otherEdge]!, two.to[otherEdge]!];
		const same = gap(face, a, other, c) + gap(face, b, other, d);
		const crossed = gap(face, a, other, d) + gap(face, b, other, c);
		const [forA, forB] = same <= crossed ? [c, d] : [d, c];
		union.join(union.of(face, a), union.of(other, forA));
		union.join(union.of(face, b), union.of(other, forB));
	}
}

/** Join the nodes of nets with those of the faces that they end at. */
function joinNets(faces: readonly RimmedFace[], nets: readonly MetNet[], union: Union): void {
	nets.forEach(({ face, from }, k) => {
		const count = faces[face]!.grid.positions.length / 3;
		for (let n = 0; n < count; n++) union.join(union.of(face, n), union.of(faces.length + k, from + n));
	});
}

/**
 * The nodes of the faces of a zone where lines meet, face by face. Lines of nets that end there are told as those of
 * further faces, behind the zone's own.
 *
 * ```ts
 * const [ofFirst] = nodesOf(rimmedFaces, []);
 * ```
 * @param own faces of the zone @param shared the rims they have in common
 */
export function nodesOf(
	own: readonly RimmedFace[],
	shared: readonly SharedRim[],
	nets: readonly MetNet[] = []
): Nodes[] {
	const faces = [...own, ...nets.map(({ net }) => net)];
	const union = new Union(faces);
	joinEnds(own, shared, union);
	joinNets(own, nets, union);
	const second = faces.map(({ edges }) => new Uint8Array(edges.count));
	const inner = faces.map(({ edges }) => new Uint8Array(edges.count));
	for (const { face, edge, other, otherEdge } of shared) {
		second[other]![otherEdge] = 1;
		inner[face]![edge] = inner[other]![otherEdge] = 1;
	}
	// How many lines end at each, then where its own begin.
	const start = new Uint32Array(union.size + 1);
	const rim = new Uint8Array(union.size);
	const eachEnd = (act: (at: number, face: number, node: number, far: number, edge: number) => void) =>
		faces.forEach(({ edges }, f) => {
			for (let e = 0; e < edges.count; e++) {
				if (second[f]![e]) continue;
				const [a, b] = [edges.from[e]!, edges.to[e]!];
				act(union.of(f, a), f, a, b, e);
				act(union.of(f, b), f, b, a, e);
			}
		});
	eachEnd((at, f, _node, _far, e) => {
		start[at + 1]!++;
		const { left, right } = faces[f]!.edges;
		if (right[e] === NO_CELL && left[e] !== NO_CELL && !inner[f]![e]) rim[at] = 1;
	});
	// Of lines without cells the loose ends are their rim.
	faces.forEach(({ edges: { count, from, to, left } }, f) => {
		for (let e = 0; e < count; e++)
			if (left[e] === NO_CELL)
				for (const node of [from[e]!, to[e]!]) {
					const at = union.of(f, node);
					if (start[at + 1] === 1) rim[at] = 1;
				}
	});
	for (let k = 0; k < union.size; k++) start[k + 1]! += start[k]!;
	const next = start.slice(0, union.size);
	const all = start[union.size]!;
	const ways = new Float64Array(3 * all);
	const spans = new Float64Array(all);
	const lines = { face: new Uint16Array(all), edge: new Uint32Array(all) };
	eachEnd((at, f, node, far, edge) => {
		const { positions } = faces[f]!.grid;
		const way = next[at]!++;
		lines.face[way] = f;
		lines.edge[way] = edge;
		const o = 3 * way;
		const [x, y, z] = [0, 1, 2].map((a) => positions[3 * far + a]! - positions[3 * node + a]!) as [
			number,
			number,
			number
		];
		spans[way] = Math.sqrt(x * x + y * y + z * z);
		const size = spans[way] || 1;
		ways[o] = x / size;
		ways[o + 1] = y / size;
		ways[o + 2] = z / size;
	});
	const normals = new Float64Array(3 * union.size);
	own.forEach(({ grid }, f) => {
		for (let node = 0; node < grid.normals.length / 3; node++)
			for (let a = 0; a < 3; a++) normals[3 * union.of(f, node) + a]! += grid.normals[3 * node + a]!;
	});
	return own.map(({ grid }, f) =>
		ofFace(grid, union.numbersOf(f), { start, ways, spans, lines, normals, rim })
	);
}

/** The nodes of one face, by what each is numbered; -1 where another face has it. */
function ofFace(grid: RimmedFace['grid'], numbers: Int32Array, all: Nodes): Nodes {
	const count = numbers.length;
	const start = new Uint32Array(count + 1);
	for (let n = 0; n < count; n++) {
		const at = numbers[n]!;
		start[n + 1] = start[n]! + (at < 0 ? 0 : all.start[at + 1]! - all.start[at]!);
	}
	const own = start[count]!;
	const ways = new Float64Array(3 * own);
	const spans = new Float64Array(own);
	const lines = { face: new Uint16Array(own), edge: new Uint32Array(own) };
	const normals = grid.normals.slice();
	const rim = new Uint8Array(count);
	for (let n = 0; n < count; n++) {
		const at = numbers[n]!;
		if (start[n + 1] === start[n]) continue;
		const sum = all.normals.subarray(3 * at, 3 * at + 3);
		const size = Math.hypot(sum[0]!, sum[1]!, sum[2]!);
		// Faces folded flat against each other have no mean: this face's own stands.
		if (size > NO_DIRECTION) for (let a = 0; a < 3; a++) normals[3 * n + a] = sum[a]! / size;
		const first = all.start[at]!;
		const order = inTurn(
			all.ways.subarray(3 * first, 3 * all.start[at + 1]!),
			normals.subarray(3 * n, 3 * n + 3)
		);
		order.forEach((k, turn) => {
			const [from, to] = [first + k, start[n]! + turn];
			ways.set(all.ways.subarray(3 * from, 3 * from + 3), 3 * to);
			spans[to] = all.spans[from]!;
			lines.face[to] = all.lines.face[from]!;
			lines.edge[to] = all.lines.edge[from]!;
		});
		rim[n] = all.rim[at]!;
	}
	return { start, ways, spans, lines, normals, rim };
}

/** Which of some directions follow each other counter-clockwise about a normal, from the one that goes to the right. */
function inTurn(ways: Float64Array, normal: Float64Array): number[] {
	const [nx, ny, nz] = [normal[0]!, normal[1]!, normal[2]!];
	// To the right seen from outside: level, and square to the normal; on a level face to the east.
	const level = Math.hypot(nx, ny);
	const right = level > 1e-6 ? [-ny / level, nx / level, 0] : [1, 0, 0];
	const up = [
		ny * right[2]! - nz * right[1]!,
		nz * right[0]! - nx * right[2]!,
		nx * right[1]! - ny * right[0]!
	];
	const along = (o: number, d: readonly number[]) =>
		ways[o]! * d[0]! + ways[o + 1]! * d[1]! + ways[o + 2]! * d[2]!;
	const turns = Array.from({ length: ways.length / 3 }, (_, k) => {
		const [x, y] = [along(3 * k, right), along(3 * k, up)];
		// What goes straight up or down goes nowhere round the normal: it comes last.
		if (Math.hypot(x, y) < ALONG) return { k, turn: 2 * Math.PI };
		const turn = Math.atan2(y, x);
		const whole = turn < 0 ? turn + 2 * Math.PI : turn;
		// Lines over one another are in the order of their faces, however their directions are rounded.
		return { k, turn: whole > FULL ? 0 : Math.round(whole / SAME_TURN) * SAME_TURN };
	});
	return turns.sort((a, b) => a.turn - b.turn || a.k - b.k).map(({ k }) => k);
}
