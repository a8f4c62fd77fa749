import { distinctKnots } from '../../geometry/curve';
import { segmentDistance } from '../../geometry/follow';
import type { Place } from '../../geometry/polygon';
import { evaluateGrid, placeAt } from '../../geometry/surface';
import { dot, pointAt, scale, type Vector } from '../../geometry/vector';
import { BEYOND } from './beyond';
import { heldOn, onFace } from './project';
import { periodOf, type TrimCurve, type TrimmedFace } from './trim';
import { ROUNDED, STILL } from '../../geometry/tolerance';

/** Steps of the parameters that are looked at, in each direction, at least. */
const STEPS = 48;
const MOST_HALVINGS = 8;

/** Something that parts space: how far a point is ahead of where it is met (mm), and the way in which that grows. */
export interface Parting {
	ahead(point: Vector): number;
	/** The same of many points, x y z. */
	aheadOfAll(points: Float64Array): Float64Array;
	/** Length 1. */
	way(point: Vector): Vector;
}

/** A plane; what its normal shows to is ahead. @param normal any length above nought */
export function planeThrough(at: Vector, normal: Vector): Parting {
	const own = scale(normal, 1 / Math.hypot(...normal));
	const from = dot(at, own);
	const ahead = (point: Vector) => dot(point, own) - from;
	const aheadOfAll = (points: Float64Array) =>
		Float64Array.from({ length: points.length / 3 }, (_, k) => ahead(pointAt(points, k)));
	return { ahead, aheadOfAll, way: () => own };
}

/** How far a place of a face is ahead of what parts space (mm). */
export class Ahead {
	constructor(
		private readonly face: TrimmedFace,
		readonly parting: Parting
	) {}

	of(place: Place): number {
		return this.ofPoint(this.point(place));
	}
	ofPoint(point: Vector): number {
		return this.parting.ahead(point);
	}
	point(place: Place): Vector {
		return onFace(this.face, place);
	}

	/** The place between two on either side where it is met (regula falsi, Illinois). */
	between(a: Place, b: Place, atA: number, atB: number): Place {
		const on = (t: number): Place => [a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])];
		let [from, to, low, high] = [0, 1, atA, atB];
		let t = 0.5;
		for (let round = 0; round < 60; round++) {
			t = (from * high - to * low) / (high - low);
			const here = this.of(on(t));
			if (Math.abs(here) < ROUNDED || to - from < 1e-15) break;
			if (here > 0 === high > 0) {
				[to, high] = [t, here];
				low /= 2;
			} else {
				[from, low] = [t, here];
				high /= 2;
			}
		}
		return on(t);
	}

	/** A place near to where it is met brought there. */
	onto(place: Place): Place {
		let [u, v] = place;
		for (let round = 0; round < 8; round++) {
			const [x, y] = heldOn(this.face, [u, v]);
			const { point, du, dv } = placeAt(this.face.surface, x, y);
			const off = this.ofPoint(point);
			if (Math.abs(off) < ROUNDED) break;
			const way = this.parting.way(point);
			const [a, b] = [dot(du, way), dot(dv, way)];
			const size = a * a + b * b;
			if (!(size > 0)) break;
			[u, v] = [u - (off * a) / size, v - (off * b) / size];
		}
		return [u, v];
	}
}

interface Samples {
	readonly us: readonly number[];
	readonly vs: readonly number[];
	/** mm ahead, by row. */
	readonly ahead: Float64Array;
}

function sampled({ surface }: TrimmedFace, ahead: Ahead): Samples {
	const steps = (knots: Float64Array) => {
		const distinct = distinctKnots(knots);
		const each = Math.max(4, Math.ceil(STEPS / (distinct.length - 1)));
		return distinct.flatMap((knot, k) => {
			const next = distinct[k + 1];
			if (next === undefined) return [knot];
			return Array.from({ length: each }, (_, s) => knot + (s / each) * (next - knot));
		});
	};
	const [us, vs] = [steps(surface.knotsU), steps(surface.knotsV)];
	const { points } = evaluateGrid(surface, us, vs);
	// What lies just there counts as ahead, so that every line has two sides.
	const values = ahead.parting.aheadOfAll(points).map((value) => (Math.abs(value) < 1e-7 ? 1e-7 : value));
	return { us, vs, ahead: values };
}

