import type { PointRegisters } from '../builder';
import { StepFault } from '../compile/fault';
import type { Value, Vectors } from '../values';
import { refuseNothing, type Makers, type StepContext } from './context';
import { inset } from './inset';

/** Straight pieces of each span of a smooth path. */
const SMOOTH_PIECES = 8;

/** Weights of four points that follow one another, for the span between the middle two (Catmull and Rom 1974). */
function spanWeights(t: number): readonly [number, number, number, number] {
	return [
		(-t * t * t + 2 * t * t - t) / 2,
		(3 * t * t * t - 5 * t * t + 2) / 2,
		(-3 * t * t * t + 4 * t * t + t) / 2,
		(t * t * t - t * t) / 2
	];
}

/** A smooth line through points, as straight pieces; at an open end the last span is mirrored. */
function smoothed(v: Vectors, points: readonly PointRegisters[], closed: boolean): PointRegisters[] {
	const n = points.length;
	if (n < 3) return [...points];
	const at = (k: number): PointRegisters => {
		if (closed) return points[(k + n) % n]!;
		if (k < 0) return v.weighted([points[0]!, points[1]!], [2, -1]);
		if (k >= n) return v.weighted([points[n - 1]!, points[n - 2]!], [2, -1]);
		return points[k]!;
	};
	const made: PointRegisters[] = [];
	for (let k = 0; k < (closed ? n : n - 1); k++)
		for (let s = 0; s < SMOOTH_PIECES; s++)
			made.push(
				s === 0 ? at(k) : v.weighted([at(k - 1), at(k), at(k + 1), at(k + 2)], spanWeights(s / SMOOTH_PIECES))
			);
	return closed ? made : [...made, points[n - 1]!];
}

const same = (p: PointRegisters | undefined, q: PointRegisters | undefined) =>
	p !== undefined && p.x === q?.x && p.y === q.y && p.z === q.z;

/** Points in a row; a point where a path ends and another starts stands once. */
function rowOf(names: readonly string[], closed: boolean, { lookup }: StepContext): PointRegisters[] {
	const row: PointRegisters[] = [];
	for (const name of names) {
		const value = lookup(name, 'point', 'path', 'ring');
		for (const p of value.is === 'point' ? [value.at] : value.points) if (!same(row.at(-1), p)) row.push(p);
	}
	if (closed && same(row[0], row.at(-1))) row.pop();
	return row;
}

/** Corners cut once at a quarter of the edges (Chaikin 1974). */
function cut(v: Vectors, points: readonly PointRegisters[], closed: boolean): PointRegisters[] {
	const n = points.length;
	const pairs = points
		.slice(closed ? 0 : 1)
		.map((p, k) => (closed ? [p, points[(k + 1) % n]!] : [points[k]!, p]));
	const made = pairs.flatMap((pair) => [v.weighted(pair, [0.75, 0.25]), v.weighted(pair, [0.25, 0.75])]);
	return closed ? made : [points[0]!, ...made.slice(1, -1), points[n - 1]!];
}

export const lineSteps: Makers<
	| 'line'
	| 'edge'
	| 'circle'
	| 'path'
	| 'ring'
	| 'inset'
	| 'offset'
	| 'shrink'
	| 'smooth'
	| 'rounded'
	| 'divided'
