import { partOfChain, type BezierChain } from '../geometry/path';
import { unweighted } from '../geometry/vector';
import { cornersOf } from './drawn-curve';

/** The stretches of a closed outline between its corners; one that is smooth all round is one stretch. */
export function sidesOf(chain: BezierChain): BezierChain[] {
	const pieces = chain.breaks.length - 1;
	const corners = cornersOf(chain);
	if (corners.length === 0) return [chain];
	// Start at a corner, so that no side runs over the chain's own start.
	const start = corners[0]!;
	const turned = startingAt(chain, start);
	const ends = [...corners.map((corner) => corner - start), pieces];
	return ends.slice(1).map((end, k) => partOfChain(turned, ends[k]!, end));
}

/** The same closed chain run from another of its breaks. */
function startingAt({ breaks, points }: BezierChain, start: number): BezierChain {
	if (start === 0) return { breaks, points };
	const shift = breaks[start]!;
	return {
		breaks: [
			...breaks.slice(start).map((t) => t - shift),
			...breaks.slice(1, start + 1).map((t) => t + 1 - shift)
		],
		points: [...points.slice(3 * start), ...points.slice(1, 3 * start + 1)]
	};
}

const compass = ['east', 'north', 'west', 'south'] as const;

/** What the sides of a building are called: by where they look, counted when several look the same way. */
export function compassNames(sides: readonly BezierChain[]): string[] {
	const looks = sides.map((side) => {
		const [from, to] = [unweighted(side.points[0]!), unweighted(side.points.at(-1)!)];
		// Outside of a counter-clockwise outline is to the right of its way.
		const angle = Math.atan2(-(to[0] - from[0]), to[1] - from[1]);
		return compass[((Math.round(angle / (Math.PI / 2)) % 4) + 4) % 4]!;
	});
	return looks.map((look, k) => {
		const same = looks.flatMap((other, n) => (other === look ? [n] : []));
		return same.length === 1 ? look : `${look} ${same.indexOf(k) + 1}`;
	});
}
