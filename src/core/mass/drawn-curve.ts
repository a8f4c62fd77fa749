import {
	bezierChain,
	chainCurve,
	ellipseChain,
	reverseChain,
	type BezierChain,
	type Segment
} from '../geometry/path';
import { inRadians } from '../units/scale';
import { selfCrossing, TooIntricate } from '../geometry/crossing';
import { evaluateCurve } from '../geometry/curve';
import { distance, dot, subtract, type Vector } from '../geometry/vector';
import type { OutlineDefinition, ProfileDefinition } from '../project/form-schema';
import { refuse } from '../units/problem';
import { formatNumber } from '../units/quantity';
import { ROUNDED } from '../geometry/tolerance';

/** Curves drawn in a plane, as chains in z = 0. */

type Plan = readonly [number, number];

interface Corners {
	readonly points: readonly Plan[];
	/** One for each pair of neighbours; a closed curve ends where it starts. */
	readonly joins: readonly Segment[];
}

/** One segment per pair of neighbours, from one word or a list of words. */
export function segmentsOf<S extends Segment>(
	joins: S | readonly S[],
	pairs: number,
	at: string
): readonly S[] {
	if (!Array.isArray(joins)) return new Array<S>(pairs).fill(joins as S);
	const list = joins as readonly S[];
	if (list.length !== pairs)
		refuse(
			`${at}/joins`,
			`${list.length} joins are given for ${pairs + 1} points; ${pairs} are needed, or one word for all`
		);
	return list;
}

const mirroredPoint = ([x, y]: Plan): Plan => [-x, y];

/** Points and joins as given, completed by the mirror image, and closed when asked. */
function completed(
	{ points, joins, mirrored }: Pick<ProfileDefinition, 'points' | 'joins' | 'mirrored'>,
	closed: boolean,
	at: string
): Corners {
	if (points.length < 2) refuse(`${at}/points`, `a curve needs at least 2 points; it has ${points.length}`);
	const back = closed && !mirrored && distancePlan(points[0]!, points.at(-1)!) > ROUNDED;
	const own = segmentsOf(joins, points.length - 1 + (back ? 1 : 0), at);
	if (!mirrored) {
		if (closed && points.length < (back ? 3 : 4))
			refuse(`${at}/points`, 'a closed curve needs at least 3 different points');
		return { points: back ? [...points, points[0]!] : points, joins: own };
	}
	if (points.some(([x]) => x < -ROUNDED) && points.some(([x]) => x > ROUNDED))
		refuse(`${at}/points`, 'a curve that is mirrored about x = 0 has to stay on one side of it');
	const [first, last] = [points[0]!, points.at(-1)!];
	const whole: Plan[] = [...points];
	const segments: Segment[] = [...own];
	// From the last point over the axis, back along the mirror image: an arc keeps its rise, being both
	// mirrored and run the other way.
	if (Math.abs(last[0]) > ROUNDED) {
		whole.push(mirroredPoint(last));
		segments.push('line');
	}
	for (let k = points.length - 2; k >= 0; k--) {
		whole.push(mirroredPoint(points[k]!));
		segments.push(own[k]!);
	}
	if (closed && Math.abs(first[0]) > ROUNDED) {
		whole.push(first);
		segments.push('line');
	}
	return { points: whole, joins: segments };
}

const distancePlan = (a: Plan, b: Plan) => Math.hypot(a[0] - b[0], a[1] - b[1]);

