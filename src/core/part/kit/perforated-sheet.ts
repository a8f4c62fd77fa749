import { definePart, length, material, ratio } from './define';

export const perforatedSheet = definePart({
	id: 'perforated-sheet',
	label: 'Perforated sheet',
	role: 'panel',
	use: 'A sheet with three by three round holes that follow the cell: screens, ventilated cladding.',
	anchor: { kind: 'ring', corners: 4 },
	inputs: [
		length('joint', 'Joint to the grid line', 8, [0, 100]),
		ratio('hole', 'Hole, of its field', 0.5, [0.05, 0.9], 'per piece'),
		length('thickness', 'Thickness', 3, [0.5, 50]),
		material('sheet', 'Material', 'aluminium')
	],
	limits: [
		{ of: 'hole', at_most: '0.8', then: 'hold', says: 'held back so that webs stay between the holes' }
	],
	steps: [
		{ name: 'outline', do: 'inset', ring: 'cell', by: 'joint' },
		{
			name: 'fields',
			do: 'each',
			over: 'small rings',
			of: 'outline',
			across: 3,
			up: 3,
			steps: [
				{ name: 'place', do: 'middle', of: 'small' },
				{ name: 'one', do: 'edge', of: 'small', number: 1 },
				{ name: 'two', do: 'edge', of: 'small', number: 2 },
				{ name: 'three', do: 'edge', of: 'small', number: 3 },
				{ name: 'four', do: 'edge', of: 'small', number: 4 },
				{ name: 'along', do: 'corner', of: 'small', number: 1 },
				{ name: 'to_first', do: 'direction', from: 'place', to: 'along' },
				{ name: 'frame', do: 'plane', origin: 'place', right: 'to_first', normal: 'normal' },
				{
					name: 'least',
					do: 'number',
					value: 'area(small) / max(length(one), length(two), length(three), length(four))'
				},
				{ name: 'rim', do: 'circle', plane: 'frame', diameter: 'hole * least', pieces: 16 }
			],
			elements: [],
			gathers: [{ name: 'holes', of: 'rim', as: 'rings' }]
		},
		{ name: 'web', do: 'plate', ring: 'outline', opening: 'holes', thickness: 'thickness', side: 'in' }
	],
	elements: [{ name: 'panel', label: 'Sheet', category: 'plate', of: ['web'], material: 'sheet' }],
	measures: [
		{ name: 'gross_area', label: 'Gross area', kind: 'area', value: 'area(outline)' },
		{
			name: 'open_share',
			label: 'Share open',
			kind: 'ratio',
			value: 'area(holes) / area(outline)'
		}
	]
});
