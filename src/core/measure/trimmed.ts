import { boxOf, polygonArea, type Place } from '../geometry/polygon';
import { distinctKnots } from '../geometry/curve';
import { evaluateGrid, type SurfaceSamples } from '../geometry/surface';
import { triangulate } from '../geometry/triangulate';
import type { Face } from '../mass/face';
import { heldOn } from '../mass/trim/project';
import { copiesOf, periodOf } from '../mass/trim/trim';
import { pieceAround } from '../geometry/clip/around-holes';
import {
	clipPolygon,
	piecesOf,
	wholeCurve,
	type ClippedPolygon,
	type PieceCorner
} from '../geometry/clip/clip-polygon';
import { CurveBins, KeptSteps } from '../geometry/clip/curve-bins';

/** A piece of a step of a parameter grid, counter-clockwise. */
export interface KeptPiece {
	readonly places: readonly Place[];
	/** The step itself, uncut: from column i and row j. */
	readonly whole: boolean;
	readonly i: number;
	readonly j: number;
}

/** The curves of a face's trims, once for every way that they are met. */
const curvesOf = (face: Face) =>
	face.trims.flatMap((trim) => trim.curves.flatMap((curve) => copiesOf(curve, periodOf(face))));

/** What trims leave of every step of a grid of parameters. */
export function keptPieces(face: Face, us: readonly number[], vs: readonly number[]): KeptPiece[] {
	const bins = new CurveBins(curvesOf(face), us, vs);
	const middle = (i: number, j: number): Place => [(us[i]! + us[i + 1]!) / 2, (vs[j]! + vs[j + 1]!) / 2];
	const isLeft = (i: number, j: number) => face.trims.every((trim) => trim.keeps(...middle(i, j)));
	const steps = new KeptSteps(bins, isLeft);
	const pieces: KeptPiece[] = [];
	for (let j = 0; j + 1 < vs.length; j++)
		for (let i = 0; i + 1 < us.length; i++) {
			const step: Place[] = [
				[us[i]!, vs[j]!],
				[us[i + 1]!, vs[j]!],
				[us[i + 1]!, vs[j + 1]!],
				[us[i]!, vs[j + 1]!]
			];
			const touched = bins.isTouched(i, j);
			const clipped: ClippedPolygon | null = touched ? clipPolygon(step, bins.near(boxOf(step)), true) : null;
			if (!clipped || clipped.untouched) {
				if (touched ? isLeft(i, j) : steps.isKept(i, j)) pieces.push({ places: step, whole: true, i, j });
				continue;
			}
			for (const corners of piecesOf(clipped))
				pieces.push({ places: corners.map(({ at }) => at), whole: false, i, j });
		}
	return pieces;
}

/** What is left of a face: a ring around it, counter-clockwise in its parameters, and those of its openings. */
export interface KeptRegion {
	readonly outline: readonly PieceCorner[];
	readonly openings: readonly (readonly PieceCorner[])[];
}

/**
 * The regions that trims leave of a face; a ring is cut open along its seam.
 *
 * ```ts
 * const regions = keptRegions(face);
 * ```
 */
export function keptRegions(face: Face): KeptRegion[] {
	const { knotsU, knotsV } = face.surface;
	const [left, right, foot, head] = [knotsU[0]!, knotsU.at(-1)!, knotsV[0]!, knotsV.at(-1)!];
	const whole: Place[] = [
		[left, foot],
		[right, foot],
		[right, head],
		[left, head]
	];
	const { outlines, holes, untouched } = clipPolygon(whole, curvesOf(face).map(wholeCurve), true);
	if (untouched)
		return [
			{ outline: whole.map((at, corner) => ({ corner: { is: 'polygon', corner }, at })), openings: [] }
		];
	return outlines.map((outline) => ({
		outline,
		openings: holes.filter((hole) => pieceAround(outlines, hole) === outline)
	}));
}

const STEPS = 96;

/** How much area a unit of the parameters is, at every sample. */
function stretches({ du, dv }: SurfaceSamples): Float64Array {
	return Float64Array.from({ length: du.length / 3 }, (_, k) =>
		Math.hypot(
			du[3 * k + 1]! * dv[3 * k + 2]! - du[3 * k + 2]! * dv[3 * k + 1]!,
			du[3 * k + 2]! * dv[3 * k]! - du[3 * k]! * dv[3 * k + 2]!,
			du[3 * k]! * dv[3 * k + 1]! - du[3 * k + 1]! * dv[3 * k]!
		)
	);
}

/** Gauss's two points of a step, in shares of it. */
const GAUSS = [(1 - 1 / Math.sqrt(3)) / 2, (1 + 1 / Math.sqrt(3)) / 2];

/**
 * Area of a trimmed face (mm²): the steps of a fine grid by Gauss's rule, cut ones as triangles by the
 * middles of their sides; exact on a plane.
 *
 * ```ts
 * trimmedArea(face) / 1e6; // m², without its openings
 * ```
 */
export function trimmedArea(face: Face): number {
	const { surface } = face;
	const lines = (knots: Float64Array) => {
		const distinct = distinctKnots(knots);
		const each = Math.max(2, Math.ceil(STEPS / (distinct.length - 1)));
		return distinct.flatMap((knot, k) => {
			const next = distinct[k + 1];
			if (next === undefined) return [knot];
			return Array.from({ length: each }, (_, s) => knot + (s / each) * (next - knot));
		});
	};
	const [us, vs] = [lines(surface.knotsU), lines(surface.knotsV)];
	const inner = (at: readonly number[]) =>
		at.slice(1).flatMap((end, k) => GAUSS.map((share) => at[k]! + share * (end - at[k]!)));
	const [across, up] = [inner(us), inner(vs)];
	const whole = stretches(evaluateGrid(surface, across, up));
	let sum = 0;
	for (const { places, whole: isWhole, i, j } of keptPieces(face, us, vs)) {
		if (isWhole) {
			const at = 2 * j * across.length + 2 * i;
			const mean =
				(whole[at]! + whole[at + 1]! + whole[at + across.length]! + whole[at + across.length + 1]!) / 4;
			sum += mean * polygonArea(places);
			continue;
		}
		const corners = triangulate(places);
		for (let k = 0; k < corners.length; k += 3) {
			const triangle = corners.slice(k, k + 3).map((corner) => places[corner]!);
			let mean = 0;
			triangle.forEach((p, n) => {
				const q = triangle[(n + 1) % 3]!;
				const [u, v] = heldOn(face, [(p[0] + q[0]) / 2, (p[1] + q[1]) / 2]);
				mean += stretches(evaluateGrid(surface, [u], [v]))[0]! / 3;
			});
			sum += mean * polygonArea(triangle);
		}
	}
	return sum;
}
