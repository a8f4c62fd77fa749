import { bezierChain, chainKnots, type BezierChain } from '../geometry/path';
import type { Surface } from '../geometry/surface';
import type { Vector } from '../geometry/vector';
import type { Form } from '../project/schema';
import { refuse } from '../units/problem';
import { makeFace, type Face } from './face';
import { segmentsOf } from './path';

type Revolved = Extract<Form, { kind: 'revolved' }>;

/**
 * Control points of a circular arc of radius 1 as rational quadratic pieces of at most 90°.
 * Source: Piegl & Tiller, The NURBS Book, section 7.5.
 */
function unitArc(
	from: number,
	turn: number
): { net: [x: number, y: number, w: number][]; knots: Float64Array } {
	const pieces = Math.max(1, Math.ceil(turn / (Math.PI / 2) - 1e-9));
	const half = turn / pieces / 2;
	const closed = Math.abs(turn - 2 * Math.PI) < 1e-12;
	const net: [number, number, number][] = [];
	for (let k = 0; k <= 2 * pieces; k++) {
		const angle = from + (closed && k === 2 * pieces ? 0 : k) * half;
		const between = k % 2 === 1;
		const radius = between ? 1 / Math.cos(half) : 1;
		net.push([radius * Math.cos(angle), radius * Math.sin(angle), between ? Math.cos(half) : 1]);
	}
	const inner = Array.from({ length: pieces - 1 }, (_, k) => (k + 1) / pieces);
	return { net, knots: Float64Array.from([0, 0, 0, ...inner.flatMap((t) => [t, t]), 1, 1, 1]) };
}

function profileChain(form: Revolved, at: string): BezierChain {
	const { points } = form.profile;
	const where = `${at}/profile`;
	if (points.length < 2) refuse(where, `a profile needs at least 2 points; it has ${points.length}`);
	points.forEach(([r], k) => {
		if (r < 0)
			refuse(
				where,
				`point ${k + 1} of the profile lies ${-r} mm beyond the axis; distances from the axis are 0 or more`
			);
	});
	const upright = points.map(([r, z]): Vector => [r, 0, z]);
	let chain: BezierChain;
	try {
		chain = bezierChain(upright, segmentsOf(form.profile.joins, points.length - 1, where));
	} catch (error) {
		return refuse(where, `in the profile, ${(error as Error).message}; move or remove one of them`);
	}
	const crossing = lowestRadius(chain);
	if (crossing.radius < -1e-6)
		refuse(
			where,
			`the profile crosses its axis between points ${crossing.piece + 1} and ${crossing.piece + 2}; move them outward or join them by a line`
		);
	if (points.every(([r]) => r === 0))
		refuse(where, 'the whole profile lies on the axis; at least one point must stand away from it');
	return chain;
}

/** The smallest radius along a chain, sampled within each piece, and where. */
function lowestRadius(chain: BezierChain): { radius: number; piece: number } {
	let lowest = { radius: Infinity, piece: 0 };
	for (let piece = 0; 3 * piece + 3 < chain.points.length; piece++) {
		const [a, b, c, d] = chain.points.slice(3 * piece, 3 * piece + 4).map((p) => p[0]) as [
			number,
			number,
			number,
			number
		];
		for (let k = 0; k <= 64; k++) {
			const t = k / 64;
			const s = 1 - t;
			const radius = s * s * s * a + 3 * s * s * t * b + 3 * s * t * t * c + t * t * t * d;
			if (radius < lowest.radius) lowest = { radius, piece };
		}
	}
	return lowest;
}

/** A profile turned about a vertical axis: exactly, as a rational surface. Outside is away from the axis. */
export function revolvedFaces(form: Revolved, at: string): Face[] {
	const turn = (form.turn * Math.PI) / 180;
	if (!(form.turn > 0 && form.turn <= 360))
		refuse(`${at}/turn`, `the turn is ${form.turn}°; more than 0° and at most 360° is accepted`);
	const chain = profileChain(form, at);
	const arc = unitArc((form.from * Math.PI) / 180, turn);
	const [ax, ay] = form.axis;
	const countU = arc.net.length;
	const countV = chain.points.length;
	const net = new Float64Array(4 * countU * countV);
	chain.points.forEach(([r, , z], j) =>
		arc.net.forEach(([x, y, w], i) =>
			net.set([w * (ax + r * x), w * (ay + r * y), w * z, w], 4 * (j * countU + i))
		)
	);
	const surface: Surface = {
		degreeU: 2,
		degreeV: 3,
		knotsU: arc.knots,
		knotsV: chainKnots(chain.breaks),
		countU,
		countV,
		net
	};
	return [makeFace('shell', surface)];
}
