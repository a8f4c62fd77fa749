import DxfParser, {
	type IArcEntity,
	type ICircleEntity,
	type IEllipseEntity,
	type IEntity,
	type ILineEntity,
	type ILwpolylineEntity,
	type IPoint,
	type IPointEntity,
	type IPolylineEntity,
	type ISplineEntity
} from 'dxf-parser';
import { distinctKnots, evaluateCurve } from '../../geometry/curve';
import { distance, type Vector } from '../../geometry/vector';
import { chained } from './chained';
import type { ReadCurve } from './read-curve';

export interface ReadCurves {
	readonly curves: readonly ReadCurve[];
	/** What was not taken, and what was taken for granted, in sentences. */
	readonly told: readonly string[];
}

/** mm to a unit, by the numbers of units in the format's header ($INSUNITS); 0 says none. */
const units: Readonly<Record<number, number>> = { 1: 25.4, 2: 304.8, 4: 1, 5: 10, 6: 1000, 14: 100 };
/** Bows are drawn as lines that are nowhere further from them (mm). */
const SAG = 0.5;
/** Lines to a piece of a spline. */
const TO_A_PIECE = 12;
const MOST_POINTS = 20_000;
/** Places nearer than this (mm) are one. */
const SAME = 0.05;

const at = ({ x, y, z }: Partial<IPoint>, scale: number): Vector => [
	(x ?? 0) * scale,
	(y ?? 0) * scale,
	(z ?? 0) * scale
];

/** Places along a bow. @param from rad @param turn rad, anticlockwise; the last place is left out where it is whole */
function bow(centre: Vector, radius: number, from: number, turn: number): Vector[] {
	const isWhole = Math.abs(turn) > 2 * Math.PI - 1e-9;
	const step = 2 * Math.acos(Math.max(0, 1 - SAG / Math.max(radius, SAG)));
	const steps = Math.min(MOST_POINTS - 1, Math.max(isWhole ? 8 : 2, Math.ceil(Math.abs(turn) / step)));
	return Array.from({ length: isWhole ? steps : steps + 1 }, (_, k): Vector => {
		const angle = from + (turn * k) / steps;
		return [centre[0] + radius * Math.cos(angle), centre[1] + radius * Math.sin(angle), centre[2]];
	});
}

/** Corners joined by lines and bows; a bow's bulge is the tangent of a quarter of its turn. */
function polyline(
	corners: readonly (Partial<IPoint> & { bulge?: number })[],
	closed: boolean,
	height: number,
	scale: number
): Vector[] {
	const places = corners.map((corner) => at({ ...corner, z: corner.z ?? height }, scale));
	return corners.flatMap(({ bulge = 0 }, k): Vector[] => {
		const [p, q] = [places[k]!, places[(k + 1) % places.length]!];
		if (!bulge || (k + 1 === places.length && !closed)) return [p];
		const turn = 4 * Math.atan(bulge);
		const chord = Math.hypot(q[0] - p[0], q[1] - p[1]);
		const radius = chord / 2 / Math.sin(Math.abs(turn) / 2);
		const off = (Math.sign(bulge) * radius * Math.cos(turn / 2)) / chord;
		const middle: Vector = [
			(p[0] + q[0]) / 2 - (q[1] - p[1]) * off,
			(p[1] + q[1]) / 2 + (q[0] - p[0]) * off,
			p[2]
		];
		return bow(middle, radius, Math.atan2(p[1] - middle[1], p[0] - middle[0]), turn).slice(0, -1);
	});
}

function spline(entity: ISplineEntity, scale: number): Vector[] {
	const { controlPoints = [], fitPoints = [], knotValues = [], degreeOfSplineCurve: degree } = entity;
	const isWhole = controlPoints.length > degree && knotValues.length === controlPoints.length + degree + 1;
	if (!isWhole) return fitPoints.map((point) => at(point, scale));
	const net = Float64Array.from(controlPoints.flatMap((point) => [...at(point, scale), 1]));
	const knots = Float64Array.from(knotValues);
	const pieces = distinctKnots(knots.subarray(degree, knots.length - degree));
	const shares = pieces.flatMap((knot, k) => {
		const next = pieces[k + 1];
		if (next === undefined) return [knot];
		return Array.from({ length: TO_A_PIECE }, (_, n) => knot + ((next - knot) * n) / TO_A_PIECE);
	});
	const { points } = evaluateCurve({ degree, knots, net }, shares);
	return shares.map((_, k): Vector => [points[3 * k]!, points[3 * k + 1]!, points[3 * k + 2]!]);
}

function ellipse(entity: IEllipseEntity, scale: number): Vector[] {
	const centre = at(entity.center, scale);
	const major = at(entity.majorAxisEndPoint, scale);
	let turn = entity.endAngle - entity.startAngle;
	if (turn <= 0) turn += 2 * Math.PI;
	const unit = bow([0, 0, 0], Math.hypot(...major), entity.startAngle, turn);
	const size = Math.hypot(...major);
	return unit.map(([x, y]): Vector => {
		const [along, across] = [x / size, (y / size) * entity.axisRatio];
		return [
			centre[0] + along * major[0] - across * major[1],
			centre[1] + along * major[1] + across * major[0],
			centre[2] + along * major[2]
		];
	});
}

