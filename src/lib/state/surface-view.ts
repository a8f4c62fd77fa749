import type { MassView } from './model.svelte';
import type { ShapeView } from '$lib/worker/views';
import { interpolateCividis, interpolatePuOr } from 'd3-scale-chromatic';

/** How faces are looked at in the Form lens. */
export const surfaceColours = [
	{ value: 'plain', label: 'plain' },
	{ value: 'gaussian', label: 'Gaussian curvature' },
	{ value: 'mean', label: 'mean curvature' },
	{ value: 'deviation', label: 'deviation by evening' },
	{ value: 'stripes', label: 'stripes of reflection' }
] as const;
export type SurfaceColour = (typeof surfaceColours)[number]['value'];
/** Colours that stand for values, with a legend. */
export type MeasuredColour = Exclude<SurfaceColour, 'plain' | 'stripes'>;

export interface SurfaceView {
	readonly colour: SurfaceColour;
	readonly isolines: boolean;
	readonly handles: boolean;
}

export const startingView: SurfaceView = { colour: 'plain', isolines: true, handles: true };

export const isMeasured = (colour: SurfaceColour): colour is MeasuredColour =>
	colour !== 'plain' && colour !== 'stripes';

/** A value for each sample of a face; nothing where there is none. */
export function valuesOf(shape: ShapeView, colour: MeasuredColour): Float32Array | null {
	if (colour === 'deviation') return shape.deviations;
	return colour === 'gaussian' ? shape.gaussians : shape.means;
}

/** Values beyond this share of all are shown in the last colour: poles and rims would drown the rest. */
const SHOWN = 0.96;

/**
 * The value that gets the last colour: of the chosen faces, or of all. Curvatures reach as far on both sides
 * of flat; a deviation is shown up to its largest.
 * @param chosen faces as mass/face
 */
export function reachOf(
	masses: readonly MassView[],
	colour: MeasuredColour,
	chosen: readonly string[]
): number {
	const sizes: number[] = [];
	for (const mass of masses)
		for (const face of mass.faces) {
			if (chosen.length && !chosen.includes(`${mass.id}/${face.name}`)) continue;
			for (const value of valuesOf(face, colour) ?? []) sizes.push(Math.abs(value));
		}
	sizes.sort((a, b) => a - b);
	const shown = colour === 'deviation' ? 1 : SHOWN;
	return sizes[Math.floor(shown * (sizes.length - 1))] || 1e-12;
}

/** A perceptual, colour-blind-safe colour: diverging for curvatures, flat in the middle; from nothing for a deviation. */
export function cssOf(value: number, colour: MeasuredColour, reach: number): string {
	const held = (share: number) => Math.min(1, Math.max(0, share));
	if (colour === 'deviation') return interpolateCividis(held(value / reach));
	return interpolatePuOr(held(0.5 - (0.5 * value) / reach));
}

/** A curvature in words: as a radius where it is a curve's, in 1/m² otherwise. */
export function curvatureWords(value: number, colour: 'gaussian' | 'mean'): string {
	if (colour === 'gaussian') {
		const perSquareMetre = value * 1e6;
		return `${Math.abs(perSquareMetre) < 5e-7 ? '0' : perSquareMetre.toPrecision(2)} 1/m²`;
	}
	if (Math.abs(value) < 1e-9) return 'flat';
	const radius = 1 / Math.abs(value) / 1000;
	return `R ${radius < 10 ? radius.toFixed(2) : radius < 1000 ? radius.toFixed(1) : radius.toExponential(0)} m`;
}
