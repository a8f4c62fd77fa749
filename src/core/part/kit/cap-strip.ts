import { definePart, length, material } from './define';

export const capStrip = definePart({
	id: 'cap-strip',
	label: 'Cap strip',
	role: 'mullion',
	use: 'A strip over the joint, before the cladding: it covers, clamps and draws the line.',
	anchor: { kind: 'pair' },
	inputs: [
		length('width', 'Width', 50, [1, 300]),
		length('depth', 'Depth', 12, [1, 300]),
		length('front', 'Before the grid', 0, [-300, 300]),
		length('setback', 'Setback at both ends', 0, [0, 500]),
		material('material', 'Material', 'aluminium')
	],
	limits: [],
	steps: [
		{ name: 'axis', do: 'lift', of: 'line', by: 'front', along: 'normal' },
		{
			name: 'strip',
			do: 'bar',
			path: 'axis',
			profile: { shape: 'box', width: 'width', depth: 'depth' },
			facing: 'normal',
			placed: 'before',
			start_setback: 'setback',
			end_setback: 'setback',
			joints: 'mitred'
		}
	],
	elements: [{ name: 'cap', label: 'Cap', category: 'bar', of: ['strip'], material: 'material' }],
	measures: [{ name: 'cut_length', label: 'Cut length', kind: 'length', value: 'length - 2 * setback' }]
});
