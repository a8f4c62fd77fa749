import { definePart, length, material, ratio } from './define';

export const twinPinwheel = definePart({
	id: 'twin-pinwheel',
	label: 'Twin pinwheel',
	role: 'panel',
	use: 'Four Pinwheels in a cell of four corners, every other one the other way: a finer weave.',
	anchor: { kind: 'ring', corners: 4 },
	inputs: [
		ratio('ratio', 'Where the points sit', 0.35, [0, 1], 'per piece'),
		length('thickness', 'Plate thickness', 4, [0.5, 100]),
		material('sheet', 'Plates', 'zinc')
	],
	limits: [],
	steps: [
		{
			name: 'quarters',
			do: 'each',
			over: 'small rings',
			of: 'cell',
			across: 2,
			up: 2,
			steps: [
				{
					name: 'wheel',
					do: 'part',
					part: 'pinwheel',
					on: ['small'],
					values: {
						ratio: 'odd ? 1 - ratio : ratio',
						thickness: 'thickness',
						joint: '5 mm',
						sheet: 'sheet'
					}
				}
			],
			elements: [],
			gathers: []
		}
	],
	elements: [],
	measures: [{ name: 'quarter', label: 'Area of a quarter', kind: 'area', value: 'area / 4' }]
});
