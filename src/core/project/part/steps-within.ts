import type { AnyStep } from './group-steps';

/**
 * Steps and those of their groups, however deep, in the order written.
 *
 * ```ts
 * const bars = [...stepsWithin(part.steps)].filter((step) => step.do === 'bar');
 * ```
 */
export function* stepsWithin(steps: readonly AnyStep[]): Generator<AnyStep> {
	for (const step of steps) {
		yield step;
		if (step.do === 'cases') for (const one of step.cases) yield* stepsWithin(one.steps);
		else if ('steps' in step) yield* stepsWithin(step.steps);
	}
}
