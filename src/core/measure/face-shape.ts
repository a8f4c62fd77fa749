import { distinctKnots } from '../geometry/curve';
import { evaluateCurvature, type CurvatureSamples } from '../geometry/curvature';
import { distanceTo } from '../geometry/nearest';
import { evaluateGrid, surfaceArea, transpose, type Surface } from '../geometry/surface';
import { lengthTable, lineLength } from '../geometry/true-length';
import type { Face } from '../mass/face';

export interface Extremes {
	readonly low: number;
	readonly high: number;
}

/** A face as it is looked at: a mesh of samples with curvatures, and its measures. mm, mm², 1/mm, 1/mm². */
export interface FaceShape {
	readonly name: string;
	readonly samples: CurvatureSamples;
	/** Columns and rows of the samples that lie on knots, a few of them: lines of the surface's own making. */
	readonly linesAcross: readonly number[];
	readonly linesUp: readonly number[];
	readonly area: number;
	/** Length of the line half way up, and of the line half way across. */
	readonly across: number;
	readonly up: number;
	readonly closedAcross: boolean;
	readonly closedUp: boolean;
	readonly gaussian: Extremes;
	readonly mean: Extremes;
	/** How far a fitted face is from what it was fitted to, at most; null for an exact one. */
	readonly deviation: number | null;
	/** For an evened face, how far each sample is from the face it was made from. */
	readonly deviations: Float64Array | null;
}

/** Samples across and up are spread over the knot spans; about so many in all. */
const WANTED = 48;
const LEAST_EACH = 3;
const MOST_LINES = 10;
/** Areas are shown to four figures; they are computed to this share. */
const SHOWN_AREA = 1e-6;

/** Parameters on every knot and evenly between, and which of them are knots. */
function sampleParameters(knots: Float64Array): { at: number[]; onKnots: number[] } {
	const distinct = distinctKnots(knots);
	const each = Math.max(LEAST_EACH, Math.ceil(WANTED / (distinct.length - 1)));
	const at: number[] = [];
	const onKnots: number[] = [];
	distinct.forEach((knot, k) => {
		onKnots.push(at.length);
		at.push(knot);
		const next = distinct[k + 1];
		if (next === undefined) return;
		for (let s = 1; s < each; s++) at.push(knot + (s / each) * (next - knot));
	});
	return { at, onKnots };
}

/** Both ends and so many between that they can be told apart. */
function thinned(lines: readonly number[]): number[] {
	const each = Math.ceil((lines.length - 1) / MOST_LINES);
	return lines.filter((_, k) => k % each === 0 || k === lines.length - 1);
}

function extremes(values: Float64Array): Extremes {
	let low = Infinity;
	let high = -Infinity;
	for (const value of values) {
		if (value < low) low = value;
		if (value > high) high = value;
	}
	return { low, high };
}

/** Length of the line half way up. */
function middleLength(surface: Surface): number {
	const middle = (surface.knotsV[0]! + surface.knotsV.at(-1)!) / 2;
	return lineLength(lengthTable(surface, [middle]), 0);
}

/** The distance of every point from a surface, each sought from the nearest of many places on it. */
function distancesTo(surface: Surface, points: Float64Array): Float64Array {
	const [us, vs] = [sampleParameters(surface.knotsU).at, sampleParameters(surface.knotsV).at];
	const places = evaluateGrid(surface, us, vs).points;
	return Float64Array.from({ length: points.length / 3 }, (_, k) => {
		const [x, y, z] = [points[3 * k]!, points[3 * k + 1]!, points[3 * k + 2]!];
		let nearest = 0;
		let least = Infinity;
		for (let n = 0; n < places.length; n += 3) {
			const far = (places[n]! - x) ** 2 + (places[n + 1]! - y) ** 2 + (places[n + 2]! - z) ** 2;
			if (far < least) [least, nearest] = [far, n / 3];
		}
		return distanceTo(surface, [x, y, z], [us[nearest % us.length]!, vs[Math.floor(nearest / us.length)]!]);
	});
}

export function shapeOf(face: Face): FaceShape {
	const { surface } = face;
	const us = sampleParameters(surface.knotsU);
	const vs = sampleParameters(surface.knotsV);
	const samples = evaluateCurvature(surface, us.at, vs.at);
	return {
		name: face.name,
		samples,
		linesAcross: thinned(us.onKnots),
		linesUp: thinned(vs.onKnots),
		area: surfaceArea(surface, SHOWN_AREA),
		across: middleLength(surface),
		up: middleLength(transpose(surface)),
		closedAcross: face.closedAcross,
		closedUp: face.closedUp,
		gaussian: extremes(samples.gaussian),
		mean: extremes(samples.mean),
		deviation: face.deviation ?? null,
		deviations: face.original ? distancesTo(face.original, samples.points) : null
	};
}
