import type { Step } from '../../project/part-definition';
import type { Value } from '../values';
import type { Makers, StepContext } from './context';
import { blockSteps } from './blocks';
import { lineSteps } from './lines';
import { pointSteps } from './points';
import { sheetSteps } from './sheets';
import { solidSteps } from './solids';

const makers: Makers<Step['do']> = {
	...pointSteps,
	...lineSteps,
	...sheetSteps,
	...solidSteps,
	...blockSteps
};

/** Lower one step to operations. @throws StepFault, FormulaError */
export function makeStep(step: Step, context: StepContext): Value {
	const make = makers[step.do] as (step: Step, context: StepContext) => Value;
	return make(step, context);
}
