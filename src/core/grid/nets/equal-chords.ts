import { placeAt, type Surface } from '../../geometry/surface';
import { cross, dot, length, scale, subtract, type Vector } from '../../geometry/vector';
import { refuse } from '../../units/problem';
import type { Belt } from '../belt';
import type { NodeNet, Spread } from '../node-grid';
import { ROUNDED } from '../../geometry/tolerance';

const ROUNDS = 40;
/** Edges are equal to within so many mm. */
const EQUAL = 1e-6;

interface Node {
	readonly u: number;
	readonly v: number;
	readonly point: Vector;
}

/** Finds nodes at given distances from others. */
class Weaver {
	private readonly low: readonly [number, number];
	private readonly high: readonly [number, number];

	constructor(private readonly surface: Surface) {
		const { knotsU, knotsV } = surface;
		this.low = [knotsU[0]!, knotsV[0]!];
		this.high = [knotsU.at(-1)!, knotsV.at(-1)!];
	}

	node(u: number, v: number): Node {
		return { u, v, point: placeAt(this.surface, u, v).point };
	}

	private isOn(u: number, v: number): boolean {
		const slack = [0, 1].map((k) => 1e-9 * (this.high[k]! - this.low[k]!));
		return (
			u >= this.low[0] - slack[0]! &&
			u <= this.high[0] + slack[0]! &&
			v >= this.low[1] - slack[1]! &&
			v <= this.high[1] + slack[1]!
		);
	}

	/** The next node along a line of the surface, at a chord's distance; null when the line ends before. */
	along(from: Node, axis: 0 | 1, way: 1 | -1, chord: number): Node | null {
		let [u, v] = [from.u, from.v];
		const guess = placeAt(this.surface, u, v)[axis === 0 ? 'du' : 'dv'];
		const step = (way * chord) / (length(guess) || 1);
		if (axis === 0) u += step;
		else v += step;
		return this.solve(u, v, [{ to: from, far: chord }], axis);
	}

	/** The node that is at two distances from two others, beyond the corner they make with a third. */
	beyond(one: Node, far: number, other: Node, away: number, corner: Node): Node | null {
		const u = one.u + other.u - corner.u;
		const v = one.v + other.v - corner.v;
		const found = this.solve(u, v, [
			{ to: one, far },
			{ to: other, far: away }
		]);
		if (!found) return null;
		// On the corner's own side of the line between the two it would be the corner again.
		const line = subtract(other.point, one.point);
		const side = (p: Vector) => cross(line, subtract(p, one.point));
		return dot(side(found.point), side(corner.point)) < 0 ? found : null;
	}

	/** Newton's method; with one distance only one parameter moves. */
	private solve(
		fromU: number,
		fromV: number,
		wanted: readonly { to: Node; far: number }[],
		axis?: 0 | 1
	): Node | null {
		let [u, v] = [fromU, fromV];
		for (let round = 0; round < ROUNDS; round++) {
			const held = (t: number, k: 0 | 1) => Math.min(this.high[k], Math.max(this.low[k], t));
			const [hu, hv] = [held(u, 0), held(v, 1)];
			const { point: own, du, dv } = placeAt(this.surface, hu, hv);
			// Beyond the rim the face is taken as going on straight, so that what ends up there is known to.
			const point = own.map((value, a) => value + (u - hu) * du[a]! + (v - hv) * dv[a]!) as unknown as Vector;
			const rows = wanted.map(({ to, far }) => {
				const way = subtract(point, to.point);
				const size = length(way) || ROUNDED;
				const unit = scale(way, 1 / size);
				return { off: size - far, byU: dot(unit, du), byV: dot(unit, dv) };
			});
			// A rounding beyond the rim is on it; on a ring it would be taken for the other side.
			if (rows.every(({ off }) => Math.abs(off) < EQUAL))
				return this.isOn(u, v) ? { u: held(u, 0), v: held(v, 1), point } : null;
			const [a, b] = rows as [(typeof rows)[0], (typeof rows)[0]?];
			if (!b) {
				const slope = axis === 0 ? a.byU : a.byV;
				if (!slope) return null;
				if (axis === 0) u -= a.off / slope;
				else v -= a.off / slope;
				continue;
			}
			const det = a.byU * b.byV - a.byV * b.byU;
			if (Math.abs(det) < 1e-12 * (length(du) * length(dv) + 1e-30)) return null;
			u -= (a.off * b.byV - b.off * a.byV) / det;
			v -= (b.off * a.byU - a.off * b.byU) / det;
		}
		return null;
	}
}

