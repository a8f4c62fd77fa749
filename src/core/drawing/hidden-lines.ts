/**
 * Lines that are seen, of solids that are looked at from one side. Of every line the stretches are reckoned that lie behind
 * triangles; what is left is seen. Exact but for what is told below: no picture is asked.
 *
 * x to the right, y up and the depth away from the eye, mm.
 */

/** Lines behind a triangle by less (mm) lie on it. */
const ON = 0.5;
/** Lines beside a triangle by less (mm) are within it: its rim hides what lies behind it. */
const BESIDE = 1e-3;
/** Seen stretches that are shorter (mm) are no lines. */
const SHORT = 0.5;
/** Triangles to a place of the table, about. */
const TO_A_PLACE = 4;
const MOST_PLACES = 1 << 22;

/** Of a triangle: how far a place lies within each of its sides, its box and nearest depth, and how its depth changes. */
const [SIDES, LOW, PLANE, SIZE] = [0, 9, 14, 17];

/** Numbers that are added one after the other. */
export class Numbers {
	private values = new Float64Array(1024);
	length = 0;

	push(...more: readonly number[]): void {
		if (this.length + more.length > this.values.length) {
			const grown = new Float64Array(2 * this.values.length + more.length);
			grown.set(this.values);
			this.values = grown;
		}
		for (let k = 0; k < more.length; k++) this.values[this.length++] = more[k]!;
	}

	get all(): Float64Array {
		return this.values.subarray(0, this.length);
	}
}

/** Stretches of a line from 0 to 1, as they are taken out of it. */
class Stretches {
	/** Where each begins and ends, in the order in which they begin. */
	private ends = new Float64Array(256);
	private count = 0;

	clear(): void {
		this.count = 0;
	}

	/** One that comes about where the last one did is put in order fast. */
	add(from: number, to: number): void {
		const last = 2 * this.count - 1;
		if (last > 0 && from <= this.ends[last]! && from >= this.ends[last - 1]!) {
			if (to > this.ends[last]!) this.ends[last] = to;
			return;
		}
		if (last + 1 === this.ends.length) {
			const wider = new Float64Array(2 * this.ends.length);
			wider.set(this.ends);
			this.ends = wider;
		}
		const { ends } = this;
		let k = last + 1;
		for (; k > 0 && ends[k - 2]! > from; k -= 2) {
			ends[k] = ends[k - 2]!;
			ends[k + 1] = ends[k - 1]!;
		}
		ends[k] = from;
		ends[k + 1] = to;
		this.count++;
	}

	/** Pass what is left, from one end to the other. */
	rest(least: number, pass: (from: number, to: number) => void): void {
		const { ends, count } = this;
		let at = 0;
		for (let k = 0; k < 2 * count; k += 2) {
			if (ends[k]! - at > least) pass(at, ends[k]!);
			at = Math.max(at, ends[k + 1]!);
		}
		if (1 - at > least) pass(at, 1);
	}
}

/** How far a place lies within a side of a triangle, times its length: a + b x + c y. */
function putSide(values: Float64Array, at: number, px: number, py: number, qx: number, qy: number): void {
	const ex = qx - px;
	const ey = qy - py;
	values[at] = ey * px - ex * py + BESIDE * Math.sqrt(ex * ex + ey * ey);
	values[at + 1] = -ey;
	values[at + 2] = ex;
}

/** Triangles that face the eye, to be asked what they hide. */
export class Hiding {
	private readonly values: Float64Array;
	private readonly count: number;
	private readonly left: number;
	private readonly foot: number;
	/** Of a place (mm). */
	private readonly step: number;
	private readonly columns: number;
	private readonly rows: number;
	private readonly starts: Uint32Array;
	private readonly members: Uint32Array;
	/** By place: the greatest depth of the nearest triangle that covers all of it; Infinity where there is none. */
	private readonly covers: Float64Array;
	private readonly stretches = new Stretches();
	/** What was taken out of a line last. */
	private takenFrom = 0;
	private takenTo = 0;