/** Corners between straight segments replaced by arcs of a radius; the curve is closed. */
function rounded({ points, joins }: Corners, radius: number, at: string): Corners {
	if (radius < 0) refuse(`${at}/rounding`, `the rounding is ${radius} mm; 0 or more is accepted`);
	if (radius === 0) return { points, joins };
	const n = joins.length;
	/** How far from a corner its arc starts, and the rise of the arc. */
	const corners = joins.map((segment, k) => {
		const before = joins[(k + n - 1) % n]!;
		if (segment !== 'line' || before !== 'line') return { cut: 0, rise: 0 };
		const [p, q, r] = [points[(k + n - 1) % n]!, points[k]!, points[k + 1]!];
		const turn = Math.atan2(
			(q[0] - p[0]) * (r[1] - q[1]) - (q[1] - p[1]) * (r[0] - q[0]),
			(q[0] - p[0]) * (r[0] - q[0]) + (q[1] - p[1]) * (r[1] - q[1])
		);
		if (Math.abs(turn) < 1e-6) return { cut: 0, rise: 0 };
		// A turn to the left bulges to the right of its chord.
		return {
			cut: radius * Math.tan(Math.abs(turn) / 2),
			rise: -Math.sign(turn) * radius * (1 - Math.cos(turn / 2))
		};
	});
	const result: Plan[] = [];
	const segments: Segment[] = [];
	for (let k = 0; k < n; k++) {
		const [p, q] = [points[k]!, points[k + 1]!];
		const [from, to] = [corners[k]!, corners[(k + 1) % n]!];
		const size = distancePlan(p, q);
		if (from.cut + to.cut > size + ROUNDED)
			refuse(
				`${at}/rounding`,
				`a rounding of ${formatNumber(radius)} mm needs ${formatNumber(from.cut + to.cut)} mm of side ${k + 1}, which has ${formatNumber(size)} mm; at most ${formatNumber(Math.floor((radius * size) / (from.cut + to.cut)))} mm fits`
			);
		const on = (cut: number): Plan => [
			p[0] + ((q[0] - p[0]) * cut) / size,
			p[1] + ((q[1] - p[1]) * cut) / size
		];
		// The first corner's own arc comes last.
		result.push(from.cut ? on(from.cut) : p);
		// Two arcs that share a side leave no straight piece between them.
		if (from.cut + to.cut < size - ROUNDED) {
			segments.push(joins[k]!);
			if (to.cut) result.push(on(size - to.cut));
		}
		if (to.cut) segments.push({ arc: to.rise });
	}
	result.push(result[0]!);
	return { points: result, joins: segments };
}

function polygonCorners(sides: number, radius: number): Corners {
	const points = Array.from({ length: sides + 1 }, (_, k): Plan => {
		// A side faces south, as the foot of the drawing.
		const angle = -Math.PI / 2 - Math.PI / sides + ((k % sides) * 2 * Math.PI) / sides;
		return [radius * Math.cos(angle), radius * Math.sin(angle)];
	});
	return { points, joins: new Array<Segment>(sides).fill('line') };
}

/** Sides of an outline that are shorter are nothing beside the others (mm). */
const LEAST_SIZE = 0.01;

function positive(value: number, what: string, at: string): void {
	if (!(value >= LEAST_SIZE)) refuse(at, `${what} is ${value} mm; ${LEAST_SIZE} mm or more is accepted`);
}

function outlineCorners(
	outline: Exclude<OutlineDefinition, { shape: 'circle' | 'ellipse' }>,
	at: string
): Corners {
	switch (outline.shape) {
		case 'rectangle': {
			positive(outline.width, 'the width', `${at}/width`);
			positive(outline.depth, 'the depth', `${at}/depth`);
			const [x, y] = [outline.width / 2, outline.depth / 2];
			const points: Plan[] = [
				[-x, -y],
				[x, -y],
				[x, y],
				[-x, y],
				[-x, -y]
			];
			return { points, joins: ['line', 'line', 'line', 'line'] };
		}
		case 'polygon':
			if (!Number.isInteger(outline.sides) || outline.sides < 3 || outline.sides > 120)
				refuse(`${at}/sides`, `${outline.sides} sides are asked for; 3 to 120 are accepted`);
			positive(outline.radius, 'the radius', `${at}/radius`);
			return polygonCorners(outline.sides, outline.radius);
		case 'drawn':
			return completed(outline, true, at);
	}
}

function chainThrough({ points, joins }: Corners, at: string): BezierChain {
	const flat = points.map(([x, y]): Vector => [x, y, 0]);
	try {
		return bezierChain(flat, joins);
	} catch (error) {
		return refuse(`${at}/points`, `${(error as Error).message}; move or remove one of them`);
	}
}

/**
 * An open curve.
 *
 * ```ts
 * const profile = profileChain({ points: [[4000, 0], [3500, 8000]], joins: 'line', mirrored: false }, at);
 * ```
 * @throws ProblemError
 */
export function profileChain(profile: ProfileDefinition, at: string): BezierChain {
	return chainThrough(completed(profile, false, at), at);
}

