import type { RawMesh } from '$core/part/block/recipe';
import { partSchema, type PartDefinition } from '$core/project/part-definition';

/** A part that fits a mesh between a cell and its second layer. */
export function blockPart(id: string, label: string, source: string, mesh: RawMesh): PartDefinition {
	return partSchema.parse({
		id,
		label,
		family: 'structure',
		use: `The mesh of ${source}, fitted between a cell and its second layer.`,
		anchor: { kind: 'double ring', corners: 4 },
		inputs: [
			{
				name: 'quarter_turns',
				label: 'Quarter turns',
				kind: 'count',
				default: 0,
				min: 0,
				max: 3,
				scope: 'per piece'
			},
			{ name: 'made_of', label: 'Material', kind: 'material', default: 'concrete', scope: 'shared' }
		],
		limits: [],
		steps: [
			{ name: 'shape', do: 'block mesh', source: source.slice(0, 120), ...mesh },
			{
				name: 'body',
				do: 'fit block',
				block: 'shape',
				first: 'cell',
				second: 'far',
				turns: 'quarter_turns'
			}
		],
		elements: [{ name: 'block', label: 'Block', category: 'other', of: ['body'], material: 'made_of' }],
		measures: []
	});
}
