import { crossingsAbove, polygonArea, type Place } from '../../geometry/polygon';
import type { Surface } from '../../geometry/surface';

/** A curve on a face, in its parameters; what is kept lies to the left of it. */
export interface TrimCurve {
	/** u v of its corners, none repeated. On a ring u may run beyond the surface's own ends. */
	readonly places: readonly Place[];
	/** Which of them are corners of what was drawn; the others follow something smooth. */
	readonly sharp: readonly boolean[];
	/** It meets itself, goes once round the ring, or runs from rim to rim (and a little beyond). */
	readonly run: 'closed' | 'round' | 'open';
}

/** What cuts a face, and which places of it are left. */
export interface Trim {
	/** The path of its clause. */
	readonly at: string;
	readonly curves: readonly TrimCurve[];
	/** How closely the curves follow what was drawn (mm). */
	readonly within: number;
	/** Whether a place that no curve runs through is left. */
	readonly keeps: (u: number, v: number) => boolean;
	/** It takes a piece out of the middle, rather than to say where the face ends. */
	readonly opening: boolean;
}

/** The part of a face that trims are made on. */
export interface TrimmedFace {
	readonly name: string;
	readonly surface: Surface;
	readonly closedAcross: boolean;
}

/** A curve once more for every way that it is met on a ring. */
export interface CurveCopy {
	readonly places: readonly Place[];
	/** Whether the last corner is joined to the first. */
	readonly closed: boolean;
	/** What was added to u of corner k of the curve: corner `k % places.length` of the curve itself. */
	readonly shifts: readonly number[];
}

/**
 * @param period of the ring, in the unit of x; 0 for a face that is none
 *
 * ```ts
 * const copies = copiesOf(trimCurve, 1); // where a face goes round, once for each time
 * ```
 */
export function copiesOf({ places, run }: Pick<TrimCurve, 'places' | 'run'>, period: number): CurveCopy[] {
	const shifts = period ? [-period, 0, period] : [0];
	const moved = (shift: number) => places.map(([x, y]): Place => [x + shift, y]);
	if (run !== 'round')
		return shifts.map((shift) => ({
			places: moved(shift),
			closed: run === 'closed',
			shifts: places.map(() => shift)
		}));
	const forward = places.at(-1)![0] >= places[0]![0];
	const ordered = forward ? shifts : [...shifts].reverse();
	return [
		{
			places: ordered.flatMap(moved),
			closed: false,
			shifts: ordered.flatMap((shift) => places.map(() => shift))
		}
	];
}

/** Length of the parameter across of a ring, 0 for a face that is none. */
export const periodOf = ({ surface, closedAcross }: TrimmedFace): number =>
	closedAcross ? surface.knotsU.at(-1)! - surface.knotsU[0]! : 0;

/** Whether a place lies within a closed curve, or below one that goes round, given once for every way it is met. */
function isInside(copies: readonly CurveCopy[], place: Place): boolean {
	let above = 0;
	for (const { places, closed } of copies) above += crossingsAbove(places, closed, place);
	return above % 2 === 1;
}

/** A trim of one closed curve, or one that goes round; `kept` lies to its left as it is given. */
export function curveTrim(at: string, curve: TrimCurve, within: number, period: number): Trim {
	const { places, run } = curve;
	const left = run === 'closed' ? polygonArea(places) > 0 : places.at(-1)![0] < places[0]![0];
	const copies = copiesOf(curve, period);
	return {
		at,
		curves: [curve],
		within,
		opening: run === 'closed' && !left,
		keeps: (u, v) => isInside(copies, [u, v]) === left
	};
}

/** The same curve the other way round. */
export const reversed = (curve: TrimCurve): TrimCurve => ({
	...curve,
	places: [...curve.places].reverse(),
	sharp: [...curve.sharp].reverse()
});
