import { chainKnots } from '../geometry/path';
import { splineControl } from '../geometry/spline';
import { evaluateGrid, type Surface } from '../geometry/surface';
import type { Form } from '../project/form-schema';
import { LENGTH } from '../units/dimension';
import { FormulaError, checkFormula, evaluateFormula, numberOf, type FormulaType } from '../units/formula';
import { refuse } from '../units/problem';
import { formatNumber } from '../units/quantity';
import { makeFace, type Face } from './face';
import { fixedHeight } from './levels';

type Waves = Extract<Form, { kind: 'waves' }>;

/** Largest deviation from the formula that is let stand (mm), and how fine the spline may get. */
const TOLERANCE = 0.1;
const FINEST = 96;

type Height = (x: number, y: number) => number;

/** The named values in their order, each of those above it, then the height. @throws ProblemError */
function heightFormula(form: Waves, at: string): Height {
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
		let result: number;
		try {
			result = evaluateFormula(expression, constants);
		} catch {
			return refuse(where, `the value "${id}" cannot hang on x or y; write those into the height`);
		}
		if (!Number.isFinite(result)) refuse(where, `"${value}" has no finite value`);
		names[id] = expression.type;
		constants[id] = result;
	}
	const expression = checked(form.height, `${at}/height`, numberOf(LENGTH));
	const values: Record<string, number> = { ...constants, x: 0, y: 0 };
	return (x, y) => {
		values['x'] = x;
		values['y'] = y;
		const height = evaluateFormula(expression, values);
		if (!Number.isFinite(height) || Math.abs(height) > 1e7)
			refuse(
				`${at}/height`,
				`"${form.height}" has no usable value at x ${formatNumber(Math.round(x))}, y ${formatNumber(Math.round(y))} mm (a pole, or a root of a negative)`
			);
		return height;
	};
}

/** A bicubic spline through heights on n by n equal steps. */
function splineThrough(form: Waves, height: Height, n: number): Surface {
	const foot = fixedHeight(form.foot);
	const shares = Array.from({ length: n + 1 }, (_, k) => k / n);
	const rows = shares.map((t) =>
		splineControl(
			shares.map((s) => {
				const [x, y] = [s * form.size[0], t * form.size[1]];
				return [form.from[0] + x, form.from[1] + y, foot + height(x, y), 1];
			}),
			shares,
			false
		)
	);
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
function deviationOf(surface: Surface, form: Waves, height: Height, n: number): number {
	const between = Array.from({ length: 2 * n }, (_, k) => (k + 0.5) / (2 * n));
	const { points } = evaluateGrid(surface, between, between);
	const foot = fixedHeight(form.foot);
	let most = 0;
	for (let k = 0; k < points.length; k += 3) {
		const exact = foot + height(points[k]! - form.from[0], points[k + 1]! - form.from[1]);
		most = Math.max(most, Math.abs(points[k + 2]! - exact));
	}
	return most;
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
