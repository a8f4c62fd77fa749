import { inRadians } from '../../units/scale';
import { followChain, sharpCorners } from '../../geometry/follow';
import type { BezierChain } from '../../geometry/path';
import { polygonArea, type Place } from '../../geometry/polygon';
import { add, distance, scale, unweighted, type Vector } from '../../geometry/vector';
import type { TrimDefinition, TrimOf } from '../../project/form-schema';
import { refuse } from '../../units/problem';
import { formatNumber } from '../../units/quantity';
import { cornersOf, outlineChain } from '../drawn-curve';
import { fixedHeight } from '../levels';
import { chainOf } from '../path';
import { flatPlaces } from './flat';
import { closedOutside, sharesOf, WHOLE, withinReach } from './beyond';
import {
	followOnFace,
	isBeside,
	nearestOnFace,
	projectAlong,
	projectNearest,
	sightOf,
	type Line,
	type OutlineOnFace
} from './project';
import { besideMass, turnedRound } from './beside-mass';
import { planeThrough, sectionCurves } from './section';
import { curveTrim, periodOf, reversed, type Trim, type TrimCurve, type TrimmedFace } from './trim';
import { NO_DIRECTION, SAME_POINT } from '../../geometry/tolerance';

/**
 * A curve that keeps what lies within or outside it; of one that goes once round a ring, what lies towards the
 * foot counts as within, of one that runs from side to side what the face's first corner lies in.
 */
function opened(
	face: TrimmedFace,
	at: string,
	{ keep, within }: Pick<TrimOf<'outline'>, 'keep' | 'within'>,
	outline: Followed,
	{ places, source }: OutlineOnFace
): Trim {
	const left = keep === 'inside';
	const period = periodOf(face);
	const sharp = source.map((k) => k >= 0 && outline.sharp[k]!);
	const drawn = outline.closed ? closedCurve(places, sharp, period) : sideToSide(face, places, sharp, at);
	const curve = withinReach(face, drawn, period);
	if (!curve)
		return refuse(
			at,
			`the outline lies beside ${face.name} or all round it; move it so that it runs over the face`
		);
	const asWanted = (curve.run === 'round' ? turnOf(places) < 0 : polygonArea(curve.places) > 0) === left;
	const trim = curveTrim(at, asWanted ? curve : reversed(curve), within, period);
	return { ...trim, opening: trim.opening && !curve.places.some((place) => isBeside(face, place)) };
}

const turnOf = (places: readonly Place[]) => places.at(-1)![0] - places[0]![0];

function closedCurve(places: readonly Place[], sharp: readonly boolean[], period: number): TrimCurve {
	const round = period > 0 && Math.abs(turnOf(places)) > period / 2;
	return { places, run: round ? 'round' : 'closed', sharp };
}

/** An open curve goes on straight over the rims of its face, and round outside it. */
function sideToSide(
	face: TrimmedFace,
	places: readonly Place[],
	sharp: readonly boolean[],
	at: string
): TrimCurve {
	if (face.closedAcross)
		refuse(at, `${face.name} is a ring, which an open curve does not part; close the curve`);
	const { to, from } = sharesOf(face);
	const closed = closedOutside(places.map(to), WHOLE).map(from);
	return { places: closed, run: 'closed', sharp: closed.map((_, k) => sharp[k] ?? false) };
}

/** A line, and which of its points are corners that were drawn. */
interface Followed extends Line<Vector> {
	readonly sharp: readonly boolean[];
}

function follow(chain: BezierChain, within: number, closed = true): Followed {
	const points = followChain(chain, within, closed);
	const drawn = cornersOf(chain).map((k) => unweighted(chain.points[3 * k]!));
	return {
		points,
		closed,
		sharp: points.map((p) => drawn.some((corner) => distance(corner, p) < SAME_POINT))
	};
}

function cutOff(face: TrimmedFace, trim: TrimOf<'plane' | 'level'>, at: string): Trim {
	const level = trim.by === 'level';
	const ahead = trim.keep === 'ahead' || trim.keep === 'above';
	const normal: Vector = level ? [0, 0, 1] : trim.normal;
	if (!(Math.hypot(...normal) > NO_DIRECTION))
		refuse(`${at}/normal`, 'the direction is nothing; give it a length');
	const origin: Vector = level ? [0, 0, fixedHeight(trim.height)] : trim.at;
	const plane = planeThrough(origin, ahead ? normal : scale(normal, -1));
	const section = sectionCurves(face, plane, trim.within);
	if (section.curves.length === 0) {
		const [low, high] = [section.low, section.high].map((value) => formatNumber(Math.round(value)));
		return refuse(
			at,
			level
				? `the level does not meet ${face.name}, which lies between ${formatNumber(Math.round(origin[2] + Math.min(...heights(section, ahead))))} and ${formatNumber(Math.round(origin[2] + Math.max(...heights(section, ahead))))} mm; move it there`
				: `the plane does not meet ${face.name}, which lies ${low} to ${high} mm ahead of it; move it there`
		);
	}
	return cutAlong(section, trim.within, at, false);
}

