import { NO_CELL, type Edges } from './edges';

/**
 * Lines that have no cells beside them, gathered one by one; each is told from others of its step by its number there.
 *
 * ```ts
 * const lines = new LineList();
 * lines.push(0, 1, 1, 1, edgeDirections.indexOf('gap'));
 * ```
 */
export class LineList {
	private readonly from: number[] = [];
	private readonly to: number[] = [];
	private readonly course: number[] = [];
	private readonly bay: number[] = [];
	private readonly direction: number[] = [];
	private readonly ordinal: number[] = [];
	private readonly taken = new Map<string, number>();

	/**
	 * @param from and `to`: its nodes @param course and `bay`: of the step it starts in, from 1
	 * @param direction its place among `edgeDirections`
	 */
	push(from: number, to: number, course: number, bay: number, direction: number): void {
		const step = `${course} ${bay} ${direction}`;
		const before = this.taken.get(step) ?? 0;
		this.taken.set(step, before + 1);
		this.from.push(from);
		this.to.push(to);
		this.course.push(course);
		this.bay.push(bay);
		this.direction.push(direction);
		this.ordinal.push(before);
	}

	made(): Edges {
		const count = this.from.length;
		return {
			count,
			from: Uint32Array.from(this.from),
			to: Uint32Array.from(this.to),
			left: new Uint32Array(count).fill(NO_CELL),
			right: new Uint32Array(count).fill(NO_CELL),
			direction: Uint8Array.from(this.direction),
			ordinal: Uint32Array.from(this.ordinal),
			course: Uint32Array.from(this.course),
			bay: Uint32Array.from(this.bay)
		};
	}
}
