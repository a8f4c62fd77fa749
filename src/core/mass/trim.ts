import { distinctKnots } from '../geometry/curve';
import { evaluateGrid, type Surface } from '../geometry/surface';
import { add, cross, dot, length, scale, subtract, type Vector } from '../geometry/vector';
import type { TrimDefinition } from '../project/form-schema';
import { refuse } from '../units/problem';
import { formatNumber } from '../units/quantity';
import { outlineChain, sampleChain } from './drawn-curve';

/** A closed curve on a face, in its parameters; what is kept lies to the left of it. */
export interface Trim {
	/** The path of its clause. */
	readonly at: string;
	readonly keep: 'inside' | 'outside';
	/** u v of each corner, the first not repeated. On a ring u may run beyond the surface's own end. */
	readonly loop: readonly (readonly [u: number, v: number])[];
}

/** Places looked at for the start of a projection, in each direction. */
const SEEDS = 40;
const ROUNDS = 30;
/** Corners for each piece of an outline. */
const EACH = 6;

interface Sight {
	readonly x: Vector;
	readonly y: Vector;
	readonly z: Vector;
}

/** Axes of the outline's plane, square to the direction it is projected along; x stays level. */
function sightOf(direction: Vector, turn: number, at: string): Sight {
	const size = length(direction);
	if (!(size > 1e-9)) refuse(`${at}/direction`, 'the direction is nothing; give it a length');
	const z = scale(direction, 1 / size);
	const level: Vector = Math.abs(z[2]) > 0.999 ? [1, 0, 0] : cross([0, 0, 1], z);
	const x = scale(level, 1 / length(level));
	const y = cross(z, x);
	const [cos, sin] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)];
	return { x: add(scale(x, cos), scale(y, sin)), y: add(scale(y, cos), scale(x, -sin)), z };
}

/** Projects points of a plane along its normal onto one surface. */
class Projector {
	private readonly seeds: { readonly u: number; readonly v: number; readonly p: Vector }[] = [];
	private readonly periodU: number;
	private readonly lowU: number;
	private readonly lowV: number;
	private readonly highV: number;

	constructor(
		private readonly surface: Surface,
		private readonly sight: Sight,
		private readonly closedAcross: boolean
	) {
		const spread = (knots: Float64Array) =>
			Array.from({ length: SEEDS + 1 }, (_, k) => knots[0]! + (k / SEEDS) * (knots.at(-1)! - knots[0]!));
		const us = [...new Set([...spread(surface.knotsU), ...distinctKnots(surface.knotsU)])];
		const vs = [...new Set([...spread(surface.knotsV), ...distinctKnots(surface.knotsV)])];
		const { points } = evaluateGrid(surface, us, vs);
		for (let j = 0, o = 0; j < vs.length; j++)
			for (let i = 0; i < us.length; i++, o += 3)
				this.seeds.push({ u: us[i]!, v: vs[j]!, p: [points[o]!, points[o + 1]!, points[o + 2]!] });
		this.lowU = surface.knotsU[0]!;
		this.periodU = surface.knotsU.at(-1)! - this.lowU;
		this.lowV = surface.knotsV[0]!;
		this.highV = surface.knotsV.at(-1)!;
	}

	/** Where to start: the place nearest to the line of sight, in front of the outline before behind it. */
	seed(point: Vector): [number, number] {
		let best = this.seeds[0]!;
		let least = Infinity;
		for (const one of this.seeds) {
			const way = subtract(one.p, point);
			const behind = dot(way, this.sight.z) < 0 ? 1e9 : 0;
			const far = dot(way, this.sight.x) ** 2 + dot(way, this.sight.y) ** 2 + behind;
			if (far < least) [least, best] = [far, one];
		}
		return [best.u, best.v];
	}

