import type { StepOf } from '../../project/part-definition';
import { StepFault } from '../compile/fault';
import type { Value } from '../values';
import type { StepContext } from './context';

/**
 * A ring moved inward edge by edge, mitred, every corner staying at its own height over the cell's plane.
 * Flagged as failed where an edge would turn round.
 */
export function inset(step: StepOf<'inset'>, { v, lookup, number }: StepContext): Value {
	const { b } = v;
	const { points } = lookup(step.ring, 'ring');
	const n = points.length;
	const given = Array.isArray(step.by) ? step.by : new Array<string>(n).fill(step.by);
	if (given.length !== n)
		throw new StepFault(`${given.length} widths are given for a ring of ${n} edges; give one, or ${n}`);
	const widths = given.map((text) => number(text, 'length'));
	const normal = v.unit(v.vectorArea(points));
	const edges = points.map((p, k) => v.subtract(points[(k + 1) % n]!, p));
	const inward = edges.map((edge) => v.unit(v.cross(normal, edge)));
	const moved = points.map((p, k) => {
		const before = (k + n - 1) % n;
		const [m, o] = [inward[before]!, inward[k]!];
		if (widths[before] === widths[k]) {
			// Half-angle form: also right where two edges run straight on.
			const reach = b.divide(widths[k]!, b.add(b.constant(1), v.dot(m, o)));
			return v.along(p, v.add(m, o), reach);
		}
		const across = v.cross(o, normal);
		const determinant = v.dot(m, across);
		const first = v.scale(across, b.divide(widths[before]!, determinant));
		const second = v.scale(v.cross(normal, m), b.divide(widths[k]!, determinant));
		return v.add(p, v.add(first, second));
	});
	moved.forEach((p, k) => {
		const left = v.dot(v.subtract(moved[(k + 1) % n]!, p), edges[k]!);
		b.flag(b.apply('lessOrEqual', left, b.constant(0)), {
			code: 'part.inset-crosses',
			level: 'failed',
			subject: step.name,
			says: `the inset ${step.name} would cross itself: the cell is too small for it`
		});
	});
	return { is: 'ring', points: moved };
}
