import type { Rows } from './least-squares';
import type { Network } from './network';

/** A node within the net where four cells meet, with the nodes across its four lines, in turn about it. */
interface Crossing {
	readonly node: number;
	readonly about: readonly [number, number, number, number];
}

/** The crossings of a net of cells with four corners. */
function crossingsOf({ cellStart, corners, base }: Network): Crossing[] {
	/** By node: what comes before it in a cell, and what comes after, by what comes after. */
	const ofNode = new Map<number, Map<number, number>>();
	for (let c = 0; c + 1 < cellStart.length; c++) {
		const [from, to] = [cellStart[c]!, cellStart[c + 1]!];
		for (let k = from; k < to; k++) {
			const node = corners[k]!;
			const turns = ofNode.get(node) ?? new Map<number, number>();
			ofNode.set(node, turns);
			turns.set(corners[k + 1 < to ? k + 1 : from]!, corners[k > from ? k - 1 : to - 1]!);
		}
	}
	const found: Crossing[] = [];
	for (let node = 0; 3 * node < base.length; node++) {
		const turns = ofNode.get(node);
		if (turns?.size !== 4) continue;
		const about = [turns.keys().next().value!];
		while (about.length < 4) {
			const next = turns.get(about.at(-1)!);
			if (next === undefined) break;
			about.push(next);
		}
		const [a, b, c, d] = about;
		if (about.length === 4 && turns.get(d!) === a) found.push({ node, about: [a!, b!, c!, d!] });
	}
	return found;
}

/**
 * Cells about a node touch one cone where the two pairs of opposite angles add up to the same: what stands on their lines
 * then meets at one depth (Liu, Pottmann, Wallner, Yang, Wang: Geometric modeling with conical meshes, 2006; from memory).
 * Rows in mm: the difference of the sums times the middle length of the lines.
 */
export class ConeRows {
	private readonly crossings: readonly Crossing[];

	constructor(private readonly network: Network) {
		this.crossings = crossingsOf(network);
	}

	/** How many nodes are asked. */
	get count(): number {
		return this.crossings.length;
	}

	/** @param positions of all nodes (mm) */
	write(positions: Float64Array, rows: Rows): void {
		const { start, on, share } = this.network;
		const put = (node: number, x: number, y: number, z: number) => {
			for (let d = start[node]!; d < start[node + 1]!; d++) {
				rows.put(3 * on[d]!, share[d]! * x);
				rows.put(3 * on[d]! + 1, share[d]! * y);
				rows.put(3 * on[d]! + 2, share[d]! * z);
			}
		};
		for (const { node, about } of this.crossings) {
			const p = 3 * node;
			const ways = about.map((other) => {
				const q = 3 * other;
				const x = positions[q]! - positions[p]!;
				const y = positions[q + 1]! - positions[p + 1]!;
				const z = positions[q + 2]! - positions[p + 2]!;
				const length = Math.sqrt(x * x + y * y + z * z);
				return { x: x / length, y: y / length, z: z / length, length };
			});
			if (ways.some(({ length }) => !(length > 0))) continue;
			const middle = ways.reduce((sum, { length }) => sum + length, 0) / 4;
			let sum = 0;
			let [ox, oy, oz] = [0, 0, 0];
			for (let k = 0; k < 4; k++) {
				const [a, b] = [ways[k]!, ways[(k + 1) % 4]!];
				const sign = k % 2 ? -middle : middle;
				const cosine = Math.min(1, Math.max(-1, a.x * b.x + a.y * b.y + a.z * b.z));
				const sine = Math.sqrt(1 - cosine * cosine);
				sum += sign * Math.acos(cosine);
				if (!(sine > 0)) continue;
				// An angle grows as its ends go away from each other, square to their lines.
				for (const [of, to, end] of [
					[a, b, about[k]!],
					[b, a, about[(k + 1) % 4]!]
				] as const) {
					const by = -sign / (sine * of.length);
					const [x, y, z] = [
						by * (to.x - cosine * of.x),
						by * (to.y - cosine * of.y),
						by * (to.z - cosine * of.z)
					];
					put(end, x, y, z);
					ox -= x;
					oy -= y;
					oz -= z;
				}
			}
			put(node, ox, oy, oz);
			rows.end(sum);
		}
	}
}
