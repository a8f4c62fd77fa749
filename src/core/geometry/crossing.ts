import { boxOf, crosses, type Place } from './polygon';
import { CodedError } from '../units/coded-error';

/** Segments by their left ends, so that only those that lie over each other are looked at. */
interface Swept {
	readonly from: Place;
	readonly to: Place;
	readonly left: number;
	readonly right: number;
	readonly low: number;
	readonly high: number;
	readonly of: 0 | 1;
	readonly number: number;
}

function swept(line: readonly Place[], closed: boolean, of: 0 | 1): Swept[] {
	const count = closed ? line.length : line.length - 1;
	return Array.from({ length: Math.max(0, count) }, (_, number) => {
		const from = line[number]!;
		const to = line[(number + 1) % line.length]!;
		const { low, high } = boxOf([from, to]);
		return { from, to, left: low[0], right: high[0], low: low[1], high: high[1], of, number };
	});
}

/** Pairs that are looked at before a drawing is given up as too intricate. */
const MOST_PAIRS = 50_000_000;
/**
 * ```ts
 * if (error instanceof TooIntricate) tell(error.message);
 * ```
 */
export class TooIntricate extends CodedError {
	readonly code = 'drawing.too-intricate';
}

/** The first pair of segments that meet, as it is asked of those that lie over each other. @throws TooIntricate */
function firstMeeting(
	segments: Swept[],
	asked: (a: Swept, b: Swept) => boolean,
	slack = 0
): [Swept, Swept] | null {
	segments.sort((a, b) => a.left - b.left);
	let pairs = 0;
	for (let i = 0; i < segments.length; i++) {
		const a = segments[i]!;
		for (let j = i + 1; j < segments.length; j++) {
			const b = segments[j]!;
			if (b.left > a.right + slack) break;
			if (++pairs > MOST_PAIRS)
				throw new TooIntricate('it has too many corners that lie over each other; draw it with fewer');
			if (b.low > a.high + slack || b.high < a.low - slack) continue;
			if (asked(a, b)) return [a, b];
		}
	}
	return null;
}

/**
 * Where a closed line crosses itself: the first corner of a piece that does, or null.
 *
 * ```ts
 * selfCrossing([[0, 0], [2, 2], [2, 0], [0, 2]]); // 0, 0
 * ```
 * @throws TooIntricate
 */
export function selfCrossing(line: readonly Place[]): Place | null {
	const n = line.length;
	const cross = (a: Swept, b: Swept) => {
		const steps = Math.abs(a.number - b.number);
		return steps > 1 && steps < n - 1 && crosses(a.from, a.to, b.from, b.to);
	};
	return firstMeeting(swept(line, true, 0), cross)?.[0].from ?? null;
}

/** How far a place is from a segment. */
function off(a: Place, b: Place, p: Place): number {
	const [x, y] = [b[0] - a[0], b[1] - a[1]];
	const share = ((p[0] - a[0]) * x + (p[1] - a[1]) * y) / (x * x + y * y || 1);
	const t = Math.min(1, Math.max(0, share));
	return Math.hypot(p[0] - a[0] - t * x, p[1] - a[1] - t * y);
}

/**
 * Whether one line crosses another, or comes within so much of it.
 *
 * ```ts
 * linesMeet([[0, 0], [2, 2]], false, [[0, 2], [2, 0]], false, 1e-9); // true
 * ```
 * @throws TooIntricate
 */
export function linesMeet(
	one: readonly Place[],
	oneClosed: boolean,
	other: readonly Place[],
	otherClosed: boolean,
	within: number
): boolean {
	const meet = (a: Swept, b: Swept) =>
		a.of !== b.of &&
		(crosses(a.from, a.to, b.from, b.to) ||
			off(a.from, a.to, b.from) <= within ||
			off(a.from, a.to, b.to) <= within ||
			off(b.from, b.to, a.from) <= within ||
			off(b.from, b.to, a.to) <= within);
	return firstMeeting([...swept(one, oneClosed, 0), ...swept(other, otherClosed, 1)], meet, within) !== null;
}
