import { definePart, length, material } from './define';

export const deepWindow = definePart({
	id: 'deep-window',
	label: 'Deep window',
	role: 'panel',
	use: 'A pane set back behind its frame, or before it, with reveals all round: shade and depth.',
	anchor: { kind: 'ring', corners: 'any' },
	inputs: [
		length('joint', 'Joint to the grid line', 8, [0, 100]),
		length('frame', 'Frame width', 70, [1, 1000]),
		length('frame_depth', 'Frame depth', 60, [1, 600]),
		length('depth', 'Depth of the pane, negative outward', 160, [-2000, 2000], 'per piece'),
		length('reveal', 'Reveal thickness', 3, [0.5, 100]),
		length('glass', 'Glass thickness', 28, [1, 100]),
		material('frame_material', 'Frame material', 'bronze')
	],
	limits: [
		{
			of: 'frame',
			at_most: 'shortest_edge / 4',
			then: 'hold',
			says: 'held back to a quarter of the shortest edge'
		},
		{ of: 'pane_area', at_least: '0.15 m * 1 m', then: 'flag', says: 'under 0.15 m²' }
	],
	steps: [
		{ name: 'outline', do: 'inset', ring: 'cell', by: 'joint' },
		{ name: 'opening', do: 'inset', ring: 'outline', by: 'frame' },
		{ name: 'frame_band', do: 'band', outer: 'outline', inner: 'opening', depth: 'frame_depth' },
		{ name: 'seat', do: 'lift', of: 'opening', by: '-depth', along: 'normal' },
		{ name: 'pane_area', do: 'number', value: 'area(seat)' },
		{ name: 'glazing', do: 'plate', ring: 'seat', thickness: 'glass', side: 'in' },
		{
			name: 'reveals',
			do: 'repeat',
			when: 'abs(depth) >= 1 mm',
			steps: [
				{ name: 'jambs', do: 'band sheet', outer: 'opening', inner: 'seat' },
				{ name: 'lining', do: 'thicken', sheet: 'jambs', thickness: 'reveal', side: 'both' }
			],
			elements: [
				{
					name: 'reveal_sheets',
					label: 'Reveals',
					category: 'plate',
					of: ['lining'],
					material: 'frame_material',
					each: true
				}
			]
		}
	],
	elements: [
		{
			name: 'frame_bars',
			label: 'Frame',
			category: 'bar',
			of: ['frame_band'],
			material: 'frame_material',
			each: true
		},
		{ name: 'glass_pane', label: 'Pane', category: 'plate', of: ['glazing'], material: 'glass' }
	],
	measures: [
		{ name: 'glass_area', label: 'Pane area', kind: 'area', value: 'pane_area' },
		{ name: 'frame_length', label: 'Frame length', kind: 'length', value: 'length(outline)' }
	]
});
