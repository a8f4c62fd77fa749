import { boxOf, crosses, type Place } from './polygon';

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
export class TooIntricate extends Error {}

/** The first pair of segments that cross. @throws TooIntricate */
function firstCrossing(segments: Swept[], asked: (a: Swept, b: Swept) => boolean): [Swept, Swept] | null {
	segments.sort((a, b) => a.left - b.left);
	let pairs = 0;
	for (let i = 0; i < segments.length; i++) {
		const a = segments[i]!;
		for (let j = i + 1; j < segments.length; j++) {
			const b = segments[j]!;
			if (b.left > a.right) break;
			if (++pairs > MOST_PAIRS)
				throw new TooIntricate('it has too many corners that lie over each other; draw it with fewer');
			if (b.low > a.high || b.high < a.low || !asked(a, b)) continue;
			if (crosses(a.from, a.to, b.from, b.to)) return [a, b];
		}
	}
	return null;
}

/** Where a closed line crosses itself: the first corner of a piece that does, or null. @throws TooIntricate */
export function selfCrossing(line: readonly Place[]): Place | null {
	const n = line.length;
	const apart = (a: Swept, b: Swept) => {
		const steps = Math.abs(a.number - b.number);
		return steps > 1 && steps < n - 1;
	};
	return firstCrossing(swept(line, true, 0), apart)?.[0].from ?? null;
}

/** Whether a segment of one line crosses one of another. @throws TooIntricate */
export function linesCross(
	one: readonly Place[],
	oneClosed: boolean,
	other: readonly Place[],
	otherClosed: boolean
): boolean {
	const segments = [...swept(one, oneClosed, 0), ...swept(other, otherClosed, 1)];
	return firstCrossing(segments, (a, b) => a.of !== b.of) !== null;
}
