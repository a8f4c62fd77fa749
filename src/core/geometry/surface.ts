import { basisTable, fillBasis, makeBasisTable, type BasisTable } from './basis';
import { combineCurve, distinctKnots } from './curve';
import { pointAt, type Vector } from './vector';

/**
 * A rational B-spline surface. u runs across (left to right seen from outside), v up; outside is du × dv.
 * `net` holds (wx, wy, wz, w) of control point (i, j) at 4 * (j * countU + i), lengths in mm.
 */
export interface Surface {
	readonly degreeU: number;
	readonly degreeV: number;
	readonly knotsU: Float64Array;
	readonly knotsV: Float64Array;
	readonly countU: number;
	readonly countV: number;
	readonly net: Float64Array;
}

/** Samples in rows of v: point (i, j) at 3 * (j * columns + i). */
export interface SurfaceSamples {
	readonly columns: number;
	readonly rows: number;
	readonly points: Float64Array;
	readonly du: Float64Array;
	readonly dv: Float64Array;
}

function emptySamples(columns: number, rows: number): SurfaceSamples {
	const size = 3 * columns * rows;
	return {
		columns,
		rows,
		points: new Float64Array(size),
		du: new Float64Array(size),
		dv: new Float64Array(size)
	};
}

/**
 * Collapse the net onto one course line: the homogeneous control points of the curve v = constant, and
 * of its derivative across.
 * @param columns of control points from and to (not included); the others are left as they are
 */
function collapse(
	surface: Surface,
	table: BasisTable,
	row: number,
	value: Float64Array,
	slope: Float64Array,
	columns: readonly [number, number] = [0, surface.countU]
): void {
	const { net } = surface;
	const width = table.degree + 1;
	const stride = 4 * surface.countU;
	const base = row * (table.order + 1) * width;
	const left = 4 * columns[0];
	const right = 4 * columns[1];
	value.fill(0, left, right);
	slope.fill(0, left, right);
	for (let j = 0; j < width; j++) {
		const n = table.values[base + j]!;
		const d = table.values[base + width + j]!;
		const from = (table.first[row]! + j) * stride;
		for (let c = left; c < right; c++) {
			const p = net[from + c]!;
			value[c]! += n * p;
			slope[c]! += d * p;
		}
	}
}

/** Hot loop: point, du and dv along one collapsed row, for the parameters of `table`. */
function combineRow(
	table: BasisTable,
	count: number,
	value: Float64Array,
	slope: Float64Array,
	out: SurfaceSamples,
	start: number
): void {
	const { first, values } = table;
	const { points, du, dv } = out;
	const width = table.degree + 1;
	const stride = (table.order + 1) * width;
	for (let k = 0; k < count; k++) {
		let x = 0,
			y = 0,
			z = 0,
			w = 0;
		let ux = 0,
			uy = 0,
			uz = 0,
			uw = 0;
		let vx = 0,
			vy = 0,
			vz = 0,
			vw = 0;
		let c = 4 * first[k]!;
		let b = k * stride;
		for (let i = 0; i < width; i++, b++, c += 4) {
			const n = values[b]!;
			const d = values[b + width]!;
			const px = value[c]!,
				py = value[c + 1]!,
				pz = value[c + 2]!,
				pw = value[c + 3]!;
			x += n * px;
			y += n * py;
			z += n * pz;
			w += n * pw;
			ux += d * px;
			uy += d * py;
			uz += d * pz;
			uw += d * pw;
			vx += n * slope[c]!;
			vy += n * slope[c + 1]!;
			vz += n * slope[c + 2]!;
			vw += n * slope[c + 3]!;
		}
		const o = 3 * (start + k);
		const inverse = 1 / w;
		x *= inverse;
		y *= inverse;
		z *= inverse;
		points[o] = x;
		points[o + 1] = y;
		points[o + 2] = z;
		du[o] = (ux - uw * x) * inverse;
		du[o + 1] = (uy - uw * y) * inverse;
		du[o + 2] = (uz - uw * z) * inverse;
		dv[o] = (vx - vw * x) * inverse;
		dv[o + 1] = (vy - vw * y) * inverse;
		dv[o + 2] = (vz - vw * z) * inverse;
	}
}