/** Samples for each piece of a chain when it is looked at closely. */
const SAMPLES = 16;

/**
 * Points along a chain, its breaks included: x y per point.
 *
 * ```ts
 * const line = sampleChain(outlineChain({ shape: 'circle', radius: 2000 }, at), 8);
 * ```
 */
export function sampleChain(chain: BezierChain, each = SAMPLES): Plan[] {
	const at: number[] = [];
	for (let k = 0; k + 1 < chain.breaks.length; k++)
		for (let s = 0; s < each; s++)
			at.push(chain.breaks[k]! + (s / each) * (chain.breaks[k + 1]! - chain.breaks[k]!));
	at.push(1);
	const { points } = evaluateCurve(chainCurve(chain), at);
	return at.map((_, k): Plan => [points[3 * k]!, points[3 * k + 1]!]);
}

/** Refuse a closed curve that crosses itself, naming where. */
function checkSimple(chain: BezierChain, at: string): void {
	const place = atMost(() => selfCrossing(sampleChain(chain).slice(0, -1)), at);
	if (!place) return;
	const [x, y] = place.map((value) => formatNumber(Math.round(value)));
	refuse(at, `the outline crosses itself near x ${x}, y ${y}; move its points so that it goes round once`);
}

/** A drawing that is too intricate to be looked through is refused at its clause. */
export function atMost<T>(look: () => T, at: string): T {
	try {
		return look();
	} catch (error) {
		if (error instanceof TooIntricate) return refuse(at, error.message);
		throw error;
	}
}

/** Twice the area inside a closed chain, positive when it runs to the left. */
function signedArea(chain: BezierChain): number {
	const points = sampleChain(chain);
	return points.slice(1).reduce((sum, q, k) => sum + points[k]![0] * q[1] - q[0] * points[k]![1], 0);
}

/**
 * A closed outline, counter-clockwise from above.
 *
 * ```ts
 * const rim = outlineChain({ shape: 'circle', radius: 2000 }, at);
 * ```
 * @throws ProblemError
 */
export function outlineChain(outline: OutlineDefinition, at: string): BezierChain {
	if (outline.shape === 'circle') {
		positive(outline.radius, 'the radius', `${at}/radius`);
		return ellipseChain([outline.radius, outline.radius]);
	}
	if (outline.shape === 'ellipse') {
		positive(outline.width, 'the width', `${at}/width`);
		positive(outline.depth, 'the depth', `${at}/depth`);
		return ellipseChain([outline.width / 2, outline.depth / 2]);
	}
	const chain = chainThrough(rounded(outlineCorners(outline, at), outline.rounding, at), at);
	checkSimple(chain, at);
	return signedArea(chain) < 0 ? reverseChain(chain) : chain;
}

/**
 * Points to go on drawing from: the corners of an outline, or a few points of one that has none.
 *
 * ```ts
 * const corners = cornersOfOutline({ shape: 'rectangle', width: 4000, depth: 3000, rounding: 0 }, at);
 * ```
 */
export function cornersOfOutline(outline: OutlineDefinition, at: string): [number, number][] {
	const plain = 'rounding' in outline ? { ...outline, rounding: 0 } : outline;
	const each = outline.shape === 'circle' || outline.shape === 'ellipse' ? 2 : 1;
	return sampleChain(outlineChain(plain, at), each)
		.slice(0, -1)
		.map(([x, y]) => [Math.round(x), Math.round(y)]);
}

/** A turn of less than this between two pieces is smooth. */
const SMOOTH = Math.cos(inRadians(1));

/** Breaks where a closed chain has a corner; the first break counts as one when it is. */
export function cornersOf({ points }: BezierChain): number[] {
	const pieces = (points.length - 1) / 3;
	const at = (k: number): Vector => {
		const [x, y, z, w] = points[k]!;
		return [x / w, y / w, z / w];
	};
	const corners: number[] = [];
	for (let k = 0; k < pieces; k++) {
		const here = at(3 * k);
		const before = at(k === 0 ? points.length - 2 : 3 * k - 1);
		const after = at(3 * k + 1);
		const [a, b] = [distance(before, here), distance(here, after)];
		const cos = dot(subtract(here, before), subtract(after, here)) / (a * b);
		if (cos < SMOOTH) corners.push(k);
	}
	return corners;
}