/** What entities are read as: their places, and whether they close; null for what is no line. */
function pointsOf(entity: IEntity, scale: number): { points: Vector[]; closed: boolean } | null {
	switch (entity.type) {
		case 'LINE':
			return { points: (entity as ILineEntity).vertices.map((one) => at(one, scale)), closed: false };
		case 'POINT':
			return { points: [at((entity as IPointEntity).position, scale)], closed: false };
		case 'LWPOLYLINE': {
			const { vertices, shape, elevation = 0 } = entity as ILwpolylineEntity;
			const flat = vertices.map(({ x, y, bulge }) => ({ x, y, bulge }));
			return { points: polyline(flat, Boolean(shape), elevation, scale), closed: Boolean(shape) };
		}
		case 'POLYLINE': {
			const { vertices, shape, is3dPolygonMesh, isPolyfaceMesh } = entity as IPolylineEntity;
			if (is3dPolygonMesh || isPolyfaceMesh) return null;
			return { points: polyline(vertices, Boolean(shape), 0, scale), closed: Boolean(shape) };
		}
		case 'ARC': {
			const { center, radius, startAngle, endAngle } = entity as IArcEntity;
			const turn = (((endAngle - startAngle) % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI);
			return { points: bow(at(center, scale), radius * scale, startAngle, turn), closed: false };
		}
		case 'CIRCLE': {
			const { center, radius } = entity as ICircleEntity;
			return { points: bow(at(center, scale), radius * scale, 0, 2 * Math.PI), closed: true };
		}
		case 'ELLIPSE': {
			const { startAngle, endAngle } = entity as IEllipseEntity;
			const closed = Math.abs(endAngle - startAngle - 2 * Math.PI) < 1e-6;
			return { points: ellipse(entity as IEllipseEntity, scale), closed };
		}
		case 'SPLINE': {
			const points = spline(entity as ISplineEntity, scale);
			const closes = points.length > 2 && distance(points[0]!, points.at(-1)!) < SAME;
			return { points: closes ? points.slice(0, -1) : points, closed: closes };
		}
		default:
			return null;
	}
}

/**
 * Handles of what is drawn on a plane that is seen from behind, or is inclined: its places are others then. The library
 * passes over that for some kinds, so that the pairs of code and value are looked through.
 */
function tilted(text: string): Set<string> {
	const found = new Set<string>();
	const lines = text.split(/\r?\n/);
	let [type, handle] = ['', ''];
	for (let k = 0; k + 1 < lines.length; k += 2) {
		const [code, value] = [Number(lines[k]), lines[k + 1]!.trim()];
		if (code === 0) [type, handle] = [value, ''];
		else if (code === 5) handle = value;
		// Lines and points are told in space, whatever plane they were drawn on.
		else if (code === 230 && Math.abs(Number(value) - 1) > 1e-9 && type !== 'LINE' && type !== 'POINT') {
			if (!handle)
				throw new Error(
					'things on inclined planes in it have no handles; save it in a newer version of the format'
				);
			found.add(handle);
		}
	}
	return found;
}

/**
 * Lines, bows, circles, splines and points of a drawing, those that meet end to end on one layer joined.
 *
 * ```ts
 * const { curves, told } = readDxfCurves('0\nSECTION\n2\nENTITIES\n0\nENDSEC\n0\nEOF\n');
 * ```
 * @throws Error with a sentence when there is nothing in it that can be taken
 */
export function readDxfCurves(text: string): ReadCurves {
	let read: ReturnType<DxfParser['parseSync']>;
	try {
		read = new DxfParser().parseSync(text);
	} catch (error) {
		throw new Error(`it is no DXF that can be read (${(error as Error).message})`, { cause: error });
	}
	if (!read) throw new Error('it is no DXF that can be read');
	const told: string[] = [];
	const unit = Number(read.header['$INSUNITS'] ?? 0);
	const scale = units[unit] ?? 1;
	if (!units[unit]) told.push('it does not say its unit; millimetres are taken');
	const inclined = tilted(text);
	const left = new Map<string, number>();
	const curves: ReadCurve[] = [];
	for (const entity of read.entities) {
		const found = inclined.has(String(entity.handle)) ? null : pointsOf(entity, scale);
		const points = (found?.points ?? []).filter(
			(point, k, all) => !k || distance(point, all[k - 1]!) >= SAME
		);
		if (!found || !points.length || !points.flat().every(Number.isFinite)) {
			left.set(entity.type, (left.get(entity.type) ?? 0) + 1);
			continue;
		}
		if (points.length > MOST_POINTS)
			throw new Error(
				`a line on the layer ${entity.layer} has ${points.length} points; ${MOST_POINTS} can be taken`
			);
		curves.push({ layer: entity.layer, points, closed: found.closed && points.length > 2 });
	}
	for (const [type, count] of left) told.push(`${count} ${type} not taken`);
	if (!curves.length) throw new Error(`there are no lines in it. ${told.join('; ')}`);
	return { curves: chained(curves, SAME), told };
}
