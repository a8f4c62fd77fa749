import { definePart, length, material } from './define';

export const tubeEdge = definePart({
	id: 'tube-edge',
	label: 'Tube edge',
	role: 'mullion',
	use: 'A round tube along a line of the grid: rims, handrails, light shells.',
	anchor: { kind: 'pair' },
	inputs: [
		length('diameter', 'Diameter', 76, [2, 800]),
		length('wall', 'Wall', 4, [0.5, 50]),
		length('back', 'Behind the grid', 0, [-1000, 1000]),
		length('setback', 'Setback at both ends', 0, [0, 500]),
		material('material', 'Material', 'steel')
	],
	limits: [],
	steps: [
		{ name: 'axis', do: 'lift', of: 'line', by: '-back', along: 'normal' },
		{
			name: 'section',
			do: 'bar',
			path: 'axis',
			profile: { shape: 'round', diameter: 'diameter', wall: 'wall' },
			facing: 'normal',
			start_setback: 'setback',
			end_setback: 'setback',
			placed: 'middle',
			joints: 'mitred'
		}
	],
	elements: [{ name: 'tube', label: 'Tube', category: 'bar', of: ['section'], material: 'material' }],
	measures: [{ name: 'cut_length', label: 'Cut length', kind: 'length', value: 'length - 2 * setback' }]
});
