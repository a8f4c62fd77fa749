import { columnNamed, conditionNames } from '../condition/holds';
import type { AskedSites } from '../condition/sites';
import { checkDriver } from '../driver/check';
import { drive } from '../driver/drive';
import { followable } from '../field/followed';
import type { Driver } from '../project/driver-schema';
import type { PartInput } from '../project/part-definition';
import type { SaidLie } from '../project/schema';
import { PLAIN } from '../units/dimension';
import { checkFormula } from '../units/formula/check';
import { evaluateColumns } from '../units/formula/evaluate';
import { FormulaError, numberOf, SWITCH } from '../units/formula/expression';
import { refuse } from '../units/problem';
import { AS_DRAWN, type Lie } from './lie';

/**
 * What is said of a lie, as values that drivers can give.
 *
 * ```ts
 * const { label } = lieInputs.turn;
 * ```
 */
export const lieInputs = {
	turn: { name: 'turn', label: 'Turn', kind: 'count', default: 0, scope: 'per piece' },
	flip: { name: 'flip', label: 'Flip', kind: 'switch', default: false, scope: 'per piece' },
	mirror: { name: 'mirror', label: 'Mirror', kind: 'switch', default: false, scope: 'per piece' }
} as const satisfies Record<keyof SaidLie, PartInput>;

/** A value of every site, or one for all. */
type Said = (row: number) => number;

function said(
	value: number | boolean | Driver | undefined,
	input: PartInput,
	asked: AskedSites,
	sites: Uint32Array,
	at: string
): Said {
	if (typeof value !== 'string' && typeof value !== 'object') {
		const all = Number(value ?? 0);
		return () => all;
	}
	const { followed, named } = asked.around;
	const things = followable(followed);
	if (typeof value === 'object') {
		const kind = input.kind === 'switch' ? 'switch' : 'count';
		checkDriver(value, input, kind, asked.over, things, named, at);
		const { values } = drive(value, input, kind, asked, sites);
		return (row) => values[row]!;
	}
	try {
		const names = conditionNames(asked.over, things, named);
		const expected = input.kind === 'switch' ? SWITCH : numberOf(PLAIN);
		const expression = checkFormula(value, { names, functions: {}, expected });
		const values = evaluateColumns(expression, columnNamed(asked), asked.count);
		return (row) => values[sites[row]!]!;
	} catch (error) {
		if (error instanceof FormulaError) return refuse(at, error.message);
		throw error;
	}
}

/**
 * How a part lies on each of some cells that have as many corners: the sites that it lies alike on, with how.
 *
 * ```ts
 * for (const { lie } of liesOn({ turn: 1 }, askedSites, sites, 4, rulePath)) tell(lieText(lie));
 * ```
 * @param at where it is said @throws ProblemError
 */
export function liesOn(
	{ turn, flip, mirror }: SaidLie,
	asked: AskedSites,
	sites: Uint32Array,
	corners: number,
	at: string
): readonly { readonly lie: Lie; readonly sites: Uint32Array }[] {
	if (turn === undefined && flip === undefined && mirror === undefined) return [{ lie: AS_DRAWN, sites }];
	const turns = said(turn, lieInputs.turn, asked, sites, `${at}/turn`);
	const flips = said(flip, lieInputs.flip, asked, sites, `${at}/flip`);
	const mirrors = said(mirror, lieInputs.mirror, asked, sites, `${at}/mirror`);
	const alike = new Map<string, { lie: Lie; sites: number[] }>();
	for (let row = 0; row < sites.length; row++) {
		const steps = Math.round(turns(row));
		const lie: Lie = {
			// What comes to no number is no turn.
			turn: Number.isFinite(steps) ? ((steps % corners) + corners) % corners : 0,
			flip: flips(row) === 1,
			mirror: mirrors(row) === 1
		};
		const key = `${lie.turn} ${lie.flip} ${lie.mirror}`;
		const known = alike.get(key);
		if (known) known.sites.push(sites[row]!);
		else alike.set(key, { lie, sites: [sites[row]!] });
	}
	return [...alike.values()].map(({ lie, sites: list }) => ({
		lie: lie.turn || lie.flip || lie.mirror ? lie : AS_DRAWN,
		sites: Uint32Array.from(list)
	}));
}
