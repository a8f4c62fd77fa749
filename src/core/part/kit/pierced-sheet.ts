import { definePart, length, material } from './define';

export const piercedSheet = definePart({
	id: 'pierced-sheet',
	label: 'Pierced sheet',
	role: 'panel',
	use: 'The web between scattered cells, cut from one sheet that follows the face; a plain sheet where there are none.',
	anchor: { kind: 'ring', corners: 'any' },
	inputs: [
		length('joint', 'Joint to the grid line', 8, [0, 100]),
		length('out', 'Out from the grid', 0, [-500, 500], 'per piece'),
		length('thickness', 'Thickness', 4, [0.5, 200]),
		material('sheet', 'Material', 'aluminium')
	],
	limits: [],
	steps: [{ name: 'web', do: 'pierced sheet', thickness: 'thickness', out: 'out', joint: 'joint' }],
	elements: [{ name: 'panel', label: 'Sheet', category: 'plate', of: ['web'], material: 'sheet' }],
	measures: []
});
