import { evaluateCurve } from '../../geometry/curve';
import { evaluateGrid, turnOutside, type Surface } from '../../geometry/surface';
import { add, cross, dot, length, scale, subtract, type Vector } from '../../geometry/vector';
import { FaceFault, RIM, planePatch, roundPatch, turnedPatch, type Frame } from './analytic-patches';
import { StepFault, StepFile, type ReadProgress, type StepRecord, type StepValue } from './part21';

/** A face that was taken, in mm. */
export interface ReadFace {
	readonly name: string;
	readonly surface: Surface;
}

export interface ReadFaces {
	readonly faces: readonly ReadFace[];
	/** What was not taken, each with its entity, number and line. */
	readonly refused: readonly string[];
}

const isList = (value: StepValue | undefined): value is readonly StepValue[] => Array.isArray(value);
function refOf(value: StepValue | undefined): number {
	if (typeof value === 'object' && value !== null && 'ref' in value) return value.ref;
	throw new FaceFault('a reference is missing');
}
function numberAt(value: StepValue | undefined): number {
	if (typeof value === 'number') return value;
	throw new FaceFault('a number is missing');
}
const numbers = (value: StepValue | undefined) => (isList(value) ? value : []).map(numberAt);
const nameOf = (value: StepValue | undefined) =>
	typeof value === 'object' && value !== null && 'text' in value ? value.text : '';
const isTrue = (value: StepValue | undefined) =>
	typeof value === 'object' && value !== null && 'name' in value && value.name === 'T';

function expandKnots(times: readonly number[], values: readonly number[]): Float64Array {
	return Float64Array.from(values.flatMap((value, k) => new Array<number>(times[k] ?? 0).fill(value)));
}

/** Reads the faces of one file. */
class FaceReader {
	/** Millimetres to the file's unit of length. */
	private readonly unit: number;

	constructor(private readonly file: StepFile) {
		this.unit = this.lengthUnit();
	}

	private record(id: number, type?: string): StepRecord {
		const records = this.file.records(id);
		const found = type ? records.find((one) => one.type === type) : records[0];
		if (!found) throw new FaceFault(`#${id} is no ${type}`);
		return found;
	}

	/** The unit of the first context: millimetres, metres, centimetres, or inches and feet by conversion. */
	private lengthUnit(): number {
		const prefixes: Record<string, number> = { MILLI: 1, CENTI: 10, DECI: 100, KILO: 1e6 };
		for (const id of this.file.ids('')) {
			const records = this.file.records(id);
			if (!records.some((one) => one.type === 'LENGTH_UNIT')) continue;
			const si = records.find((one) => one.type === 'SI_UNIT');
			if (si) {
				const [prefix] = si.values;
				const name = typeof prefix === 'object' && prefix !== null && 'name' in prefix ? prefix.name : '';
				return name ? (prefixes[name] ?? 1) : 1000;
			}
			const converted = records.find((one) => one.type === 'CONVERSION_BASED_UNIT');
			const unit = nameOf(converted?.values[0]).toUpperCase();
			if (unit.includes('INCH')) return 25.4;
			if (unit.includes('FOOT') || unit.includes('FEET')) return 304.8;
		}
		return 1;
	}

	private point(id: number): Vector {
		const [x = 0, y = 0, z = 0] = numbers(this.record(id, 'CARTESIAN_POINT').values[1]);
		return [x * this.unit, y * this.unit, z * this.unit];
	}

	private direction(value: StepValue | undefined, otherwise: Vector): Vector {
		if (value === null || value === undefined) return otherwise;
		const [x = 0, y = 0, z = 0] = numbers(this.record(refOf(value), 'DIRECTION').values[1]);
		const size = Math.hypot(x, y, z);
		if (!(size > 0)) throw new FaceFault('a direction is nothing');
		return [x / size, y / size, z / size];
	}

