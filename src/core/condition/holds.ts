import { chanceOf } from '../field/chance';
import { fieldsOver } from '../field/fields';
import { followable, nameInFormulas, type Followable } from '../field/followed';
import type { SiteKind } from '../field/site-kind';
import { typesOf, type Named } from '../named/named-values';
import { cellKinds } from '../pattern/cells';
import type { Condition, ConditionOf } from '../project/condition-schema';
import { dimensionOf } from '../units/dimension';
import { checkFormula } from '../units/formula/check';
import { evaluateColumns } from '../units/formula/evaluate';
import { numberOf, SWITCH, type Expression, type FormulaType } from '../units/formula/expression';
import { inRadians } from '../units/scale';
import { amountOf } from './amount';
import { rimSides } from '../project/line-kinds';
import { NO_CELL } from '../pattern/edges';
import { counters, ordinals } from './counters';
import { nodeSidesOf, rimSidesOf } from './rim-sides';
import { fieldValues, type AskedSites } from './sites';

/** A yes (1) or no (0) for every site. */
export type Held = Uint8Array;

/**
 * No for every site, in memory that can be looked through four at a time.
 *
 * ```ts
 * const taken = heldNowhere(cells.count);
 * ```
 */
export const heldNowhere = (count: number): Held =>
	new Uint8Array(new ArrayBuffer(4 * Math.ceil(count / 4)), 0, count);

/**
 * The same memory, four sites in each number; those beyond the last are no.
 *
 * ```ts
 * for (const four of inFours(heldNowhere(10))) if (four !== 0) tell('somewhere');
 * ```
 */
export const inFours = (held: Held): Uint32Array =>
	new Uint32Array(held.buffer, 0, Math.ceil(held.length / 4));

const HALF = Math.SQRT1_2;
/** Directions by their names, x to the east and y to the north. */
const ways: Readonly<Record<ConditionOf<'looks'>['towards'], readonly [number, number, number]>> = {
	north: [0, 1, 0],
	'north-east': [HALF, HALF, 0],
	east: [1, 0, 0],
	'south-east': [HALF, -HALF, 0],
	south: [0, -1, 0],
	'south-west': [-HALF, -HALF, 0],
	west: [-1, 0, 0],
	'north-west': [-HALF, HALF, 0],
	up: [0, 0, 1],
	down: [0, 0, -1]
};

/**
 * What formulas over sites may name.
 *
 * ```ts
 * const known = Object.keys(conditionNames('cell', followableIn(project), NOTHING_NAMED));
 * ```
 * @param things of the project that can be followed
 */
export function conditionNames(
	over: SiteKind,
	things: Followable,
	named: Named
): Record<string, FormulaType> {
	const names = typesOf(named);
	for (const { name, kind } of fieldsOver(over, things)) {
		const type: FormulaType = kind === 'switch' ? SWITCH : numberOf(dimensionOf(kind));
		names[name] = type;
		if (!name.includes('.')) names[`${over}.${name}`] = type;
	}
	return names;
}

/**
 * A formula of a condition, checked.
 *
 * ```ts
 * const yes = conditionFormula('area > 2 m^2 and height < 9 m', 'cell', followableIn(project), NOTHING_NAMED);
 * ```
 * @throws FormulaError
 */
export const conditionFormula = (
	text: string,
	over: SiteKind,
	things: Followable,
	named: Named
): Expression =>
	checkFormula(text, { names: conditionNames(over, things, named), functions: {}, expected: SWITCH });

/*
 * Conditions are asked into what held so far: both have to hold (`and`), or either (the others). One pass over the
 * sites for each, since going through them costs as much as asking; its loops have all they look at for themselves.
 */
type Asked = (held: Held, and: boolean) => void;

/** Yes four times. */
const ALL_FOUR = 0x01010101;

/*
 * Four sites are one number: those that are settled already are passed over at once (no stays no where conditions are
 * joined by *and*, yes stays yes by *or*), and the answers of the others are put in together. The sites after the last
 * four are asked one by one.
 */

