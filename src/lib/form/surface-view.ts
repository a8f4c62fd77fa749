import type { MassView } from '$lib/state/model.svelte';
import type { ShapeView } from '$lib/worker/views';
import { interpolatePuOr } from 'd3-scale-chromatic';

/** How faces are looked at in the Form lens. */
export const surfaceColours = [
	{ value: 'plain', label: 'plain' },
	{ value: 'gaussian', label: 'Gaussian curvature' },
	{ value: 'mean', label: 'mean curvature' },
	{ value: 'zebra', label: 'zebra lines' }
] as const;
export type SurfaceColour = (typeof surfaceColours)[number]['value'];
export type CurvatureColour = 'gaussian' | 'mean';

export interface Cut {
	readonly axis: 0 | 1 | 2;
	/** mm along the axis. */
	readonly at: number;
}

export interface SurfaceView {
	readonly colour: SurfaceColour;
	readonly isolines: boolean;
	readonly handles: boolean;
	readonly cut: Cut | null;
}

export const startingView: SurfaceView = { colour: 'plain', isolines: true, handles: true, cut: null };

export const isCurvature = (colour: SurfaceColour): colour is CurvatureColour =>
	colour === 'gaussian' || colour === 'mean';

export const curvaturesOf = (shape: ShapeView, colour: CurvatureColour) =>
	colour === 'gaussian' ? shape.gaussians : shape.means;

/** Values beyond this share of all are shown in the last colour: poles and rims would drown the rest. */
const SHOWN = 0.96;

/**
 * The curvature that gets the last colour, the same on both sides of flat: of the chosen faces, or of all.
 * @param chosen faces as mass/face
 */
export function curvatureReach(
	masses: readonly MassView[],
	colour: CurvatureColour,
	chosen: readonly string[]
): number {
	const sizes: number[] = [];
	for (const mass of masses)
		for (const face of mass.faces) {
			if (chosen.length && !chosen.includes(`${mass.id}/${face.name}`)) continue;
			for (const value of curvaturesOf(face, colour)) sizes.push(Math.abs(value));
		}
	sizes.sort((a, b) => a - b);
	return sizes[Math.floor(SHOWN * (sizes.length - 1))] || 1e-12;
}

/** A diverging, colour-blind-safe colour; flat in the middle. */
export const curvatureCss = (value: number, reach: number): string =>
	interpolatePuOr(Math.min(1, Math.max(0, 0.5 - (0.5 * value) / reach)));

/** A curvature in words: as a radius where it is a curve's, in 1/m² otherwise. */
export function curvatureWords(value: number, colour: CurvatureColour): string {
	if (colour === 'gaussian') {
		const perSquareMetre = value * 1e6;
		return `${Math.abs(perSquareMetre) < 5e-7 ? '0' : perSquareMetre.toPrecision(2)} 1/m²`;
	}
	if (Math.abs(value) < 1e-9) return 'flat';
	const radius = 1 / Math.abs(value) / 1000;
	return `R ${radius < 10 ? radius.toFixed(2) : radius < 1000 ? radius.toFixed(1) : radius.toExponential(0)} m`;
}
