import { distinctKnots } from '../geometry/curve';
import type { Place } from '../geometry/polygon';
import { placeAt } from '../geometry/surface';
import { cross, distance, length, scale, type Vector } from '../geometry/vector';
import { NO_DIRECTION, SAME_SHARE } from '../geometry/tolerance';
import type { RimSide } from '../project/line-kinds';
import type { Face } from './face';
import { heldOn } from './trim/project';
import { planeThrough, sectionCurves } from './trim/section';
import type { Trim, TrimCurve } from './trim/trim';

/** A line in space with what is outside along it. */
export interface SurfaceLine {
	readonly points: readonly Vector[];
	/** Of each point, length 1. */
	readonly normals: readonly Vector[];
	/** The last point is joined to the first, which is not repeated. */
	readonly closed: boolean;
}

/** Points on a rim for every span of knots: chords of a quarter circle in so many are a 600,000th too short. */
const IN_A_SPAN = 512;
/** Points put in between two corners of a trim, which follow what was drawn already. */
const IN_A_SIDE = 3;
/** Ends no further apart than this are one (mm). */
const SAME = 0.5;

/** Places of a face in space, with what is outside there. */
export function pointsOn(face: Face, places: readonly Place[]): Pick<SurfaceLine, 'points' | 'normals'> {
	const points: Vector[] = [];
	const normals: Vector[] = [];
	for (const place of places) {
		const { point, du, dv } = placeAt(face.surface, ...(heldOn(face, place) as [number, number]));
		const normal = cross(du, dv);
		const size = length(normal);
		points.push(point);
		// At a pole the one before it stands.
		normals.push(size > NO_DIRECTION ? scale(normal, 1 / size) : (normals.at(-1) ?? [0, 0, 1]));
	}
	return { points, normals };
}

/** The straight way from place to place, in so many pieces each. */
function dense(places: readonly Place[], closed: boolean, pieces: number): Place[] {
	const sides = closed ? places.length : places.length - 1;
	const found: Place[] = [];
	for (let k = 0; k < sides; k++) {
		const [[ax, ay], [bx, by]] = [places[k]!, places[(k + 1) % places.length]!];
		for (let s = 0; s < pieces; s++)
			found.push([ax + ((bx - ax) * s) / pieces, ay + ((by - ay) * s) / pieces]);
	}
	return closed ? found : [...found, places.at(-1)!];
}

/** Runs of places that fulfil something. */
function runsOf(places: readonly Place[], stays: (place: Place) => boolean): Place[][] {
	const runs: Place[][] = [];
	let open = false;
	for (const place of places) {
		if (!stays(place)) open = false;
		else if (open) runs.at(-1)!.push(place);
		else {
			open = true;
			runs.push([place]);
		}
	}
	return runs.filter(({ length: count }) => count > 1);
}

/** The own rim of a face on a side, as far as its trims leave it. */
function ownRim(face: Face, side: Exclude<RimSide, 'trim' | 'face'>): SurfaceLine[] {
	const { surface, trims } = face;
	const level = side === 'foot' || side === 'head';
	if (level ? face.closedUp : face.closedAcross) return [];
	const closed = level ? face.closedAcross : face.closedUp;
	const along = distinctKnots(level ? surface.knotsU : surface.knotsV);
	const [low, high] = level
		? [surface.knotsV[0]!, surface.knotsV.at(-1)!]
		: [surface.knotsU[0]!, surface.knotsU.at(-1)!];
	const across = side === 'foot' || side === 'left' ? low : high;
	const corners = along.map((t): Place => (level ? [t, across] : [across, t]));
	const places = dense(corners, false, IN_A_SPAN);
	// A little within: trims may run along the rim itself.
	const nudged = across + (across === low ? 1 : -1) * 1e-6 * (high - low);
	const stays = ([u, v]: Place) => trims.every(({ keeps }) => (level ? keeps(u, nudged) : keeps(nudged, v)));
	const runs = runsOf(places, stays);
	const whole = runs.length === 1 && runs[0]!.length === places.length;
	return runs.map((run) => {
		const isClosed = whole && closed;
		return { ...pointsOn(face, isClosed ? run.slice(0, -1) : run), closed: isClosed };
	});
}