/** One triangle's piece of the curve: from the line it comes in by to the one it goes out by. */
interface Piece {
	readonly to: string;
	readonly from: Place;
	readonly end: Place;
}

/** Pieces of the curve by the line of the samples they start on, what is ahead to their left. */
function piecesOf({ us, vs, ahead }: Samples, cut: Ahead, ring: boolean): Map<string, Piece> {
	const columns = us.length;
	const name = ([i, j]: Place, [p, q]: Place) => {
		const column = (k: number) => (ring ? k % (columns - 1) : k);
		const ends = [`${column(i)} ${j}`, `${column(p)} ${q}`];
		// Both columns of a step stand in the name, so that a step round the ring is told from its mirror image.
		return i < p || (i === p && j < q) ? ends.join(' ') : ends.reverse().join(' ');
	};
	const met = new Map<string, Place>();
	const meet = (a: Place, b: Place, atA: number, atB: number): { key: string; place: Place } => {
		const key = name(a, b);
		const place = met.get(key) ?? cut.between(placeOf(a), placeOf(b), atA, atB);
		met.set(key, place);
		return { key, place };
	};
	const placeOf = ([i, j]: Place): Place => [us[i]!, vs[j]!];
	const pieces = new Map<string, Piece>();
	for (let j = 0; j + 1 < vs.length; j++)
		for (let i = 0; i + 1 < columns; i++) {
			const [a, b, c, d]: Place[] = [
				[i, j],
				[i + 1, j],
				[i + 1, j + 1],
				[i, j + 1]
			] as const;
			for (const corners of [
				[a!, b!, c!],
				[a!, c!, d!]
			]) {
				const values = corners.map(([p, q]) => ahead[q * columns + p]!);
				if (values[0]! > 0 === values[1]! > 0 && values[1]! > 0 === values[2]! > 0) continue;
				const at = (wanted: boolean) => {
					const k = [0, 1, 2].find((n) => values[n]! > 0 === wanted && values[(n + 1) % 3]! > 0 !== wanted)!;
					const next = (k + 1) % 3;
					return meet(corners[k]!, corners[next]!, values[k]!, values[next]!);
				};
				const [from, end] = [at(true), at(false)];
				pieces.set(from.key, { to: end.key, from: from.place, end: end.place });
			}
		}
	return pieces;
}

type Run = TrimCurve['run'];
type Line = Pick<TrimCurve, 'places' | 'run'>;

/** Pieces joined end to end, u running on over the seam of a ring. */
function joined(pieces: Map<string, Piece>, period: number): Line[] {
	const ends = new Set([...pieces.values()].map(({ to }) => to));
	const starts = [...pieces.keys()].filter((key) => !ends.has(key));
	const left = new Map(pieces);
	const curves: Line[] = [];
	const take = (start: string) => {
		const places: Place[] = [];
		let key = start;
		const push = ([u, v]: Place) => {
			const before = places.at(-1);
			const near = before && period ? u + period * Math.round((before[0] - u) / period) : u;
			if (!before || Math.hypot(near - before[0], v - before[1]) > STILL) places.push([near, v]);
		};
		for (let piece = left.get(key); piece; piece = left.get(key)) {
			left.delete(key);
			if (places.length === 0) push(piece.from);
			push(piece.end);
			key = piece.to;
		}
		const [first, last] = [places[0]!, places.at(-1)!];
		if (places.length < 3) return;
		if (key !== start) curves.push({ places, run: 'open' });
		else
			curves.push({
				places: places.slice(0, -1),
				run: Math.abs(last[0] - first[0]) > period / 2 && period > 0 ? 'round' : 'closed'
			});
	};
	for (const start of starts) take(start);
	for (const key of pieces.keys()) if (left.has(key)) take(key);
	return curves;
}

