import { definePart, length, material } from './define';

export const boxMullion = definePart({
	id: 'box-mullion',
	label: 'Box mullion',
	role: 'mullion',
	use: 'A hollow box along a line of the grid, standing behind the cladding.',
	anchor: { kind: 'pair' },
	inputs: [
		length('width', 'Width', 50, [1, 500]),
		length('depth', 'Depth', 120, [1, 1000]),
		length('wall', 'Wall', 3, [0.5, 50]),
		length('back', 'Behind the grid', 60, [-1000, 1000]),
		length('setback', 'Setback at both ends', 0, [0, 500]),
		material('material', 'Material', 'aluminium')
	],
	limits: [],
	steps: [
		{ name: 'axis', do: 'lift', of: 'line', by: '-back', along: 'normal' },
		{
			name: 'section',
			do: 'bar',
			path: 'axis',
			profile: { shape: 'tube', width: 'width', depth: 'depth', wall: 'wall' },
			facing: 'normal',
			placed: 'behind',
			start_setback: 'setback',
			end_setback: 'setback',
			joints: 'mitred'
		}
	],
	elements: [{ name: 'mullion', label: 'Mullion', category: 'bar', of: ['section'], material: 'material' }],
	measures: [{ name: 'cut_length', label: 'Cut length', kind: 'length', value: 'length - 2 * setback' }]
});
