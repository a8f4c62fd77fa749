import { strideOf, type Rings } from '../like/rings';
import type { Rows } from './least-squares';
import type { Network } from './network';

/** How a ring lies on the shape that it is to have: from which corner on, and which way round. */
interface Laid {
	readonly turn: number;
	readonly back: boolean;
	/** Squares of what they differ by, added up (mm²). */
	readonly off: number;
}

/** The corner of a ring that lies on corner k of a shape, for values of a row (see `Rings`). */
const laidOn = (corners: number, steps: number, row: number, k: number, { turn, back }: Omit<Laid, 'off'>) =>
	(((back ? turn - (row < steps ? row + 1 : 0) - k : turn + k) % corners) + corners) % corners;

/** Lay a ring on a shape as well as can be. @param most what differs by more is of no interest */
export function lay(rings: Rings, ring: number, shape: Float64Array, mirrored: boolean, most: number): Laid {
	const { corners, steps, values } = rings;
	const from = strideOf(rings) * ring;
	let best: Laid = { turn: 0, back: false, off: Infinity };
	for (let turn = 0; turn < corners; turn++)
		for (const back of mirrored ? [false, true] : [false]) {
			const bound = Math.min(most, best.off);
			let off = 0;
			for (let row = 0; row <= steps && off < bound; row++)
				for (let k = 0; k < corners; k++) {
					const at = laidOn(corners, steps, row, k, { turn, back });
					off += (shape[row * corners + k]! - values[from + row * corners + at]!) ** 2;
				}
			if (off < best.off) best = { turn, back, off };
		}
	return best;
}

/** Cells of as many corners each that are to become of some shapes. */
export interface Sorted {
	readonly rings: Rings;
	/** The cell of every ring. */
	readonly cells: Uint32Array;
	readonly shapes: readonly Float64Array[];
	/** The shape of every ring. */
	readonly of: Uint32Array;
}

/** The mean of the rings that are to have a shape each, laid on it. */
export function meanShapes({ rings, shapes, of }: Sorted, mirrored: boolean): Float64Array[] {
	const { corners, steps, values, count } = rings;
	const stride = strideOf(rings);
	const sums = shapes.map(() => new Float64Array(stride));
	const members = new Uint32Array(shapes.length);
	for (let ring = 0; ring < count; ring++) {
		const shape = of[ring]!;
		const laid = lay(rings, ring, shapes[shape]!, mirrored, Infinity);
		members[shape]!++;
		for (let row = 0; row <= steps; row++)
			for (let k = 0; k < corners; k++)
				sums[shape]![row * corners + k]! +=
					values[stride * ring + row * corners + laidOn(corners, steps, row, k, laid)]!;
	}
	return sums.map((sum, s) => (members[s] ? sum.map((value) => value / members[s]!) : shapes[s]!));
}

/**
 * How far distances between corners are from those of the shape that their cell is to have, as rows (mm). The shapes are
 * found with the places: each of their distances is a column of its own behind those of the nodes.
 */
export class KindRows {
	/** For every distance: its two nodes, and which one of a shape it is. */
	private readonly a: Uint32Array;
	private readonly b: Uint32Array;
	private readonly of: Uint32Array;
	/** The distances of the shapes as they are at first. */
	private readonly shapes: Float64Array;

	constructor(
		private readonly network: Network,
		sorted: readonly Sorted[],
		mirrored: boolean
	) {
		const { cellStart, corners: nodes } = network;
		const [a, b, of, shapes]: number[][] = [[], [], [], []];
		for (const { rings, cells, shapes: all, of: shapeOf } of sorted) {
			const { corners, steps } = rings;
			const members = new Uint32Array(all.length);
			for (const shape of shapeOf) members[shape]!++;
			const first = Array.from(all, (shape, k) => {
				const at = shapes!.length;
				if (members[k]! > 1) for (let d = 0; d < corners * steps; d++) shapes!.push(shape[d]!);
				return at;
			});
			for (let ring = 0; ring < rings.count; ring++) {
				// One that is like no other may be as it likes.
				if (members[shapeOf[ring]!]! < 2) continue;
				const laid = lay(rings, ring, all[shapeOf[ring]!]!, mirrored, Infinity);
				const start = cellStart[cells[ring]!]!;
				for (let row = 0; row < steps; row++)
					// Half way round, every distance is there from both its ends.
					for (let k = 0; k < (2 * (row + 1) === corners ? corners / 2 : corners); k++) {
						const corner = laidOn(corners, steps, row, k, laid);
						a!.push(nodes[start + corner]!);
						b!.push(nodes[start + ((corner + row + 1) % corners)]!);
						of!.push(first[shapeOf[ring]!]! + row * corners + k);
					}
			}
		}
		this.a = Uint32Array.from(a!);
		this.b = Uint32Array.from(b!);
		this.of = Uint32Array.from(of!);
		this.shapes = Float64Array.from(shapes!);
	}

	/** How many columns the shapes have. */
	get columns(): number {
		return this.shapes.length;
	}

	/** @param positions of all nodes (mm) @param values of all columns, those of the shapes at the end */
	write(positions: Float64Array, values: Float64Array, rows: Rows): void {
		const { start, on, share } = this.network;
		const { a, b, of, shapes } = this;
		const behind = values.length - shapes.length;
		for (let k = 0; k < of.length; k++) {
			const [p, q] = [3 * a[k]!, 3 * b[k]!];
			const x = positions[q]! - positions[p]!;
			const y = positions[q + 1]! - positions[p + 1]!;
			const z = positions[q + 2]! - positions[p + 2]!;
			const far = Math.sqrt(x * x + y * y + z * z);
			if (!(far > 0)) continue;
			for (let end = 0; end < 2; end++) {
				const node = end ? b[k]! : a[k]!;
				const sign = end ? 1 / far : -1 / far;
				for (let d = start[node]!; d < start[node + 1]!; d++) {
					const [column, weight] = [3 * on[d]!, sign * share[d]!];
					rows.put(column, weight * x);
					rows.put(column + 1, weight * y);
					rows.put(column + 2, weight * z);
				}
			}
			const column = behind + of[k]!;
			rows.put(column, -1);
			rows.end(far - shapes[of[k]!]! - values[column]!);
		}
	}
}
