import { MOST_ELEMENTS, PartTooLarge } from './fault';
import type { AnyStep, ElementDefinition, PartDefinition, PartStep } from '../../project/part-definition';

/** The elements a part makes, those of its groups and sub-parts included, in the order written. */
export interface ElementList {
	/** Materials are names of materials, or of inputs of the outermost part. */
	readonly all: readonly ElementDefinition[];
	/** Where an element of this part's own stands. */
	readonly own: ReadonlyMap<ElementDefinition, number>;
	readonly within: ReadonlyMap<PartStep, ElementList>;
}

/** What an element is made of, when its sub-part's material inputs are set by the part around it. */
function materialOf(element: ElementDefinition, part: PartDefinition, values: PartStep['values']): string {
	const input = part.inputs.find(({ kind, name }) => kind === 'material' && name === element.material);
	return input ? (values[input.name] ?? String(input.default)) : element.material;
}

/** @param library parts that may be used; a part that is not there, or is used within itself, makes no elements */
export function listElements(
	part: PartDefinition,
	library: readonly PartDefinition[],
	first = 0,
	around: readonly string[] = []
): ElementList {
	const all: ElementDefinition[] = [];
	const own = new Map<ElementDefinition, number>();
	const within = new Map<PartStep, ElementList>();
	const take = (elements: readonly ElementDefinition[]) => {
		for (const element of elements) {
			own.set(element, first + all.length);
			all.push(element);
		}
	};
	const checkCount = () => {
		if (first + all.length > MOST_ELEMENTS)
			throw new PartTooLarge(`it is made of more than ${MOST_ELEMENTS} elements; use fewer sub-parts`);
	};
	const walk = (steps: readonly AnyStep[]): void => {
		for (const step of steps) {
			if (step.do === 'cases') for (const one of step.cases) walkGroup(one);
			else if (step.do === 'repeat' || step.do === 'along' || step.do === 'each') walkGroup(step);
			else if (step.do === 'part') {
				const sub = library.find(({ id }) => id === step.part);
				if (!sub || sub.id === part.id || around.includes(sub.id)) continue;
				const list = listElements(sub, library, first + all.length, [...around, part.id]);
				within.set(step, list);
				for (const element of list.all)
					all.push({ ...element, material: materialOf(element, sub, step.values) });
				checkCount();
			}
		}
	};
	const walkGroup = (group: { steps: readonly AnyStep[]; elements: readonly ElementDefinition[] }) => {
		walk(group.steps);
		take(group.elements);
	};
	walkGroup(part);
	return { all, own, within };
}
