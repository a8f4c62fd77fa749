import { definePart, length, material } from './define';

export const pyramid = definePart({
	id: 'pyramid',
	label: 'Pyramid',
	role: 'panel',
	use: 'Any cell folded to a point before it or behind it: relief from flat triangles.',
	anchor: { kind: 'ring', corners: 'any' },
	inputs: [
		length('joint', 'Joint to the grid line', 8, [0, 100]),
		length('height', 'Height, negative inward', 250, [-5000, 5000], 'per piece'),
		length('thickness', 'Thickness', 4, [0.5, 100]),
		material('sheet', 'Material', 'aluminium')
	],
	limits: [],
	steps: [
		{ name: 'outline', do: 'inset', ring: 'cell', by: 'joint' },
		{ name: 'foot', do: 'middle', of: 'outline' },
		{ name: 'peak', do: 'lift', of: 'foot', by: 'height', along: 'normal' },
		{ name: 'folds', do: 'fan sheet', ring: 'outline', to: 'peak' },
		{ name: 'skin', do: 'thicken', sheet: 'folds', thickness: 'thickness', side: 'in' },
		{ name: 'first', do: 'corner', of: 'outline', number: 1 },
		{ name: 'ridge', do: 'line', from: 'first', to: 'peak' }
	],
	elements: [{ name: 'faces', label: 'Faces', category: 'plate', of: ['skin'], material: 'sheet' }],
	measures: [{ name: 'ridge_length', label: 'Ridge', kind: 'length', value: 'length(ridge)' }]
});
