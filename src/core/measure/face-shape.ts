import { distinctKnots } from '../geometry/curve';
import { evaluateCurvature, type CurvatureSamples } from '../geometry/curvature';
import { distanceTo } from '../geometry/nearest';
import { evaluateGrid, surfaceArea, transpose, type Surface } from '../geometry/surface';
import { triangulate } from '../geometry/triangulate';
import { lengthTable, lineLength } from '../geometry/true-length';
import type { Face } from '../mass/face';
import { keptPieces, trimmedArea } from './trimmed';

export interface Extremes {
	readonly low: number;
	readonly high: number;
}

/** A face as it is looked at: a mesh of samples with curvatures, and its measures. mm, mm², 1/mm, 1/mm². */
export interface FaceShape {
	readonly name: string;
	readonly samples: CurvatureSamples;
	/** Triangles by sample; for a trimmed face those that are left, with corners of its rims after the samples. */
	readonly triangles: Uint32Array;
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
const SHOWN_AREA = 1e-5;

/** Parameters on every knot and evenly between, and which of them are knots. */
function sampleParameters(knots: Float64Array, wanted = WANTED): { at: number[]; onKnots: number[] } {
	const distinct = distinctKnots(knots);
	const each = Math.max(LEAST_EACH, Math.ceil(wanted / (distinct.length - 1)));
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

/** Two triangles for each step of the samples. */
function allTriangles({ columns, rows }: CurvatureSamples): Uint32Array {
	const index = new Uint32Array(6 * (columns - 1) * (rows - 1));
	let o = 0;
	for (let j = 0; j + 1 < rows; j++)
		for (let i = 0; i + 1 < columns; i++) {
			const a = j * columns + i;
			const c = a + columns;
			index[o] = index[o + 3] = a;
			index[o + 1] = a + 1;
			index[o + 2] = index[o + 4] = c + 1;
			index[o + 5] = c;
			o += 6;
		}
	return index;
}

/** The steps that trims leave; corners of cut ones are further samples. */
function withoutTrims(
	face: Face,
	us: readonly number[],
	vs: readonly number[],
	whole: CurvatureSamples
): { samples: CurvatureSamples; triangles: Uint32Array } {
	const { surface } = face;
	const { columns } = whole;
	const index: number[] = [];
	const more = {
		points: [] as number[],
		normals: [] as number[],
		gaussian: [] as number[],
		mean: [] as number[]
	};
	const held = (t: number, knots: Float64Array) => Math.min(knots.at(-1)!, Math.max(knots[0]!, t));
	for (const piece of keptPieces(face, us, vs)) {
		const a = piece.j * columns + piece.i;
		const c = a + columns;
		if (piece.whole) {
			index.push(a, a + 1, c + 1, a, c + 1, c);
			continue;
		}
		const first = whole.gaussian.length + more.gaussian.length;
		for (const [u, v] of piece.places) {
			const one = evaluateCurvature(surface, [held(u, surface.knotsU)], [held(v, surface.knotsV)]);
			more.points.push(...one.points);
			more.normals.push(...one.normals);
			more.gaussian.push(...one.gaussian);
			more.mean.push(...one.mean);
		}
		for (const corner of triangulate(piece.places)) index.push(first + corner);
	}
	const joined = (before: Float64Array, added: readonly number[]) => {
		const both = new Float64Array(before.length + added.length);
		both.set(before);
		both.set(added, before.length);
		return both;
	};
	return {
		samples: {
			...whole,
			points: joined(whole.points, more.points),
			normals: joined(whole.normals, more.normals),
			gaussian: joined(whole.gaussian, more.gaussian),
			mean: joined(whole.mean, more.mean)
		},
		triangles: Uint32Array.from(index)
	};
}

/** Length of the line half way up. */
function middleLength(surface: Surface): number {
	const middle = (surface.knotsV[0]! + surface.knotsV.at(-1)!) / 2;
	return lineLength(lengthTable(surface, [middle]), 0);
}

/** The distance of every point from a surface, each sought from the nearest of many places on it. */
function distancesTo(surface: Surface, points: Float64Array, ring: boolean): Float64Array {
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
		return distanceTo(
			surface,
			[x, y, z],
			[us[nearest % us.length]!, vs[Math.floor(nearest / us.length)]!],
			ring
		);
	});
}

/** A face as a mesh of samples: those of whole steps, and corners of its rims after them. */
export interface SampledFace {
	readonly samples: CurvatureSamples;
	readonly triangles: Uint32Array;
	/** Which columns and rows lie on knots. */
	readonly onKnots: readonly [columns: readonly number[], rows: readonly number[]];
}

/**
 * Samples a face on its own knots, with what trims leave of it.
 *
 * ```ts
 * const { samples, triangles } = sampleFace(face);
 * ```
 * @param wanted about how many steps, across and up
 */
export function sampleFace(face: Face, wanted = WANTED): SampledFace {
	const { surface } = face;
	const us = sampleParameters(surface.knotsU, wanted);
	const vs = sampleParameters(surface.knotsV, wanted);
	const whole = evaluateCurvature(surface, us.at, vs.at);
	const sampled = face.trims.length
		? withoutTrims(face, us.at, vs.at, whole)
		: { samples: whole, triangles: allTriangles(whole) };
	return { ...sampled, onKnots: [us.onKnots, vs.onKnots] };
}

/**
 * Measures a face once: area, sizes (mm) and curvatures (1/mm), sampled on its own knots.
 *
 * ```ts
 * const { area, across, up } = shapeOf(face);
 * ```
 */
export function shapeOf(face: Face): FaceShape {
	const { surface } = face;
	const { samples, triangles, onKnots } = sampleFace(face);
	return {
		name: face.name,
		samples,
		triangles,
		linesAcross: thinned(onKnots[0]),
		linesUp: thinned(onKnots[1]),
		area: face.trims.length ? trimmedArea(face) : surfaceArea(surface, SHOWN_AREA),
		across: middleLength(surface),
		up: middleLength(transpose(surface)),
		closedAcross: face.closedAcross,
		closedUp: face.closedUp,
		gaussian: extremes(samples.gaussian),
		mean: extremes(samples.mean),
		deviation: face.deviation ?? null,
		deviations: face.original ? distancesTo(face.original, samples.points, face.closedAcross) : null
	};
}
