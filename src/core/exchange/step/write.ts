import type { Model } from '../../cladding/model';
import { followCurve } from '../../geometry/follow';
import type { Place } from '../../geometry/polygon';
import { transpose, type Surface } from '../../geometry/surface';
import { distance, type Vector } from '../../geometry/vector';
import type { Face } from '../../mass/face';
import { onFace } from '../../mass/trim/project';
import { keptRegions } from '../../measure/trimmed';
import type { PieceCorner } from '../../geometry/clip/clip-polygon';
import { headerOf, productOf } from './product';
import { DERIVED, enumeration, exactReal, text, told, type StepRef, type StepValue } from './text';
import { StepWriter } from './writer';

/** Knots, each once, with how often it stands. */
function knotLists(knots: Float64Array): { values: number[]; times: number[] } {
	const values: number[] = [];
	const times: number[] = [];
	for (const knot of knots) {
		if (values.at(-1) === knot) times[times.length - 1]!++;
		else {
			values.push(knot);
			times.push(1);
		}
	}
	return { values, times };
}

const integers = (values: readonly number[]) => told(values.map(String));
const reals = (values: readonly number[]) => told(values.map(exactReal));
const UNSPECIFIED = enumeration('UNSPECIFIED');
const TRUE = enumeration('T');
const FALSE = enumeration('F');

/** A rim of a surface, or a trim: control points with weights, and its knots. */
interface Rim {
	readonly degree: number;
	readonly knots: Float64Array;
	readonly net: Float64Array;
}

function rimOf(surface: Surface, row: number): Rim {
	const { degreeU, knotsU, countU, net } = surface;
	return { degree: degreeU, knots: knotsU, net: net.subarray(4 * row * countU, 4 * (row + 1) * countU) };
}

class FaceWriter {
	constructor(private readonly step: StepWriter) {}

	private point(x: number, y: number, z: number): StepRef {
		return this.step.once('CARTESIAN_POINT', text(''), reals([x, y, z]));
	}

	private curve({ degree, knots, net }: Rim): StepRef {
		const { values, times } = knotLists(knots);
		const points: StepValue[] = [];
		const weights: number[] = [];
		for (let k = 0; k < net.length; k += 4) {
			const w = net[k + 3]!;
			points.push(this.point(net[k]! / w, net[k + 1]! / w, net[k + 2]! / w));
			weights.push(w);
		}
		return this.step.onceComplex(
			'BOUNDED_CURVE()',
			`B_SPLINE_CURVE(${degree},${told(points)},${UNSPECIFIED},${FALSE},${FALSE})`,
			`B_SPLINE_CURVE_WITH_KNOTS(${integers(times)},${reals(values)},${UNSPECIFIED})`,
			'CURVE()',
			'GEOMETRIC_REPRESENTATION_ITEM()',
			`RATIONAL_B_SPLINE_CURVE(${reals(weights)})`,
			"REPRESENTATION_ITEM('')"
		);
	}

	private surface({ degreeU, degreeV, knotsU, knotsV, countU, countV, net }: Surface): StepRef {
		const [u, v] = [knotLists(knotsU), knotLists(knotsV)];
		const points: StepValue[] = [];
		const weights: StepValue[] = [];
		for (let i = 0; i < countU; i++) {
			const column: StepValue[] = [];
			const columnWeights: number[] = [];
			for (let j = 0; j < countV; j++) {
				const o = 4 * (j * countU + i);
				const w = net[o + 3]!;
				column.push(this.point(net[o]! / w, net[o + 1]! / w, net[o + 2]! / w));
				columnWeights.push(w);
			}
			points.push(column);
			weights.push(reals(columnWeights));
		}
		return this.step.addComplex(
			'BOUNDED_SURFACE()',
			`B_SPLINE_SURFACE(${degreeU},${degreeV},${told(points)},${UNSPECIFIED},${FALSE},${FALSE},${FALSE})`,
			`B_SPLINE_SURFACE_WITH_KNOTS(${integers(u.times)},${integers(v.times)},${reals(u.values)},${reals(v.values)},${UNSPECIFIED})`,
			'GEOMETRIC_REPRESENTATION_ITEM()',
			`RATIONAL_B_SPLINE_SURFACE(${told(weights)})`,
			"REPRESENTATION_ITEM('')",
			'SURFACE()'
		);
	}

	/** The rims of a surface in the order of its corners: foot, right, head, left; each from low to high. */
	private rims({ surface, closedAcross, closedUp }: Face): readonly [Rim, Rim, Rim, Rim] {
		const turned = transpose(surface);
		const [foot, left] = [rimOf(surface, 0), rimOf(turned, 0)];
		// On a ring both sides are one curve, run up and down.
		const head = closedUp ? foot : rimOf(surface, surface.countV - 1);
		const right = closedAcross ? left : rimOf(turned, surface.countU - 1);
		return [foot, right, head, left];
	}

	private vertexAt([x, y, z]: Vector): StepRef {
		return this.step.once('VERTEX_POINT', text(''), this.point(tidy(x), tidy(y), tidy(z)));
	}

	/** An edge along a curve, run forward or backward; nothing where it has no length (a pole). */
	private edge(curve: () => StepRef, from: Vector, to: Vector, forward: boolean, size: number): StepRef[] {
		if (size < 1e-6) return [];
		const [a, b] = [this.vertexAt(forward ? from : to), this.vertexAt(forward ? to : from)];
		const edge = this.step.once('EDGE_CURVE', text(''), a, b, curve(), TRUE);
		return [this.step.add('ORIENTED_EDGE', text(''), DERIVED, DERIVED, edge, forward ? TRUE : FALSE)];
	}

