import { openRings } from '../geometry/triangulate';

/** Sides of triangles by their two corners, the lower first. */
const nameOf = (a: number, b: number, count: number) => (a < b ? a * count + b : b * count + a);

/**
 * How joined triangles are laid flat, one after the other over the sides they share; which does not hang on where
 * their corners are, so that pieces of one make share it.
 */
export class Unfolding {
	readonly corners: number;
	/** The rims, as rings of corners: what is filled lies to their left. */
	readonly rings: readonly (readonly number[])[];
	/** Corner, corner, and the corner that is laid to the left of the way from one to the other. */
	private readonly steps: Int32Array;
	/** Both corners of every side. */
	private readonly sides: Int32Array;
	/** Both corners of every side that two triangles have, and the third corner of each: the one to the left first. */
	readonly inner: Int32Array;

	/** @param triangles by corner, all joined by their sides, all seen from one side; those of one list share what is known */
	static of(triangles: ArrayLike<number>): Unfolding {
		const before = known.get(triangles);
		if (before) return before;
		const made = new Unfolding(triangles);
		known.set(triangles, made);
		return made;
	}

	private constructor(triangles: ArrayLike<number>) {
		this.rings = openRings(triangles);
		let count = 0;
		for (let k = 0; k < triangles.length; k++) count = Math.max(count, triangles[k]! + 1);
		this.corners = count;
		const first = new Map<number, number>();
		const across = new Int32Array(triangles.length).fill(-1);
		const [sides, inner]: [number[], number[]] = [[], []];
		const next = (k: number) => (k % 3 === 2 ? k - 2 : k + 1);
		for (let k = 0; k < triangles.length; k++) {
			const [a, b] = [triangles[k]!, triangles[next(k)]!];
			const name = nameOf(a, b, count);
			const other = first.get(name);
			if (other === undefined) {
				first.set(name, k);
				sides.push(a, b);
				continue;
			}
			[across[k], across[other]] = [other, k];
			inner.push(
				triangles[other]!,
				triangles[next(other)]!,
				triangles[next(next(other))]!,
				triangles[next(next(k))]!
			);
		}
		const steps: number[] = [];
		const [laid, met] = [new Uint8Array(count), new Uint8Array(triangles.length / 3)];
		const queue: number[] = [];
		const meet = (k: number) => {
			const t = Math.floor(k / 3);
			if (met[t]) return;
			met[t] = 1;
			queue.push(t);
			const [a, b, c] = [triangles[k]!, triangles[next(k)]!, triangles[next(next(k))]!];
			if (!laid[c]) steps.push(a, b, c);
			laid[a] = laid[b] = laid[c] = 1;
		};
		if (triangles.length) meet(0);
		for (let at = 0; at < queue.length; at++)
			for (let k = 3 * queue[at]!; k < 3 * queue[at]! + 3; k++) if (across[k]! >= 0) meet(across[k]!);
		this.steps = Int32Array.from(steps);
		this.sides = Int32Array.from(sides);
		this.inner = Int32Array.from(inner);
	}

	/**
	 * The corners laid flat, each from the first triangle that comes to it.
	 * @param points x y z of every corner (mm) @param from where its first corner is in the list
	 * @param flat x y of every corner (mm), filled, from the same corner on
	 */
	lay(points: ArrayLike<number>, flat: Float64Array, from = 0): void {
		const { steps } = this;
		if (!steps.length) return;
		const [first, second] = [from + steps[0]!, from + steps[1]!];
		flat[2 * first] = flat[2 * first + 1] = 0;
		flat[2 * second] = Math.hypot(
			points[3 * second]! - points[3 * first]!,
			points[3 * second + 1]! - points[3 * first + 1]!,
			points[3 * second + 2]! - points[3 * first + 2]!
		);
		flat[2 * second + 1] = 0;
		for (let k = 0; k < steps.length; k += 3) {
			const a = from + steps[k]!;
			const b = from + steps[k + 1]!;
			const c = from + steps[k + 2]!;
			const ux = points[3 * b]! - points[3 * a]!;
			const uy = points[3 * b + 1]! - points[3 * a + 1]!;
			const uz = points[3 * b + 2]! - points[3 * a + 2]!;
			const vx = points[3 * c]! - points[3 * a]!;
			const vy = points[3 * c + 1]! - points[3 * a + 1]!;
			const vz = points[3 * c + 2]! - points[3 * a + 2]!;
			const size = ux * ux + uy * uy + uz * uz;
			// Along the side, and away from it, in shares of its length.
			const along = size > 0 ? (ux * vx + uy * vy + uz * vz) / size : 0;
			const off = size > 0 ? Math.sqrt(Math.max(0, (vx * vx + vy * vy + vz * vz) / size - along * along)) : 0;
			const dx = flat[2 * b]! - flat[2 * a]!;
			const dy = flat[2 * b + 1]! - flat[2 * a + 1]!;
			flat[2 * c] = flat[2 * a]! + along * dx - off * dy;
			flat[2 * c + 1] = flat[2 * a + 1]! + along * dy + off * dx;
		}
	}

	/** The most that a side is longer or shorter flat than it is (mm). */
	worst(points: ArrayLike<number>, flat: Float64Array, from = 0): number {
		const { sides } = this;
		let most = 0;
		for (let k = 0; k < sides.length; k += 2) {
			const a = from + sides[k]!;
			const b = from + sides[k + 1]!;
			const x = points[3 * b]! - points[3 * a]!;
			const y = points[3 * b + 1]! - points[3 * a + 1]!;
			const z = points[3 * b + 2]! - points[3 * a + 2]!;
			const dx = flat[2 * b]! - flat[2 * a]!;
			const dy = flat[2 * b + 1]! - flat[2 * a + 1]!;
			const off = Math.abs(Math.sqrt(x * x + y * y + z * z) - Math.sqrt(dx * dx + dy * dy));
			if (off > most) most = off;
		}
		return most;
	}

	/** Every side with its length. @param take both corners and mm */
	eachSide(points: ArrayLike<number>, take: (a: number, b: number, length: number) => void): void {
		const { sides } = this;
		for (let k = 0; k < sides.length; k += 2) {
			const [a, b] = [3 * sides[k]!, 3 * sides[k + 1]!];
			const length = Math.hypot(
				points[b]! - points[a]!,
				points[b + 1]! - points[a + 1]!,
				points[b + 2]! - points[a + 2]!
			);
			take(a / 3, b / 3, length);
		}
	}
}
const known = new WeakMap<ArrayLike<number>, Unfolding>();
