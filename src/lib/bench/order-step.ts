import { freshName } from '$core/part/rename';
import type { ElementDefinition, PartDefinition } from '$core/project/part-definition';
import type { Bench } from './bench.svelte';
import { at, withAt, type PartPath } from './editing';

/** Order what a step makes: an element of it, in the material of the part's first input for one. @param path of the list of elements */
export function orderStep(bench: Bench, part: PartDefinition, path: PartPath, step: string): boolean {
	const list = at(part, path) as ElementDefinition[];
	const material = part.inputs.find(({ kind }) => kind === 'material')?.name ?? 'aluminium';
	const element: ElementDefinition = {
		name: freshName(part, 'element'),
		label: `${step[0]!.toUpperCase()}${step.slice(1).replaceAll('_', ' ')}`,
		category: 'plate',
		of: [step],
		material
	};
	return bench.change(`${part.label}: an element of ${step}`, withAt(part, path, [...list, element]));
}