	/** The edges around a ring of corners: along rims of the surface, and along trims. */
	private loop(face: Face, rims: readonly Rim[], ring: readonly PieceCorner[]): StepRef {
		const edges: StepRef[] = [];
		const onTrim = (k: number) => ring[k % ring.length]!.corner.is === 'curve';
		// Start where a rim is left or met, or anywhere on a trim that meets none.
		const start = Math.max(
			0,
			ring.findIndex((_, k) => !onTrim(k))
		);
		for (let k = 0; k < ring.length;) {
			const [a, b] = [ring[(start + k) % ring.length]!, ring[(start + k + 1) % ring.length]!];
			const side = sideOf(face, a.at, b.at);
			if (side >= 0) {
				const size = distance(onFace(face, a.at), onFace(face, b.at)) + lineSize(face, a.at, b.at);
				const curve = () => this.curve(rims[side]!);
				edges.push(...this.edge(curve, onFace(face, a.at), onFace(face, b.at), side < 2, size));
				k++;
				continue;
			}
			const corners = [a];
			do corners.push(ring[(start + ++k) % ring.length]!);
			while (k < ring.length && onTrim(start + k) && sideOf(face, ...ends(ring, start + k)) < 0);
			const points = followPlaces(
				face,
				corners.map(({ at }) => at)
			);
			const [from, to] = [points[0]!, points.at(-1)!];
			edges.push(...this.edge(() => this.curve(polyline(points)), from, to, true, 1));
		}
		return this.step.add('EDGE_LOOP', text(''), edges);
	}

	/** A face, or each piece that trims leave of it. */
	faces(face: Face, name: string): StepRef[] {
		const rims = this.rims(face);
		const surface = this.surface(face.surface);
		return keptRegions(face).map(({ outline, openings }) => {
			const outer = this.step.add('FACE_OUTER_BOUND', text(''), this.loop(face, rims, outline), TRUE);
			const inner = openings.map((ring) =>
				this.step.add('FACE_BOUND', text(''), this.loop(face, rims, ring), TRUE)
			);
			return this.step.add('ADVANCED_FACE', text(name), [outer, ...inner], surface, TRUE);
		});
	}
}

/** Coordinates that differ only by rounding are written alike, so that edges share their ends (mm). */
const tidy = (value: number) => Math.round(value * 1e8) / 1e8 + 0;

const ends = (ring: readonly PieceCorner[], k: number) =>
	[ring[k % ring.length]!.at, ring[(k + 1) % ring.length]!.at] as const;

/** The rim that two places lie on: 0 foot, 1 right, 2 head, 3 left; -1 for none. */
function sideOf({ surface: { knotsU, knotsV } }: Face, [u, v]: Place, [p, q]: Place): number {
	const on = (a: number, b: number, line: number, size: number) =>
		Math.abs(a - line) < 1e-9 * size && Math.abs(b - line) < 1e-9 * size;
	const [left, right, foot, head] = [knotsU[0]!, knotsU.at(-1)!, knotsV[0]!, knotsV.at(-1)!];
	if (on(v, q, foot, head - foot) && p > u) return 0;
	if (on(u, p, right, right - left) && q > v) return 1;
	if (on(v, q, head, head - foot) && p < u) return 2;
	if (on(u, p, left, right - left) && q < v) return 3;
	return -1;
}

/** About how long the way between two places of a face is (mm). */
function lineSize(face: Face, [u, v]: Place, [p, q]: Place): number {
	const middle = onFace(face, [(u + p) / 2, (v + q) / 2]);
	return distance(onFace(face, [u, v]), middle);
}

/** Trims are written to within so many mm of what they are on the face. */
const WRITTEN_WITHIN = 0.02;

/** Points of a face along a line of places. */
function followPlaces(face: Face, places: readonly Place[]): Vector[] {
	const points: Vector[] = [onFace(face, places[0]!)];
	for (let k = 1; k < places.length; k++) {
		const [[u, v], [p, q]] = [places[k - 1]!, places[k]!];
		const evaluate = (at: readonly number[]) =>
			Float64Array.from(at.flatMap((t) => onFace(face, [u + t * (p - u), v + t * (q - v)])));
		points.push(...followCurve(evaluate, [0, 1], WRITTEN_WITHIN).slice(1));
	}
	return points;
}

/** Straight lines from point to point as a curve of degree 1. */
function polyline(points: readonly Vector[]): Rim {
	const at = points.map((_, k) => k);
	return {
		degree: 1,
		knots: Float64Array.from([0, ...at, at.length - 1]),
		net: Float64Array.from(points.flatMap((p) => [...p.map(tidy), 1]))
	};
}

/**
 * The faces of all masses as STEP (ISO 10303-21, AP242 managed model based 3D engineering): one open shell
 * for each mass, exact to the last digit but for trims, in millimetres.
 * @param written the file's time stamp, ISO 8601
 */
export function writeStep(model: Model, written: string): readonly Uint8Array<ArrayBuffer>[] {
	const { name } = model.project;
	const step = new StepWriter(headerOf('Faces of masses', `${name}.stp`, written));
	const shapeIs = productOf(step, name);
	const faces = new FaceWriter(step);
	const models = model.masses.flatMap((mass) => {
		const called = model.project.masses.find((one) => one.id === mass.id)?.name ?? mass.id;
		if (!mass.faces.length) return [];
		const made = mass.faces.flatMap((face) => faces.faces(face, `${called} · ${face.name}`));
		const shell = step.add('OPEN_SHELL', text(called), made);
		return [step.add('SHELL_BASED_SURFACE_MODEL', text(called), [shell])];
	});
	shapeIs('MANIFOLD_SURFACE_SHAPE_REPRESENTATION', models);
	return step.file();
}
