import { add, cross, dot, scale, unit, type Vector } from '../vector';
import { meshOfSolid, solidLibrary } from './library';

/** Round arms that leave one point, each as long as the others (mm). */
export interface RoundArms {
	/** Length 1. */
	readonly ways: readonly Vector[];
	readonly radii: readonly number[];
	readonly reach: number;
	/** The radius of the hollow between two arms that are square to each other. */
	readonly fillet: number;
}

/** Corners round each arm, as every round bar has them. */
const SIDES = 16;
/** A polygon of so many corners with the area of its circle is so much wider. */
const WIDER = Math.sqrt((2 * Math.PI) / (SIDES * Math.sin((2 * Math.PI) / SIDES)));
/** Rings along an arm follow each other so that what lies between is about square. */
const NEXT_RING = 1 + (0.9 * 2 * Math.PI) / SIDES;
/** Beyond this (rad) from an arm's axis the body is that of all arms. */
const WIDEST = Math.PI / 4;
/** Points spread evenly where no arm is. */
const SPREAD = 400;
/** So far apart (rad) are points so spread. */
const APART = Math.sqrt((4 * Math.PI) / SPREAD);
/** Surfaces are found to this (mm). */
const FOUND = 1e-6;
/** Steps after which what is found stands. */
const MOST_STEPS = 60;

/** Directions spread evenly over a sphere, by the golden angle (Vogel 1979, on a cylinder of equal areas). */
const evenly: readonly Vector[] = Array.from({ length: SPREAD }, (_, k) => {
	const z = 1 - (2 * k + 1) / SPREAD;
	const [round, angle] = [Math.sqrt(1 - z * z), k * Math.PI * (3 - Math.sqrt(5))];
	return [round * Math.cos(angle), round * Math.sin(angle), z];
});

/** Two directions square to a way and to each other. */
function besides(way: Vector): [Vector, Vector] {
	const one = unit(cross(way, Math.abs(way[2]) < 0.9 ? [0, 0, 1] : [1, 0, 0]));
	return [one, cross(way, one)];
}

/** The body: all of space has a number by it, less than 0 within. */
class Body {
	private readonly softness: number;
	private readonly ways: Float64Array;
	private readonly radii: Float64Array;
	/** Of the point that was asked for last: how far each arm's surface is (mm). */
	private readonly off: Float64Array;
	private nearestArm = 0;

	constructor({ ways, radii, fillet }: RoundArms) {
		// Half way between two surfaces that are square to each other stands ln 2 times the softness, where an arc
		// of the fillet's radius would stand 1 - 1/√2 times the radius.
		this.softness = Math.max((fillet * (1 - Math.SQRT1_2)) / Math.LN2, 1e-3);
		this.ways = Float64Array.from(ways.flat());
		this.radii = Float64Array.from(radii, (radius) => radius * WIDER);
		this.off = new Float64Array(radii.length);
	}

	/** @returns less than 0 within the body; arms go on without end */
	private value(x: number, y: number, z: number): number {
		const { softness, ways, radii, off } = this;
		let nearest = Infinity;
		for (let arm = 0; arm < off.length; arm++) {
			const [wx, wy, wz] = [ways[3 * arm]!, ways[3 * arm + 1]!, ways[3 * arm + 2]!];
			const along = Math.max(0, x * wx + y * wy + z * wz);
			const [dx, dy, dz] = [x - along * wx, y - along * wy, z - along * wz];
			const distance = Math.sqrt(dx * dx + dy * dy + dz * dz) - radii[arm]!;
			off[arm] = distance;
			if (distance < nearest) {
				nearest = distance;
				this.nearestArm = arm;
			}
		}
		let sum = 0;
		for (let arm = 0; arm < off.length; arm++) sum += Math.exp((nearest - off[arm]!) / softness);
		return nearest - softness * Math.log(sum);
	}

	/** Whether a point is in the body or on its surface, and nearer to an arm than to the others. */
	isOf(arm: number, [x, y, z]: Vector): boolean {
		return this.value(x, y, z) < ON && this.nearestArm === arm;
	}

