import { amountOf } from '../condition/amount';
import { fieldsOver } from '../field/fields';
import type { Followable } from '../field/followed';
import type { Named } from '../named/named-values';
import type { SiteKind } from '../field/site-kind';
import type { SpelledDriver } from '../project/driver-schema';
import type { PartInput } from '../project/part-definition';
import type { NumberKind } from '../units/dimension';
import { shortNames } from '../units/formula/check';
import { FormulaError } from '../units/formula/expression';
import { refuse } from '../units/problem';
import { inputAmount } from './drive';

/** Say what is wrong with an amount at its place. */
function read<T>(act: () => T, at: string): T {
	try {
		return act();
	} catch (error) {
		if (error instanceof FormulaError) return refuse(at, error.message);
		throw error;
	}
}

/**
 * Whether a driver can give an input its values.
 *
 * ```ts
 * checkDriver({ is: 'chance', to: [0, 100], seed: 1 }, part.inputs[0]!, 'length', 'cell', NOTHING_TO_FOLLOW, NOTHING_NAMED, rulePath);
 * ```
 * @param things of the project that can be followed @param at its path
 * @throws ProblemError at the value that is in the way
 */
export function checkDriver(
	driver: SpelledDriver,
	input: PartInput,
	kind: NumberKind,
	over: SiteKind,
	things: Followable,
	named: Named,
	at: string
): void {
	const values = driver.is === 'alternates' ? driver.values : driver.to;
	for (const [k, amount] of values.entries())
		read(
			() => inputAmount(input, kind, amount, named),
			`${at}/${driver.is === 'alternates' ? 'values' : 'to'}/${k}`
		);
	if (driver.is === 'keeps out') {
		if (kind !== 'angle')
			refuse(at, `${input.label} is no angle; blades are turned to keep out the sun, so an angle is wanted`);
		if (over !== 'cell')
			refuse(at, `${input.label} keeps out the sun on cells; a ${over} does not know how it sees the sun`);
		for (const key of ['depth', 'spacing'] as const) {
			const amount = read(() => amountOf(driver[key], 'length', named), `${at}/${key}`);
			if (!(amount > 0))
				refuse(`${at}/${key}`, `the ${key} of blades is ${driver[key]}; more than nothing is wanted`);
		}
	}
	if (driver.is !== 'follows') return;
	const fields = fieldsOver(over, things);
	const field = fields.find(({ name }) => name === driver.field);
	if (!field)
		return refuse(
			`${at}/field`,
			`${input.label} cannot follow "${driver.field}", which does not exist; known: ${shortNames(fields.map(({ name }) => name)).join(', ')}`
		);
	const [a, b] = driver.from.map((amount, k) =>
		read(() => amountOf(amount, field.kind, named), `${at}/from/${k}`)
	);
	if (a === b)
		refuse(
			`${at}/from`,
			`${input.label} follows ${field.label} from ${driver.from[0]} to ${driver.from[1]}, which is no range; two different ends are wanted`
		);
	const wild = driver.curve.find(([x]) => !(x >= 0 && x <= 1));
	if (wild) refuse(`${at}/curve`, `the curve runs from 0 to 1; its point at ${wild[0]} does not lie there`);
}
