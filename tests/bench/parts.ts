import { compilePart } from '../../src/core/part/compile';
import { inputKind, kernelValue } from '../../src/core/part/inputs';
import type { BackEnd } from '../../src/core/part/evaluate/back-end';
import { shippedParts } from '../../src/core/part/kit';
import { runProgram, type ColumnReader, type PartRun } from '../../src/core/part/run';
import { cornersOfTrial, trialColumns, trialsOf } from '../../src/core/part/trials';
import type { Vector } from '../../src/core/geometry/vector';
import type { PartDefinition } from '../../src/core/project/part-definition';
import { framedByHand } from './framed-glass-by-hand';

/** So many cells, every one of its own shape. */
export const PIECES = 10_000;
const ORIGIN = [0, 0, 0] as const;

/** Repeatable noise, -1 to 1. */
const noise = (n: number) => Math.sin(n * 12.9898) * Math.cos(n * 78.233);

/** The points of a part's first trial of full size, moved a little for every piece. */
function variedPoints(part: PartDefinition): Vector[][] {
	const { points } = trialsOf(part.anchor)[0]!;
	return Array.from({ length: PIECES }, (_, n) =>
		points.map((p, k): Vector => [
			p[0] + 90 * noise(7 * n + k),
			p[1] + 60 * noise(11 * n + k + 3),
			p[2] + 90 * noise(13 * n + k + 5)
		])
	);
}

/** A part set up to be run over varied pieces. */
export function partCase(part: PartDefinition): {
	run: (backEnd?: BackEnd) => PartRun;
	triangles: (run: PartRun) => number;
} {
	const pieces = variedPoints(part).map((points) => trialColumns(part.anchor, points));
	const program = compilePart(
		part,
		cornersOfTrial(part.anchor, trialsOf(part.anchor)[0]!.points.length),
		shippedParts
	);
	const columns = new Map<string, Float64Array>();
	for (const { name } of program.root.columns)
		if (!name.startsWith('input.'))
			columns.set(
				name,
				Float64Array.from(pieces, (piece) => piece.get(name) ?? 0)
			);
	const inputs = new Map<string, number>(
		part.inputs.flatMap((input) =>
			inputKind(input) ? [[`input.${input.name}`, kernelValue(input, input.default)] as const] : []
		)
	);
	const read = (name: string): ColumnReader => {
		const given = inputs.get(name);
		if (given !== undefined) return (out, from, to) => out.fill(given, 0, to - from);
		const values = columns.get(name)!;
		return (out, from, to) => out.set(values.subarray(from, to));
	};
	return {
		run: (backEnd) => runProgram(program, read, PIECES, ORIGIN, backEnd),
		triangles: (run) =>
			run.elements.reduce((sum, table) => sum + (table.count * table.triangles.length) / 3, 0)
	};
}

/** The same pieces of Framed glass for the kernel written by hand. */
export function framedCase(): () => ReturnType<typeof framedByHand> {
	const points = variedPoints(shippedParts.find(({ id }) => id === 'framed-glass')!);
	const pieces = points.map((one) => trialColumns({ kind: 'ring', corners: 4 }, one));
	const corners = Float64Array.from(points.flatMap((one) => one.flat()));
	const normals = Float64Array.from(
		pieces.flatMap((one) => ['x', 'y', 'z'].map((a) => one.get(`normal.${a}`)!))
	);
	const shortest = Float64Array.from(pieces, (one) => one.get('cell_shortest_edge')!);
	return () => framedByHand(corners, normals, shortest, ORIGIN);
}
