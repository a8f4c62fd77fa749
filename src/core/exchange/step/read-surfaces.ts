import { evaluateGrid, transpose, turnOutside, type Surface } from '../../geometry/surface';
import { scale, type Vector } from '../../geometry/vector';
import { FaceFault, RIM, planePatch, roundPatch, turnedPatch } from './analytic-patches';
import { Entities, expandKnots, isTrue, listOf, nameOf, numberAt, numbers, refOf } from './entities';
import { StepFault, StepFile, type ReadProgress, type StepRecord, type StepValue } from './part21';
import { Rims, type Loop } from './rims';

/** A face that was taken, in mm. */
export interface ReadFace {
	readonly name: string;
	readonly surface: Surface;
	/** Where it ends within its surface, as closed polylines; none where it has all of it. */
	readonly ends: readonly Loop[];
}

export interface ReadFaces {
	readonly faces: readonly ReadFace[];
	/** What was not taken, each with its entity, number and line. */
	readonly refused: readonly string[];
}

/** Reads the faces of one file. */
class FaceReader {
	private readonly entities: Entities;
	private readonly rims: Rims;

	constructor(private readonly file: StepFile) {
		this.entities = new Entities(file);
		this.rims = new Rims(this.entities);
	}

	/** Every face of the file; what cannot be taken is told. */
	async faces(progress: ReadProgress): Promise<ReadFaces> {
		const ids = [...this.file.ids('ADVANCED_FACE'), ...this.file.ids('FACE_SURFACE')];
		const faces: ReadFace[] = [];
		const refused: string[] = [];
		for (const [k, id] of ids.entries()) {
			if (k % 25 === 0) await progress(k / ids.length);
			const { type, values } = this.entities.record(id);
			try {
				faces.push({ name: nameOf(values[0]), ...this.face(values) });
			} catch (error) {
				if (!(error instanceof FaceFault || error instanceof StepFault)) throw error;
				refused.push(`${type} #${id}, line ${this.file.lineOf(id)}: ${error.message}`);
			}
		}
		if (ids.length === 0)
			throw new StepFault('the file', 'holds no faces (ADVANCED_FACE or FACE_SURFACE); surfaces are wanted');
		return { faces, refused };
	}

	private face(values: readonly StepValue[]): Omit<ReadFace, 'name'> {
		const loops = this.rims.loops(listOf(values[1]).map(refOf));
		const sameSense = isTrue(values[3]) || values[3] === undefined;
		const surface = this.surface(
			refOf(values[2]),
			sameSense ? loops : loops.map((loop) => [...loop].reverse())
		);
		return {
			surface: sameSense ? surface : turnOutside(surface),
			ends: followsRims(surface, loops.flat()) ? [] : loops.filter((loop) => loop.length > 2)
		};
	}

	/** @param loops around the face, which lies to their left where the surface's own normal points up */
	private surface(id: number, loops: readonly Loop[]): Surface {
		const records = this.file.records(id);
		if (records.some((one) => one.type === 'B_SPLINE_SURFACE_WITH_KNOTS')) return this.splineSurface(records);
		const { type, values } = records[0]!;
		const size = (k: number) => numberAt(values[k]) * this.entities.unit;
		const frame = () => this.entities.frame(refOf(values[1]));
		if (type === 'PLANE') return planePatch(frame(), loops.flat());
		if (type === 'CYLINDRICAL_SURFACE') return turnedPatch(frame(), loops, { r: size(2), slope: 0 });
		if (type === 'CONICAL_SURFACE')
			return turnedPatch(frame(), loops, { r: size(2), slope: Math.tan(numberAt(values[3])) });
		if (type === 'SPHERICAL_SURFACE') return roundPatch(frame(), loops, 0, size(2));
		if (type === 'TOROIDAL_SURFACE') return roundPatch(frame(), loops, size(2), size(3));
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
		const weights = listOf(rational?.values[0]).map(numbers);
		const points = listOf(columns).map((column) => listOf(column).map(refOf));
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
				surface.net.set([...scale(this.entities.point(id), w), w], 4 * (j * countU + i));
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

const RIM_STEPS = 128;

/** Whether a face's rim is its surface's own, so that it is not trimmed. */
function followsRims(surface: Surface, rim: readonly Vector[]): boolean {
	const steps = Array.from({ length: RIM_STEPS + 1 }, (_, k) => k / RIM_STEPS);
	const along = (knots: Float64Array) => steps.map((t) => knots[0]! + t * (knots.at(-1)! - knots[0]!));
	const ends = (knots: Float64Array) => [knots[0]!, knots.at(-1)!];
	const rows = evaluateGrid(surface, along(surface.knotsU), ends(surface.knotsV)).points;
	const turned = transpose(surface);
	const columns = evaluateGrid(turned, along(surface.knotsV), ends(surface.knotsU)).points;
	let size = 0;
	for (const line of [rows, columns])
		for (let k = 0; k < line.length; k += 3)
			size = Math.max(
				size,
				Math.hypot(line[k]! - rows[0]!, line[k + 1]! - rows[1]!, line[k + 2]! - rows[2]!)
			);
	const most = (RIM * size) ** 2;
	return rim.every((p) => isNear(rows, p, most) || isNear(columns, p, most));
}

/** Whether a point lies on one of two polylines that follow each other in a list; the distance squared (mm²). */
function isNear(lines: Float64Array, [x, y, z]: Vector, most: number): boolean {
	for (let k = 0; k + 1 < 2 * (RIM_STEPS + 1); k++) {
		if (k === RIM_STEPS) continue;
		const o = 3 * k;
		const [dx, dy, dz] = [
			lines[o + 3]! - lines[o]!,
			lines[o + 4]! - lines[o + 1]!,
			lines[o + 5]! - lines[o + 2]!
		];
		const [px, py, pz] = [x - lines[o]!, y - lines[o + 1]!, z - lines[o + 2]!];
		const size = dx * dx + dy * dy + dz * dz;
		const t = size > 0 ? Math.min(1, Math.max(0, (px * dx + py * dy + pz * dz) / size)) : 0;
		if ((px - t * dx) ** 2 + (py - t * dy) ** 2 + (pz - t * dz) ** 2 <= most) return true;
	}
	return false;
}

/**
 * The faces of a STEP file: B-spline faces, rational ones too, and planes, cylinders, cones, spheres and tori,
 * turned into the same exactly; with the loops they are trimmed by. The others are told by name.
 *
 * ```ts
 * const { faces } = await readStepFaces(bytes);
 * ```
 * @throws StepFault when it is no such file, is cut short, or holds no face
 */
export async function readStepFaces(
	bytes: Uint8Array,
	progress: ReadProgress = () => {}
): Promise<ReadFaces> {
	const file = await StepFile.open(bytes, (share) => progress(0.5 * share));
	return new FaceReader(file).faces((share) => progress(0.5 + 0.5 * share));
}
