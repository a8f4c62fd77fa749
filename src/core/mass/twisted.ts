import { rounded } from '../units/quantity';
import { inRadians } from '../units/scale';
import type { BezierChain } from '../geometry/path';
import { splineControl } from '../geometry/spline';
import type { Form, OverHeight } from '../project/form-schema';
import { refuse } from '../units/problem';
import { outlineChain, sampleChain } from './drawn-curve';
import { capFace } from './cap';
import { makeFace, type Face } from './face';
import { fixedHeight } from './levels';
import { placed } from './lofted';
import { smoothPatch, straightPatch } from './patch';
import { sidesOf } from './sides';
import { NO_TURN } from '../geometry/tolerance';

type Twisted = Extract<Form, { kind: 'twisted' }>;

/** The value at a share of the height, and whether it changes along a straight line. */
interface Course {
	readonly at: (share: number) => number;
	readonly straight: boolean;
}

/** A value reached at the head, from `start` at the foot, or a smooth curve of values. */
function courseOf(value: OverHeight, start: number, what: string, at: string): Course {
	if (typeof value === 'number') return { at: (share) => start + (value - start) * share, straight: true };
	if (value.length < 2) refuse(at, `a curve of ${what} needs at least 2 points; it has ${value.length}`);
	const shares = value.map(([share]) => share);
	if (shares.some((share, k) => k > 0 && share <= shares[k - 1]!))
		refuse(at, `the heights of the curve of ${what} have to rise from point to point`);
	if (shares[0] !== 0 || shares.at(-1) !== 1)
		refuse(at, `the curve of ${what} has to run from 0 (the foot) to 1 (the head)`);
	const control = splineControl(
		value.map(([, one]) => [one]),
		shares,
		false
	).map(([one]) => one!);
	return {
		straight: value.length === 2,
		at(share) {
			const k = Math.max(
				0,
				Math.min(shares.length - 2, shares.findIndex((end, n) => n > 0 && share <= end) - 1)
			);
			const t = (share - shares[k]!) / (shares[k + 1]! - shares[k]!);
			const [a, b, c, d] = control.slice(3 * k, 3 * k + 4) as [number, number, number, number];
			const s = 1 - t;
			return s * s * s * a + 3 * s * s * t * b + 3 * s * t * t * c + t * t * t * d;
		}
	};
}

/** The skin may lean so far from upright (rad); beyond it, it lies down in folds. */
const MOST_LEAN = inRadians(80);

/** Refuse a twist that lays the skin down where the outline is furthest from its axis. */
function checkLean(chain: BezierChain, twist: Course, taper: Course, height: number, at: string): void {
	const reach = sampleChain(chain).reduce((most, [x, y]) => Math.max(most, Math.hypot(x, y)), 0);
	const steps = 256;
	for (let k = 0; k < steps; k++) {
		const turn = inRadians(twist.at((k + 1) / steps) - twist.at(k / steps));
		const lean = Math.atan((Math.abs(turn) * reach * taper.at(k / steps)) / (height / steps));
		if (lean <= MOST_LEAN) continue;
		const degrees = (angle: number) => Math.round((angle * 180) / Math.PI);
		refuse(
			at,
			`the twist folds the skin down: at ${Math.round((100 * k) / steps)} % of the height its corners lean ${degrees(lean)}° from upright; at most ${degrees(MOST_LEAN)}° is accepted. Twist less, or over more height`
		);
	}
}

/** Degrees of turn between two sections: the skin between them is then right to a few hundredths of a millimetre. */
const TURN_EACH = 3;
const MOST_SECTIONS = 400;

/**
 * An outline over a height, turned and scaled on its way: one face for each side of a polygon, one for a
 * smooth outline, and the cap. Without twist and with a straight taper exactly; otherwise a spline through sections.
 */
export function twistedFaces(form: Twisted, at: string): Face[] {
	const [foot, head] = [fixedHeight(form.foot), fixedHeight(form.head)];
	if (!(head > foot))
		refuse(`${at}/head`, `the head at ${head} mm is not above the foot at ${foot} mm; lift it`);
	const twist = courseOf(form.twist, 0, 'twist', `${at}/twist`);
	const taper = courseOf(form.taper, 1, 'taper', `${at}/taper`);
	const chain = outlineChain(form.outline, `${at}/outline`);

	let turned = 0;
	for (let k = 0; k < 64; k++) turned += Math.abs(twist.at((k + 1) / 64) - twist.at(k / 64));
	const straight = taper.straight && turned < NO_TURN;
	const steps = straight ? 1 : Math.min(MOST_SECTIONS, Math.max(16, Math.ceil(turned / TURN_EACH)));
	if (turned / TURN_EACH > MOST_SECTIONS)
		refuse(
			`${at}/twist`,
			`a twist of ${Math.round(turned)}° is more than ${MOST_SECTIONS * TURN_EACH}°, the most that is made`
		);
	const shares = Array.from({ length: steps + 1 }, (_, k) => k / steps);
	for (const share of shares) {
		const factor = taper.at(share);
		if (!(factor > 0))
			refuse(
				`${at}/taper`,
				`the taper comes down to ${rounded(factor, 3)} at ${Math.round(share * 100)} % of the height; it has to stay above 0`
			);
	}
	const section = (side: BezierChain, share: number) =>
		placed(side, {
			at: form.at,
			height: foot + (head - foot) * share,
			scale: [taper.at(share), taper.at(share)],
			turn: twist.at(share)
		});
	checkLean(chain, twist, taper, head - foot, `${at}/twist`);
	const sides = sidesOf(chain);
	const skin = sides.map((side, k) => {
		const rows = shares.map((share) => section(side, share).points);
		const surface = (straight ? straightPatch : smoothPatch)(rows, side.breaks, shares);
		return makeFace(sides.length === 1 ? 'shell' : `side ${k + 1}`, surface);
	});
	return [...skin, capFace(chain, (outline) => section(outline, 1))];
}
