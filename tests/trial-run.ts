import { compilePart } from '../src/core/part/compile/compile';
import { inputKind, kernelValue } from '../src/core/part/inputs';
import { shippedParts } from '../src/core/part/kit';
import type { Program } from '../src/core/part/program';
import type { ElementTable } from '../src/core/part/element-table';
import { placesOf, trianglesOf } from '../src/core/part/places';
import type { ColumnReader } from '../src/core/field/column';
import { rowFlags } from '../src/core/part/row-flags';
import { flagSentence, type Flag } from '../src/core/units/flag';
import { runProgram, type PartRun } from '../src/core/part/run';
import { twoLanes } from '../src/core/part/evaluate/two-lanes';
import { trialSheet } from '../src/core/part/sheet/trial-sheet';
import { cornersOfTrial, trialColumns } from '../src/core/part/trials';
import { partSchema, type PartDefinition, type PartInputForm } from '../src/core/project/part-definition';
import type { Vector } from '../src/core/geometry/vector';
import { BLOCK } from '../src/core/part/evaluate/back-end';

export type TrialRun = PartRun & {
	readonly told: readonly Flag[];
	readonly flagTexts: readonly string[];
};

const programs = new Map<PartDefinition, Map<number, Program>>();

function programOf(part: PartDefinition, corners: number): Program {
	const known = programs.get(part) ?? new Map<number, Program>();
	programs.set(part, known);
	const program = known.get(corners) ?? compilePart(part, corners, shippedParts);
	known.set(corners, program);
	return program;
}

/** Run a part once, hung on given points; inputs as given (mm, degrees, names of choices) or by default. */
export function runOnce(
	part: PartDefinition,
	points: readonly Vector[],
	inputs: Readonly<Record<string, number | string | boolean>> = {}
): TrialRun {
	const columns = trialColumns(part.anchor, points);
	for (const input of part.inputs)
		if (inputKind(input))
			columns.set(`input.${input.name}`, kernelValue(input, inputs[input.name] ?? input.default));
	const program = programOf(part, cornersOfTrial(part.anchor, points.length));
	const read = (name: string): ColumnReader => {
		const value = columns.get(name);
		if (value === undefined) throw new Error(`no column ${name}`);
		return (out) => out.fill(value, 0, BLOCK);
	};
	const run = runProgram(program, read, 1, [0, 0, 0], twoLanes, trialSheet(part.anchor, points));
	const told = rowFlags(program, run, 0);
	return { ...run, told, flagTexts: told.map(flagSentence) };
}

/** A part for a test: panels on cells of four corners unless something else is said. */
export function triedPart(
	steps: PartInputForm['steps'],
	rest: Partial<Pick<PartInputForm, 'anchor' | 'inputs' | 'limits' | 'measures' | 'elements'>> = {}
): PartDefinition {
	return partSchema.parse({
		id: 'tried',
		label: 'Tried',
		role: 'panel',
		use: '',
		anchor: { kind: 'ring', corners: 4 },
		inputs: [],
		limits: [],
		steps,
		elements: [],
		measures: [],
		...rest
	});
}

/** Corners of one instance of an element, mm. */
export const cornersOf = (table: ElementTable, n: number): Float32Array => placesOf(table.shape, n).slice();

/** Triangles of one instance, by vertex within it. */
export const facesOf = (table: ElementTable, n: number): number[] => Array.from(trianglesOf(table.shape, n));

/** The volume within a mesh, by the divergence theorem: what the program states by other ways. mm³ */
export function volumeWithin(corners: ArrayLike<number>, triangles: ArrayLike<number>): number {
	let six = 0;
	// About its own first corner, so that little is lost to the distance from the origin.
	const at = (v: number, a: number) => corners[3 * v + a]! - corners[a]!;
	for (let t = 0; t < triangles.length; t += 3) {
		const [p, q, r] = [triangles[t]!, triangles[t + 1]!, triangles[t + 2]!];
		six +=
			at(p, 0) * (at(q, 1) * at(r, 2) - at(q, 2) * at(r, 1)) +
			at(p, 1) * (at(q, 2) * at(r, 0) - at(q, 0) * at(r, 2)) +
			at(p, 2) * (at(q, 0) * at(r, 1) - at(q, 1) * at(r, 0));
	}
	return six / 6;
}