function keepWithin(held: Held, values: Float64Array, least: number, most: number): void {
	const fours = inFours(held);
	const whole = held.length >> 2;
	for (let f = 0; f < whole; f++) {
		const four = fours[f]!;
		if (four === 0) continue;
		const a = values[4 * f]!;
		const b = values[4 * f + 1]!;
		const c = values[4 * f + 2]!;
		const d = values[4 * f + 3]!;
		fours[f] =
			four &
			((+(a >= least) & +(a <= most)) |
				((+(b >= least) & +(b <= most)) << 8) |
				((+(c >= least) & +(c <= most)) << 16) |
				((+(d >= least) & +(d <= most)) << 24));
	}
	for (let s = 4 * whole; s < held.length; s++)
		held[s] = held[s]! & +(values[s]! >= least) & +(values[s]! <= most);
}
function addWithin(held: Held, values: Float64Array, least: number, most: number): void {
	const fours = inFours(held);
	const whole = held.length >> 2;
	for (let f = 0; f < whole; f++) {
		const four = fours[f]!;
		if (four === ALL_FOUR) continue;
		const a = values[4 * f]!;
		const b = values[4 * f + 1]!;
		const c = values[4 * f + 2]!;
		const d = values[4 * f + 3]!;
		fours[f] =
			four |
			((+(a >= least) & +(a <= most)) |
				((+(b >= least) & +(b <= most)) << 8) |
				((+(c >= least) & +(c <= most)) << 16) |
				((+(d >= least) & +(d <= most)) << 24));
	}
	for (let s = 4 * whole; s < held.length; s++)
		held[s] = held[s]! | (+(values[s]! >= least) & +(values[s]! <= most));
}
const within =
	(values: Float64Array, least: number, most: number): Asked =>
	(held, and) =>
		(and ? keepWithin : addWithin)(held, values, least, most);

type Numbers = Uint8Array | Uint16Array | Uint32Array;
function keepNamed(held: Held, numbers: Numbers, yes: Uint8Array): void {
	const fours = inFours(held);
	const whole = held.length >> 2;
	for (let f = 0; f < whole; f++) {
		const four = fours[f]!;
		if (four === 0) continue;
		fours[f] =
			four &
			(yes[numbers[4 * f]!]! |
				(yes[numbers[4 * f + 1]!]! << 8) |
				(yes[numbers[4 * f + 2]!]! << 16) |
				(yes[numbers[4 * f + 3]!]! << 24));
	}
	for (let s = 4 * whole; s < held.length; s++) held[s] = held[s]! & yes[numbers[s]!]!;
}
function addNamed(held: Held, numbers: Numbers, yes: Uint8Array): void {
	const fours = inFours(held);
	const whole = held.length >> 2;
	for (let f = 0; f < whole; f++) {
		const four = fours[f]!;
		if (four === ALL_FOUR) continue;
		fours[f] =
			four |
			(yes[numbers[4 * f]!]! |
				(yes[numbers[4 * f + 1]!]! << 8) |
				(yes[numbers[4 * f + 2]!]! << 16) |
				(yes[numbers[4 * f + 3]!]! << 24));
	}
	for (let s = 4 * whole; s < held.length; s++) held[s] = held[s]! | yes[numbers[s]!]!;
}
/** By a number that sites have, whole and from 0, which is wanted or not. */
function named(numbers: Numbers, most: number, isWanted: (number: number) => boolean): Asked {
	const yes = new Uint8Array(most + 1);
	for (let n = 0; n <= most; n++) yes[n] = isWanted(n) ? 1 : 0;
	return (held, and) => (and ? keepNamed : addNamed)(held, numbers, yes);
}

const joined =
	(other: Held): Asked =>
	(held, and) => {
		const [own, more] = [inFours(held), inFours(other)];
		const count = own.length;
		if (and) for (let s = 0; s < count; s++) own[s] = own[s]! & more[s]!;
		else for (let s = 0; s < count; s++) own[s] = own[s]! | more[s]!;
	};

const each =
	(yes: (site: number) => boolean): Asked =>
	(held, and) => {
		const count = held.length;
		for (let s = 0; s < count; s++) if ((held[s] === 1) === and) held[s] = yes(s) ? 1 : 0;
	};

function looks({ towards, within: angle }: ConditionOf<'looks'>, { source }: AskedSites): Asked {
	const { normal } = source.measures!;
	const [x, y, z] = ways[towards];
	const least = Math.cos(inRadians(angle)) - 1e-12;
	return each((c) => x * normal[3 * c]! + y * normal[3 * c + 1]! + z * normal[3 * c + 2]! >= least);
}

function drawn({ share, seed }: ConditionOf<'chance'>, sites: AskedSites): Asked {
	const [course, bay] = [fieldValues(sites, 'course'), fieldValues(sites, 'bay')];
	const slot = ordinals(sites.over, sites.source);
	const draw = chanceOf(sites.source.address!, seed);
	return each((site) => draw(course[site]!, bay[site]!, slot(site)) < share);
}

