import { cross, dot, length, scale, subtract, type Vector } from '../../geometry/vector';
import { FaceFault, type Frame } from './analytic-patches';
import type { StepFile, StepRecord, StepValue } from './part21';

export const isList = (value: StepValue | undefined): value is readonly StepValue[] => Array.isArray(value);
/** The record number a value points to. Throws FaceFault where it is no reference. */
export function refOf(value: StepValue | undefined): number {
	if (typeof value === 'object' && value !== null && 'ref' in value) return value.ref;
	throw new FaceFault('a reference is missing');
}
/** The number a value is. Throws FaceFault where it is none. */
export function numberAt(value: StepValue | undefined): number {
	if (typeof value === 'number') return value;
	throw new FaceFault('a number is missing');
}
export const listOf = (value: StepValue | undefined) => (isList(value) ? value : []);
export const numbers = (value: StepValue | undefined) => listOf(value).map(numberAt);
export const nameOf = (value: StepValue | undefined) =>
	typeof value === 'object' && value !== null && 'text' in value ? value.text : '';
export const isTrue = (value: StepValue | undefined) =>
	typeof value === 'object' && value !== null && 'name' in value && value.name === 'T';

/** The whole knot vector from distinct knots and how often each stands (ISO 10303-42 lists them apart). */
export function expandKnots(times: readonly number[], values: readonly number[]): Float64Array {
	return Float64Array.from(values.flatMap((value, k) => new Array<number>(times[k] ?? 0).fill(value)));
}

/** Points, directions and placements of one file, in millimetres. */
export class Entities {
	/** Millimetres to the file's unit of length. */
	readonly unit: number;

	constructor(readonly file: StepFile) {
		this.unit = this.lengthUnit();
	}

	record(id: number, type?: string): StepRecord {
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

	point(id: number): Vector {
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

	frame(id: number): Frame {
		const { values } = this.record(id, 'AXIS2_PLACEMENT_3D');
		const z = this.direction(values[2], [0, 0, 1]);
		const wanted = this.direction(values[3], Math.abs(z[0]) > 0.9 ? [0, 1, 0] : [1, 0, 0]);
		const across = subtract(wanted, scale(z, dot(wanted, z)));
		const x = scale(across, 1 / length(across));
		return { origin: this.point(refOf(values[1])), x, y: cross(z, x), z };
	}

	vertex(id: number): Vector {
		return this.point(refOf(this.record(id, 'VERTEX_POINT').values[1]));
	}
}