/** The curve with as few corners as follow it to within so many mm. */
function followed({ places, run }: Line, cut: Ahead, within: number, period: number): Line {
	const last: Place = run === 'round' ? [places[0]![0] + turnOf(places, period), places[0]![1]] : places[0]!;
	const line = run === 'open' ? places : [...places, last];
	const fine: Place[] = [line[0]!];
	const halve = (a: Place, b: Place, left: number): void => {
		const middle = cut.onto([(a[0] + b[0]) / 2, (a[1] + b[1]) / 2]);
		const off = segmentDistance(cut.point(a), cut.point(b), cut.point(middle));
		if (off > within / 2 && left > 0) {
			halve(a, middle, left - 1);
			halve(middle, b, left - 1);
		} else fine.push(b);
	};
	for (let k = 0; k + 1 < line.length; k++) halve(line[k]!, line[k + 1]!, MOST_HALVINGS);
	const points = fine.map((place) => cut.point(place));
	const kept = thinned(points, within / 2).map((k) => fine[k]!);
	return { places: run === 'open' ? kept : kept.slice(0, -1), run };
}

const turnOf = (places: readonly Place[], period: number) =>
	period * Math.round((places.at(-1)![0] - places[0]![0]) / period || 1);

/** Corners of a polyline that are needed to follow it to within so many mm (Douglas and Peucker). */
export function thinned(points: readonly Vector[], within: number): number[] {
	const kept = [0];
	const part = (from: number, to: number): void => {
		let worst = -1;
		// A closed line is parted somewhere in any case.
		let most = points[from]!.every((value, k) => Math.abs(value - points[to]![k]!) < 1e-9) ? -1 : within;
		for (let k = from + 1; k < to; k++) {
			const off = segmentDistance(points[from]!, points[to]!, points[k]!);
			if (off > most) [most, worst] = [off, k];
		}
		if (worst < 0) {
			kept.push(to);
			return;
		}
		part(from, worst);
		part(worst, to);
	};
	part(0, points.length - 1);
	return kept;
}

const smooth = (places: readonly Place[], run: Run): TrimCurve => ({
	places,
	run,
	sharp: places.map(() => false)
});

/** An open curve drawn on straight beyond both rims. */
function beyondRims({ places, run }: Line, { surface }: TrimmedFace): TrimCurve {
	if (run !== 'open') return smooth(places, run);
	const size = [surface.knotsU, surface.knotsV].map((knots) => knots.at(-1)! - knots[0]!);
	const out = ([x, y]: Place, [p, q]: Place): Place => {
		const [dx, dy] = [x - p, y - q];
		const step = BEYOND / (Math.max(Math.abs(dx) / size[0]!, Math.abs(dy) / size[1]!) || 1);
		return [x + dx * step, y + dy * step];
	};
	return smooth([out(places[0]!, places[1]!), ...places, out(places.at(-1)!, places.at(-2)!)], run);
}

/** Where what parts space meets a face; what is ahead of it lies to the left of every curve. */
export function sectionCurves(
	face: TrimmedFace,
	parting: Parting,
	within: number
): { curves: TrimCurve[]; ahead: Ahead; low: number; high: number } {
	const cut = new Ahead(face, parting);
	const samples = sampled(face, cut);
	const period = periodOf(face);
	const curves = joined(piecesOf(samples, cut, period > 0), period).map((curve) =>
		beyondRims(followed(curve, cut, within, period), face)
	);
	return {
		curves,
		ahead: cut,
		low: samples.ahead.reduce((a, b) => Math.min(a, b), Infinity),
		high: samples.ahead.reduce((a, b) => Math.max(a, b), -Infinity)
	};
}
