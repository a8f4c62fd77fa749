import { definePart, length, material, ratio } from './define';

export const perforatedSheet = definePart({
	id: 'perforated-sheet',
	label: 'Perforated sheet',
	family: 'panel',
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
				{ name: 'one', do: 'corner', of: 'small', number: 1 },
				{ name: 'two', do: 'corner', of: 'small', number: 2 },
				{ name: 'three', do: 'corner', of: 'small', number: 3 },
				{ name: 'four', do: 'corner', of: 'small', number: 4 },
				{ name: 'foot_edge', do: 'line', from: 'one', to: 'two' },
				{ name: 'right_edge', do: 'line', from: 'two', to: 'three' },
				{ name: 'head_edge', do: 'line', from: 'three', to: 'four' },
				{ name: 'left_edge', do: 'line', from: 'four', to: 'one' },
				{ name: 'foot_points', do: 'divided', path: 'foot_edge', into: 3 },
				{ name: 'right_points', do: 'divided', path: 'right_edge', into: 3 },
				{ name: 'head_points', do: 'divided', path: 'head_edge', into: 3 },
				{ name: 'left_points', do: 'divided', path: 'left_edge', into: 3 },
				{
					name: 'field',
					do: 'ring',
					through: ['foot_points', 'right_points', 'head_points', 'left_points']
				},
				{ name: 'to_first', do: 'direction', from: 'place', to: 'one' },
				{ name: 'outward', do: 'normal', of: 'small' },
				{ name: 'frame', do: 'plane', origin: 'place', right: 'to_first', normal: 'outward' },
				{
					name: 'least',
					do: 'number',
					value: 'min(length(foot_edge), length(right_edge), length(head_edge), length(left_edge))'
				},
				{ name: 'rim', do: 'circle', plane: 'frame', diameter: 'hole * least', pieces: 12 },
				{
					name: 'web',
					do: 'plate',
					ring: 'field',
					opening: 'rim',
					thickness: 'thickness',
					side: 'in'
				}
			],
			elements: [{ name: 'field_sheet', label: 'Field', category: 'plate', of: ['web'], material: 'sheet' }]
		}
	],
	elements: [],
	measures: [{ name: 'gross_area', label: 'Gross area', kind: 'area', value: 'area(outline)' }]
});
