import type { Step } from '../project/part-definition';
import type { NumberKind } from '../units/dimension';
import type { DomainBuilder, PointRegisters, Register } from './builder';
import { StepFault } from './scope';
import { plate, prism, tube } from './solids';
import type { Solid, Value, Vectors } from './values';

/** What a step may ask of the part it stands in. */
export interface StepContext {
	readonly v: Vectors;
	/** A name's value, refused when it is of none of the wanted types. */
	lookup<Is extends Value['is']>(name: string, ...wanted: Is[]): Extract<Value, { is: Is }>;
	/** A formula of a given kind. */
	number(text: string, kind: NumberKind): Register;
	/** A formula of whatever kind it comes to. */
	anyNumber(text: string): Value;
}

/** Lengths up to this (mm) make no solid. */
const LEAST_LENGTH = 0.01;

/** Lower one step to operations. @throws StepFault, FormulaError */
export function makeStep(step: Step, context: StepContext): Value {
	const { v, lookup, number } = context;
	const { b } = v;
	switch (step.do) {
		case 'number':
			return context.anyNumber(step.value);
		case 'point on path': {
			const { points } = lookup(step.path, 'path');
			const [from, to] = [points[0]!, points.at(-1)!];
			if ((step.ratio === undefined) === (step.distance === undefined))
				throw new StepFault('give either a ratio or a distance');
			const ratio =
				step.ratio !== undefined
					? number(step.ratio, 'ratio')
					: b.divide(number(step.distance!, 'length'), v.distance(from, to));
			return { is: 'point', at: v.mix(from, to, ratio) };
		}
		case 'lift': {
			const of = lookup(step.of, 'point', 'path', 'ring');
			const direction = v.unit(lookup(step.along, 'direction').at);
			const by = number(step.by, 'length');
			if (of.is === 'point') return { is: 'point', at: v.along(of.at, direction, by) };
			return { is: of.is, points: of.points.map((p) => v.along(p, direction, by)) };
		}
		case 'direction': {
			const from = lookup(step.from, 'point').at;
			const to = lookup(step.to, 'point').at;
			return { is: 'direction', at: v.unit(v.subtract(to, from)) };
		}
		case 'line':
			return {
				is: 'path',
				points: [lookup(step.from, 'point').at, lookup(step.to, 'point').at]
			};
		case 'inset':
			return inset(step, context);
		case 'plate': {
			const { points } = lookup(step.ring, 'ring');
			const thickness = number(step.thickness, 'length');
			refuseNothing(b, thickness, 'the thickness is nothing or less');
			const behind = { in: -1, out: 0, both: -0.5 }[step.side];
			const normal = v.unit(v.vectorArea(points));
			return {
				is: 'solid',
				solids: [
					plate(
						v,
						points,
						normal,
						b.multiply(thickness, b.constant(behind)),
						b.multiply(thickness, b.constant(behind + 1))
					)
				]
			};
		}
		case 'band':
			return band(step, context);
		case 'bar':
			return bar(step, context);
	}
}

function refuseNothing(b: DomainBuilder, length: Register, text: string): void {
	b.flag(b.apply('lessOrEqual', length, b.constant(LEAST_LENGTH)), 'failed', text);
}

/**
 * A ring moved inward edge by edge, mitred, every corner staying at its own height over the cell's plane.
 * Flagged as failed where an edge would turn round.
 */
function inset(step: Extract<Step, { do: 'inset' }>, { v, lookup, number }: StepContext): Value {
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
		b.flag(
			b.apply('lessOrEqual', left, b.constant(0)),
			'failed',
			`the inset ${step.name} would cross itself: the cell is too small for it`
		);
	});
	return { is: 'ring', points: moved };
}

