import { chordParameters, evenKnots, interpolate } from '../geometry/spline';
import type { Surface } from '../geometry/surface';
import type { Tuple } from '../geometry/tuple';
import type { Vector } from '../geometry/vector';
import type { Form } from '../project/form-schema';
import { refuse } from '../units/problem';
import { makeFace, type Face } from './face';

type Net = Extract<Form, { kind: 'net' }>;

/** A surface drawn to, or through, a net of points. */
export function netFaces(form: Net, at: string): Face[] {
	const { rows } = form;
	const countV = rows.length;
	const countU = rows[0]?.length ?? 0;
	rows.forEach((row, k) => {
		if (row.length !== countU)
			refuse(
				`${at}/rows/${k}`,
				`row ${k + 1} has ${row.length} points and row 1 has ${countU}; they need the same number`
			);
	});
	const [degreeU, degreeV] = form.degrees;
	for (const [degree, count, what, key] of [
		[degreeU, countU, 'points in a row', 0],
		[degreeV, countV, 'rows', 1]
	] as const) {
		if (degree < 1 || degree > 3)
			refuse(`${at}/degrees/${key}`, `the degree is ${degree}; 1, 2 or 3 is accepted`);
		if (count <= degree)
			refuse(
				`${at}/rows`,
				`${count} ${what} are too few for degree ${degree}; at least ${degree + 1} are needed`
			);
	}
	if (form.points === 'control')
		return [
			makeFace('skin', {
				degreeU,
				degreeV,
				knotsU: evenKnots(countU, degreeU),
				knotsV: evenKnots(countV, degreeV),
				countU,
				countV,
				net: Float64Array.from(rows.flat().flatMap((p) => [...p, 1]))
			})
		];
	try {
		return [makeFace('skin', throughPoints(rows, [degreeU, degreeV]).surface)];
	} catch (error) {
		if (!(error instanceof RangeError)) throw error;
		return refuse(`${at}/rows`, `${error.message}; move one of them`);
	}
}

/**
 * The surface of given degrees through a grid of points, with parameters by chord length.
 *
 * ```ts
 * const { surface: through } = throughPoints(rowsOfPoints, [3, 3]);
 * ```
 * @returns the surface, and the parameters of the columns and of the rows
 * @throws RangeError when rows or columns coincide
 */
export function throughPoints(
	rows: readonly (readonly Vector[])[],
	[degreeU, degreeV]: readonly [number, number]
): { surface: Surface; across: readonly number[]; up: readonly number[] } {
	const columns = rows[0]!.map((_, i) => rows.map((row) => row[i]!));
	const across = chordParameters(rows);
	const up = chordParameters(columns);
	for (const [list, what] of [
		[across, 'columns'],
		[up, 'rows']
	] as const)
		list.forEach((value, k) => {
			if (k > 0 && value <= list[k - 1]!)
				throw new RangeError(`${what} ${k} and ${k + 1} of the net coincide`);
		});
	const first = rows.map((row) => interpolate(row, across, degreeU));
	const second = first[0]!.control.map((_, i) =>
		interpolate(
			first.map(({ control }) => control[i]!),
			up,
			degreeV
		)
	);
	const net = second[0]!.control.flatMap((_, j) =>
		second.flatMap(({ control }): Tuple => [...control[j]!, 1])
	);
	return {
		across,
		up,
		surface: {
			degreeU,
			degreeV,
			knotsU: first[0]!.knots,
			knotsV: second[0]!.knots,
			countU: columns.length,
			countV: rows.length,
			net: Float64Array.from(net)
		}
	};
}
