import type { NumberKind } from './dimension';

/**
 * Degrees in radians, and back: the document and people have degrees, the kernel radians.
 *
 * ```ts
 * inRadians(180); // π
 * ```
 */
export const inRadians = (degrees: number): number => (degrees * Math.PI) / 180;
/**
 * ```ts
 * inDegrees(Math.PI); // 180
 * ```
 */
export const inDegrees = (radians: number): number => (radians * 180) / Math.PI;

/** The unit in which numbers of a kind are listed, and how many kernel units (mm, mm², mm³, rad, kg) it has. */
export interface Scale {
	/** As people read it, and in letters that every spreadsheet has. */
	readonly unit: string;
	readonly plain: string;
	readonly size: number;
}

const scale = (size: number, unit = '', plain = unit): Scale => ({ size, unit, plain });
export const scales: Readonly<Record<NumberKind, Scale>> = {
	length: scale(1, 'mm'),
	angle: scale(Math.PI / 180, '°', 'deg'),
	area: scale(1e6, 'm²', 'm2'),
	volume: scale(1e9, 'm³', 'm3'),
	mass: scale(1, 'kg'),
	hours: scale(1, 'h'),
	stress: scale(1, 'N/mm²', 'N/mm2'),
	pressure: scale(1, 'kN/m²', 'kN/m2'),
	force: scale(1, 'kN'),
	inertia: scale(1, 'cm⁴', 'cm4'),
	transmittance: scale(1, 'W/m²K', 'W/m2K'),
	ratio: scale(1),
	count: scale(1),
	switch: scale(1)
};