	/** Newton's method in the two directions square to the line of sight; null when it leaves the face. */
	project(point: Vector, from: readonly [number, number]): [number, number] | null {
		let [u, v] = from;
		const { x, y } = this.sight;
		for (let round = 0; round < ROUNDS; round++) {
			const within = this.closedAcross
				? this.lowU + ((((u - this.lowU) % this.periodU) + this.periodU) % this.periodU)
				: Math.min(this.lowU + this.periodU, Math.max(this.lowU, u));
			const held = Math.min(this.highV, Math.max(this.lowV, v));
			const { points, du, dv } = evaluateGrid(this.surface, [within], [held]);
			const off = subtract([points[0]!, points[1]!, points[2]!], point);
			const [p, q] = [dot(off, x), dot(off, y)];
			const U: Vector = [du[0]!, du[1]!, du[2]!];
			const V: Vector = [dv[0]!, dv[1]!, dv[2]!];
			const [a, b, c, d] = [dot(U, x), dot(V, x), dot(U, y), dot(V, y)];
			const det = a * d - b * c;
			const clamped = v !== held || (!this.closedAcross && u !== within);
			if (Math.hypot(p, q) < 1e-9 * (1 + length(U) + length(V))) return clamped ? null : [u, v];
			if (!(Math.abs(det) > 1e-12 * (length(U) * length(V) + 1e-30))) return null;
			if (clamped && round > ROUNDS / 2) return null;
			[u, v] = [(this.closedAcross ? u : within) - (d * p - b * q) / det, held - (a * q - c * p) / det];
		}
		return null;
	}
}

/** The curve that an outline cuts into a face. @throws ProblemError where it leaves the face */
export function trimOf(
	face: { readonly name: string; readonly surface: Surface; readonly closedAcross: boolean },
	trim: TrimDefinition,
	at: string
): Trim {
	const sight = sightOf(trim.direction, trim.turn, at);
	const corners = sampleChain(outlineChain(trim.outline, `${at}/outline`), EACH).slice(0, -1);
	const projector = new Projector(face.surface, sight, face.closedAcross);
	const loop: [number, number][] = [];
	for (const [x, y] of corners) {
		const point = add(trim.at, add(scale(sight.x, x), scale(sight.y, y)));
		const before = loop.at(-1);
		const found =
			(before && projector.project(point, before)) ?? projector.project(point, projector.seed(point));
		if (!found)
			refuse(
				at,
				`the outline leaves ${face.name} near x ${formatNumber(Math.round(point[0]))}, y ${formatNumber(Math.round(point[1]))}, z ${formatNumber(Math.round(point[2]))}; move it or make it smaller so that all of it falls on the face`
			);
		loop.push(found!);
	}
	let area = 0;
	loop.forEach(([u, v], k) => {
		const [p, q] = loop[(k + 1) % loop.length]!;
		area += u * q - p * v;
	});
	const left = trim.keep === 'inside';
	return { at, keep: trim.keep, loop: area > 0 === left ? loop : loop.reverse() };
}

type Place = readonly [number, number];

function crosses(a: Place, b: Place, c: Place, d: Place): boolean {
	const side = (p: Place, q: Place, r: Place) =>
		(q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0]);
	return side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0;
}

/** Whether a place lies within a closed curve (even-odd). */
export function isWithin(loop: readonly Place[], [x, y]: Place): boolean {
	let inside = false;
	loop.forEach(([ax, ay], k) => {
		const [bx, by] = loop[(k + 1) % loop.length]!;
		if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) inside = !inside;
	});
	return inside;
}

/** Trims of one face neither cross nor lie within an opening. @throws ProblemError at the later one */
export function checkApart(trims: readonly Trim[]): void {
	trims.forEach((one, k) => {
		for (const other of trims.slice(0, k)) {
			const crossing = one.loop.some((a, i) => {
				const b = one.loop[(i + 1) % one.loop.length]!;
				return other.loop.some((c, j) => crosses(a, b, c, other.loop[(j + 1) % other.loop.length]!));
			});
			if (crossing) refuse(one.at, 'it crosses another trim of the same face; move them apart');
			const within = (inner: Trim, outer: Trim) => isWithin(outer.loop, inner.loop[0]!);
			const touches = (inner: Trim, outer: Trim) => inner.loop.some((place) => isWithin(outer.loop, place));
			if (one.keep === 'outside' && other.keep === 'outside' && (touches(one, other) || touches(other, one)))
				refuse(one.at, 'an opening lies within another one; holes in holes cannot be made');
			const [kept, opening] = one.keep === 'inside' ? [one, other] : [other, one];
			if (kept.keep === 'inside' && !within(opening, kept))
				refuse(one.at, 'it lies where the face has ended already; move it inside, or leave it out');
		}
	});
}