	private frame(id: number): Frame {
		const { values } = this.record(id, 'AXIS2_PLACEMENT_3D');
		const z = this.direction(values[2], [0, 0, 1]);
		const wanted = this.direction(values[3], Math.abs(z[0]) > 0.9 ? [0, 1, 0] : [1, 0, 0]);
		const across = subtract(wanted, scale(z, dot(wanted, z)));
		const x = scale(across, 1 / length(across));
		return { origin: this.point(refOf(values[1])), x, y: cross(z, x), z };
	}

	/** Every face of the file, whole ones taken and the others told. */
	async faces(progress: ReadProgress): Promise<ReadFaces> {
		const ids = [...this.file.ids('ADVANCED_FACE'), ...this.file.ids('FACE_SURFACE')];
		const faces: ReadFace[] = [];
		const refused: string[] = [];
		for (const [k, id] of ids.entries()) {
			if (k % 25 === 0) await progress(k / ids.length);
			const { type, values } = this.record(id);
			try {
				faces.push({ name: nameOf(values[0]), surface: this.face(values) });
			} catch (error) {
				if (!(error instanceof FaceFault || error instanceof StepFault)) throw error;
				refused.push(`${type} #${id}, line ${this.file.lineOf(id)}: ${error.message}`);
			}
		}
		if (ids.length === 0)
			throw new StepFault('the file', 'holds no faces (ADVANCED_FACE or FACE_SURFACE); surfaces are wanted');
		return { faces, refused };
	}

	private face(values: readonly StepValue[]): Surface {
		const bounds = (isList(values[1]) ? values[1] : []).map(refOf);
		if (bounds.length > 1)
			throw new FaceFault('it has openings; only faces without openings can be taken yet');
		const rim = bounds.flatMap((bound) => this.boundPoints(bound));
		const surface = this.surface(refOf(values[2]), rim);
		return isTrue(values[3]) || values[3] === undefined ? surface : turnOutside(surface);
	}

	/** Points along a face's rim: ends of its edges and places between them. */
	private boundPoints(bound: number): Vector[] {
		const loopId = refOf(this.record(bound).values[1]);
		const loop = this.record(loopId);
		if (loop.type === 'VERTEX_LOOP') return [this.vertex(refOf(loop.values[1]))];
		if (loop.type !== 'EDGE_LOOP')
			throw new FaceFault(`its rim is a ${loop.type}; an EDGE_LOOP can be taken`);
		return (isList(loop.values[1]) ? loop.values[1] : []).flatMap((oriented) => {
			const edge = this.record(refOf(this.record(refOf(oriented), 'ORIENTED_EDGE').values[3]), 'EDGE_CURVE');
			const [from, to] = [this.vertex(refOf(edge.values[1])), this.vertex(refOf(edge.values[2]))];
			return [from, ...this.between(refOf(edge.values[3]), from, to, isTrue(edge.values[4])), to];
		});
	}

	private vertex(id: number): Vector {
		return this.point(refOf(this.record(id, 'VERTEX_POINT').values[1]));
	}

	/** A few points within an edge. */
	private between(id: number, from: Vector, to: Vector, forward: boolean): Vector[] {
		const records = this.file.records(id);
		const shares = [0.25, 0.5, 0.75];
		const circle = records.find((one) => one.type === 'CIRCLE' || one.type === 'ELLIPSE');
		if (circle) {
			const frame = this.frame(refOf(circle.values[1]));
			const radii = [numberAt(circle.values[2]) * this.unit, numberAt(circle.values.at(-1)) * this.unit];
			const angle = (p: Vector) => {
				const way = subtract(p, frame.origin);
				return Math.atan2(dot(way, frame.y) / radii[1]!, dot(way, frame.x) / radii[0]!);
			};
			const [a, b] = forward ? [angle(from), angle(to)] : [angle(to), angle(from)];
			const turn = b - a > 1e-9 ? b - a : b - a + 2 * Math.PI;
			return Array.from({ length: 11 }, (_, k) => a + (turn * (k + 1)) / 12).map((t) =>
				add(
					frame.origin,
					add(scale(frame.x, radii[0]! * Math.cos(t)), scale(frame.y, radii[1]! * Math.sin(t)))
				)
			);
		}
		const spline = this.splineCurve(records);
		if (spline) {
			const [low, high] = [spline.knots[0]!, spline.knots.at(-1)!];
			const { points } = evaluateCurve(
				spline,
				shares.map((share) => low + share * (high - low))
			);
			const ends = evaluateCurve(spline, [low, high]).points;
			const far = (k: number, p: Vector) =>
				Math.hypot(ends[3 * k]! - p[0], ends[3 * k + 1]! - p[1], ends[3 * k + 2]! - p[2]);
			// An edge that uses part of its curve says nothing of the middle here; its ends are looked at.
			const whole = Math.min(far(0, from) + far(1, to), far(0, to) + far(1, from));
			if (whole > 1e-3 * this.unit) return [];
			return shares.map((_, k): Vector => [points[3 * k]!, points[3 * k + 1]!, points[3 * k + 2]!]);
		}
		if (records.some((one) => one.type === 'LINE'))
			return shares.map((t) => add(from, scale(subtract(to, from), t)));
		return [];
	}

