import { BLOCK } from '$core/part/evaluate/back-end';
import { twoLanes } from '$core/part/evaluate/two-lanes';
import type { ElementTable } from '$core/part/element-table';
import { elementsOf } from '$core/part/compile/compile';
import { inputKind, kernelValue } from '$core/part/inputs';
import type { Inspection, StepView } from '$core/part/inspect';
import { rowFlags } from '$core/part/row-flags';
import { runProgram } from '$core/part/run';
import { trialSheet } from '$core/part/sheet/trial-sheet';
import { trialColumns } from '$core/part/trials';
import type { Vector } from '$core/geometry/vector';
import type { Material } from '$core/project/material-schema';
import type { ElementDefinition, PartDefinition, PartInput } from '$core/project/part-definition';
import { flagSentence } from '$core/units/flag';

export type InputValues = Readonly<Record<string, PartInput['default']>>;

/** An element as it is drawn and told of: mm, kg. */
export interface MadeElement {
	readonly definition: ElementDefinition;
	readonly material: Material;
	readonly table: ElementTable;
}

/** One piece, hung on a trial. */
export interface TrialPiece {
	readonly elements: readonly MadeElement[];
	readonly flags: readonly string[];
	/** It could not be made. */
	readonly failed: boolean;
	readonly results: ReadonlyMap<string, number>;
	/** What is kept of every turn of its repeats. */
	readonly turns: ReadonlyMap<string, readonly number[]>;
}

/** What parts are made of. */
export interface Stock {
	readonly library: readonly PartDefinition[];
	readonly materials: readonly Material[];
}

/** Hang a part on points. Nothing is compiled here: values are columns. */
export function hang(
	part: PartDefinition,
	inspection: Inspection,
	{ library, materials }: Stock,
	points: readonly Vector[],
	inputs: InputValues
): TrialPiece {
	const columns = trialColumns(part.anchor, points);
	for (const input of part.inputs)
		if (inputKind(input))
			columns.set(`input.${input.name}`, kernelValue(input, inputs[input.name] ?? input.default));
	const { program } = inspection;
	const run = runProgram(
		program,
		(name) => {
			const value = columns.get(name) ?? 0;
			return (out) => out.fill(value, 0, BLOCK);
		},
		1,
		[0, 0, 0],
		twoLanes,
		trialSheet(part.anchor, points)
	);
	const raised = rowFlags(program, run, 0);
	const definitions = elementsOf(part, library);
	const elements = run.elements.flatMap((table): MadeElement[] => {
		const definition = definitions[table.element];
		if (!definition || table.count === 0) return [];
		const input = part.inputs.find(({ kind, name }) => kind === 'material' && name === definition.material);
		const id = input ? String(inputs[input.name] ?? input.default) : definition.material;
		const material = materials.find((one) => one.id === id) ?? materials[0]!;
		return [{ definition, material, table }];
	});
	return {
		elements,
		flags: raised.map(flagSentence),
		failed: raised.some(({ level }) => level === 'failed'),
		results: new Map([...run.results].map(([name, values]) => [name, values[0]!])),
		turns: run.turns
	};
}

const AXES = ['x', 'y', 'z'] as const;
const shifted = (places: readonly number[], by: number) => places.map((place) => place + by);

/** What a step came to: its points (mm), lines through them and triangles between them; of a repeat, of all its turns. */
export function cameTo(
	{ results, turns }: TrialPiece,
	{ points, loops, triangles, repeated }: StepView
): Pick<StepView, 'loops' | 'triangles'> & { readonly points: readonly Vector[] } {
	const at = (value: (name: string) => number) =>
		points.map((name): Vector => AXES.map((axis) => value(`${name}.${axis}`)) as [number, number, number]);
	if (!repeated) return { points: at((name) => results.get(name)!), loops, triangles };
	const count = turns.get(`${points[0]}.x`)?.length ?? 0;
	const each = Array.from({ length: count }, (_, turn) => turn);
	return {
		points: each.flatMap((turn) => at((name) => turns.get(name)![turn]!)),
		loops: each.flatMap((turn) => loops.map((loop) => shifted(loop, turn * points.length))),
		triangles: each.flatMap((turn) => shifted(triangles, turn * points.length))
	};
}