function beside(
	{ variant, on }: ConditionOf<'beside'>,
	{ face: { cells, edges }, on: put }: NonNullable<AskedSites['beside']>
): Asked {
	const wanted = Uint8Array.from({ length: cells.count }, (_, c) => (put(c) === variant ? 1 : 0));
	const isThere = (c: number) => c !== NO_CELL && wanted[c] === 1;
	const { left, right } = edges;
	return on === 'one side'
		? each((e) => isThere(left[e]!) || isThere(right[e]!))
		: each((e) => isThere(left[e]!) && isThere(right[e]!));
}

/**
 * Values of a name in a formula, told by the kind of its site or not.
 *
 * ```ts
 * const areas = columnNamed(askedSites)('area');
 * ```
 */
export const columnNamed = (sites: AskedSites) => (name: string) => {
	const known = sites.around.named.get(name);
	if (known) return new Float64Array(sites.count).fill(known.value);
	return fieldValues(sites, name.startsWith(`${sites.over}.`) ? name.slice(sites.over.length + 1) : name);
};

/** What to ask of every site for a condition. */
function askedBy(condition: Condition, sites: AskedSites): Asked {
	const { source, around, over } = sites;
	switch (condition.is) {
		case 'all':
		case 'any':
		case 'none':
			return joined(holds(condition, sites));
		case 'kind':
			return named(source.cells!.kind, cellKinds.length - 1, (n) => condition.of.includes(cellKinds[n]!));
		case 'corners': {
			const wanted = new Set(condition.of);
			const values = fieldValues(sites, over === 'node' ? 'lines' : 'corners');
			return each((site) => wanted.has(values[site]!));
		}
		case 'slot':
			return named(source.cells!.polygon, around.slots.length - 1, (n) =>
				condition.of.includes(around.slots[n]!)
			);
		case 'rim': {
			const isWanted = rimSides.map((side) => condition.of.includes(side));
			if (over === 'node') {
				const bits = isWanted.reduce((sum, wanted, k) => sum | (Number(wanted) << k), 0);
				const on = nodeSidesOf(sites.beside!.face, sites.count);
				return each((n) => (on[n]! & bits) !== 0);
			}
			return named(rimSidesOf(sites.beside!.face), rimSides.length, (n) => isWanted[n] === true);
		}
		case 'beside':
			return beside(condition, sites.beside!);
		case 'face': {
			const isOn = condition.of.includes(source.address!);
			return each(() => isOn);
		}
		case 'looks':
			return looks(condition, sites);
		case 'levels': {
			const heightOf = (id: string | null, open: number) =>
				id === null ? open : around.levels.find((one) => one.id === id)!.height;
			const [low, high] = [heightOf(condition.above, -Infinity), heightOf(condition.below, Infinity)];
			const heights = fieldValues(sites, 'height');
			// A place whose middle lies on a level stands above it, so that storeys share none.
			return each((site) => heights[site]! >= low && heights[site]! < high);
		}
		case 'every': {
			const { numbers, most } = counters(condition.by, sites);
			const { step, from } = condition;
			return named(numbers, most, (number) => (number - from) % step === 0);
		}
		case 'chance':
			return drawn(condition, sites);
		case 'range': {
			const { kind } = fieldsOver(over, followable(around.followed)).find(
				({ name }) => name === condition.field
			)!;
			const bound = (amount: number | string | null, open: number) =>
				amount === null ? open : amountOf(amount, kind, around.named);
			const values = fieldValues(sites, condition.field);
			return within(values, bound(condition.at_least, -Infinity), bound(condition.at_most, Infinity));
		}
		case 'inside': {
			const inside = fieldValues(sites, `inside.${nameInFormulas(condition.guide)}`);
			return within(inside, 1, 1);
		}
		case 'formula': {
			const expression = conditionFormula(condition.formula, over, followable(around.followed), around.named);
			// What comes to nothing usable is no yes.
			return within(evaluateColumns(expression, columnNamed(sites), sites.count), 1, 1);
		}
	}
}

/**
 * Where a condition holds. It has been checked: what it names is there.
 *
 * ```ts
 * const held = holds({ is: 'range', field: 'area', at_least: 2e6, at_most: null }, askedSites);
 * ```
 * @returns for every site 1 or 0
 */
export function holds(condition: Condition, sites: AskedSites): Held {
	const held = heldNowhere(sites.count);
	const { is } = condition;
	if (is !== 'all' && is !== 'any' && is !== 'none') {
		askedBy(condition, sites)(held, false);
		return held;
	}
	if (is === 'all') held.fill(1);
	for (const one of condition.of) askedBy(one, sites)(held, is === 'all');
	if (is === 'none') for (let s = 0; s < held.length; s++) held[s] = held[s]! ^ 1;
	return held;
}