/** The columns of control points that any of these parameters hangs on: a few of them for one point. */
function columnsOf({ degree, first }: BasisTable): [number, number] {
	let [from, to] = [Infinity, 0];
	for (const column of first) {
		from = Math.min(from, column);
		to = Math.max(to, column + degree + 1);
	}
	return [Math.min(from, to), to];
}

/**
 * Points and first derivatives on a grid of parameters, as a tensor product.
 *
 * ```ts
 * const { points, du, dv } = evaluateGrid(surface, [0, 0.5, 1], [0, 1]); // six places, row by row
 * ```
 */
export function evaluateGrid(surface: Surface, us: ArrayLike<number>, vs: ArrayLike<number>): SurfaceSamples {
	const out = emptySamples(us.length, vs.length);
	sampleRows(surface, us, vs, out, us.length, () => {});
	return out;
}

/** @param each how far rows lie apart in what they are written to, in places @param done a row is written */
function sampleRows(
	surface: Surface,
	us: ArrayLike<number>,
	vs: ArrayLike<number>,
	out: SurfaceSamples,
	each: number,
	done: (j: number) => void
): void {
	const across = basisTable(surface.knotsU, surface.degreeU, us, 1);
	const up = basisTable(surface.knotsV, surface.degreeV, vs, 1);
	const columns = columnsOf(across);
	const value = new Float64Array(4 * surface.countU);
	const slope = new Float64Array(4 * surface.countU);
	for (let j = 0; j < vs.length; j++) {
		collapse(surface, up, j, value, slope, columns);
		combineRow(across, us.length, value, slope, out, j * each);
		done(j);
	}
}

/** Scratch of one place: tables by degree, a collapsed row, and what comes of it. */
const acrossOne: BasisTable[] = [];
const upOne: BasisTable[] = [];
const tableOfOne = (known: BasisTable[], degree: number) => (known[degree] ??= makeBasisTable(degree, 1, 1));
let rowOfOne = { value: new Float64Array(64), slope: new Float64Array(64) };
const sampleOfOne = emptySamples(1, 1);

/** A place of a surface with its derivatives across and up. */
export interface SurfacePlace {
	readonly point: Vector;
	readonly du: Vector;
	readonly dv: Vector;
}

/**
 * One place of a surface, to the last bit as `evaluateGrid` has it but with tables that are kept: for searches that ask for
 * place after place.
 *
 * ```ts
 * const { point, du, dv } = placeAt(surface, 0.5, 0.5);
 * ```
 */
export function placeAt(surface: Surface, u: number, v: number): SurfacePlace {
	const across = tableOfOne(acrossOne, surface.degreeU);
	const up = tableOfOne(upOne, surface.degreeV);
	fillBasis(across, surface.knotsU, [u]);
	fillBasis(up, surface.knotsV, [v]);
	const size = 4 * surface.countU;
	if (rowOfOne.value.length < size)
		rowOfOne = { value: new Float64Array(size), slope: new Float64Array(size) };
	const { value, slope } = rowOfOne;
	const first = across.first[0]!;
	collapse(surface, up, 0, value, slope, [first, first + surface.degreeU + 1]);
	combineRow(across, 1, value, slope, sampleOfOne, 0);
	const { points, du, dv } = sampleOfOne;
	return { point: pointAt(points, 0), du: pointAt(du, 0), dv: pointAt(dv, 0) };
}

/**
 * Points and first derivatives on course lines that each have their own parameters across: with one column, at any
 * places whatever.
 *
 * ```ts
 * const { points } = evaluateRows(surface, us, 12, [0, 0.5, 1]); // every row has its own u
 * ```
 * @param us row j at us[j * columns .. (j + 1) * columns)
 */
