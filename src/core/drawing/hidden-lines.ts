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

/** Of a triangle: its corners, its box and nearest depth, and how its depth changes. */
const [X, LOW, PLANE, SIZE] = [0, 6, 11, 14];

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
	private readonly from: number[] = [];
	private readonly to: number[] = [];

	clear(): void {
		this.from.length = this.to.length = 0;
	}

	add(from: number, to: number): void {
		this.from.push(from);
		this.to.push(to);
	}

	/** Pass what is left, from one end to the other. */
	rest(least: number, pass: (from: number, to: number) => void): void {
		const order = this.from.map((_, k) => k).sort((a, b) => this.from[a]! - this.from[b]!);
		let at = 0;
		for (const k of order) {
			if (this.from[k]! - at > least) pass(at, this.from[k]!);
			at = Math.max(at, this.to[k]!);
		}
		if (1 - at > least) pass(at, 1);
	}
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

	/** @param corners x y depth of every corner, three for each triangle */
	constructor(corners: Float64Array) {
		const count = corners.length / 9;
		const values = new Float64Array(SIZE * count);
		let n = 0;
		let [left, foot, right, head] = [Infinity, Infinity, -Infinity, -Infinity];
		for (let t = 0; t < count; t++) {
			const c = 9 * t;
			const [ax, ay, ad] = [corners[c]!, corners[c + 1]!, corners[c + 2]!];
			const [bx, by, bd] = [corners[c + 3]!, corners[c + 4]!, corners[c + 5]!];
			const [cx, cy, cd] = [corners[c + 6]!, corners[c + 7]!, corners[c + 8]!];
			const area = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax);
			// Seen from behind, or along: what it could hide is hidden by others of its solid.
			if (!(area > 1e-9)) continue;
			const at = SIZE * n++;
			values.set([ax, ay, bx, by, cx, cy], at + X);
			const low = [Math.min(ax, bx, cx), Math.min(ay, by, cy), Math.max(ax, bx, cx), Math.max(ay, by, cy)];
			values.set(low, at + LOW);
			values[at + LOW + 4] = Math.min(ad, bd, cd);
			const gx = ((bd - ad) * (cy - ay) - (cd - ad) * (by - ay)) / area;
			const gy = ((cd - ad) * (bx - ax) - (bd - ad) * (cx - ax)) / area;
			values.set([ad - gx * ax - gy * ay, gx, gy], at + PLANE);
			left = Math.min(left, low[0]!);
			foot = Math.min(foot, low[1]!);
			right = Math.max(right, low[2]!);
			head = Math.max(head, low[3]!);
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
		const [x1, y1] = [x0 + step, y0 + step];
		const box = at + LOW;
		if (values[box]! > x0 || values[box + 1]! > y0 || values[box + 2]! < x1 || values[box + 3]! < y1) return;
		for (let side = 0; side < 3; side++) {
			const p = at + X + 2 * side;
			const q = at + X + (side < 2 ? 2 * side + 2 : 0);
			const ex = values[q]! - values[p]!;
			const ey = values[q + 1]! - values[p + 1]!;
			// The corner of the place that is furthest to the right of the side.
			const x = ey > 0 ? x1 : x0;
			const y = ex > 0 ? y0 : y1;
			if (ex * (y - values[p + 1]!) - ey * (x - values[p]!) < 0) return;
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
			const at = SIZE * t + LOW;
			const [from, to] = [this.column(values[at]!), this.column(values[at + 2]!)];
			const [low, high] = [this.row(values[at + 1]!), this.row(values[at + 3]!)];
			for (let j = low; j <= high; j++) for (let i = from; i <= to; i++) pass(j * columns + i, t);
		}
	}

	/** Whether a point lies behind any triangle by more than so much (mm). */
	hides(x: number, y: number, depth: number, more: number): boolean {
		const { values, starts, members } = this;
		const place = this.row(y) * this.columns + this.column(x);
		for (let k = starts[place]!; k < starts[place + 1]!; k++) {
			const at = SIZE * members[k]!;
			const isIn = [0, 1, 2].every((side) => {
				const [p, q] = [at + X + 2 * side, at + X + 2 * ((side + 1) % 3)];
				const [ex, ey] = [values[q]! - values[p]!, values[q + 1]! - values[p + 1]!];
				return ex * (y - values[p + 1]!) - ey * (x - values[p]!) >= 0;
			});
			const plane = at + PLANE;
			if (isIn && depth - (values[plane]! + values[plane + 1]! * x + values[plane + 2]! * y) > more)
				return true;
		}
		return false;
	}

	/**
	 * Take what one triangle hides out of a part of a line.
	 * @returns whether that is all of the part
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
		let from = begin;
		let to = end;
		for (let side = 0; side < 4; side++) {
			let a: number;
			let b: number;
			if (side < 3) {
				const p = at + X + 2 * side;
				const q = at + X + (side < 2 ? 2 * side + 2 : 0);
				const ex = values[q]! - values[p]!;
				const ey = values[q + 1]! - values[p + 1]!;
				a = ex * (ay - values[p + 1]!) - ey * (ax - values[p]!) + BESIDE * Math.sqrt(ex * ex + ey * ey);
				b = ex * dy - ey * dx;
			} else {
				const plane = at + PLANE;
				const gx = values[plane + 1]!;
				const gy = values[plane + 2]!;
				a = ad - (values[plane]! + gx * ax + gy * ay) - ON;
				b = dd - (gx * dx + gy * dy);
			}
			// Where a + b · t is nought or more.
			if (b === 0) {
				if (a < 0) return false;
			} else if (b > 0) from = Math.max(from, -a / b);
			else to = Math.min(to, -a / b);
			if (!(to > from)) return false;
		}
		this.stretches.add(from, to);
		return from <= begin && to >= end;
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
		const [dx, dy, dd] = [bx - ax, by - ay, bd - ad];
		const size = Math.sqrt(dx * dx + dy * dy);
		if (size < SHORT) return;
		this.stretches.clear();
		const [low, high] = [this.row(Math.min(ay, by)), this.row(Math.max(ay, by))];
		for (let j = low; j <= high; j++) {
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
			for (let i = first; i <= last; i++) {
				const place = j * columns + i;
				if (starts[place] === starts[place + 1]) continue;
				// The same for the place within the row.
				const x0 = i === first ? -Infinity : left + i * step - BESIDE;
				const x1 = i === last ? Infinity : left + (i + 1) * step + BESIDE;
				const u = dx === 0 ? 0 : (x0 - ax) / dx;
				const v = dx === 0 ? 1 : (x1 - ax) / dx;
				const begin = Math.max(s, Math.min(u, v));
				const end = Math.min(e, Math.max(u, v));
				if (!(end > begin)) continue;
				const depths = [ad + dd * begin - ON, ad + dd * end - ON] as const;
				if (Math.min(depths[0], depths[1]) > covers[place]!) {
					this.stretches.add(begin, end);
					continue;
				}
				const furthest = Math.max(depths[0], depths[1]);
				const [bx0, bx1] = [ax + dx * begin, ax + dx * end];
				const [by0, by1] = [ay + dy * begin, ay + dy * end];
				const lowX = Math.min(bx0, bx1) - BESIDE;
				const highX = Math.max(bx0, bx1) + BESIDE;
				const lowY = Math.min(by0, by1) - BESIDE;
				const highY = Math.max(by0, by1) + BESIDE;
				for (let k = starts[place]!; k < starts[place + 1]!; k++) {
					const t = members[k]!;
					const box = SIZE * t + LOW;
					// They are in the order of their depth.
					if (values[box + 4]! > furthest) break;
					if (values[box]! > highX || values[box + 2]! < lowX) continue;
					if (values[box + 1]! > highY || values[box + 3]! < lowY) continue;
					if (this.take(t, ax, ay, ad, dx, dy, dd, begin, end)) break;
				}
			}
		}
		this.stretches.rest(SHORT / size, pass);
	}
}
