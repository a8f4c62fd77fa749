import type { PartStep } from '../../project/part-definition';
import { givenNames, siteOf } from '../anchors';
import { kernelValue } from '../inputs';
import { Vectors } from '../values';
import { StepFault } from './fault';
import type { Lowering } from './lowering';
import { Scope } from './scope';
import { subAnchor } from './sub-anchor';

/** Another part, lowered in place on points of this one. */
export function lowerPart(c: Lowering, scope: Scope, step: PartStep): void {
	const sub = c.library.find(({ id }) => id === step.part);
	if (!sub) {
		const known = c.library.map(({ id }) => id).join(', ') || 'none';
		throw new StepFault(`the part "${step.part}" is not in the kit; known: ${known}`);
	}
	const chain = [...c.around, c.definition.id];
	if (chain.includes(sub.id))
		throw new StepFault(`a part cannot be used within itself: ${[...chain, sub.id].join(' → ')}`);
	const v = new Vectors(scope.builder);
	const points = step.on
		.map((name) => c.lookup(scope, name, 'point', 'ring', 'path'))
		.flatMap((value) => (value.is === 'point' ? [value.at] : value.points));
	const normal = () => c.lookup(scope, scope.peek('normal') ? 'normal' : 'normal1', 'direction').at;
	const { corners, source } = subAnchor(v, sub, points, normal, (name) => {
		const value = scope.get(`${siteOf(c.definition)}.${name}`);
		return value?.is === 'number' ? value.register : undefined;
	});
	const inner = new Scope(scope.builder, null);
	for (const [name, value] of givenNames(v, sub.anchor, corners, source)) inner.set(name, value);
	for (const name of Object.keys(step.values))
		if (!sub.inputs.some((input) => input.name === name))
			throw new StepFault(
				`${sub.label} has no input "${name}"; it has ${sub.inputs.map((input) => input.name).join(', ')}`
			);
	const measures = c.partWithin(step, sub).lower(inner, (input, kind) => {
		const text = step.values[input.name];
		const option = input.options?.findIndex(({ name }) => name === text) ?? -1;
		if (option >= 0) return scope.builder.constant(option + 1);
		if (text === undefined) return scope.builder.constant(kernelValue(input, input.default));
		return c.number(scope, text, kind);
	});
	for (const [name, value] of measures) scope.set(`${step.name}_${name}`, value);
}
