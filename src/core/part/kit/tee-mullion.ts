import { definePart, length, material } from './define';

export const teeMullion = definePart({
	id: 'tee-mullion',
	label: 'Tee mullion',
	role: 'mullion',
	use: 'A tee behind the cladding, its flange to the outside: slender steel glazing.',
	anchor: { kind: 'pair' },
	inputs: [
		length('width', 'Flange', 60, [1, 500]),
		length('depth', 'Depth', 100, [1, 1000]),
		length('wall', 'Thickness', 8, [0.5, 80]),
		length('back', 'Behind the grid', 40, [-1000, 1000]),
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
			profile: { shape: 'tee', width: 'width', depth: 'depth', wall: 'wall' },
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