/** How far a line of equal chords may go on to each side. */
const MOST_STEPS = 2000;

/**
 * A net whose edges all have one length across and one length up, woven from a bay line and a course line
 * through the start: each further node is where two chords meet. Nodes beyond the face are left out; a ring
 * stays open, since such a net does not come round.
 * @throws ProblemError when no cell of the net lies on the face
 */
export function equalChordNet(
	surface: Surface,
	{ across, up }: { across: Spread; up: Spread },
	belts: { across: Belt; up: Belt },
	at: string
): NodeNet {
	const weaver = new Weaver(surface);
	const sizes = [across, up].map(({ division: { fractions }, lengths }) => {
		// The first full step: make-ups have no place in such a net.
		const steps = [...fractions.slice(1)].map((f, k) => (f - fractions[k]!) * lengths.belt);
		return Math.max(...steps);
	}) as [number, number];
	const startOf = ({ division: { fractions, makeUp } }: Spread) => {
		if (makeUp.first && makeUp.last) return fractions[fractions.length >> 1]!;
		return makeUp.first ? 1 : 0;
	};
	const start = weaver.node(
		belts.across.parameters([startOf(across)])[0]!,
		belts.up.parameters([startOf(up)])[0]!
	);
	const walk = (axis: 0 | 1, way: 1 | -1) => {
		const nodes: Node[] = [];
		for (let last: Node | null = start; last && nodes.length < MOST_STEPS;) {
			last = weaver.along(last, axis, way, sizes[axis]);
			if (last) nodes.push(last);
		}
		return nodes;
	};
	const [right, left, above, below] = [walk(0, 1), walk(0, -1), walk(1, 1), walk(1, -1)];
	const [i0, j0] = [left.length, below.length];
	const columns = left.length + right.length + 1;
	const rows = below.length + above.length + 1;
	if (columns < 2 || rows < 2)
		refuse(
			`${at}/along`,
			'no cell of equal chords fits on the face from its start line; take smaller sizes, or another start line'
		);
	const grid: (Node | null)[] = new Array<Node | null>(columns * rows).fill(null);
	const put = (i: number, j: number, node: Node | null) => (grid[j * columns + i] = node);
	put(i0, j0, start);
	right.forEach((node, k) => put(i0 + 1 + k, j0, node));
	left.forEach((node, k) => put(i0 - 1 - k, j0, node));
	above.forEach((node, k) => put(i0, j0 + 1 + k, node));
	below.forEach((node, k) => put(i0, j0 - 1 - k, node));
	for (const di of [1, -1])
		for (const dj of [1, -1])
			for (let j = j0 + dj; j >= 0 && j < rows; j += dj)
				for (let i = i0 + di; i >= 0 && i < columns; i += di) {
					const one = grid[(j - dj) * columns + i];
					const other = grid[j * columns + i - di];
					const corner = grid[(j - dj) * columns + i - di];
					if (one && other && corner) put(i, j, weaver.beyond(one, sizes[1], other, sizes[0], corner));
				}
	return {
		columns,
		rows,
		u: Float64Array.from(grid, (node) => node?.u ?? start.u),
		v: Float64Array.from(grid, (node) => node?.v ?? start.v),
		chords: sizes,
		absent: grid.includes(null) ? Uint8Array.from(grid, (node) => (node ? 0 : 1)) : null,
		rims: null,
		open: true
	};
}
