import { distinctKnots } from '../geometry/curve';
import { sampleLine, type Surface } from '../geometry/surface';
import { lengthTable, lengthTo, lineLength, parametersAt, type LengthTable } from '../geometry/true-length';
import type { Spacing } from '../project/setting-out-schema';
import type { LineLengths } from './spacing';
import { POLE } from '../geometry/tolerance';

/** The parameter halfway between the ends of a knot vector. */
export function middleOf(knots: Float64Array): number {
	return (knots[0]! + knots.at(-1)!) / 2;
}

/**
 * The line in the middle of a face that runs in one direction, by its true length; where it ends in a pole,
 * a hole may be left round it.
 */
export class Belt {
	private readonly table: LengthTable;
	readonly whole: number;
	/** Left out at its two ends (mm). */
	readonly from: number;
	readonly length: number;

	/** @param surface the belt is its line u across, at the middle of v */
	constructor(
		readonly surface: Surface,
		holes: { readonly first: number; readonly last: number }
	) {
		this.table = lengthTable(surface, [middleOf(surface.knotsV)]);
		this.whole = lineLength(this.table, 0);
		this.from = holes.first;
		this.length = this.whole - holes.first - holes.last;
	}

	/** Parameters at ascending shares of what is not left out. */
	parameters(shares: ArrayLike<number>): Float64Array {
		const out = new Float64Array(shares.length);
		const own = Float64Array.from(shares, (share) => (this.from + share * this.length) / this.whole);
		parametersAt(this.table, 0, own, out, 0);
		return out;
	}

	/** From where the belt begins to a parameter (mm). */
	lengthTo(u: number): number {
		return lengthTo(this.table, 0, u) - this.from;
	}

	/** Where the belt crosses heights: mm from its beginning, ascending; those it does not meet are left out. */
	heights(wanted: readonly number[]): number[] {
		const { knotsU, knotsV } = this.surface;
		const steps = 512;
		const us = Array.from(
			{ length: steps + 1 },
			(_, k) => knotsU[0]! + (k / steps) * (knotsU.at(-1)! - knotsU[0]!)
		);
		const z = (at: readonly number[]) => {
			const { points } = sampleLine(this.surface, { v: middleOf(knotsV) }, at);
			return at.map((_, k) => points[3 * k + 2]!);
		};
		const zs = z(us);
		const found: number[] = [];
		for (const height of wanted)
			for (let k = 0; k < steps; k++) {
				if (zs[k]! < height === zs[k + 1]! < height) continue;
				let [low, high] = [us[k]!, us[k + 1]!];
				const rises = zs[k + 1]! > zs[k]!;
				for (let round = 0; round < 50; round++) {
					const middle = (low + high) / 2;
					if (z([middle])[0]! < height === rises) low = middle;
					else high = middle;
				}
				found.push(this.lengthTo((low + high) / 2));
			}
		return found.sort((a, b) => a - b);
	}
}

/**
 * Lengths of the lines in one direction: the belt line, and, where a largest size has to hold, the longest
 * of a sample.
 */
export function lengthsOf(surface: Surface, belt: Belt, by: Spacing['by']): LineLengths {
	if (by !== 'at most') return { belt: belt.length, longest: belt.length };
	const knots = distinctKnots(surface.knotsV);
	const at = new Set<number>();
	for (let k = 0; k + 1 < knots.length; k++)
		for (let s = 0; s <= 4; s++) at.add(knots[k]! + (s / 4) * (knots[k + 1]! - knots[k]!));
	const table = lengthTable(surface, [...at]);
	let longest = belt.length;
	for (let j = 0; j < table.lines; j++)
		longest = Math.max(longest, lineLength(table, j) - (belt.whole - belt.length));
	return { belt: belt.length, longest };
}

/** Whether the course lines at the foot and the head of a surface are points. */
export function polesOf(surface: Surface): { foot: boolean; head: boolean } {
	const ends = lengthTable(surface, [surface.knotsV[0]!, surface.knotsV.at(-1)!]);
	return { foot: lineLength(ends, 0) < POLE, head: lineLength(ends, 1) < POLE };
}
