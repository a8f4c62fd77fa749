import { evaluateCurve, type Curve } from '../../geometry/curve';
import { followCurve } from '../../geometry/follow';
import { add, distance, dot, pointAt, scale, subtract, type Vector } from '../../geometry/vector';
import { FaceFault } from './analytic-patches';
import { expandKnots, isTrue, listOf, numberAt, numbers, refOf, type Entities } from './entities';
import type { StepRecord } from './part21';

/** Curved edges are followed to within so much of their size. */
const FOLLOWED = 1e-4;
const JOINED = 1e-6;

/** An edge of a face as it is run along: its points, both ends included. */
interface Edge {
	readonly id: number;
	readonly points: readonly Vector[];
}

/** Closed polylines, the first point not repeated; the face lies to their left seen from its outside. */
export type Loop = readonly Vector[];

/** Reads the rims of faces. */
export class Rims {
	constructor(private readonly entities: Entities) {}

	/** The loops around a face. Where it is cut open along a seam, the loops run on past it. */
	loops(bounds: readonly number[]): Loop[] {
		const edges: Edge[] = [];
		const points: Loop[] = [];
		for (const id of bounds) {
			const bound = this.entities.record(id);
			const loop = this.entities.record(refOf(bound.values[1]));
			if (loop.type === 'VERTEX_LOOP') {
				points.push([this.entities.vertex(refOf(loop.values[1]))]);
				continue;
			}
			if (loop.type !== 'EDGE_LOOP')
				throw new FaceFault(`its rim is a ${loop.type}; an EDGE_LOOP can be taken`);
			const found = listOf(loop.values[1]).map((oriented) => this.edge(refOf(oriented)));
			const turned = (edge: Edge): Edge => ({ ...edge, points: [...edge.points].reverse() });
			edges.push(...(isTrue(bound.values[2]) ? found : found.map(turned).reverse()));
		}
		const seams = new Set(edges.map(({ id }) => id).filter((id, k, all) => all.indexOf(id) !== k));
		return [...chained(edges.filter(({ id }) => !seams.has(id))), ...points];
	}

	private edge(oriented: number): Edge {
		const { values } = this.entities.record(oriented, 'ORIENTED_EDGE');
		const id = refOf(values[3]);
		const edge = this.entities.record(id, 'EDGE_CURVE');
		const from = this.entities.vertex(refOf(edge.values[1]));
		const to = this.entities.vertex(refOf(edge.values[2]));
		const points = this.along(refOf(edge.values[3]), from, to, isTrue(edge.values[4]));
		return { id, points: isTrue(values[4]) ? points : [...points].reverse() };
	}

	/** Points of a curve from one vertex to another, along it or against it. */
	private along(id: number, from: Vector, to: Vector, forward: boolean): Vector[] {
		const records = this.entities.file.records(id);
		const has = (...types: string[]) => records.find(({ type }) => types.includes(type));
		// A curve on a surface names the curve in space first.
		const wrapped = has('SURFACE_CURVE', 'SEAM_CURVE', 'INTERSECTION_CURVE', 'TRIMMED_CURVE');
		if (wrapped) return this.along(refOf(wrapped.values[1]), from, to, forward);
		if (has('LINE')) return [from, to];
		if (has('CIRCLE', 'ELLIPSE')) return this.ellipse(has('CIRCLE', 'ELLIPSE')!, from, to, forward);
		const polyline = has('POLYLINE');
		if (polyline) {
			const points = listOf(polyline.values[1]).map((one) => this.entities.point(refOf(one)));
			return forward ? points : points.reverse();
		}
		const spline = this.spline(records);
		if (spline) return alongSpline(spline, from, to, forward);
		throw new FaceFault(
			`an edge of it is a ${records.length > 1 ? 'complex instance' : records[0]!.type} (#${id}); lines, circles, ellipses, polylines and B-spline curves can be taken`
		);
	}

