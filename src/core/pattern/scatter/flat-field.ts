import type { Place } from '../../geometry/polygon';
import type { NodeGrid, Spread } from '../../grid/node-grid';

/**
 * What a grid covers of its face, laid out as a rectangle by the lengths of its belt lines (mm); rings go on beyond its
 * sides.
 */
export interface FlatField {
	readonly width: number;
	readonly height: number;
	readonly across: Spread;
	readonly up: Spread;
}

export function flatField({ across, up }: NodeGrid): FlatField {
	const covered = ({ division: { fractions } }: Spread) => fractions.at(-1)! - fractions[0]!;
	const fromZero = (spread: Spread): Spread => {
		const [first, whole] = [spread.division.fractions[0]!, covered(spread)];
		const fractions = spread.division.fractions.map((one) => (one - first) / whole);
		return { ...spread, division: { ...spread.division, fractions } };
	};
	return {
		width: covered(across) * across.lengths.belt,
		height: covered(up) * up.lengths.belt,
		across: fromZero(across),
		up: fromZero(up)
	};
}

/** From a place of the field to lattice coordinates. */
export function toLattice({ width, height, across, up }: FlatField): (place: Place) => Place {
	const along = (share: number, { closed, steps, division: { fractions } }: Spread) => {
		const turns = closed ? Math.floor(share) : 0;
		const rest = Math.min(1, Math.max(0, share - turns));
		let low = 0;
		let high = steps - 1;
		while (low < high) {
			const middle = (low + high + 1) >> 1;
			if (fractions[middle]! <= rest) low = middle;
			else high = middle - 1;
		}
		return turns * steps + low + (rest - fractions[low]!) / (fractions[low + 1]! - fractions[low]!);
	};
	return ([x, y]) => [along(x / width, across), along(y / height, up)];
}

/** From lattice coordinates to a place of the field. */
export function toField({ width, height, across, up }: FlatField): (place: Place) => Place {
	const along = (at: number, { closed, steps, division: { fractions } }: Spread) => {
		const turns = closed ? Math.floor(at / steps) : 0;
		const rest = at - turns * steps;
		const step = Math.min(steps - 1, Math.max(0, Math.floor(rest)));
		return turns + fractions[step]! + (rest - step) * (fractions[step + 1]! - fractions[step]!);
	};
	return ([i, j]) => [width * along(i, across), height * along(j, up)];
}

/** At a pole nothing is left of a width. */
const LEAST_WIDTH = 0.02;

/** From places of the field to others as wide as the face is at their height, and back: there lengths across are true. */
export function trueWidths(
	{ width, height, across, up }: FlatField,
	courseLengths: Float64Array
): { readonly to: (place: Place) => Place; readonly from: (place: Place) => Place } {
	const longest = courseLengths.reduce((a, b) => Math.max(a, b), 0);
	const isEven = courseLengths.every((one) => one > (1 - 1e-9) * longest);
	if (isEven || !(longest > 0)) return { to: (place) => place, from: (place) => place };
	const rows = up.division.fractions;
	// Straight from row to row, as rims are.
	const shares = courseLengths.map((one) => Math.max(LEAST_WIDTH, one / across.lengths.belt));
	const shareAt = (y: number) => {
		const t = y / height - (up.closed ? Math.floor(y / height) : 0);
		let row = 0;
		while (row < up.steps - 1 && rows[row + 1]! < t) row++;
		const s = Math.min(1, Math.max(0, (t - rows[row]!) / (rows[row + 1]! - rows[row]!)));
		return shares[row]! + s * (shares[(row + 1) % shares.length]! - shares[row]!);
	};
	const middle = width / 2;
	return {
		to: ([x, y]) => [middle + (x - middle) * shareAt(y), y],
		from: ([x, y]) => [middle + (x - middle) / shareAt(y), y]
	};
}

/** How far what lies over a seam is moved to be seen on its other side too (mm). */
export function overSeams({ width, height, across, up }: FlatField): Place[] {
	const shifts = (size: number, closed: boolean) => (closed ? [0, -size, size] : [0]);
	return shifts(height, up.closed).flatMap((dy) => shifts(width, across.closed).map((dx): Place => [dx, dy]));
}
