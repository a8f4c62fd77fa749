/**
 * Physical dimensions of numbers, as exponents of length, angle and mass.
 * Kernel units: mm, rad, kg.
 */
export interface Dimension {
	readonly length: number;
	readonly angle: number;
	readonly mass: number;
}

/** The kinds a number can be declared as; a switch is 0 or 1. */
export const numberKinds = [
	'length',
	'angle',
	'ratio',
	'count',
	'area',
	'volume',
	'mass',
	'hours',
	'stress',
	'pressure',
	'force',
	'inertia',
	'transmittance',
	'switch'
] as const;
export type NumberKind = (typeof numberKinds)[number];

const dimension = (length: number, angle: number, mass: number): Dimension => ({
	length,
	angle,
	mass
});

export const PLAIN = dimension(0, 0, 0);
export const LENGTH = dimension(1, 0, 0);
export const ANGLE = dimension(0, 1, 0);
export const MASS = dimension(0, 0, 1);

const ofKind: Record<NumberKind, Dimension> = {
	length: LENGTH,
	angle: ANGLE,
	ratio: PLAIN,
	count: PLAIN,
	area: dimension(2, 0, 0),
	volume: dimension(3, 0, 0),
	mass: MASS,
	hours: PLAIN,
	// What is reckoned of loads and heat is not reckoned on in formulas: its units are plain to them.
	stress: PLAIN,
	pressure: PLAIN,
	force: PLAIN,
	inertia: PLAIN,
	transmittance: PLAIN,
	switch: PLAIN
};

/**
 * ```ts
 * dimensionOf('area'); // length twice
 * ```
 */
export function dimensionOf(kind: NumberKind): Dimension {
	return ofKind[kind];
}

/**
 * ```ts
 * sameDimension(dimensionOf('ratio'), dimensionOf('count')); // true
 * ```
 */
export function sameDimension(a: Dimension, b: Dimension): boolean {
	return a.length === b.length && a.angle === b.angle && a.mass === b.mass;
}

/** The dimension of a product (`sign` 1) or of a quotient (`sign` -1). */
export function combine(a: Dimension, b: Dimension, sign: 1 | -1): Dimension {
	return dimension(a.length + sign * b.length, a.angle + sign * b.angle, a.mass + sign * b.mass);
}

export function power(a: Dimension, exponent: number): Dimension {
	return dimension(a.length * exponent, a.angle * exponent, a.mass * exponent);
}

/**
 * A dimension in words, for error sentences.
 *
 * ```ts
 * dimensionInWords(dimensionOf('area')); // an area
 * ```
 */
export function dimensionInWords(d: Dimension): string {
	const named: [Dimension, string][] = [
		[PLAIN, 'a plain number'],
		[LENGTH, 'a length'],
		[ofKind.area, 'an area'],
		[ofKind.volume, 'a volume'],
		[ANGLE, 'an angle'],
		[MASS, 'a mass']
	];
	const found = named.find(([known]) => sameDimension(known, d));
	if (found) return found[1];
	const factors = [
		['mm', d.length],
		['rad', d.angle],
		['kg', d.mass]
	] as const;
	const text = factors
		.filter(([, exponent]) => exponent !== 0)
		.map(([unit, exponent]) => (exponent === 1 ? unit : `${unit}^${exponent}`));
	return `a value in ${text.join('·')}`;
}

/** Units a person may write, as a factor to kernel units. */
export const units: Readonly<Record<string, { factor: number; dimension: Dimension }>> = {
	mm: { factor: 1, dimension: LENGTH },
	cm: { factor: 10, dimension: LENGTH },
	m: { factor: 1000, dimension: LENGTH },
	inch: { factor: 25.4, dimension: LENGTH },
	ft: { factor: 304.8, dimension: LENGTH },
	deg: { factor: Math.PI / 180, dimension: ANGLE },
	rad: { factor: 1, dimension: ANGLE },
	kg: { factor: 1, dimension: MASS }
};
