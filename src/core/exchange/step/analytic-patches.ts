import { arcControl } from '../../geometry/arc';
import { chainKnots } from '../../geometry/path';
import type { Surface } from '../../geometry/surface';
import { add, dot, scale, subtract, type Vector, type Weighted } from '../../geometry/vector';
import { revolveChain } from '../../mass/revolved';

/**
 * Planes, cylinders, cones, spheres and tori as exact rational patches. Such a surface has no ends of its own:
 * they are read off the face's rim (places along it, mm), which has to follow the surface's own lines.
 */

/** A face that cannot be taken, and why. */
export class FaceFault extends Error {}

/** A face's rims may miss the surface's own by so much of its size. */
export const RIM = 1e-4;

/** A placement in space: three directions of length 1, square to each other, and an origin (mm). */
export interface Frame {
	readonly origin: Vector;
	readonly x: Vector;
	readonly y: Vector;
	readonly z: Vector;
}

const inFrame = (frame: Frame, p: Vector): Vector => {
	const way = subtract(p, frame.origin);
	return [dot(way, frame.x), dot(way, frame.y), dot(way, frame.z)];
};
const outOfFrame = (frame: Frame, [x, y, z]: Vector): Vector =>
	add(frame.origin, add(scale(frame.x, x), add(scale(frame.y, y), scale(frame.z, z))));

function inSpace(surface: Surface, frame: Frame): Surface {
	const net = new Float64Array(surface.net.length);
	for (let k = 0; k < net.length; k += 4) {
		const w = surface.net[k + 3]!;
		const p = outOfFrame(frame, [surface.net[k]! / w, surface.net[k + 1]! / w, surface.net[k + 2]! / w]);
		net.set([p[0] * w, p[1] * w, p[2] * w, w], k);
	}
	return { ...surface, net };
}

interface Range {
	readonly from: number;
	readonly to: number;
}
const rangeOf = (values: readonly number[]): Range => ({
	from: Math.min(...values),
	to: Math.max(...values)
});

/** Every pair has to lie on the rim of its rectangle, or the face is trimmed in another way. */
function checkRectangle(
	pairs: readonly (readonly [number, number])[],
	a: Range,
	b: Range,
	scales: readonly [number, number]
): void {
	const near = (value: number, range: Range, factor: number) =>
		Math.min(Math.abs(value - range.from), Math.abs(value - range.to)) * factor;
	const size = (a.to - a.from) * scales[0] + (b.to - b.from) * scales[1];
	for (const [p, q] of pairs)
		if (Math.min(near(p, a, scales[0]), near(q, b, scales[1])) > RIM * size)
			throw new FaceFault('its rim is no rectangle on its surface; only such faces can be taken yet');
}

/** The rectangle of a plane within its rim. @throws FaceFault when the rim is no rectangle */
export function planePatch(frame: Frame, rim: readonly Vector[]): Surface {
	if (rim.length < 4) throw new FaceFault('a plane without a rim has no end');
	const pairs = rim.map((p) => inFrame(frame, p)).map(([x, y]) => [x, y] as const);
	// Across along the first edge, wherever it points on the plane.
	const [first, second] = [
		pairs[0]!,
		pairs.find((p) => Math.hypot(p[0] - pairs[0]![0], p[1] - pairs[0]![1]) > 1e-6)!
	];
	const size = Math.hypot(second[0] - first[0], second[1] - first[1]);
	const [cx, cy] = [(second[0] - first[0]) / size, (second[1] - first[1]) / size];
	const turned = pairs.map(([x, y]) => [x * cx + y * cy, -x * cy + y * cx] as const);
	const a = rangeOf(turned.map(([x]) => x));
	const b = rangeOf(turned.map(([, y]) => y));
	checkRectangle(turned, a, b, [1, 1]);
	const net = [b.from, b.to].flatMap((y) =>
		[a.from, a.to].flatMap((x) => [...outOfFrame(frame, [x * cx - y * cy, x * cy + y * cx, 0]), 1])
	);
	const knots = Float64Array.of(0, 0, 1, 1);
	return {
		degreeU: 1,
		degreeV: 1,
		knotsU: knots,
		knotsV: knots,
		countU: 2,
		countV: 2,
		net: Float64Array.from(net)
	};
}

