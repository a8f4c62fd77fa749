import { inDegrees, scales } from './scale';
import { LENGTH, dimensionOf, type NumberKind } from './dimension';
import { checkFormula } from './formula/check';
import { FormulaError, numberOf } from './formula/expression';
import { evaluateConstant } from './formula/evaluate';

/** How lengths are shown; they are always kept in millimetres. */
export const lengthDisplays = ['mm', 'm', 'ft-in'] as const;
export type LengthDisplay = (typeof lengthDisplays)[number];

/** 1284567 → "1 284 567", with a thin no-break space. */
function groupDigits(text: string): string {
	if (text.length <= 3) return text;
	const [whole = '', fraction] = text.split('.');
	const grouped = whole.replace(/\B(?=(\d{3})+(?!\d))/g, '\u202f');
	return fraction === undefined ? grouped : `${grouped}.${fraction}`;
}

/** Digits grouped, a true minus sign, and none before nought. */
function signed(text: string): string {
	if (!text.startsWith('-')) return groupDigits(text);
	const size = text.slice(1);
	return /[1-9]/.test(size) ? `−${groupDigits(size)}` : groupDigits(size);
}

/**
 * A number with at most `decimals` decimals, without trailing zeros, digits grouped.
 *
 * ```ts
 * formatNumber(12_345.678, 1); // 12 345.7
 * ```
 */
export function formatNumber(value: number, decimals = 0): string {
	const text = value.toFixed(decimals);
	return signed(decimals > 0 ? text.replace(/\.?0+$/, '') : text);
}

/**
 * A number with its decimals always the same, so that a column of them lines up.
 *
 * ```ts
 * alignedNumber(1234.5, 2); // 1 234.50
 * ```
 */
export const alignedNumber = (value: number, decimals: number): string => signed(value.toFixed(decimals));

/**
 * A number as it is kept or typed: so many decimals at most.
 *
 * ```ts
 * rounded(1.23456, 2); // 1.23
 * ```
 */
export const rounded = (value: number, decimals: number): number => Number(value.toFixed(decimals));

/**
 * A plain number of so many digits at most, as a formula takes it.
 *
 * ```ts
 * significant(1234.567, 5); // 1234.6
 * ```
 */
export const significant = (value: number, digits: number): string =>
	String(Number(value.toPrecision(digits)));

function formatFeet(mm: number): string {
	const sixteenths = Math.round((Math.abs(mm) / 25.4) * 16);
	const feet = Math.floor(sixteenths / 192);
	const inches = Math.floor((sixteenths % 192) / 16);
	let numerator = sixteenths % 16;
	let denominator = 16;
	while (numerator > 0 && numerator % 2 === 0) {
		numerator /= 2;
		denominator /= 2;
	}
	const fraction = numerator ? ` ${numerator}/${denominator}` : '';
	const parts = [feet ? `${feet} ft` : '', `${inches}${fraction} in`].filter(Boolean);
	return (mm < 0 ? '−' : '') + parts.join(' ');
}

/**
 * A length in mm as text in the chosen display; feet and inches to the nearest sixteenth.
 *
 * ```ts
 * formatLength(1524, 'ft-in'); // 5 ft 0 in
 * ```
 */
export function formatLength(mm: number, display: LengthDisplay = 'mm', decimals?: number): string {
	if (display === 'ft-in') return formatFeet(mm);
	if (display === 'm') return `${formatNumber(mm / 1000, decimals ?? 3)} m`;
	return `${formatNumber(mm, decimals ?? 1)} mm`;
}

/**
 * Any kind of number as text; angles come in rad and are shown in degrees.
 *
 * ```ts
 * formatQuantity(1.5e6, 'area'); // 1.5 m²
 * ```
 */
export function formatQuantity(value: number, kind: NumberKind, display: LengthDisplay = 'mm'): string {
	switch (kind) {
		case 'length':
			return formatLength(value, display);
		case 'angle':
			return `${formatNumber(inDegrees(value), 1)}°`;
		case 'area':
			return `${formatNumber(value / scales.area.size, 2)} m²`;
		case 'volume':
			return `${formatNumber(value / scales.volume.size, 4)} m³`;
		case 'mass':
			return `${formatNumber(value, 1)} kg`;
		case 'hours':
			return `${formatNumber(value, 1)} h`;
		case 'stress':
		case 'inertia':
			return `${formatNumber(value, 1)} ${scales[kind].unit}`;
		case 'pressure':
		case 'force':
		case 'transmittance':
			return `${formatNumber(value, 2)} ${scales[kind].unit}`;
		case 'switch':
			return value ? 'yes' : 'no';
		case 'ratio':
			return formatNumber(value, 3);
		case 'count':
			return formatNumber(value, 0);
	}
}

/**
 * Read what a person typed for a value of a kind, with units and arithmetic ("5 ft", "4200/3").
 * A bare number means what such values are shown in: mm (metres in that display), degrees, m², m³ or kg.
 *
 * ```ts
 * parseQuantity('5 ft', 'length'); // 1524
 * ```
 * @returns the value in mm, rad, mm², mm³, kg
 * @throws FormulaError with a sentence
 */
export function parseQuantity(text: string, kind: NumberKind, display: LengthDisplay = 'mm'): number {
	if (!text.trim()) throw new FormulaError('a value is wanted here, for example 1500 mm');
	const metres = { length: display === 'm' ? 1 : 0, area: 2, volume: 3 } as Partial<
		Record<NumberKind, number>
	>;
	const bare = !/[a-z]/i.test(text);
	const typed = bare ? `(${text})${' * 1 m'.repeat(metres[kind] ?? 0)}` : text;
	const expected = numberOf(kind === 'length' ? LENGTH : dimensionOf(kind));
	const value = evaluateConstant(checkFormula(typed, { names: {}, functions: {}, expected }), text);
	if (kind === 'count' && !Number.isInteger(value)) throw new FormulaError(`"${text}" is not a whole number`);
	return value;
}
