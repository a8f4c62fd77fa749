import { fieldsOver } from '../field/fields';
import type { Followable } from '../field/followed';
import type { Named } from '../named/named-values';
import type { SiteKind } from '../field/site-kind';
import type { Condition } from '../project/condition-schema';
import { below, type Path, type Place } from '../project/typed-path';
import { counted } from '../units/counted';
import { shortNames } from '../units/formula/check';
import { FormulaError } from '../units/formula/expression';
import { refuse, type Problem } from '../units/problem';
import { amountOf } from './amount';
import { conditionFormula } from './holds';
import type { Surroundings } from './sites';

/** What there is to ask of: `faces` of the zone, guides that are closed. */
export interface Askable extends Pick<Surroundings, 'levels' | 'slots' | 'named'> {
	readonly faces: readonly string[];
	/** Ids of the project's variants. */
	readonly variants: readonly string[];
	readonly things: Followable;
	readonly guides: readonly { readonly id: string; readonly closed: boolean }[];
}

const listed = (names: readonly string[]) => [...new Set(names)].join(', ') || 'none yet';

function unknown(
	what: string,
	name: string,
	known: readonly string[],
	at: string,
	fixes?: Problem['fixes']
): never {
	return refuse(at, `${what} "${name}" does not exist; known: ${listed(known)}`, fixes);
}

function checkRange(
	condition: Extract<Condition, { is: 'range' }>,
	over: SiteKind,
	things: Followable,
	named: Named,
	at: Path<Condition>
): void {
	const fields = fieldsOver(over, things);
	const field = fields.find(({ name }) => name === condition.field);
	if (!field)
		return unknown(
			'what is asked for',
			condition.field,
			shortNames(fields.map(({ name }) => name)),
			below(at, 'field')
		);
	const bounds = (['at_least', 'at_most'] as const).map((key) => {
		const amount = condition[key];
		if (amount === null) return null;
		try {
			return amountOf(amount, field.kind, named);
		} catch (error) {
			if (error instanceof FormulaError) return refuse(below(at, key), error.message);
			throw error;
		}
	});
	const [least, most] = bounds;
	if (least !== null && most !== null && least! > most!)
		refuse(
			at,
			`${field.label} from ${condition.at_least} to ${condition.at_most} is empty: the first has to be the smaller one`,
			[
				{
					label: `from ${condition.at_most} to ${condition.at_least}`,
					path: at,
					value: { ...condition, at_least: condition.at_most, at_most: condition.at_least }
				}
			]
		);
}

/** What can be asked of some kinds of sites alone. */
const askedOf: Partial<Record<Condition['is'], readonly SiteKind[]>> = {
	kind: ['cell'],
	slot: ['cell'],
	looks: ['cell'],
	corners: ['cell', 'node'],
	beside: ['line'],
	rim: ['line', 'node']
};

/**
 * Whether a condition can be asked at all.
 *
 * ```ts
 * checkCondition(rule.where, 'cell', askable, pathTo('zones', zone.id, 'rules', rule.id, 'where'));
 * ```
 * @param place its own path @throws ProblemError at the value that is in the way
 */
export function checkCondition(condition: Condition, over: SiteKind, known: Askable, place: Place): void {
	const at = place as string as Path<Condition>;
	const sites = askedOf[condition.is];
	if (sites && !sites.includes(over))
		refuse(
			at,
			`that is asked of ${sites.map((one) => `${one}s`).join(' and ')}; of ${over}s ask for a measure, a level, a guide or a formula`
		);
	switch (condition.is) {
		case 'all':
		case 'any':
		case 'none':
			condition.of.forEach((one, k) => checkCondition(one, over, known, below(at, 'of', k)));
			return;
		case 'kind':
			if (!condition.of.length) refuse(at, 'of no kind there is no cell; choose at least one kind');
			return;
		case 'corners': {
			const least = over === 'node' ? 2 : 3;
			const wrong = condition.of.find((corners) => corners < least);
			if (wrong !== undefined)
				refuse(
					at,
					over === 'node'
						? `nodes where ${counted(wrong, 'line meets', 'lines meet')} do not exist; 2 or more, or any number, is accepted`
						: `cells with ${counted(wrong, 'corner')} do not exist; 3 or more, or any number, is accepted`
				);
			return;
		}
		case 'slot':
			for (const slot of condition.of)
				if (!known.slots.includes(slot))
					refuse(at, `the pattern has no slot "${slot}"; it has ${listed(known.slots)}`, [
						{ label: 'any slot', path: at, value: { is: 'all', of: [] } }
					]);
			return;
		case 'rim':
			if (!condition.of.length) refuse(at, 'on no rim there is no line; choose at least one rim');
			return;
		case 'beside':
			if (!known.variants.includes(condition.variant))
				unknown('the variant', condition.variant, known.variants, below(at, 'variant'));
			return;
		case 'face':
			for (const face of condition.of)
				if (!known.faces.includes(face)) unknown('the face', face, known.faces, at);
			return;
		case 'looks':
			if (!(condition.within > 0 && condition.within <= 180))
				refuse(
					below(at, 'within'),
					`within ${condition.within}° cannot be; more than 0° and at most 180° is accepted`
				);
			return;
		case 'levels': {
			const height = (id: string | null) => {
				if (id === null) return null;
				const level = known.levels.find((one) => one.id === id);
				return level
					? level.height
					: unknown(
							'the level',
							id,
							known.levels.map((one) => one.name),
							at
						);
			};
			const [above, under] = [height(condition.above), height(condition.below)];
			if (above !== null && under !== null && above >= under)
				refuse(
					at,
					'nothing is above the higher level and below the lower one; take them the other way round',
					[
						{
							label: 'the other way round',
							path: at,
							value: { ...condition, above: condition.below, below: condition.above }
						}
					]
				);
			return;
		}
		case 'every':
			if (!(Number.isInteger(condition.step) && condition.step >= 1 && Number.isInteger(condition.from)))
				refuse(
					at,
					`every ${condition.step} from ${condition.from} cannot be; whole numbers from 1 on are accepted`
				);
			return;
		case 'chance':
			if (!(condition.share >= 0 && condition.share <= 1))
				refuse(below(at, 'share'), `a share of ${condition.share} is none; 0 to 1 is accepted`);
			return;
		case 'range':
			return checkRange(condition, over, known.things, known.named, at);
		case 'inside': {
			const guide = known.guides.find(({ id }) => id === condition.guide);
			if (!guide) return unknown('the guide', condition.guide, known.things.guides, at);
			if (!guide.closed)
				refuse(
					at,
					`the guide "${guide.id}" is open, so nothing is inside it; close it, or ask for a distance from it`
				);
			return;
		}
		case 'formula':
			try {
				conditionFormula(condition.formula, over, known.things, known.named);
			} catch (error) {
				if (error instanceof FormulaError) refuse(below(at, 'formula'), error.message);
				throw error;
			}
	}
}