export function evaluateRows(
	surface: Surface,
	us: Float64Array,
	columns: number,
	vs: ArrayLike<number>
): SurfaceSamples {
	const out = emptySamples(columns, vs.length);
	const across = makeBasisTable(surface.degreeU, 1, columns);
	const up = basisTable(surface.knotsV, surface.degreeV, vs, 1);
	const value = new Float64Array(4 * surface.countU);
	const slope = new Float64Array(4 * surface.countU);
	for (let j = 0; j < vs.length; j++) {
		fillBasis(across, surface.knotsU, us.subarray(j * columns, (j + 1) * columns));
		collapse(surface, up, j, value, slope, columnsOf(across));
		combineRow(across, columns, value, slope, out, j * columns);
	}
	return out;
}

/**
 * The derivatives across of one course line (v = constant) after another, at the same parameters: x y z of each.
 *
 * ```ts
 * const towards: number[] = [];
 * eachCourse(surface, [0, 0.5, 1], [0, 1], (j, tangents) => (towards[j] = tangents[0]!)); // x where each line begins
 * ```
 * @param take is given each line in the memory of the one before
 */
export function eachCourse(
	surface: Surface,
	us: ArrayLike<number>,
	vs: ArrayLike<number>,
	take: (j: number, tangents: Float64Array) => void
): void {
	const across = basisTable(surface.knotsU, surface.degreeU, us, 1);
	const up = basisTable(surface.knotsV, surface.degreeV, vs, 1);
	const value = new Float64Array(4 * surface.countU);
	const slope = new Float64Array(4 * surface.countU);
	const points = new Float64Array(3 * us.length);
	const tangents = new Float64Array(3 * us.length);
	for (let j = 0; j < vs.length; j++) {
		collapse(surface, up, j, value, slope);
		combineCurve(across, us.length, value, points, tangents, 0);
		take(j, tangents);
	}
}

/**
 * The surface with across and up exchanged.
 *
 * ```ts
 * const acrossIsUp = transpose(surface);
 * ```
 */
export function transpose(surface: Surface): Surface {
	const { countU, countV } = surface;
	const net = new Float64Array(surface.net.length);
	for (let j = 0; j < countV; j++)
		for (let i = 0; i < countU; i++)
			net.set(surface.net.subarray(4 * (j * countU + i), 4 * (j * countU + i) + 4), 4 * (i * countV + j));
	return {
		degreeU: surface.degreeV,
		degreeV: surface.degreeU,
		knotsU: surface.knotsV,
		knotsV: surface.knotsU,
		countU: countV,
		countV: countU,
		net
	};
}

/**
 * The surface run the other way across, which turns its outside round.
 *
 * ```ts
 * const turned = turnOutside(surface); // the same places, its normals the other way
 * ```
 */
export function turnOutside(surface: Surface): Surface {
	const { countU, countV, knotsU } = surface;
	const net = new Float64Array(surface.net.length);
	for (let j = 0; j < countV; j++)
		for (let i = 0; i < countU; i++) {
			const from = 4 * (j * countU + i);
			net.set(surface.net.subarray(from, from + 4), 4 * (j * countU + countU - 1 - i));
		}
	const end = knotsU[0]! + knotsU.at(-1)!;
	return { ...surface, net, knotsU: knotsU.map((t) => end - t).reverse() };
}

/**
 * One curve of the surface, u = constant or v = constant, sampled with its derivative along it.
 *
 * ```ts
 * const { points } = sampleLine(surface, { v: 0.5 }, [0, 0.25, 1]);
 * ```
 */
export function sampleLine(
	surface: Surface,
	line: { readonly v: number } | { readonly u: number },
	at: ArrayLike<number>
): { points: Float64Array; tangents: Float64Array } {
	const along = 'v' in line ? surface : transpose(surface);
	const across = 'v' in line ? line.v : line.u;
	const table = basisTable(along.knotsV, along.degreeV, [across], 1);
	const value = new Float64Array(4 * along.countU);
	const slope = new Float64Array(4 * along.countU);
	collapse(along, table, 0, value, slope);
	const points = new Float64Array(3 * at.length);
	const tangents = new Float64Array(3 * at.length);
	const basis = basisTable(along.knotsU, along.degreeU, at, 1);
	combineCurve(basis, at.length, value, points, tangents, 0);
	return { points, tangents };
}

