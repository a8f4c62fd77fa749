import type { PartDefinition } from '../../project/part-definition';
import type { RawMesh } from '../block/recipe';
import { count, definePart, material } from './define';

/**
 * A part that fits a mesh between a cell and its second layer.
 * @param source the file it was read from @param mesh closed, in the unit box
 */
export const partOfMesh = (id: string, label: string, source: string, mesh: RawMesh): PartDefinition =>
	definePart({
		id,
		label,
		family: 'structure',
		use: `The mesh of ${source}, fitted between a cell and its second layer.`,
		anchor: { kind: 'double ring', corners: 4 },
		inputs: [
			count('quarter_turns', 'Quarter turns', 0, [0, 3], 'per piece'),
			material('made_of', 'Material', 'concrete')
		],
		limits: [],
		steps: [
			{
				name: 'shape',
				do: 'block mesh',
				source: source.slice(0, 120),
				vertices: [...mesh.vertices],
				triangles: [...mesh.triangles]
			},
			{ name: 'body', do: 'fit block', block: 'shape', first: 'cell', second: 'far', turns: 'quarter_turns' }
		],
		elements: [{ name: 'block', label: 'Block', category: 'other', of: ['body'], material: 'made_of' }],
		measures: []
	});