	private splineCurve(records: readonly StepRecord[]) {
		const simple = records.find((one) => one.type === 'B_SPLINE_CURVE_WITH_KNOTS');
		const base = records.find((one) => one.type === 'B_SPLINE_CURVE');
		if (!simple) return null;
		const [degree, points] = base ? [base.values[0], base.values[1]] : [simple.values[1], simple.values[2]];
		const [times, values] = base ? simple.values : simple.values.slice(6);
		const rational = records.find((one) => one.type === 'RATIONAL_B_SPLINE_CURVE');
		const weights = rational ? numbers(rational.values[0]) : [];
		const net = (isList(points) ? points : []).flatMap((one, k) => {
			const w = weights[k] ?? 1;
			return [...scale(this.point(refOf(one)), w), w];
		});
		return {
			degree: numberAt(degree),
			knots: expandKnots(numbers(times), numbers(values)),
			net: Float64Array.from(net)
		};
	}

	private surface(id: number, rim: readonly Vector[]): Surface {
		const records = this.file.records(id);
		if (records.some((one) => one.type === 'B_SPLINE_SURFACE_WITH_KNOTS')) {
			const surface = this.splineSurface(records);
			checkRims(surface, rim);
			return surface;
		}
		const { type, values } = records[0]!;
		const size = (k: number) => numberAt(values[k]) * this.unit;
		if (type === 'PLANE') return planePatch(this.frame(refOf(values[1])), rim);
		if (type === 'CYLINDRICAL_SURFACE')
			return turnedPatch(this.frame(refOf(values[1])), rim, { r: size(2), slope: 0 });
		if (type === 'CONICAL_SURFACE')
			return turnedPatch(this.frame(refOf(values[1])), rim, {
				r: size(2),
				slope: Math.tan(numberAt(values[3]))
			});
		if (type === 'SPHERICAL_SURFACE') return roundPatch(this.frame(refOf(values[1])), rim, 0, size(2));
		if (type === 'TOROIDAL_SURFACE') return roundPatch(this.frame(refOf(values[1])), rim, size(2), size(3));
		throw new FaceFault(
			`its surface is a ${records.length > 1 ? 'complex instance' : type} (#${id}); B-spline surfaces, planes, cylinders, cones, spheres and tori can be taken`
		);
	}

	private splineSurface(records: readonly StepRecord[]): Surface {
		const knots = records.find((one) => one.type === 'B_SPLINE_SURFACE_WITH_KNOTS')!;
		const base = records.find((one) => one.type === 'B_SPLINE_SURFACE');
		const [degreeU, degreeV, columns] = (base ? base.values : knots.values.slice(1)).slice(0, 3);
		const [timesU, timesV, valuesU, valuesV] = base ? knots.values : knots.values.slice(8);
		const rational = records.find((one) => one.type === 'RATIONAL_B_SPLINE_SURFACE');
		const weights = rational && isList(rational.values[0]) ? rational.values[0].map(numbers) : [];
		const points = (isList(columns) ? columns : []).map((column) =>
			(isList(column) ? column : []).map(refOf)
		);
		const countU = points.length;
		const countV = points[0]?.length ?? 0;
		const surface: Surface = {
			degreeU: numberAt(degreeU),
			degreeV: numberAt(degreeV),
			knotsU: expandKnots(numbers(timesU), numbers(valuesU)),
			knotsV: expandKnots(numbers(timesV), numbers(valuesV)),
			countU,
			countV,
			net: new Float64Array(4 * countU * countV)
		};
		points.forEach((column, i) =>
			column.forEach((id, j) => {
				const w = weights[i]?.[j] ?? 1;
				if (!(w > 0)) throw new FaceFault('a weight is not above 0');
				surface.net.set([...scale(this.point(id), w), w], 4 * (j * countU + i));
			})
		);
		checkSurface(surface);
		return surface;
	}
}

