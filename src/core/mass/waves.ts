import { chainKnots } from '../geometry/path';
import { splineControl } from '../geometry/spline';
import { evaluateGrid, type Surface } from '../geometry/surface';
import type { Form } from '../project/form-schema';
import { LENGTH } from '../units/dimension';
import { checkFormula } from '../units/formula/check';
import { FormulaError, numberOf, type Expression, type FormulaType } from '../units/formula/expression';
import { evaluateColumns } from '../units/formula/evaluate';
import { refuse } from '../units/problem';
import { formatNumber } from '../units/quantity';
import { makeFace, type Face } from './face';
import { fixedHeight } from './levels';

type Waves = Extract<Form, { kind: 'waves' }>;

/** Largest deviation from the formula that is let stand (mm), and how fine the spline may get. */
const TOLERANCE = 0.1;
const FINEST = 96;
/** A height further from the foot than this is a mistake (mm). */
const HIGHEST = 1e7;

/** Heights over places in plan (mm). */
type Heights = (x: Float64Array, y: Float64Array) => Float64Array;

/** The named values in their order, each of those above it, then the height. @throws ProblemError */
function heightFormula(form: Waves, at: string): Heights {
	const names: Record<string, FormulaType> = { x: numberOf(LENGTH), y: numberOf(LENGTH) };
	const constants: Record<string, number> = {};
	const checked = (text: string, where: string, expected?: FormulaType) => {
		try {
			return checkFormula(text, { names, functions: {}, ...(expected && { expected }) });
		} catch (error) {
			if (error instanceof FormulaError) return refuse(where, error.message);
			throw error;
		}
	};
	for (const { id, value } of form.values) {
		const where = `${at}/values/${id}`;
		if (id in names) refuse(where, `the name "${id}" is used already; names are used once`);
		const expression = checked(value, where);
		if (usesPlace(expression))
			refuse(where, `the value "${id}" cannot hang on x or y; write those into the height`);
		const result = evaluateColumns(expression, (name) => Float64Array.of(constants[name]!), 1)[0]!;
		if (!Number.isFinite(result)) refuse(where, `"${value}" has no finite value`);
		names[id] = expression.type;
		constants[id] = result;
	}
	const expression = checked(form.height, `${at}/height`, numberOf(LENGTH));
	return (x, y) => {
		const column = (name: string) =>
			name === 'x' ? x : name === 'y' ? y : new Float64Array(x.length).fill(constants[name]!);
		const heights = evaluateColumns(expression, column, x.length);
		const unusable = heights.findIndex((height) => !(Math.abs(height) <= HIGHEST));
		if (unusable >= 0) {
			const [px, py] = [x, y].map((column) => formatNumber(Math.round(column[unusable]!)));
			refuse(
				`${at}/height`,
				`"${form.height}" has no usable value at x ${px}, y ${py} mm (a pole, or a root of a negative)`
			);
		}
		return heights;
	};
}

/** Whether a formula names where in the plan it is. */
function usesPlace(expression: Expression): boolean {
	if (expression.kind === 'name') return expression.name === 'x' || expression.name === 'y';
	return expression.kind === 'arithmetic' && expression.args.some(usesPlace);
}

/** A bicubic spline through heights on n by n equal steps. */
function splineThrough(form: Waves, heights: Heights, n: number): Surface {
	const foot = fixedHeight(form.foot);
	const shares = Array.from({ length: n + 1 }, (_, k) => k / n);
	const x = Float64Array.from(shares, (s) => s * form.size[0]);
	const rows = shares.map((t) => {
		const y = new Float64Array(x.length).fill(t * form.size[1]);
		const z = heights(x, y);
		return splineControl(
			shares.map((_, k) => [form.from[0] + x[k]!, form.from[1] + y[k]!, foot + z[k]!, 1]),
			shares,
			false
		);
	});
	const columns = rows[0]!.map((_, i) =>
		splineControl(
			rows.map((row) => row[i]!),
			shares,
			false
		)
	);
	return {
		degreeU: 3,
		degreeV: 3,
		knotsU: chainKnots(shares),
		knotsV: chainKnots(shares),
		countU: columns.length,
		countV: columns[0]!.length,
		net: Float64Array.from(columns[0]!.flatMap((_, j) => columns.flatMap((column) => column[j]!)))
	};
}

/** How far the spline is from the formula at most, looked at between its points (mm). */
function deviationOf(surface: Surface, form: Waves, heights: Heights, n: number): number {
	const between = Array.from({ length: 2 * n }, (_, k) => (k + 0.5) / (2 * n));
	const { points } = evaluateGrid(surface, between, between);
	const foot = fixedHeight(form.foot);
	const column = (a: number, from: number) =>
		Float64Array.from({ length: points.length / 3 }, (_, k) => points[3 * k + a]! - from);
	const exact = heights(column(0, form.from[0]), column(1, form.from[1]));
	const found = column(2, foot);
	return found.reduce((most, z, k) => Math.max(most, Math.abs(z - exact[k]!)), 0);
}

/** Heights over a plan rectangle by a formula: a spline that follows it to a tenth of a millimetre. */
export function wavesFaces(form: Waves, at: string): Face[] {
	for (const [k, size] of form.size.entries())
		if (!(size > 0)) refuse(`${at}/size/${k}`, `the size is ${size} mm; more than 0 mm is accepted`);
	const height = heightFormula(form, at);
	for (let n = 6; ; n = Math.min(FINEST, 2 * n)) {
		const surface = splineThrough(form, height, n);
		const deviation = deviationOf(surface, form, height, n);
		if (deviation > TOLERANCE && n < FINEST) continue;
		return [{ ...makeFace('skin', surface), deviation }];
	}
}