/** The band between two rings, made solid: one mitred piece for each edge. */
function band(step: Extract<Step, { do: 'band' }>, { v, lookup, number }: StepContext): Value {
	const { b } = v;
	const outer = lookup(step.outer, 'ring').points;
	const inner = lookup(step.inner, 'ring').points;
	if (outer.length !== inner.length)
		throw new StepFault(
			`${step.outer} has ${outer.length} corners and ${step.inner} ${inner.length}; they need the same number`
		);
	const depth = number(step.depth, 'length');
	refuseNothing(b, depth, 'the depth is nothing or less');
	const normal = v.unit(v.vectorArea(outer));
	const behind = b.apply('negate', depth);
	const solids = outer.map((p, k): Solid => {
		const next = (k + 1) % outer.length;
		const ring = [p, outer[next]!, inner[next]!, inner[k]!];
		const solid = plate(v, ring, normal, behind, b.constant(0));
		return { ...solid, length: v.distance(p, outer[next]!) };
	});
	return { is: 'solid', solids };
}

/** A straight bar of box section along a path's two ends. */
function bar(step: Extract<Step, { do: 'bar' }>, { v, lookup, number }: StepContext): Value {
	const { b } = v;
	const { points } = lookup(step.path, 'path');
	const zero = b.constant(0);
	const orZero = (text: string | undefined, kind: NumberKind) =>
		text === undefined ? zero : number(text, kind);
	const width = number(step.width, 'length');
	const depth = number(step.depth, 'length');
	const [start, end] = [orZero(step.start_setback, 'length'), orZero(step.end_setback, 'length')];
	const [from, to] = [points[0]!, points.at(-1)!];
	const axis = v.unit(v.subtract(to, from));
	const length = b.subtract(b.subtract(v.distance(from, to), start), end);
	refuseNothing(b, length, 'the setbacks leave nothing of the bar');
	refuseNothing(b, width, 'the width is nothing or less');
	refuseNothing(b, depth, 'the depth is nothing or less');

	const facing = lookup(step.facing, 'direction').at;
	const upright = v.unit(v.subtract(facing, v.scale(axis, v.dot(facing, axis))));
	const aside = v.cross(upright, axis);
	const turn = orZero(step.turn, 'angle');
	const [cos, sin] = [b.apply('cos', turn), b.apply('sin', turn)];
	const d = v.add(v.scale(upright, cos), v.scale(aside, sin));
	const w = v.subtract(v.scale(aside, cos), v.scale(upright, sin));

	const low = { middle: -0.5, behind: -1, before: 0 }[step.placed];
	const ring = (origin: PointRegisters, wall: Register) => {
		const half = b.subtract(b.multiply(width, b.constant(0.5)), wall);
		const near = b.add(b.multiply(depth, b.constant(low)), wall);
		const far = b.subtract(b.multiply(depth, b.constant(low + 1)), wall);
		const corner = (x: Register, y: Register) => v.along(v.along(origin, w, x), d, y);
		const left = b.apply('negate', half);
		return [corner(left, near), corner(half, near), corner(half, far), corner(left, far)];
	};
	const foot = v.along(from, axis, start);
	const head = v.along(to, axis, b.apply('negate', end));
	const gross = b.multiply(width, depth);
	const outer = { foot: ring(foot, zero), head: ring(head, zero) };
	if (step.wall === undefined)
		return {
			is: 'solid',
			solids: [prism(outer.foot, outer.head, { volume: b.multiply(gross, length), area: zero, length })]
		};
	const wall = number(step.wall, 'length');
	const twice = b.add(wall, wall);
	refuseNothing(b, wall, 'the wall is nothing or less');
	b.flag(
		b.apply('lessOrEqual', b.apply('min', width, depth), twice),
		'failed',
		'the walls are thicker than half the section'
	);
	const hollow = b.multiply(b.subtract(width, twice), b.subtract(depth, twice));
	const inner = { foot: ring(foot, wall), head: ring(head, wall) };
	const volume = b.multiply(b.subtract(gross, hollow), length);
	return { is: 'solid', solids: [tube(outer, inner, { volume, area: zero, length })] };
}
