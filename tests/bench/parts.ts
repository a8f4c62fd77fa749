import { compilePart } from '../../src/core/part/compile/compile';
import { triangleCount } from '../../src/core/part/places';
import { inputKind, kernelValue } from '../../src/core/part/inputs';
import type { BackEnd } from '../../src/core/part/evaluate/back-end';
import { shippedParts } from '../../src/core/part/kit';
import { partOfMesh } from '../../src/core/part/kit/of-mesh';
import type { ColumnReader } from '../../src/core/field/column';
import { runProgram, type PartRun } from '../../src/core/part/run';
import { trialSheet } from '../../src/core/part/sheet/trial-sheet';
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

/** What the pieces' anchors give, by name. On its own, so that the pieces themselves are not kept. */
function columnsOf(part: PartDefinition, names: readonly string[]): Map<string, Float64Array> {
	const pieces = variedPoints(part).map((points) => trialColumns(part.anchor, points));
	return new Map(
		names.flatMap((name) =>
			name.startsWith('input.')
				? []
				: [[name, Float64Array.from(pieces, (piece) => piece.get(name) ?? 0)] as const]
		)
	);
}

/** A part set up to be run over varied pieces. */
export function partCase(part: PartDefinition): {
	run: (backEnd?: BackEnd) => PartRun;
	triangles: (run: PartRun) => number;
} {
	const { points } = trialsOf(part.anchor)[0]!;
	const corners = cornersOfTrial(part.anchor, points.length);
	const program = compilePart(part, corners, shippedParts);
	const columns = columnsOf(
		part,
		program.root.columns.map(({ name }) => name)
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
		run: (backEnd) => runProgram(program, read, PIECES, ORIGIN, backEnd, trialSheet(part.anchor, points)),
		triangles: (run) => run.elements.reduce((sum, table) => sum + triangleCount(table), 0)
	};
}

/** A part that fits a ball of 1,000 triangles, as a mesh that was brought in would be. */
export function ballPart(): PartDefinition {
	const [round, rings] = [25, 20];
	const vertices = [0.5, 0.5, 0];
	for (let j = 1; j <= rings; j++)
		for (let i = 0; i < round; i++) {
			const [t, f] = [(Math.PI * j) / (rings + 1), (2 * Math.PI * i) / round];
			const r = Math.sin(t) / 2;
			vertices.push(0.5 + r * Math.cos(f), 0.5 + r * Math.sin(f), 0.5 - Math.cos(t) / 2);
		}
	vertices.push(0.5, 0.5, 1);
	const at = (j: number, i: number) => 1 + j * round + (i % round);
	const triangles: number[] = [];
	for (let i = 0; i < round; i++) {
		triangles.push(0, at(0, i + 1), at(0, i), at(rings - 1, i), at(rings - 1, i + 1), 1 + rings * round);
		for (let j = 0; j + 1 < rings; j++)
			triangles.push(at(j, i), at(j, i + 1), at(j + 1, i + 1), at(j, i), at(j + 1, i + 1), at(j + 1, i));
	}
	return partOfMesh('ball', 'Ball', 'a ball of 1,000 triangles', { vertices, triangles, open: null });
}

/** The same pieces of Framed glass for the kernel written by hand. */
export function framedCase(): () => ReturnType<typeof framedByHand> {
	const points = variedPoints(shippedParts.find(({ id }) => id === 'framed-glass')!);
	const pieces = points.map((one) => trialColumns({ kind: 'ring', corners: 4 }, one));
	const corners = Float64Array.from(points.flatMap((one) => one.flat()));
	const normals = Float64Array.from(
		pieces.flatMap((one) => ['x', 'y', 'z'].map((a) => one.get(`normal.${a}`)!))
	);
	const shortest = Float64Array.from(pieces, (one) => one.get('shortest_edge')!);
	return () => framedByHand(corners, normals, shortest, ORIGIN);
}
