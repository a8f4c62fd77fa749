import { definePart, length, material, ratio } from './define';

export const pinwheel = definePart({
	id: 'pinwheel',
	label: 'Pinwheel',
	role: 'panel',
	use: 'Points at a ratio along every edge: below one half it closes its corners, from one half on its middle.',
	anchor: { kind: 'ring', corners: 'any' },
	inputs: [
		ratio('ratio', 'Where the points sit', 0.35, [0, 1], 'per piece'),
		length('joint', 'Joint to the grid line', 8, [0, 100]),
		length('thickness', 'Plate thickness', 5, [0.5, 100]),
		length('bar', 'Bar diameter', 30, [2, 300]),
		material('sheet', 'Plates', 'zinc'),
		material('rod', 'Bars', 'steel')
	],
	limits: [
		{ of: 'ratio', at_least: '0.1', at_most: '0.9', then: 'hold', says: 'held between 0.1 and 0.9' },
		{
			of: 'bar',
			at_most: 'shortest_edge / 12',
			then: 'hold',
			says: 'held back to a twelfth of the shortest edge'
		}
	],
	steps: [
		{ name: 'outline', do: 'inset', ring: 'cell', by: 'joint' },
		{
			name: 'around',
			do: 'each',
			over: 'edges',
			of: 'outline',
			steps: [{ name: 'tip', do: 'point on path', path: 'edge', ratio: 'ratio', from: 'start' }],
			elements: [],
			gathers: [{ name: 'tips', of: 'tip', as: 'ring' }]
		},
		{
			name: 'states',
			do: 'cases',
			of: 'ratio',
			cases: [
				{
					below: '0.5',
					steps: [
						{
							name: 'wings',
							do: 'each',
							over: 'corners',
							of: 'outline',
							steps: [
								{ name: 'coming', do: 'line', from: 'before', to: 'corner' },
								{ name: 'going', do: 'line', from: 'corner', to: 'after' },
								{ name: 'low', do: 'point on path', path: 'coming', ratio: 'ratio', from: 'start' },
								{ name: 'high', do: 'point on path', path: 'going', ratio: 'ratio', from: 'start' },
								{ name: 'wing', do: 'ring', through: ['low', 'corner', 'high'], runs: 'straight' },
								{ name: 'wing_plate', do: 'plate', ring: 'wing', thickness: 'thickness', side: 'in' }
							],
							elements: [
								{
									name: 'wing_sheet',
									label: 'Wing',
									category: 'plate',
									of: ['wing_plate'],
									material: 'sheet'
								}
							],
							gathers: []
						}
					],
					elements: []
				},
				{
					from: '0.5',
					steps: [
						{ name: 'middle_plate', do: 'plate', ring: 'tips', thickness: 'thickness', side: 'in' },
						{
							name: 'rods',
							do: 'bar',
							path: 'tips',
							profile: { shape: 'round', diameter: 'bar' },
							facing: 'normal',
							placed: 'behind',
							joints: 'mitred'
						}
					],
					elements: [
						{
							name: 'middle_sheet',
							label: 'Middle',
							category: 'plate',
							of: ['middle_plate'],
							material: 'sheet'
						},
						{
							name: 'edge_rods',
							label: 'Edge bars',
							category: 'bar',
							of: ['rods'],
							material: 'rod',
							each: true
						}
					]
				}
			]
		}
	],
	elements: [],
	measures: [
		{ name: 'middle_area', label: 'Middle', kind: 'area', value: 'area(tips)' },
		{
			name: 'closed_area',
			label: 'Closed area',
			kind: 'area',
			value: 'ratio < 0.5 ? area(outline) - area(tips) : area(tips)'
		}
	]
});
