import type { PartDefinition } from '../../project/part-definition';

export const framedGlass: PartDefinition = {
	id: 'framed-glass',
	label: 'Framed glass',
	family: 'panel',
	use: 'A pane in a mitred frame, for any cell: the ordinary glazed unit.',
	anchor: { kind: 'ring', corners: 'any' },
	inputs: [
		{
			name: 'joint',
			label: 'Joint to the grid line',
			kind: 'length',
			default: 10,
			min: 0,
			max: 100,
			scope: 'shared'
		},
		{
			name: 'frame_width',
			label: 'Frame width',
			kind: 'length',
			default: 45,
			min: 1,
			max: 400,
			scope: 'shared'
		},
		{
			name: 'frame_depth',
			label: 'Frame depth',
			kind: 'length',
			default: 60,
			min: 1,
			max: 600,
			scope: 'shared'
		},
		{
			name: 'pane',
			label: 'Glass thickness',
			kind: 'length',
			default: 16,
			min: 1,
			max: 100,
			scope: 'shared'
		},
		{
			name: 'recess',
			label: 'Glass behind the frame face',
			kind: 'length',
			default: 18,
			min: 0,
			max: 500,
			scope: 'per piece'
		},
		{
			name: 'frame_material',
			label: 'Frame material',
			kind: 'material',
			default: 'aluminium',
			scope: 'shared'
		}
	],
	limits: [
		{
			of: 'frame_width',
			at_most: 'cell_shortest_edge / 5',
			then: 'hold',
			says: 'held back to a fifth of the shortest edge'
		},
		{
			of: 'recess',
			at_most: 'frame_depth - pane',
			then: 'hold',
			says: 'held back so that the glass stays within the frame depth'
		}
	],
	steps: [
		{ name: 'outline', do: 'inset', ring: 'cell', by: 'joint' },
		{ name: 'opening', do: 'inset', ring: 'outline', by: 'frame_width' },
		{ name: 'frame', do: 'band', outer: 'outline', inner: 'opening', depth: 'frame_depth' },
		{ name: 'glass_line', do: 'lift', of: 'opening', by: '-recess', along: 'normal' },
		{ name: 'glazing', do: 'plate', ring: 'glass_line', thickness: 'pane', side: 'in' }
	],
	elements: [
		{ name: 'frame_bars', label: 'Frame', category: 'bar', of: ['frame'], material: 'frame_material' },
		{ name: 'glass_pane', label: 'Pane', category: 'plate', of: ['glazing'], material: 'glass' }
	],
	measures: [
		{ name: 'clear_area', label: 'Clear opening', kind: 'area', value: 'area(opening)' },
		{ name: 'frame_length', label: 'Frame length', kind: 'length', value: 'length(outline)' }
	]
};
