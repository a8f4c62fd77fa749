import { definePart, length, material } from './define';

export const flatPanel = definePart({
	id: 'flat-panel',
	label: 'Flat panel',
	role: 'panel',
	use: 'A plate on any cell: sheet metal, stone, board. It tells where a cell is too warped for it.',
	anchor: { kind: 'ring', corners: 'any' },
	inputs: [
		length('joint', 'Joint to the grid line', 8, [0, 100]),
		length('thickness', 'Thickness', 4, [0.5, 200]),
		length('warp_allowed', 'Warp that is allowed', 10, [0, 500]),
		material('sheet', 'Material', 'aluminium')
	],
	limits: [
		{ of: 'warp', at_most: 'warp_allowed', then: 'flag', says: 'more than is allowed for a flat panel' }
	],
	steps: [
		{ name: 'warp', do: 'number', value: 'cell.warp' },
		{ name: 'outline', do: 'inset', ring: 'cell', by: 'joint' },
		{ name: 'panel', do: 'plate', ring: 'outline', thickness: 'thickness', side: 'in' }
	],
	elements: [{ name: 'panel_sheet', label: 'Panel', category: 'plate', of: ['panel'], material: 'sheet' }],
	measures: [{ name: 'net_area', label: 'Net area', kind: 'area', value: 'area(outline)' }]
});