/** The arc that angles lie on: all round when no gap between them is wide. */
function turnOf(angles: readonly number[]): Range {
	const sorted = [...new Set(angles.map((t) => ((t % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI)))].sort(
		(p, q) => p - q
	);
	let widest = { gap: 0, after: 0 };
	sorted.forEach((t, k) => {
		const next = k + 1 < sorted.length ? sorted[k + 1]! : sorted[0]! + 2 * Math.PI;
		if (next - t > widest.gap) widest = { gap: next - t, after: k };
	});
	// Twelve places are looked at on a circle, so a wider gap is no part of the face.
	if (widest.gap < Math.PI / 5) return { from: 0, to: 2 * Math.PI };
	const from = sorted[(widest.after + 1) % sorted.length]!;
	return { from, to: from + 2 * Math.PI - widest.gap };
}

/** Angles brought into a range that may pass a full turn. */
const unwrapped = (t: number, range: Range): number => {
	let value = t;
	while (value < range.from - 1e-9) value += 2 * Math.PI;
	while (value > range.to + 1e-9) value -= 2 * Math.PI;
	return value < range.from - 1e-6 ? t : value;
};

/**
 * A cylinder or cone: radius at the frame's plane (mm), and how much it grows with the height.
 * @throws FaceFault
 */
export function turnedPatch(
	frame: Frame,
	rim: readonly Vector[],
	{ r, slope }: { r: number; slope: number }
): Surface {
	const local = rim.map((p) => inFrame(frame, p));
	// A cone's tip has no angle.
	const round = local.filter(([x, y]) => Math.hypot(x, y) > 1e-6 * (r + 1));
	const turn = turnOf(round.map(([x, y]) => Math.atan2(y, x)));
	const heights = rangeOf(local.map(([, , z]) => z));
	if (!(heights.to > heights.from)) throw new FaceFault('its rim has no height on its surface');
	const full = turn.to - turn.from > 2 * Math.PI - 1e-9;
	if (!full)
		checkRectangle(
			round.map(([x, y, z]) => [unwrapped(Math.atan2(y, x), turn), z] as const),
			turn,
			heights,
			[r, 1]
		);
	const control = [heights.from, heights.to].map((z): Weighted => [r + slope * z, z, 0, 1]);
	const third = (t: number) =>
		control[0]!.map((value, k) => value + t * (control[1]![k]! - value)) as unknown as Weighted;
	const chain = { breaks: [0, 1], points: [control[0]!, third(1 / 3), third(2 / 3), control[1]!] };
	return inSpace(revolveChain(chain, [0, 0], 0, turn.from, turn.to - turn.from), frame);
}

/** A sphere (`ring` 0) or a torus; radii in mm. @throws FaceFault */
export function roundPatch(frame: Frame, rim: readonly Vector[], ring: number, r: number): Surface {
	const local = rim.map((p) => inFrame(frame, p));
	const round = local.filter(([x, y]) => Math.hypot(x, y) > 1e-6 * (ring + r));
	const turn = round.length ? turnOf(round.map(([x, y]) => Math.atan2(y, x))) : { from: 0, to: 2 * Math.PI };
	const lift = ([x, y, z]: Vector) => Math.atan2(z, Math.hypot(x, y) - ring);
	let tube: Range;
	if (ring > 0) tube = turnOf(local.map(lift));
	else {
		const lifts = rangeOf(local.map(lift));
		const [low, high] = [-Math.PI / 2, Math.PI / 2];
		const fullTurn = turn.to - turn.from > 2 * Math.PI - 1e-9;
		// A rim at one height only is a cap: the sphere's frame says nothing of which, so the smaller one is taken.
		const flat = lifts.to - lifts.from < 1e-9;
		if (local.length === 1 || (flat && !fullTurn)) tube = { from: low, to: high };
		else if (flat) tube = lifts.from > 0 ? { from: lifts.from, to: high } : { from: low, to: lifts.from };
		else tube = lifts;
	}
	const full = turn.to - turn.from > 2 * Math.PI - 1e-9;
	if (!full)
		checkRectangle(
			round.map(
				(p) =>
					[unwrapped(Math.atan2(p[1], p[0]), turn), ring > 0 ? unwrapped(lift(p), tube) : lift(p)] as const
			),
			turn,
			tube,
			[ring + r, r]
		);
	const { control, pieces } = arcControl([ring, 0], [r, r], tube.from, tube.to - tube.from);
	const points = control.map(([x, z, , w]): Weighted => [Math.abs(x) < 1e-12 * r ? 0 : x, z, 0, w]);
	const breaks = Array.from({ length: pieces + 1 }, (_, k) => k / pieces);
	const surface = revolveChain({ breaks, points }, [0, 0], 0, turn.from, turn.to - turn.from);
	return inSpace({ ...surface, knotsV: chainKnots(breaks) }, frame);
}