	private ellipse({ values }: StepRecord, from: Vector, to: Vector, forward: boolean): Vector[] {
		const frame = this.entities.frame(refOf(values[1]));
		const radii = [numberAt(values[2]), numberAt(values.at(-1))].map((r) => r * this.entities.unit);
		const angle = (p: Vector) => {
			const way = subtract(p, frame.origin);
			return Math.atan2(dot(way, frame.y) / radii[1]!, dot(way, frame.x) / radii[0]!);
		};
		const [a, b] = forward ? [angle(from), angle(to)] : [angle(to), angle(from)];
		const turn = b - a > 1e-9 ? b - a : b - a + 2 * Math.PI;
		const steps = Math.max(2, Math.ceil(turn / (2 * Math.acos(1 - FOLLOWED))));
		const between = Array.from({ length: steps - 1 }, (_, k): Vector => {
			const t = a + (turn * (k + 1)) / steps;
			const [x, y] = [radii[0]! * Math.cos(t), radii[1]! * Math.sin(t)];
			return add(frame.origin, add(scale(frame.x, x), scale(frame.y, y)));
		});
		return [from, ...(forward ? between : between.reverse()), to];
	}

	private spline(records: readonly StepRecord[]): Curve | null {
		const knots = records.find((one) => one.type === 'B_SPLINE_CURVE_WITH_KNOTS');
		if (!knots) return null;
		const base = records.find((one) => one.type === 'B_SPLINE_CURVE');
		const [degree, points] = base ? base.values : knots.values.slice(1);
		const [times, values] = base ? knots.values : knots.values.slice(6);
		const rational = records.find((one) => one.type === 'RATIONAL_B_SPLINE_CURVE');
		const weights = rational ? numbers(rational.values[0]) : [];
		const net = listOf(points).flatMap((one, k) => {
			const w = weights[k] ?? 1;
			return [...scale(this.entities.point(refOf(one)), w), w];
		});
		return {
			degree: numberAt(degree),
			knots: expandKnots(numbers(times), numbers(values)),
			net: Float64Array.from(net)
		};
	}
}

/** The parameter at which a curve comes nearest to a point. */
function parameterNear(curve: Curve, point: Vector): number {
	const [low, high] = [curve.knots[0]!, curve.knots.at(-1)!];
	const at = Array.from({ length: 257 }, (_, k) => low + (k / 256) * (high - low));
	const { points } = evaluateCurve(curve, at);
	let best = 0;
	at.forEach((_, k) => {
		if (distance(pointAt(points, k), point) < distance(pointAt(points, best), point)) best = k;
	});
	let t = at[best]!;
	for (let round = 0; round < 20; round++) {
		const { points: here, tangents } = evaluateCurve(curve, [t]);
		const tangent = pointAt(tangents, 0);
		const step = dot(subtract(point, pointAt(here, 0)), tangent) / (dot(tangent, tangent) || 1);
		t = Math.min(high, Math.max(low, t + step));
		if (Math.abs(step) < 1e-14 * (high - low)) break;
	}
	return t;
}

function alongSpline(curve: Curve, from: Vector, to: Vector, forward: boolean): Vector[] {
	const [low, high] = [curve.knots[0]!, curve.knots.at(-1)!];
	const [first, last] = forward ? [from, to] : [to, from];
	const whole = evaluateCurve(curve, [low, high]).points;
	const near = (k: number, p: Vector) => distance(pointAt(whole, k), p) <= JOINED * distance(first, last);
	let [a, b] =
		near(0, first) && near(1, last) ? [low, high] : [parameterNear(curve, first), parameterNear(curve, last)];
	// A closed curve that is used whole starts and ends in one point.
	if (!(b - a > 1e-12 * (high - low))) [a, b] = [low, high];
	const knots = [a, ...new Set([...curve.knots].filter((t) => t > a && t < b)), b];
	const evaluate = (at: readonly number[]) => evaluateCurve(curve, at).points;
	const ends = evaluate(knots);
	let size = 0;
	for (let k = 1; k < knots.length; k++) size += distance(pointAt(ends, k), pointAt(ends, k - 1));
	const points = followCurve(evaluate, knots, FOLLOWED * (size || distance(from, to) || 1));
	return forward ? points : points.reverse();
}

/** Edges put end to end; each is followed by one that starts where it ends. */
function chained(edges: readonly Edge[]): Loop[] {
	const left = [...edges];
	const loops: Loop[] = [];
	for (let edge = left.shift(); edge; edge = left.shift()) {
		const points = [...edge.points];
		const size = Math.max(1, ...points.map((p) => distance(p, points[0]!)));
		while (distance(points[0]!, points.at(-1)!) > JOINED * size) {
			const end = points.at(-1)!;
			const next = left.findIndex((one) => distance(one.points[0]!, end) < JOINED * size);
			if (next < 0) throw new FaceFault('its rim is not closed');
			points.push(...left.splice(next, 1)[0]!.points.slice(1));
		}
		loops.push(points.slice(0, -1));
	}
	return loops;
}