/** Curves on a face as lines in space, as far as they lie on it and trims leave them. */
function linesOn(face: Face, curves: readonly TrimCurve[], trims: readonly Trim[]): SurfaceLine[] {
	const { knotsU, knotsV } = face.surface;
	const isIn = (t: number, knots: Float64Array) => {
		const [low, high] = [knots[0]!, knots.at(-1)!];
		const room = SAME_SHARE * (high - low);
		return t >= low - room && t <= high + room;
	};
	// Curves that end at a rim go on a little beyond it.
	const onIt = ([u, v]: Place) => isIn(v, knotsV) && (face.closedAcross || isIn(u, knotsU));
	const stays = (place: Place) => onIt(place) && trims.every(({ keeps }) => keeps(...place));
	return curves.flatMap(({ places, run }): SurfaceLine[] => {
		const closed = run !== 'open';
		// What goes once round a ring comes back to its first corner a whole turn on.
		const turn = run === 'round' ? knotsU.at(-1)! - knotsU[0]! : 0;
		const way = Math.sign(places.at(-1)![0] - places[0]![0]);
		const whole = turn ? [...places, [places[0]![0] + way * turn, places[0]![1]] as Place] : places;
		const line = dense(whole, closed && !turn, IN_A_SIDE);
		const runs = runsOf(line, stays);
		const isWhole = runs.length === 1 && runs[0]!.length === line.length;
		return runs.map((one) => ({
			...pointsOn(face, isWhole && turn ? one.slice(0, -1) : one),
			closed: closed && isWhole
		}));
	});
}

const trimLines = (face: Face): SurfaceLine[] =>
	face.trims.flatMap(({ curves }, own) =>
		linesOn(
			face,
			curves,
			face.trims.filter((_, k) => k !== own)
		)
	);

/** Lines that go on where another ends, as one. */
function joined(lines: readonly SurfaceLine[]): SurfaceLine[] {
	const left = lines.filter(({ closed }) => !closed);
	const found: SurfaceLine[] = lines.filter(({ closed }) => closed);
	while (left.length) {
		let { points, normals } = left.shift()!;
		for (let going = true; going;) {
			going = false;
			for (const [k, next] of left.entries()) {
				const after = distance(points.at(-1)!, next.points[0]!) < SAME;
				if (!after && distance(next.points.at(-1)!, points[0]!) >= SAME) continue;
				const [first, second] = after ? [{ points, normals }, next] : [next, { points, normals }];
				points = [...first.points, ...second.points.slice(1)];
				normals = [...first.normals, ...second.normals.slice(1)];
				left.splice(k, 1);
				going = true;
				break;
			}
		}
		const closed = points.length > 3 && distance(points.at(-1)!, points[0]!) < SAME;
		found.push(
			closed
				? { points: points.slice(0, -1), normals: normals.slice(0, -1), closed }
				: { points, normals, closed }
		);
	}
	return found;
}

/**
 * The rims of faces on a side, from the left to the right and from the foot to the head, or along their openings; those
 * of faces that meet are one line.
 *
 * ```ts
 * const [eaves] = rimLines([face], 'foot');
 * ```
 */
export const rimLines = (faces: readonly Face[], side: Exclude<RimSide, 'face'>): SurfaceLine[] =>
	joined(faces.flatMap((face) => (side === 'trim' ? trimLines(face) : ownRim(face, side))));

/** Sections are followed to within so many mm. */
const SECTION_WITHIN = 0.5;

/**
 * Where a level plane cuts faces; what is cut of faces that meet is one line.
 *
 * ```ts
 * const [belt] = sectionLines([face], 4200);
 * ```
 * @param height mm
 */
export const sectionLines = (faces: readonly Face[], height: number): SurfaceLine[] =>
	joined(
		faces.flatMap((face) =>
			linesOn(
				face,
				sectionCurves(face, planeThrough([0, 0, height], [0, 0, 1]), SECTION_WITHIN).curves,
				face.trims
			)
		)
	);
