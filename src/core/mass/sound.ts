import { refuse } from '../units/problem';
import { formatNumber } from '../units/quantity';
import type { Surface } from '../geometry/surface';

/** Control points of one face, and how far from the origin they may lie (mm). */
const MOST_POINTS = 2_000_000;
const FARTHEST = 1e9;
/** Knots that are not the same are apart by more than this share of their length: less cannot be divided by. */
const LEAST_SPAN = 1e-12;

/**
 * A surface that everything after can rely on: as many points as its knots want, all finite and within reach,
 * weights above nothing, knots that do not fall and have a length.
 * @throws ProblemError at the form
 */
export function checkSound(name: string, surface: Surface, at: string): void {
	const { countU, countV, degreeU, degreeV, knotsU, knotsV, net } = surface;
	const points = countU * countV;
	if (points > MOST_POINTS)
		refuse(
			at,
			`${name} has ${formatNumber(points)} control points; at most ${formatNumber(MOST_POINTS)} can be worked with`
		);
	for (const [count, degree, knots, way] of [
		[countU, degreeU, knotsU, 'across'],
		[countV, degreeV, knotsV, 'up']
	] as const) {
		if (degree < 1 || count <= degree || knots.length !== count + degree + 1)
			refuse(
				at,
				`${name} has ${knots.length} knots ${way} for ${count} points of degree ${degree}; ${count + degree + 1} are needed, for more points than the degree`
			);
		for (let k = 1; k < knots.length; k++)
			if (!(knots[k]! >= knots[k - 1]!))
				refuse(at, `the knots ${way} of ${name} fall at ${k + 1}; they have to rise`);
		const length = knots[count]! - knots[degree]!;
		const reach = Math.max(Math.abs(knots[0]!), Math.abs(knots.at(-1)!));
		if (!(length > LEAST_SPAN * reach)) refuse(at, `the knots ${way} of ${name} have no length`);
		for (let k = 1; k < knots.length; k++) {
			const span = knots[k]! - knots[k - 1]!;
			if (span > 0 && !(span > LEAST_SPAN * length))
				refuse(
					at,
					`the knots ${way} of ${name} lie too near together at ${k + 1}; the same value, or one apart from it, is accepted`
				);
		}
	}
	if (net.length !== 4 * points) refuse(at, `${name} has ${net.length / 4} points; ${points} are needed`);
	for (let k = 0; k < net.length; k += 4) {
		const weight = net[k + 3]!;
		if (!(weight > 0) || !Number.isFinite(weight))
			refuse(at, `${name} has a point whose weight is not above nothing; it cannot be drawn`);
		for (let c = 0; c < 3; c++)
			if (!(Math.abs(net[k + c]! / weight) <= FARTHEST))
				refuse(
					at,
					`${name} reaches farther than ${formatNumber(FARTHEST / 1e6)} km from the origin; give it smaller values`
				);
	}
}
