import type { Along, Cases, Each, Repeat } from '../../project/part-definition';
import { inDegrees } from '../../units/scale';
import { significant } from '../../units/quantity';
import type { PointRegisters, Register } from '../builder';
import { refuseNothing } from '../steps/context';
import { Vectors, numberValue } from '../values';
import { limitsOf, rangesOf } from './case-ranges';
import { StepFault } from './fault';
import type { Lowering } from './lowering';
import { Scope } from './scope';
import { pieceNames, turnsOf } from './turns';

/** A length that is off a whole number of pieces by less than this share of one has that number. */
const ALMOST = 1e-6;

export function lowerRepeat(c: Lowering, scope: Scope, step: Repeat): void {
	const b = scope.builder;
	let times = step.times ? c.number(scope, step.times, 'count') : b.constant(1);
	if (step.when)
		times = b.apply('choose', c.formula(scope, step.when, { is: 'switch' }), times, b.constant(0));
	if (!step.times && !step.when) throw new StepFault('a repeat needs "times" or "when"');
	const inner = new Scope(b.group(times), scope, true);
	const index = step.index ?? 'turn';
	c.setTurnName(inner, index, numberValue(inner.builder.index(), 'count'));
	c.group(inner, step);
}

/** As many turns as pieces fit; `<name>_count` tells how many afterwards. */
export function lowerAlong(c: Lowering, scope: Scope, step: Along): void {
	const b = scope.builder;
	const v = new Vectors(b);
	const path = c.lookup(scope, step.path, 'path');
	const spacing = c.number(scope, step.spacing, 'length');
	refuseNothing(b, spacing, `the spacing of ${c.named(step.name)} is nothing or less`);
	const fit = b.divide(v.pathLength(path.points), spacing);
	const even = step.spaced === 'at most';
	const times = even
		? b.apply('max', b.apply('ceil', b.subtract(fit, b.constant(ALMOST))), b.constant(1))
		: b.apply('floor', b.add(fit, b.constant(ALMOST)));
	const inner = new Scope(b.group(times), scope, true);
	const within = inner.builder;
	const turn = within.index();
	const size = even ? b.divide(v.pathLength(path.points), times) : spacing;
	const from = within.multiply(turn, within.import(size));
	const { points } = c.lookup(inner, step.path, 'path');
	for (const [name, value] of pieceNames(new Vectors(within), points, from, within.import(size), turn))
		c.setTurnName(inner, name, value);
	c.group(inner, step);
	scope.set(`${step.name}_count`, numberValue(times, 'count'));
}

export function lowerCases(c: Lowering, scope: Scope, step: Cases): void {
	const b = scope.builder;
	const { register, type } = c.anyFormula(scope, step.of);
	const input = c.definition.inputs.find(({ name }) => name === step.of);
	const told = input?.kind === 'angle' ? inDegrees : (value: number) => value;
	const shown = (value: number) => significant(told(value), 6);
	const ranges = rangesOf(step.cases, type, limitsOf(input), shown);
	ranges.forEach(({ from, below }, k) => {
		let inside = b.constant(1);
		if (from > -Infinity) inside = b.apply('lessOrEqual', b.constant(from), register);
		if (below < Infinity) {
			const under = b.apply('less', register, b.constant(below));
			inside = from > -Infinity ? b.apply('and', inside, under) : under;
		}
		c.group(new Scope(b.group(inside), scope), step.cases[k]!);
	});
}

export function lowerEach(c: Lowering, scope: Scope, step: Each): void {
	const v = new Vectors(scope.builder);
	const of = c.lookup(scope, step.of, 'ring', 'path', 'ways');
	const gathered = step.gathers.map(() => [] as (readonly PointRegisters[])[]);
	const lengths = step.gathers.map(() => [] as Register[]);
	const turns = turnsOf(v, step, of);
	for (const names of turns) {
		const inner = new Scope(scope.builder, scope);
		for (const [name, value] of names) c.setTurnName(inner, name, value);
		c.group(inner, step);
		step.gathers.forEach((gather, k) => {
			// A step that could not be made has been told of already.
			if (!inner.peek(gather.of) && step.steps.some(({ name }) => name === gather.of)) return;
			if (gather.as === 'rings') gathered[k]!.push(c.lookup(inner, gather.of, 'ring').points);
			else if (gather.as === 'lengths') lengths[k]!.push(c.number(inner, gather.of, 'length'));
			else {
				const found = c.lookup(inner, gather.of, 'point', 'path');
				gathered[k]!.push(found.is === 'point' ? [found.at] : found.points);
			}
		});
	}
	step.gathers.forEach(({ name, as }, k) => {
		c.declare(scope, name);
		if (as === 'lengths') {
			if (lengths[k]!.length === turns.length) scope.set(name, { is: 'lengths', lengths: lengths[k]! });
			return;
		}
		const found = gathered[k]!;
		// Nothing is gathered of a step that could not be made, which has been told of.
		if (found.length === 0) return;
		if (as === 'rings') {
			scope.set(name, { is: 'rings', rings: found });
			return;
		}
		const points = found.flat();
		const least = as === 'ring' ? 3 : 2;
		if (points.length < least)
			throw new StepFault(`"${name}" would be a ${as} of ${points.length}; ${least} points are needed`);
		scope.set(name, { is: as, points });
	});
}