> = {
	line: (step, { lookup }) => ({
		is: 'path',
		points: [lookup(step.from, 'point').at, lookup(step.to, 'point').at]
	}),
	edge(step, { lookup }) {
		const { points } = lookup(step.of, 'ring');
		const from = points[step.number - 1];
		if (!from)
			throw new StepFault(`${step.of} has ${points.length} edges; there is no number ${step.number}`);
		return { is: 'path', points: [from, points[step.number % points.length]!] };
	},
	circle(step, { v, lookup, number }) {
		const { origin, right, up } = lookup(step.plane, 'plane').frame;
		const radius = v.b.multiply(number(step.diameter, 'length'), v.b.constant(0.5));
		refuseNothing(v.b, radius, 'the diameter is nothing or less');
		const points = Array.from({ length: step.pieces }, (_, k) => {
			const angle = (2 * Math.PI * k) / step.pieces;
			const way = v.weighted([right, up], [Math.cos(angle), Math.sin(angle)]);
			return v.along(origin, way, radius);
		});
		return { is: 'ring', points };
	},
	path(step, context) {
		const row = rowOf(step.through, false, context);
		if (row.length < 2) throw new StepFault('a path needs at least two points');
		return { is: 'path', points: step.runs === 'smooth' ? smoothed(context.v, row, false) : row };
	},
	ring(step, context) {
		const row = rowOf(step.through, true, context);
		if (row.length < 3) throw new StepFault(`a ring needs at least three corners; ${row.length} are given`);
		return { is: 'ring', points: step.runs === 'smooth' ? smoothed(context.v, row, true) : row };
	},
	inset,
	offset(step, { v, lookup, number }) {
		const { points } = lookup(step.path, 'path');
		const facing = v.unit(lookup(step.facing, 'direction').at);
		const by = number(step.by, 'length');
		const aside = points.slice(1).map((p, k) => v.unit(v.cross(facing, v.subtract(p, points[k]!))));
		const moved = points.map((p, k) => {
			const [m, o] = [aside[Math.max(0, k - 1)]!, aside[Math.min(k, aside.length - 1)]!];
			if (m === o) return v.along(p, m, by);
			return v.along(p, v.add(m, o), v.b.divide(by, v.b.add(v.b.constant(1), v.dot(m, o))));
		});
		return { is: 'path', points: moved };
	},
	shrink(step, { v, lookup, number }) {
		const to = lookup(step.to, 'point').at;
		const ratio = number(step.ratio, 'ratio');
		const b = v.b;
		const outside = b.apply(
			'or',
			b.apply('less', ratio, b.constant(0)),
			b.apply('less', b.constant(1), ratio)
		);
		b.flag(outside, {
			code: 'part.ratio-outside',
			level: 'failed',
			subject: step.name,
			says: `the ratio of ${step.name} is outside 0 to 1`
		});
		return { is: 'ring', points: lookup(step.ring, 'ring').points.map((p) => v.mix(p, to, ratio)) };
	},
	smooth(step, { v, lookup }) {
		const of = lookup(step.of, 'path', 'ring');
		let points = of.points;
		for (let k = 0; k < step.times; k++) points = cut(v, points, of.is === 'ring');
		return { is: of.is, points };
	},
	rounded(step, context) {
		return rounded(step, context);
	},
	divided(step, { v, lookup }) {
		const { points } = lookup(step.path, 'path');
		if (points.length > 2)
			throw new StepFault('only a straight line is divided; use a repeat along a bent one');
		const [from, to] = points as [PointRegisters, PointRegisters];
		const between = Array.from({ length: step.into - 1 }, (_, k) =>
			v.mix(from, to, v.b.constant((k + 1) / step.into))
		);
		return { is: 'path', points: [from, ...between, to] };
	}
};

/** Corners replaced by arcs that touch both edges. */
function rounded(
	step: { readonly name: string; readonly ring: string; readonly radius: string; readonly pieces: number },
	{ v, lookup, number }: StepContext
): Value {
	const { b } = v;
	const { points } = lookup(step.ring, 'ring');
	const n = points.length;
	const radius = number(step.radius, 'length');
	const [one, half] = [b.constant(1), b.constant(0.5)];
	const edge = points.map((p, k) => v.subtract(points[(k + 1) % n]!, p));
	const way = edge.map((e) => v.unit(e));
	/** The tangent of half the turn at each corner, times the radius: how much an arc takes of both edges. */
	const taken = points.map((_, k) => {
		const cosine = v.dot(way[(k + n - 1) % n]!, way[k]!);
		const tangent = b.apply('sqrt', b.divide(b.subtract(one, cosine), b.add(one, cosine)));
		return b.multiply(radius, tangent);
	});
	edge.forEach((e, k) =>
		b.flag(b.apply('less', v.length(e), b.add(taken[k]!, taken[(k + 1) % n]!)), {
			code: 'part.radius-too-large',
			level: 'failed',
			subject: step.name,
			says: `the radius of ${step.name} is too large for an edge`
		})
	);
	return {
		is: 'ring',
		points: points.flatMap((p, k) => {
			const [into, out] = [way[(k + n - 1) % n]!, way[k]!];
			const from = v.along(p, into, b.apply('negate', taken[k]!));
			const to = v.along(p, out, taken[k]!);
			// A rational quadratic through the corner with the cosine of half the turn as weight is the arc.
			const weight = b.apply('sqrt', b.multiply(b.add(one, v.dot(into, out)), half));
			return Array.from({ length: step.pieces + 1 }, (_, s) => {
				const t = s / step.pieces;
				const middle = b.multiply(weight, b.constant(2 * t * (1 - t)));
				const sum = b.add(b.constant((1 - t) ** 2 + t * t), middle);
				const top = v.add(v.weighted([from, to], [(1 - t) ** 2, t * t]), v.scale(p, middle));
				return v.scale(top, b.divide(one, sum));
			});
		})
	};
}