	/**
	 * How far along a ray the surface is (mm), when it begins within: an arm is no nearer the further one goes from where
	 * it begins, so that every ray from the node leaves the body once. By false position (Illinois: Dowell and Jarratt
	 * 1971).
	 */
	leaves([x, y, z]: Vector, [wx, wy, wz]: Vector, most: number): number {
		const at = (far: number) => this.value(x + far * wx, y + far * wy, z + far * wz);
		let [low, high] = [0, most];
		let [below, above] = [at(low), at(high)];
		if (!(below < 0)) return 0;
		if (!(above > 0)) return most;
		let side = 0;
		for (let k = 0; k < MOST_STEPS && high - low > FOUND; k++) {
			const middle = (low * above - high * below) / (above - below);
			const value = at(middle);
			if (Math.abs(value) < FOUND) return middle;
			if (value < 0) {
				[low, below] = [middle, value];
				if (side < 0) above /= 2;
				side = -1;
			} else {
				[high, above] = [middle, value];
				if (side > 0) below /= 2;
				side = 1;
			}
		}
		return (low + high) / 2;
	}
}

/** A point no further out than this (mm) is in the body: directions are kept in single precision. */
const ON = 1e-3;

/** Directions seen from the node in which the body has its corners. */
function directionsOf({ ways, reach }: RoundArms, body: Body): Vector[] {
	const around = ways.map((way, arm) => {
		const nearest = Math.min(
			...ways.flatMap((other, k) =>
				k === arm ? [] : [Math.acos(Math.max(-1, Math.min(1, dot(way, other))))]
			),
			2 * WIDEST
		);
		return { way, widest: nearest / 2, end: scale(way, reach), besides: besides(way) };
	});
	const found: Vector[] = [];
	const widestOf = around.map(({ way, widest, end, besides: [right, up] }) => {
		found.push(way);
		const turns = Array.from({ length: SIDES }, (_, k): Vector => {
			const turn = (2 * Math.PI * k) / SIDES;
			return add(scale(right, Math.cos(turn)), scale(up, Math.sin(turn)));
		});
		let last = 0;
		for (const side of turns) {
			const rim = body.leaves(end, side, reach * Math.tan(widest));
			last = Math.max(last, Math.atan2(rim, reach));
			found.push(unit(add(end, scale(side, rim))));
		}
		for (let angle = last * NEXT_RING; angle < widest; angle *= NEXT_RING) {
			last = angle;
			for (const side of turns) found.push(add(scale(way, Math.cos(angle)), scale(side, Math.sin(angle))));
		}
		return last;
	});
	const isFree = (direction: Vector) =>
		around.every(
			({ way }, arm) => Math.acos(Math.min(1, dot(way, direction))) > widestOf[arm]! + 0.6 * APART
		);
	return [...found, ...evenly.filter(isFree)];
}

/**
 * One smooth body of round arms that leave a point: hollows between them are rounded, their ends are flat. It is what lies
 * below nought of a soft least of the arms' distances, -k ln Σ exp(-d/k), cut at the ends; every ray from the node leaves
 * it once, so its mesh is a triangulated sphere of directions, each drawn out as far as the body goes: closed, whatever
 * the arms.
 *
 * ```ts
 * await loadSolids();
 * const corner = joinedTubes({ ways: [[1, 0, 0], [0, 1, 0], [0, 0, 1]], radii: [30, 30, 30], reach: 150, fillet: 40 });
 * ```
 * @returns mm from the node
 * @throws Error when `loadSolids` has not been awaited
 */
export function joinedTubes(arms: RoundArms): {
	readonly vertices: Float64Array;
	readonly triangles: Uint32Array;
} {
	const { ways, radii, reach } = arms;
	const body = new Body(arms);
	const sphere = solidLibrary().Manifold.hull(directionsOf(arms, body).map(([x, y, z]) => [x, y, z]));
	const { vertices, triangles } = meshOfSolid(sphere);
	sphere.delete();
	// Where no arm lies ahead the body ends with the widest of them, blended.
	const most = reach + 4 * Math.max(...radii) + arms.fillet;
	const out = new Float64Array(vertices.length);
	for (let k = 0; k < vertices.length; k += 3) {
		const way = unit([vertices[k]!, vertices[k + 1]!, vertices[k + 2]!]);
		let far = Infinity;
		for (const [arm, other] of ways.entries()) {
			const along = dot(way, other);
			if (!(along > 1e-3)) continue;
			const end = reach / along;
			const at = scale(way, end);
			if (body.isOf(arm, at)) far = Math.min(far, end);
		}
		if (far === Infinity) far = body.leaves([0, 0, 0], way, most);
		for (let a = 0; a < 3; a++) out[k + a] = far * way[a]!;
	}
	return { vertices: out, triangles };
}
