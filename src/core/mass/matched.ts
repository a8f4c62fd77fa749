import { partOfChain, refineChain, type BezierChain } from '../geometry/path';
import type { OutlineDefinition } from '../project/form-schema';
import { sampleChain } from './drawn-curve';
import { FOUND_SHARE, SAME_SHARE } from '../geometry/tolerance';

/** Closed outlines of a loft, each in its own plane z = 0, brought to correspond point by point. */

type Plan = readonly [number, number];
interface Outline {
	readonly shape: OutlineDefinition['shape'];
	readonly chain: BezierChain;
}

const round = (shape: Outline['shape']) => shape === 'circle' || shape === 'ellipse';

/** Of one kind, with as many pieces: corner belongs to corner, whatever the sizes. */
function alike(a: Outline, b: Outline): boolean {
	const kind = (shape: Outline['shape']) => (round(shape) ? 'round' : shape);
	return kind(a.shape) === kind(b.shape) && a.chain.breaks.length === b.chain.breaks.length;
}

/** An angle (rad) as a share of the whole turn, 0 up to 1. */
const turnShare = (angle: number) => (((angle / (2 * Math.PI)) % 1) + 1) % 1;

function middleOf(places: readonly Plan[]): Plan {
	const ring = places.slice(0, -1);
	const sum = ring.reduce(([x, y], place) => [x + place[0], y + place[1]] as const, [0, 0] as Plan);
	return [sum[0] / ring.length, sum[1] / ring.length];
}

const SAMPLES = 64;

/** The parameter where a chain crosses the ray from its middle along x, going round to the left; the furthest one. */
function meetsRay(chain: BezierChain, [cx, cy]: Plan): number | null {
	const places = sampleChain(chain, SAMPLES);
	let best: { t: number; x: number } | null = null;
	for (let k = 0; k + 1 < places.length; k++) {
		const [[ax, ay], [bx, by]] = [places[k]!, places[k + 1]!];
		if (!(ay < cy && by >= cy)) continue;
		const s = (cy - ay) / (by - ay);
		const x = ax + s * (bx - ax);
		if (x < cx || (best && best.x > x)) continue;
		const piece = Math.floor(k / SAMPLES);
		const [from, to] = [chain.breaks[piece]!, chain.breaks[piece + 1]!];
		best = { x, t: from + (((k % SAMPLES) + s) / SAMPLES) * (to - from) };
	}
	return best ? best.t : null;
}

/** The same closed chain, started at a parameter. */
function startedAt(chain: BezierChain, t: number): BezierChain {
	if (t < FOUND_SHARE || t > 1 - FOUND_SHARE) return chain;
	const refined = refineChain(chain, [t]);
	const k = refined.breaks.findIndex((b) => Math.abs(b - t) < SAME_SHARE);
	const [before, after] = [partOfChain(refined, 0, k), partOfChain(refined, k, refined.breaks.length - 1)];
	return {
		breaks: [...after.breaks.map((b) => b * (1 - t)), ...before.breaks.slice(1).map((b) => 1 - t + b * t)],
		points: [...after.points, ...before.points.slice(1)]
	};
}

/**
 * Started in the direction x from its middle, its breaks at the share of the turn they are seen under;
 * one that is not seen whole from its middle keeps its shares of length.
 */
function byDirection(chain: BezierChain): BezierChain {
	const middle = middleOf(sampleChain(chain));
	const t = meetsRay(chain, middle);
	if (t === null) return chain;
	const started = startedAt(chain, t);
	const shares = started.breaks.map((_, k) => {
		const [x, y, , w] = started.points[3 * k]!;
		return turnShare(Math.atan2(y / w - middle[1], x / w - middle[0]));
	});
	shares[0] = 0;
	shares[shares.length - 1] = 1;
	const rising = shares.every((share, k) => k === 0 || share > shares[k - 1]! + FOUND_SHARE);
	return rising ? { ...started, breaks: shares } : started;
}

/**
 * Corner to corner where all are of one kind; otherwise direction to direction.
 * @param outlines closed, anticlockwise, mm @returns the same curves with starts and breaks that correspond
 */
export function matchOutlines(outlines: readonly Outline[]): BezierChain[] {
	const chains = outlines.map(({ chain }) => chain);
	if (!outlines.every((one) => alike(one, outlines[0]!))) return chains.map(byDirection);
	const breaks = chains[0]?.breaks.map(
		(_, k) => chains.reduce((sum, chain) => sum + chain.breaks[k]!, 0) / chains.length
	);
	return breaks ? chains.map((chain) => ({ ...chain, breaks })) : [];
}
