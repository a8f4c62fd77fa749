import type { Surface } from '../geometry/surface';
import type { Vector } from '../geometry/vector';
import type { Trim } from './trim/trim';

/** One smooth piece of a mass's surface, its outside on the side of du × dv. */
export interface Face {
	/** What it is called within its mass. */
	readonly name: string;
	readonly surface: Surface;
	/** Its left and right rim are the same line: the face is a ring. */
	readonly closedAcross: boolean;
	readonly closedUp: boolean;
	/** How far a fitted surface is from what it was fitted to, at most (mm); exact ones have none. */
	readonly deviation?: number;
	/** Openings, and where the face ends within its surface. */
	readonly trims: readonly Trim[];
	/**
	 * Closed curves where the form itself ends within the surface, as corners in space, the first not repeated;
	 * the face lies to their left, seen from outside.
	 */
	readonly ends: readonly (readonly Vector[])[];
	/** The surface an evened face was made from. */
	readonly original?: Surface;
}

const TOUCHING = 1e-6;

/** Whether a closed surface meets itself, judged on its control points (mm). */
function meets(surface: Surface, direction: 'across' | 'up'): boolean {
	const { countU, countV, net } = surface;
	const steps = direction === 'across' ? countV : countU;
	for (let k = 0; k < steps; k++) {
		const first = direction === 'across' ? k * countU : k;
		const last = direction === 'across' ? k * countU + countU - 1 : (countV - 1) * countU + k;
		for (let c = 0; c < 4; c++)
			if (Math.abs(net[4 * first + c]! - net[4 * last + c]!) > TOUCHING) return false;
	}
	return true;
}

/** A whole face on a surface (mm), named for what it is. */
export function makeFace(name: string, surface: Surface): Face {
	return {
		name,
		surface,
		closedAcross: meets(surface, 'across'),
		closedUp: meets(surface, 'up'),
		trims: [],
		ends: []
	};
}

/**
 * The face's place in every address on it: its mass and itself.
 *
 * ```ts
 * faceAddress('hall', 'south'); // hall.south
 * ```
 */
export const faceAddress = (mass: string, face: string): string => `${mass}.${face.replaceAll(' ', '-')}`;

/**
 * The place in every address of a grid behind a face: the face's own, and the zone whose grid it is.
 *
 * ```ts
 * addressBehind('gull.skin', 'truss'); // gull.skin:truss
 * ```
 */
export const addressBehind = (face: string, zone: string): string => `${face}:${zone}`;
