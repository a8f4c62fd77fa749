import { definePart, length, material } from './define';

export const framedGlass = definePart({
	id: 'framed-glass',
	label: 'Framed glass',
	role: 'panel',
	use: 'A pane in a mitred frame, for any cell: the ordinary glazed unit.',
	anchor: { kind: 'ring', corners: 'any' },
	inputs: [
		length('joint', 'Joint to the grid line', 10, [0, 100]),
		length('frame_width', 'Frame width', 45, [1, 400]),
		length('frame_depth', 'Frame depth', 60, [1, 600]),
		length('pane', 'Glass thickness', 16, [1, 100]),
		length('recess', 'Glass behind the frame face', 18, [0, 500], 'per piece'),
		material('frame_material', 'Frame material', 'aluminium')
	],
	limits: [
		{
			of: 'frame_width',
			at_most: 'shortest_edge / 5',
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
		{
			name: 'frame_bars',
			label: 'Frame',
			category: 'bar',
			of: ['frame'],
			material: 'frame_material',
			each: true
		},
		{ name: 'glass_pane', label: 'Pane', category: 'plate', of: ['glazing'], material: 'glass' }
	],
	measures: [
		{ name: 'clear_area', label: 'Clear opening', kind: 'area', value: 'area(opening)' },
		{ name: 'frame_length', label: 'Frame length', kind: 'length', value: 'length(outline)' }
	]
});
