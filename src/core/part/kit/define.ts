import type { z } from 'zod';
import type { inputSchema, PartDefinition } from '../../project/part-definition';

type Input = z.input<typeof inputSchema>;
type Range = readonly [min: number, max: number];

/** A part of the kit, written whole, so that nothing has to be read before a thread can begin. */
export const definePart = (part: PartDefinition): PartDefinition => part;

const numeric =
	(kind: 'length' | 'angle' | 'ratio' | 'count', whole: Range) =>
	(
		name: string,
		label: string,
		given: number,
		[min, max]: Range = whole,
		scope: Input['scope'] = 'shared'
	): Input => ({ name, label, kind, default: given, min, max, scope });

/** Inputs by kind: name, label, default, range, and whether it is set piece by piece. mm, degrees, plain. */
export const length = numeric('length', [0, 10_000]);
export const angle = numeric('angle', [-90, 90]);
export const ratio = numeric('ratio', [0, 1]);
export const count = numeric('count', [1, 200]);

export const material = (name: string, label: string, given: string): Input => ({
	name,
	label,
	kind: 'material',
	default: given,
	scope: 'shared'
});

export const choice = (name: string, label: string, options: Record<string, string>): Input => ({
	name,
	label,
	kind: 'choice',
	default: Object.keys(options)[0]!,
	options: Object.entries(options).map(([id, words]) => ({ name: id, label: words })),
	scope: 'shared'
});
