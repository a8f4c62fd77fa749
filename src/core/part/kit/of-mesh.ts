import type { AnyStep, PartDefinition } from '../../project/part-definition';
import type { BroughtMesh } from '../block/recipe';
import { count, definePart, material, ratio } from './define';

/**
 * The step that has a mesh of a file: a solid as it is, an open mesh as a sheet.
 *
 * ```ts
 * const step = meshStep('shell', 'shell.glb', mesh, '0 mm');
 * ```
 * @param thickness of a sheet, as a share of its largest size
 */
export function meshStep(name: string, source: string, mesh: BroughtMesh, thickness: string): AnyStep {
	const read = {
		name,
		source: source.slice(0, 120),
		vertices: [...mesh.vertices],
		triangles: [...mesh.triangles]
	};
	const { open } = mesh;
	return open ? { ...read, do: 'block sheet', sizes: [...open], thickness } : { ...read, do: 'block mesh' };
}

/**
 * A part that fits a mesh between a cell and its second layer.
 *
 * ```ts
 * const part = partOfMesh('shell', 'Shell', 'shell.glb', mesh);
 * ```
 * @param source the file it was read from
 */
export const partOfMesh = (id: string, label: string, source: string, mesh: BroughtMesh): PartDefinition =>
	definePart({
		id,
		label,
		role: 'structure',
		use: `The ${mesh.open ? 'sheet' : 'mesh'} of ${source}, fitted between a cell and its second layer.`,
		anchor: { kind: 'double ring', corners: 4 },
		inputs: [
			...(mesh.open ? [ratio('thickness', 'Thickness, of its largest size', 0.02, [0.001, 0.5])] : []),
			count('quarter_turns', 'Quarter turns', 0, [0, 3], 'per piece'),
			material('made_of', 'Material', 'concrete')
		],
		limits: [],
		steps: [
			meshStep('shape', source, mesh, 'thickness'),
			{
				name: 'body',
				do: 'fit block',
				block: 'shape',
				first: 'cell',
				second: 'far',
				turns: 'quarter_turns',
				flip: 'false',
				mirror: 'false'
			}
		],
		elements: [{ name: 'block', label: 'Block', category: 'other', of: ['body'], material: 'made_of' }],
		measures: []
	});
