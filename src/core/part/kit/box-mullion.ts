import type { PartDefinition } from '../../project/part-definition';

export const boxMullion: PartDefinition = {
	id: 'box-mullion',
	label: 'Box mullion',
	family: 'mullion',
	use: 'A hollow box along a line of the grid, standing behind the cladding.',
	anchor: { kind: 'pair' },
	inputs: [
		{ name: 'width', label: 'Width', kind: 'length', default: 50, min: 1, max: 500, scope: 'shared' },
		{ name: 'depth', label: 'Depth', kind: 'length', default: 120, min: 1, max: 1000, scope: 'shared' },
		{ name: 'wall', label: 'Wall', kind: 'length', default: 3, min: 0.5, max: 50, scope: 'shared' },
		{
			name: 'back',
			label: 'Behind the grid',
			kind: 'length',
			default: 60,
			min: -1000,
			max: 1000,
			scope: 'shared'
		},
		{
			name: 'setback',
			label: 'Setback at both ends',
			kind: 'length',
			default: 0,
			min: 0,
			max: 500,
			scope: 'shared'
		},
		{ name: 'material', label: 'Material', kind: 'material', default: 'aluminium', scope: 'shared' }
	],
	limits: [],
	steps: [
		{ name: 'axis', do: 'lift', of: 'line', by: '-back', along: 'normal' },
		{
			name: 'section',
			do: 'bar',
			path: 'axis',
			width: 'width',
			depth: 'depth',
			wall: 'wall',
			facing: 'normal',
			placed: 'behind',
			start_setback: 'setback',
			end_setback: 'setback'
		}
	],
	elements: [{ name: 'mullion', label: 'Mullion', category: 'bar', of: ['section'], material: 'material' }],
	measures: [{ name: 'cut_length', label: 'Cut length', kind: 'length', value: 'line_length - 2 * setback' }]
};
