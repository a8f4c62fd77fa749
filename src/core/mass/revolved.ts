import { inRadians } from '../units/scale';
import { arcKnots, unitArc } from '../geometry/arc';
import { chainKnots, type BezierChain } from '../geometry/path';
import type { Surface } from '../geometry/surface';
import type { Form } from '../project/form-schema';
import { refuse } from '../units/problem';
import { profileChain } from './drawn-curve';
import { makeFace, type Face } from './face';
import { fixedHeight } from './levels';
import { SAME_POINT } from '../geometry/tolerance';

type Revolved = Extract<Form, { kind: 'revolved' }>;

function checkedProfile(form: Revolved, at: string): BezierChain {
	const where = `${at}/profile`;
	form.profile.points.forEach(([r], k) => {
		if (r < 0)
			refuse(
				where,
				`point ${k + 1} of the profile lies ${-r} mm beyond the axis; distances from the axis are 0 or more`
			);
	});
	const chain = profileChain({ ...form.profile, mirrored: false }, where);
	const crossing = lowestRadius(chain);
	if (crossing.radius < -SAME_POINT)
		refuse(
			where,
			`the profile crosses its axis in piece ${crossing.piece + 1}; move its points outward or join them by a line`
		);
	if (form.profile.points.every(([r]) => r === 0))
		refuse(where, 'the whole profile lies on the axis; at least one point must stand away from it');
	return chain;
}

/** The smallest radius along a chain where it may be beyond the axis, sampled within each piece, and where. */
function lowestRadius(chain: BezierChain): { radius: number; piece: number } {
	let lowest = { radius: Infinity, piece: 0 };
	for (let piece = 0; 3 * piece + 3 < chain.points.length; piece++) {
		const four = chain.points.slice(3 * piece, 3 * piece + 4);
		// A piece lies within the hull of its control points: where none is beyond the axis, it is not either.
		const least = four.reduce((radius, p) => Math.min(radius, p[0] / p[3]), Infinity);
		if (least >= 0) {
			if (least < lowest.radius) lowest = { radius: least, piece };
			continue;
		}
		for (let k = 0; k <= 64; k++) {
			const t = k / 64;
			const s = 1 - t;
			const basis = [s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t];
			const sum = (axis: 0 | 3) => four.reduce((total, p, n) => total + basis[n]! * p[axis], 0);
			const radius = sum(0) / sum(3);
			if (radius < lowest.radius) lowest = { radius, piece };
		}
	}
	return lowest;
}

/**
 * A profile (distance, height) turned about a vertical axis, exactly. Outside is away from the axis.
 *
 * ```ts
 * const drum = revolveChain(chainOfPoints, [0, 0], 0, 0, 2 * Math.PI);
 * ```
 */
export function revolveChain(
	chain: BezierChain,
	axis: readonly [number, number],
	foot: number,
	from: number,
	turn: number
): Surface {
	const { net: arc, pieces } = unitArc(from, turn);
	const net = new Float64Array(4 * chain.points.length * arc.length);
	let at = 0;
	for (const [r, z, , weight] of chain.points)
		for (const [x, y, w] of arc) {
			net[at++] = w * (axis[0] * weight + r * x);
			net[at++] = w * (axis[1] * weight + r * y);
			net[at++] = w * (foot * weight + z);
			net[at++] = w * weight;
		}
	return {
		degreeU: 2,
		degreeV: 3,
		knotsU: arcKnots(pieces),
		knotsV: chainKnots(chain.breaks),
		countU: arc.length,
		countV: chain.points.length,
		net
	};
}

/** A profile turned about a vertical axis: exactly, as a rational surface. */
export function revolvedFaces(form: Revolved, at: string): Face[] {
	if (!(form.turn > 0 && form.turn <= 360))
		refuse(`${at}/turn`, `the turn is ${form.turn}°; more than 0° and at most 360° is accepted`);
	const chain = checkedProfile(form, at);
	const surface = revolveChain(
		chain,
		form.axis,
		fixedHeight(form.foot),
		inRadians(form.from),
		inRadians(form.turn)
	);
	return [makeFace('shell', surface)];
}