/** A face cut where something that parts space meets it: what is ahead is left. */
const cutAlong = ({ curves, ahead }: Section, within: number, at: string, opening: boolean): Trim => ({
	at,
	curves,
	within,
	opening,
	keeps: (u, v) => ahead.of([u, v]) > 0
});
type Section = ReturnType<typeof sectionCurves>;

/** What a mass leaves of a face that it meets. */
export type LeftByMass = Trim | 'all of it' | 'nothing';

/**
 * The curves along which another mass meets a face.
 * @param faces of the other mass, as its form makes them
 */
export function trimByMass(
	face: TrimmedFace,
	{ keep, within }: TrimOf<'mass'>,
	faces: readonly TrimmedFace[],
	at: string
): LeftByMass {
	refuseFiner(within, at);
	const beside = besideMass(faces);
	const section = sectionCurves(face, keep === 'outside' ? beside : turnedRound(beside), within);
	if (section.curves.length === 0) return section.high > 0 ? 'all of it' : 'nothing';
	const isOpening = keep === 'outside' && section.curves.every(({ run }) => run === 'closed');
	return cutAlong(section, within, at, isOpening);
}

const heights = ({ low, high }: { low: number; high: number }, ahead: boolean) =>
	ahead ? [low, high] : [-low, -high];

/** Finer than anything is cut; finer still would only make more corners. */
const FINEST_WITHIN = 0.1;

function refuseFiner(within: number, at: string): void {
	if (!(within >= FINEST_WITHIN))
		refuse(
			`${at}/within`,
			`curves are followed to within ${within} mm; ${FINEST_WITHIN} mm or more is accepted`
		);
}

/** A trim that says all by itself. */
export type OwnTrim = Exclude<TrimDefinition, { by: 'mass' }>;

/** The curves that a trim cuts into a face. @throws ProblemError where it cannot be made */
export function trimOf(face: TrimmedFace, trim: OwnTrim, at: string): Trim {
	const { within } = trim;
	refuseFiner(within, at);
	switch (trim.by) {
		case 'outline': {
			const sight = sightOf(trim.direction, trim.turn, `${at}/direction`);
			const outline = follow(outlineChain(trim.outline, `${at}/outline`), within);
			const points = outline.points.map(([x, y]) => add(trim.at, add(scale(sight.x, x), scale(sight.y, y))));
			return opened(face, at, trim, outline, projectAlong(face, { points, closed: true }, sight, within, at));
		}
		case 'curve': {
			const outline = follow(chainOf(trim.curve, `${at}/curve`), within, trim.curve.closed);
			const onFace = trim.direction
				? projectAlong(face, outline, sightOf(trim.direction, 0, `${at}/direction`), within, at)
				: projectNearest(face, outline, within);
			return opened(face, at, trim, outline, onFace);
		}
		case 'map': {
			const outline = follow(outlineChain(trim.outline, `${at}/outline`), within);
			const turn = inRadians(trim.turn);
			const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
			const flat = outline.points.map(([x, y]): Place => [
				trim.at[0] + cos * x - sin * y,
				trim.at[1] + sin * x + cos * y
			]);
			const middle = (a: Place, b: Place): Place => [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
			const line = { points: flat, closed: true };
			return opened(face, at, trim, outline, followOnFace(face, line, middle, flatPlaces(face), within));
		}
		case 'plane':
		case 'level':
			return cutOff(face, trim, at);
	}
}

/** Share of the parameters within which a curve counts as running along a rim. */
const RIM = 1e-7;

/** How closely the ends of a form's own faces are followed (mm). */
export const END_WITHIN = 1;

/** Where a face ends within its patch; what follows the patch's own rims says nothing. */
export function endsOf(face: TrimmedFace, ends: readonly (readonly Vector[])[], at: string): Trim[] {
	const { knotsU, knotsV } = face.surface;
	const period = periodOf(face);
	const onRim = (t: number, knots: Float64Array) => {
		const size = knots.at(-1)! - knots[0]!;
		return Math.min(Math.abs(t - knots[0]!), Math.abs(t - knots.at(-1)!)) < RIM * size;
	};
	return ends.flatMap((points) => {
		// The first point once more shows whether the curve goes round.
		const places = nearestOnFace(face, [...points, points[0]!]);
		const turns = period ? Math.round((places.at(-1)![0] - places[0]![0]) / period) : 0;
		const own = places.slice(0, -1);
		const isOnRim = ([u, v]: Place) => onRim(v, knotsV) || (!period && onRim(u, knotsU));
		const along = own.every(([u, v], k) => {
			const [p, q] = places[k + 1]!;
			return isOnRim([u, v]) && isOnRim([(u + p) / 2, (v + q) / 2]);
		});
		if (along) return [];
		const curve: TrimCurve = { places: own, run: turns ? 'round' : 'closed', sharp: sharpCorners(points) };
		return [curveTrim(at, curve, END_WITHIN, period)];
	});
}
