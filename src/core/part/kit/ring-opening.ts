import { definePart, length, material, ratio } from './define';

export const ringOpening = definePart({
	id: 'ring-opening',
	label: 'Ring opening',
	role: 'panel',
	use: 'A plate with a turned opening: its corners sit at one ratio along the edges, so it opens and closes.',
	anchor: { kind: 'ring', corners: 'any' },
	inputs: [
		length('joint', 'Joint to the grid line', 8, [0, 100]),
		length('margin', 'Margin round the opening', 90, [1, 2000]),
		ratio('place', 'Where the corners sit', 0.3, [0, 1], 'per piece'),
		length('thickness', 'Thickness', 6, [0.5, 200]),
		material('sheet', 'Material', 'aluminium')
	],
	limits: [
		{
			of: 'margin',
			at_most: 'shortest_edge / 5',
			then: 'hold',
			says: 'held back so that the opening stays'
		},
		{
			of: 'place',
			at_least: '0.05',
			at_most: '0.95',
			then: 'hold',
			says: 'held between 0.05 and 0.95, so that the corners stay apart'
		}
	],
	steps: [
		{ name: 'outline', do: 'inset', ring: 'cell', by: 'joint' },
		{ name: 'rim', do: 'inset', ring: 'outline', by: 'margin' },
		{
			name: 'around',
			do: 'each',
			over: 'corners',
			of: 'rim',
			steps: [
				{ name: 'side', do: 'line', from: 'before', to: 'corner' },
				{ name: 'tip', do: 'point on path', path: 'side', ratio: 'place', from: 'start' }
			],
			elements: [],
			gathers: [{ name: 'opening', of: 'tip', as: 'ring' }]
		},
		{
			name: 'panel',
			do: 'plate',
			ring: 'outline',
			opening: 'opening',
			thickness: 'thickness',
			side: 'in'
		}
	],
	elements: [{ name: 'panel_sheet', label: 'Panel', category: 'plate', of: ['panel'], material: 'sheet' }],
	measures: [
		{ name: 'open_area', label: 'Open area', kind: 'area', value: 'area(opening)' },
		{ name: 'open_share', label: 'Share open', kind: 'ratio', value: 'area(opening) / area' }
	]
});
