import { arcControl } from '../../geometry/arc';
import { chainKnots } from '../../geometry/path';
import type { Surface } from '../../geometry/surface';
import { add, dot, scale, subtract, type Vector, type Weighted } from '../../geometry/vector';
import { revolveChain } from '../../mass/revolved';
import { CodedError } from '../../units/coded-error';

/**
 * Planes, cylinders, cones, spheres and tori as exact rational patches. Such a surface has no ends of its own:
 * they are read off the face's rim (loops of places, mm): the patch reaches as far as they do.
 */

/** A face that cannot be taken, and why. */
export class FaceFault extends CodedError {
	readonly code = 'file.face';
}

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

/** The rectangle of a plane around a rim, its sides along the rim's first edge. @throws FaceFault */
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

/** How often a loop goes round the frame's axis, to the left. */
function turnsAround(loop: readonly Vector[]): number {
	let turn = 0;
	loop.forEach(([x, y], k) => {
		const [p, q] = loop[(k + 1) % loop.length]!;
		turn += Math.atan2(x * q - y * p, x * p + y * q);
	});
	return Math.round(turn / (2 * Math.PI));
}

/** Of a surface cut by one loop round its axis: whether it goes on above it or below it; null where it has ends. */
function openSide(loops: readonly (readonly Vector[])[]): 'above' | 'below' | null {
	const turns = loops.filter((loop) => loop.length > 2).reduce((sum, loop) => sum + turnsAround(loop), 0);
	if (Math.abs(turns) !== 1) return null;
	return turns > 0 ? 'above' : 'below';
}

/**
 * A cylinder or cone: radius at the frame's plane (mm), and how much it grows with the height. A cone cut by
 * one loop ends in its tip.
 * @throws FaceFault
 */
export function turnedPatch(
	frame: Frame,
	loops: readonly (readonly Vector[])[],
	{ r, slope }: { r: number; slope: number }
): Surface {
	const local = loops.map((loop) => loop.map((p) => inFrame(frame, p)));
	// A cone's tip has no angle.
	const round = local.flat().filter(([x, y]) => Math.hypot(x, y) > 1e-6 * (r + 1));
	const turn = turnOf(round.map(([x, y]) => Math.atan2(y, x)));
	const rims = local.flat().map(([, , z]) => z);
	const tip = -r / slope;
	const open = openSide(local);
	const ends = open === 'above' ? tip > rims[0]! : open === 'below' && tip < rims[0]!;
	const heights = rangeOf(slope !== 0 && ends ? [...rims, tip] : rims);
	if (!(heights.to > heights.from)) throw new FaceFault('its rim has no height on its surface');
	const control = [heights.from, heights.to].map((z): Weighted => [r + slope * z, z, 0, 1]);
	const third = (t: number) =>
		control[0]!.map((value, k) => value + t * (control[1]![k]! - value)) as unknown as Weighted;
	const chain = { breaks: [0, 1], points: [control[0]!, third(1 / 3), third(2 / 3), control[1]!] };
	return inSpace(revolveChain(chain, [0, 0], 0, turn.from, turn.to - turn.from), frame);
}

/** Of a torus between two loops round its axis: up the tube from the one that runs to the left to the other. */
function tubeRange(loops: readonly (readonly Vector[])[], lift: (p: Vector) => number): Range | null {
	const from = loops.find((loop) => turnsAround(loop) === 1);
	const to = loops.find((loop) => turnsAround(loop) === -1);
	if (!from || !to) return null;
	const [low, high] = [Math.min(...from.map(lift)), Math.max(...to.map(lift))];
	return { from: low, to: high > low + 1e-9 ? high : high + 2 * Math.PI };
}

/** A sphere (`ring` 0) or a torus; radii in mm. A sphere cut by one loop round its axis ends in a pole. */
export function roundPatch(
	frame: Frame,
	loops: readonly (readonly Vector[])[],
	ring: number,
	r: number
): Surface {
	const local = loops.map((loop) => loop.map((p) => inFrame(frame, p)));
	const points = local.flat();
	const round = points.filter(([x, y]) => Math.hypot(x, y) > 1e-6 * (ring + r));
	const all: Range = { from: 0, to: 2 * Math.PI };
	const turn = round.length ? turnOf(round.map(([x, y]) => Math.atan2(y, x))) : all;
	const lift = ([x, y, z]: Vector) => Math.atan2(z, Math.hypot(x, y) - ring);
	const lifts = points.map(lift);
	const poles: Range = { from: -Math.PI / 2, to: Math.PI / 2 };
	let tube: Range;
	if (ring > 0) tube = tubeRange(local, lift) ?? (lifts.length ? turnOf(lifts) : all);
	else if (points.length < 3) tube = poles;
	else {
		const open = openSide(local);
		const range = rangeOf(lifts);
		tube = { from: open === 'below' ? poles.from : range.from, to: open === 'above' ? poles.to : range.to };
		// A loop beside the axis that lies within one height is a hole or a rim of a whole sphere.
		if (tube.to - tube.from < 1e-9) tube = poles;
	}
	const { control, pieces } = arcControl([ring, 0], [r, r], tube.from, tube.to - tube.from);
	const arc = control.map(([x, z, , w]): Weighted => [Math.abs(x) < 1e-12 * r ? 0 : x, z, 0, w]);
	const breaks = Array.from({ length: pieces + 1 }, (_, k) => k / pieces);
	const surface = revolveChain({ breaks, points: arc }, [0, 0], 0, turn.from, turn.to - turn.from);
	return inSpace({ ...surface, knotsV: chainKnots(breaks) }, frame);
}
