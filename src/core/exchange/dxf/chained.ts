import { distance, type Vector } from '../../geometry/vector';
import type { ReadCurve } from './read-curve';

/** Ends of curves by where they are, so that those at one place are found. */
class Ends {
	private readonly at = new Map<string, { curve: number; end: 0 | 1 }[]>();

	constructor(private readonly same: number) {}

	private *keysAround([x, y, z]: Vector): Generator<string> {
		const [i, j, k] = [x, y, z].map((one) => Math.floor(one / this.same)) as [number, number, number];
		for (const a of [-1, 0, 1])
			for (const b of [-1, 0, 1]) for (const c of [-1, 0, 1]) yield `${i + a} ${j + b} ${k + c}`;
	}

	put(point: Vector, curve: number, end: 0 | 1): void {
		const key = point.map((one) => Math.floor(one / this.same)).join(' ');
		const list = this.at.get(key) ?? [];
		this.at.set(key, list);
		list.push({ curve, end });
	}

	near(point: Vector, placeOf: (curve: number, end: 0 | 1) => Vector): { curve: number; end: 0 | 1 }[] {
		return [...this.keysAround(point)].flatMap((key) =>
			(this.at.get(key) ?? []).filter(({ curve, end }) => distance(placeOf(curve, end), point) < this.same)
		);
	}
}

/**
 * Open curves of a layer that meet end to end, joined to longer ones; where more than two meet each ends there.
 * @param same ends nearer than this (mm) are one
 */
export function chained(curves: readonly ReadCurve[], same: number): ReadCurve[] {
	const done: ReadCurve[] = [];
	for (const layer of new Set(curves.map((one) => one.layer))) {
		const own = curves.filter((one) => one.layer === layer);
		const isOpen = ({ closed, points }: ReadCurve) => !closed && points.length > 1;
		done.push(...own.filter((one) => !isOpen(one)));
		const open = own.filter(isOpen);
		const placeOf = (curve: number, end: 0 | 1) => open[curve]!.points.at(end ? -1 : 0)!;
		const ends = new Ends(same);
		open.forEach((_, k) => ([0, 1] as const).forEach((end) => ends.put(placeOf(k, end), k, end)));
		/** The other curve that goes on from an end, where there is just one. */
		const next = (curve: number, end: 0 | 1) => {
			const here = ends.near(placeOf(curve, end), placeOf);
			const other = here.find((one) => one.curve !== curve || one.end !== end);
			return here.length === 2 ? other! : null;
		};
		const used = new Set<number>();
		const walk = (first: number, end: 0 | 1): ReadCurve => {
			const points: Vector[] = [];
			let at: { curve: number; end: 0 | 1 } | null = { curve: first, end };
			while (at && !used.has(at.curve)) {
				used.add(at.curve);
				const run = open[at.curve]!.points;
				const onward = at.end === 0 ? run : [...run].reverse();
				points.push(...(points.length ? onward.slice(1) : onward));
				at = next(at.curve, at.end === 0 ? 1 : 0);
			}
			const closes = points.length > 3 && distance(points[0]!, points.at(-1)!) < same;
			return { layer, points: closes ? points.slice(0, -1) : points, closed: closes };
		};
		// From where a chain ends; what is left after that goes round.
		open.forEach((_, k) => {
			for (const end of [0, 1] as const) if (!used.has(k) && !next(k, end)) done.push(walk(k, end));
		});
		open.forEach((_, k) => {
			if (!used.has(k)) done.push(walk(k, 0));
		});
	}
	return done;
}