function checkSurface({ degreeU, degreeV, knotsU, knotsV, countU, countV }: Surface): void {
	for (const [degree, knots, count] of [
		[degreeU, knotsU, countU],
		[degreeV, knotsV, countV]
	] as const) {
		if (!(Number.isInteger(degree) && degree >= 1 && degree <= 9))
			throw new FaceFault(`its degree is ${degree}; 1 to 9 can be taken`);
		if (knots.length !== count + degree + 1)
			throw new FaceFault(`${knots.length} knots do not fit ${count} points of degree ${degree}`);
		const clamped = (from: number) =>
			knots.slice(from, from + degree + 1).every((knot) => knot === knots[from]);
		if (!clamped(0) || !clamped(knots.length - degree - 1))
			throw new FaceFault('its knots are not clamped at the ends; such faces cannot be taken yet');
		for (let k = 1; k < knots.length; k++)
			if (knots[k]! < knots[k - 1]!) throw new FaceFault('its knots do not rise');
	}
}

/** Refuse a face whose rim is not the surface's own: it is trimmed. */
function checkRims(surface: Surface, rim: readonly Vector[]): void {
	const steps = Array.from({ length: 129 }, (_, k) => k / 128);
	const along = (knots: Float64Array) => steps.map((t) => knots[0]! + t * (knots.at(-1)! - knots[0]!));
	const ends = (knots: Float64Array) => [knots[0]!, knots.at(-1)!];
	const rows = evaluateGrid(surface, along(surface.knotsU), ends(surface.knotsV)).points;
	const columns = evaluateGrid(surface, ends(surface.knotsU), along(surface.knotsV)).points;
	const own: Vector[][] = [[], [], [], []];
	for (let k = 0; k < 129; k++)
		for (const side of [0, 1]) {
			const o = 3 * (side * 129 + k);
			own[side]!.push([rows[o]!, rows[o + 1]!, rows[o + 2]!]);
			const c = 3 * (2 * k + side);
			own[2 + side]!.push([columns[c]!, columns[c + 1]!, columns[c + 2]!]);
		}
	let size = 0;
	for (const line of own) for (const p of line) size = Math.max(size, length(subtract(p, own[0]![0]!)));
	for (const p of rim) {
		const near = own.some((line) =>
			line.slice(1).some((b, k) => segmentDistance(line[k]!, b, p) < RIM * size)
		);
		if (!near) throw new FaceFault('it is trimmed within its surface; only whole surfaces can be taken yet');
	}
}

function segmentDistance(a: Vector, b: Vector, p: Vector): number {
	const way = subtract(b, a);
	const size = dot(way, way);
	const t = size > 0 ? Math.min(1, Math.max(0, dot(subtract(p, a), way) / size)) : 0;
	return length(subtract(p, add(a, scale(way, t))));
}

/**
 * The faces of a STEP file: B-spline faces, rational ones too, and planes, cylinders, cones, spheres and tori
 * whose rims follow their own lines, turned into the same exactly. The others are told by name.
 * @throws StepFault when it is no such file, is cut short, or holds no face
 */
export async function readStepFaces(
	bytes: Uint8Array,
	progress: ReadProgress = () => {}
): Promise<ReadFaces> {
	const file = await StepFile.open(bytes, (share) => progress(0.5 * share));
	return new FaceReader(file).faces((share) => progress(0.5 + 0.5 * share));
}