	/** @param corners x y depth of every corner, three for each triangle */
	constructor(corners: Float64Array) {
		const count = corners.length / 9;
		const values = new Float64Array(SIZE * count);
		let n = 0;
		let [left, foot, right, head] = [Infinity, Infinity, -Infinity, -Infinity];
		for (let t = 0; t < count; t++) {
			const c = 9 * t;
			const ax = corners[c]!;
			const ay = corners[c + 1]!;
			const ad = corners[c + 2]!;
			const bx = corners[c + 3]!;
			const by = corners[c + 4]!;
			const bd = corners[c + 5]!;
			const cx = corners[c + 6]!;
			const cy = corners[c + 7]!;
			const cd = corners[c + 8]!;
			const area = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax);
			// Seen from behind, or along: what it could hide is hidden by others of its solid.
			if (!(area > 1e-9)) continue;
			const at = SIZE * n++;
			putSide(values, at + SIDES, ax, ay, bx, by);
			putSide(values, at + SIDES + 3, bx, by, cx, cy);
			putSide(values, at + SIDES + 6, cx, cy, ax, ay);
			const box = at + LOW;
			values[box] = Math.min(ax, bx, cx);
			values[box + 1] = Math.min(ay, by, cy);
			values[box + 2] = Math.max(ax, bx, cx);
			values[box + 3] = Math.max(ay, by, cy);
			values[box + 4] = Math.min(ad, bd, cd);
			const gx = ((bd - ad) * (cy - ay) - (cd - ad) * (by - ay)) / area;
			const gy = ((cd - ad) * (bx - ax) - (bd - ad) * (cx - ax)) / area;
			values[at + PLANE] = ad - gx * ax - gy * ay;
			values[at + PLANE + 1] = gx;
			values[at + PLANE + 2] = gy;
			left = Math.min(left, values[box]!);
			foot = Math.min(foot, values[box + 1]!);
			right = Math.max(right, values[box + 2]!);
			head = Math.max(head, values[box + 3]!);
		}
		this.values = values;
		this.count = n;
		[this.left, this.foot] = n ? [left, foot] : [0, 0];
		const [wide, high] = n ? [right - left, head - foot] : [1, 1];
		const places = Math.min(MOST_PLACES, Math.max(1, n / TO_A_PLACE));
		this.step = Math.max(Math.sqrt((wide * high) / places), Math.max(wide, high) / MOST_PLACES, 1e-6);
		this.columns = Math.floor(wide / this.step) + 1;
		this.rows = Math.floor(high / this.step) + 1;
		this.starts = new Uint32Array(this.columns * this.rows + 1);
		this.covers = new Float64Array(this.columns * this.rows).fill(Infinity);
		const { starts, covers } = this;
		const order = this.byDepth();
		this.eachPlace(order, (place, t) => this.cover(place, t));
		// What lies behind all of a place's cover hides nothing there that the cover does not.
		const counts = (place: number, t: number) => values[SIZE * t + LOW + 4]! <= covers[place]!;
		this.eachPlace(order, (place, t) => {
			if (counts(place, t)) starts[place + 1]!++;
		});
		for (let place = 1; place < starts.length; place++) starts[place]! += starts[place - 1]!;
		const next = starts.slice(0, -1);
		this.members = new Uint32Array(starts.at(-1)!);
		this.eachPlace(order, (place, t) => {
			if (counts(place, t)) this.members[next[place]!++] = t;
		});
	}

	/** Keep how deep a triangle lies that covers all of a place. */
	private cover(place: number, t: number): void {
		const { values, step, columns, covers } = this;
		const at = SIZE * t;
		const x0 = this.left + (place % columns) * step;
		const y0 = this.foot + Math.floor(place / columns) * step;
		const x1 = x0 + step;
		const y1 = y0 + step;
		const box = at + LOW;
		if (values[box]! > x0 || values[box + 1]! > y0 || values[box + 2]! < x1 || values[box + 3]! < y1) return;
		for (let side = at + SIDES; side < at + LOW; side += 3) {
			const within = values[side]!;
			const nx = values[side + 1]!;
			const ny = values[side + 2]!;
			// The corner of the place that is furthest to the right of the side.
			if (within + nx * (nx > 0 ? x0 : x1) + ny * (ny > 0 ? y0 : y1) < 0) return;
		}
		const plane = at + PLANE;
		const gx = values[plane + 1]!;
		const gy = values[plane + 2]!;
		const deepest = values[plane]! + gx * (gx > 0 ? x1 : x0) + gy * (gy > 0 ? y1 : y0);
		if (deepest < covers[place]!) covers[place] = deepest;
	}

	private column(x: number): number {
		return Math.min(this.columns - 1, Math.max(0, Math.floor((x - this.left) / this.step)));
	}

	private row(y: number): number {
		return Math.min(this.rows - 1, Math.max(0, Math.floor((y - this.foot) / this.step)));
	}

	/** The triangles, the nearest to the eye first. */
	private byDepth(): Uint32Array {
		const { values, count } = this;
		let [least, most] = [Infinity, -Infinity];
		for (let t = 0; t < count; t++) {
			const depth = values[SIZE * t + LOW + 4]!;
			if (depth < least) least = depth;
			if (depth > most) most = depth;
		}
		// Depth and number as one, which the platform sorts without being asked back: 2^22 triangles, 2^30 depths.
		const finer = most > least ? 2 ** 30 / (most - least) : 0;
		const names = new Float64Array(count);
		const numbers = 2 ** Math.ceil(Math.log2(count + 1));
		for (let t = 0; t < count; t++)
			names[t] = Math.floor((values[SIZE * t + LOW + 4]! - least) * finer) * numbers + t;
		names.sort();
		return Uint32Array.from(names, (name) => name % numbers);
	}

	private eachPlace(order: Uint32Array, pass: (place: number, triangle: number) => void): void {
		const { values, columns } = this;
		for (const t of order) {
			const box = SIZE * t + LOW;
			const from = this.column(values[box]!);
			const to = this.column(values[box + 2]!);
			const high = this.row(values[box + 3]!);
			for (let j = this.row(values[box + 1]!); j <= high; j++)
				for (let i = from; i <= to; i++) pass(j * columns + i, t);
		}
	}

	/** Whether a point lies behind any triangle by more than so much (mm). */
	hides(x: number, y: number, depth: number, more: number): boolean {
		const { values, starts, members } = this;
		const place = this.row(y) * this.columns + this.column(x);
		for (let k = starts[place]!; k < starts[place + 1]!; k++) {
			const at = SIZE * members[k]!;
			let isIn = true;
			for (let side = at + SIDES; side < at + LOW && isIn; side += 3)
				isIn = values[side]! + values[side + 1]! * x + values[side + 2]! * y >= 0;
			const plane = at + PLANE;
			if (isIn && depth - (values[plane]! + values[plane + 1]! * x + values[plane + 2]! * y) > more)
				return true;
		}
		return false;
	}

	/**
	 * Hot: what one triangle hides of a part of a line.
	 * @returns whether that is anything; it is kept where it begins and ends
	 */
	private take(
		t: number,
		ax: number,
		ay: number,
		ad: number,
		dx: number,
		dy: number,
		dd: number,
		begin: number,
		end: number
	): boolean {
		const { values } = this;
		const at = SIZE * t;
		const gx = values[at + PLANE + 1]!;
		const gy = values[at + PLANE + 2]!;
		// First how far it lies behind the triangle's plane: most have nothing behind it.
		let a = ad - (values[at + PLANE]! + gx * ax + gy * ay) - ON;
		let b = dd - (gx * dx + gy * dy);
		let from = begin;
		let to = end;
		for (let side = at + SIDES; ; side += 3) {
			// Where a + b · t is nought or more.
			if (b === 0) {
				if (a < 0) return false;
			} else if (b > 0) from = Math.max(from, -a / b);
			else to = Math.min(to, -a / b);
			if (!(to > from)) return false;
			if (side === at + LOW) break;
			const nx = values[side + 1]!;
			const ny = values[side + 2]!;
			a = values[side]! + nx * ax + ny * ay;
			b = nx * dx + ny * dy;
		}
		this.takenFrom = from;
		this.takenTo = to;
		return true;
	}

	/**
	 * What is seen of a line.
	 * @param pass takes every stretch: where it begins and ends, from 0 to 1
	 */
	seen(
		ax: number,
		ay: number,
		ad: number,
		bx: number,
		by: number,
		bd: number,
		pass: (from: number, to: number) => void
	): void {
		const { values, starts, members, covers, step, columns, left, foot } = this;
		const dx = bx - ax;
		const dy = by - ay;
		const dd = bd - ad;
		const size = Math.sqrt(dx * dx + dy * dy);
		if (size < SHORT) return;
		this.stretches.clear();
		const low = this.row(Math.min(ay, by));
		const high = this.row(Math.max(ay, by));
		// Along the line, so that what is taken out of it comes in order.
		for (let up = 0; up <= high - low; up++) {
			const j = dy < 0 ? high - up : low + up;
			// Where the line is while it is in this row; the first and the last one go on without end.
			const y0 = j === low ? -Infinity : foot + j * step - BESIDE;
			const y1 = j === high ? Infinity : foot + (j + 1) * step + BESIDE;
			const one = dy === 0 ? 0 : (y0 - ay) / dy;
			const other = dy === 0 ? 1 : (y1 - ay) / dy;
			const s = Math.max(0, Math.min(one, other));
			const e = Math.min(1, Math.max(one, other));
			const p = ax + dx * s;
			const q = ax + dx * e;
			const first = this.column(Math.min(p, q) - BESIDE);
			const last = this.column(Math.max(p, q) + BESIDE);
			for (let on = 0; on <= last - first; on++) {
				const i = dx < 0 ? last - on : first + on;
				const place = j * columns + i;
				if (starts[place] === starts[place + 1]) continue;
				// The same for the place within the row.
				const x0 = i === first ? -Infinity : left + i * step - BESIDE;
				const x1 = i === last ? Infinity : left + (i + 1) * step + BESIDE;
				const u = dx === 0 ? 0 : (x0 - ax) / dx;
				const v = dx === 0 ? 1 : (x1 - ax) / dx;
				const enters = Math.max(s, Math.min(u, v));
				const leaves = Math.min(e, Math.max(u, v));
				if (!(leaves > enters)) continue;
				const nearer = ad + (dd > 0 ? dd * enters : dd * leaves) - ON;
				if (nearer > covers[place]!) {
					this.stretches.add(enters, leaves);
					continue;
				}
				const furthest = ad + (dd > 0 ? dd * leaves : dd * enters) - ON;
				const bx0 = ax + dx * enters;
				const bx1 = ax + dx * leaves;
				const by0 = ay + dy * enters;
				const by1 = ay + dy * leaves;
				const lowX = Math.min(bx0, bx1) - BESIDE;
				const highX = Math.max(bx0, bx1) + BESIDE;
				const lowY = Math.min(by0, by1) - BESIDE;
				const highY = Math.max(by0, by1) + BESIDE;
				// What is taken at an end need not be asked for any more.
				let begin = enters;
				let end = leaves;
				for (let k = starts[place]!; k < starts[place + 1]!; k++) {
					const t = members[k]!;
					const box = SIZE * t + LOW;
					// They are in the order of their depth.
					if (values[box + 4]! > furthest) break;
					if (values[box]! > highX || values[box + 2]! < lowX) continue;
					if (values[box + 1]! > highY || values[box + 3]! < lowY) continue;
					if (!this.take(t, ax, ay, ad, dx, dy, dd, begin, end)) continue;
					const from = this.takenFrom;
					const to = this.takenTo;
					if (from > begin && to < end) this.stretches.add(from, to);
					if (from <= begin) begin = to;
					if (to >= end) end = from;
					if (!(end > begin)) break;
				}
				if (end <= begin) this.stretches.add(enters, leaves);
				else {
					if (begin > enters) this.stretches.add(enters, begin);
					if (end < leaves) this.stretches.add(end, leaves);
				}
			}
		}
		this.stretches.rest(SHORT / size, pass);
	}
}
