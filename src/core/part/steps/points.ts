import type { PointRegisters, Register } from '../builder';
import { StepFault } from '../compile/fault';
import { nearest, type Value, type Vectors } from '../values';
import type { Makers } from './context';

/**
 * The point at a distance along a polyline: each piece is gone through as far as the distance reaches.
 * Beyond an end the first or last piece goes straight on.
 */
export function alongPath(v: Vectors, points: readonly PointRegisters[], distance: Register): PointRegisters {
	const { b } = v;
	const last = points.length - 2;
	let [at, before] = [points[0]!, b.constant(0)];
	for (let k = 0; k <= last; k++) {
		const piece = v.subtract(points[k + 1]!, points[k]!);
		const length = v.length(piece);
		let share = b.divide(b.subtract(distance, before), length);
		if (k > 0) share = b.apply('max', share, b.constant(0));
		if (k < last) share = b.apply('min', share, b.constant(1));
		at = v.along(at, piece, share);
		before = b.add(before, length);
	}
	return at;
}

/** A value of the same type, chosen point by point. */
function chosen(v: Vectors, when: Register, a: Value, o: Value): Value {
	if (a.is !== o.is)
		throw new StepFault(`it chooses between a ${a.is} and a ${o.is}; two of one type are wanted`);
	if ('at' in a && 'at' in o) return { is: a.is, at: v.choose(when, a.at, o.at) };
	if ('points' in a && 'points' in o) {
		if (a.points.length !== o.points.length)
			throw new StepFault(
				`it chooses between ${a.points.length} and ${o.points.length} points; the same number is wanted`
			);
		return { is: a.is, points: a.points.map((p, k) => v.choose(when, p, o.points[k]!)) };
	}
	throw new StepFault(
		`a ${a.is} cannot be chosen; points, directions, rings and paths can, numbers in a formula`
	);
}

export const pointSteps: Makers<
	| 'number'
	| 'point on path'
	| 'middle'
	| 'corner'
	| 'crossing'
	| 'lift'
	| 'shift'
	| 'foot'
	| 'direction'
	| 'normal'
	| 'plane'
	| 'choose'
> = {
	number: (step, context) => context.anyNumber(step.value),
	'point on path'(step, { v, lookup, number }) {
		const given = lookup(step.path, 'path').points;
		if ((step.ratio === undefined) === (step.distance === undefined))
			throw new StepFault('give either a ratio or a distance');
		const points = step.from === 'end' ? given.toReversed() : given;
		if (step.ratio !== undefined && points.length === 2)
			return { is: 'point', at: v.mix(points[0]!, points[1]!, number(step.ratio, 'ratio')) };
		const distance =
			step.distance !== undefined
				? number(step.distance, 'length')
				: v.b.multiply(number(step.ratio!, 'ratio'), v.pathLength(points));
		return { is: 'point', at: alongPath(v, points, distance) };
	},
	middle(step, { v, lookup }) {
		const { is, points } = lookup(step.of, 'path', 'ring');
		if (is === 'ring') return { is: 'point', at: v.centre(points) };
		return { is: 'point', at: alongPath(v, points, v.b.multiply(v.pathLength(points), v.b.constant(0.5))) };
	},
	corner(step, { lookup }) {
		const { points } = lookup(step.of, 'path', 'ring');
		const at = points[step.number - 1];
		if (!at) throw new StepFault(`${step.of} has ${points.length} points; there is no number ${step.number}`);
		return { is: 'point', at };
	},
	crossing(step, { v, lookup }) {
		const near = nearest(v, lookup(step.first, 'path').points, lookup(step.second, 'path').points);
		return { is: 'point', at: v.centre(near) };
	},
	lift(step, { v, lookup, number }) {
		const of = lookup(step.of, 'point', 'path', 'ring');
		const along = lookup(step.along, 'direction', 'directions');
		const points = of.is === 'point' ? [of.at] : of.points;
		const several = <T>(list: readonly T[], what: string): readonly T[] => {
			if (list.length !== points.length)
				throw new StepFault(
					`${list.length} ${what} are given for ${points.length} points; give one, or ${points.length}`
				);
			return list;
		};
		const ways = along.is === 'direction' ? points.map(() => along.at) : several(along.points, 'directions');
		const by = Array.isArray(step.by)
			? several(step.by, 'distances').map((text) => number(text, 'length'))
			: points.map(() => number(step.by as string, 'length'));
		const lifted = points.map((p, k) => v.along(p, v.unit(ways[k]!), by[k]!));
		return of.is === 'point' ? { is: 'point', at: lifted[0]! } : { is: of.is, points: lifted };
	},
	shift(step, { v, lookup, number }) {
		const of = lookup(step.of, 'point', 'path', 'ring');
		const { right, up } = lookup(step.plane, 'plane').frame;
		const [x, y] = [number(step.right, 'length'), number(step.up, 'length')];
		const moved = (p: PointRegisters) => v.along(v.along(p, right, x), up, y);
		return of.is === 'point'
			? { is: 'point', at: moved(of.at) }
			: { is: of.is, points: of.points.map(moved) };
	},
	foot(step, { v, lookup }) {
		const of = lookup(step.of, 'point').at;
		const on = lookup(step.on, 'path', 'plane');
		if (on.is === 'plane') {
			const { origin, normal } = on.frame;
			const height = v.dot(v.subtract(of, origin), normal);
			return { is: 'point', at: v.along(of, normal, v.b.apply('negate', height)) };
		}
		const from = on.points[0]!;
		const axis = v.unit(v.subtract(on.points.at(-1)!, from));
		return { is: 'point', at: v.along(from, axis, v.dot(v.subtract(of, from), axis)) };
	},
	direction(step, { v, lookup }) {
		const from = lookup(step.from, 'point').at;
		return { is: 'direction', at: v.unit(v.subtract(lookup(step.to, 'point').at, from)) };
	},
	normal: (step, { v, lookup }) => ({
		is: 'direction',
		at: v.normalOf(lookup(step.of, 'ring').points)
	}),
	plane(step, { v, lookup }) {
		const origin = lookup(step.origin, 'point').at;
		const normal = v.unit(lookup(step.normal, 'direction').at);
		const right = v.squareTo(lookup(step.right, 'direction').at, normal);
		return { is: 'plane', frame: { origin, right, up: v.cross(normal, right), normal } };
	},
	choose(step, { v, lookup, condition }) {
		const any = ['point', 'direction', 'directions', 'ring', 'path', 'plane', 'sheet', 'solid'] as const;
		return chosen(v, condition(step.when), lookup(step.then, ...any), lookup(step.otherwise, ...any));
	}
};