interface GaussRule {
	readonly at: readonly number[];
	readonly weight: readonly number[];
}
const onUnit = (half: readonly (readonly [number, number])[]): GaussRule => ({
	at: half.flatMap(([x]) => [(1 - x) / 2, (1 + x) / 2]),
	weight: half.flatMap(([, w]) => [w / 2, w / 2])
});
const middle = { at: [0.5], weight: [4 / 9] };
const outer = onUnit([[Math.sqrt(3 / 5), 5 / 9]]);
/** Gauss-Legendre rules on 0..1 of three, four and eight points. Abramowitz & Stegun 25.4.30. */
const gaussRules: readonly GaussRule[] = [
	{ at: [...middle.at, ...outer.at], weight: [...middle.weight, ...outer.weight] },
	onUnit([
		[0.3399810435848563, 0.6521451548625461],
		[0.8611363115940526, 0.3478548451374538]
	]),
	onUnit([
		[0.1834346424956498, 0.362683783378362],
		[0.525532409916329, 0.3137066458778873],
		[0.7966664774136267, 0.2223810344533745],
		[0.9602898564975363, 0.1012285362903763]
	])
];

function gaussParameters(
	knots: Float64Array,
	parts: number,
	rule: GaussRule
): { at: number[]; weight: number[] } {
	const distinct = distinctKnots(knots);
	const at: number[] = [];
	const weight: number[] = [];
	for (let k = 0; k + 1 < distinct.length; k++)
		for (let p = 0; p < parts; p++) {
			const width = (distinct[k + 1]! - distinct[k]!) / parts;
			rule.at.forEach((node, n) => {
				at.push(distinct[k]! + (p + node) * width);
				weight.push(rule.weight[n]! * width);
			});
		}
	return { at, weight };
}

/** Hot: what the places of one row stand for. */
function areaOfRow({ du, dv, columns }: SurfaceSamples, weights: readonly number[], weight: number): number {
	let sum = 0;
	for (let i = 0, k = 0; i < columns; i++, k += 3) {
		const x = du[k + 1]! * dv[k + 2]! - du[k + 2]! * dv[k + 1]!;
		const y = du[k + 2]! * dv[k]! - du[k]! * dv[k + 2]!;
		const z = du[k]! * dv[k + 1]! - du[k + 1]! * dv[k]!;
		sum += weights[i]! * weight * Math.sqrt(x * x + y * y + z * z);
	}
	return sum;
}

function areaWith(surface: Surface, parts: number, rule: GaussRule): number {
	const u = gaussParameters(surface.knotsU, parts, rule);
	const v = gaussParameters(surface.knotsV, parts, rule);
	let sum = 0;
	// One row of samples after another in the same memory: it stays near.
	const row = emptySamples(u.at.length, 1);
	sampleRows(surface, u.at, v.at, row, 0, (j) => {
		sum += areaOfRow(row, u.weight, v.weight[j]!);
	});
	return sum;
}

/**
 * Area in mm², by Gauss quadrature on every knot span: by finer rules, then on halved spans, until it no
 * longer changes.
 *
 * ```ts
 * const squareMetres = surfaceArea(surface) / 1e6;
 * ```
 * @param tolerance relative change that counts as none
 */
export function surfaceArea(surface: Surface, tolerance = 1e-10): number {
	const finest = gaussRules.at(-1)!;
	const steps = [
		...gaussRules.map((rule) => ({ parts: 1, rule })),
		...[2, 4, 8, 16].map((parts) => ({ parts, rule: finest }))
	];
	let area = -1;
	for (const { parts, rule } of steps) {
		const finer = areaWith(surface, parts, rule);
		if (Math.abs(finer - area) <= tolerance * finer) return finer;
		area = finer;
	}
	return area;
}
