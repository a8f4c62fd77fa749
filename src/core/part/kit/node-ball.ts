import { definePart, length, material } from './define';

export const nodeBall = definePart({
	id: 'node-ball',
	label: 'Node ball',
	role: 'structure',
	use: 'A ball where bars meet.',
	anchor: { kind: 'node', corners: 'any' },
	inputs: [
		length('diameter', 'Diameter', 140, [2, 2000]),
		length('back', 'Behind the grid', 0, [-2000, 2000]),
		material('material', 'Material', 'steel')
	],
	limits: [],
	steps: [
		{ name: 'place', do: 'lift', of: 'node', by: '-back', along: 'normal' },
		{ name: 'ball', do: 'sphere', centre: 'place', diameter: 'diameter' }
	],
	elements: [{ name: 'node_body', label: 'Node', category: 'connector', of: ['ball'], material: 'material' }],
	measures: [{ name: 'at_height', label: 'Height', kind: 'length', value: 'height(place)' }]
});
