import { definePart, length, material } from './define';

export const bowedPanel = definePart({
	id: 'bowed-panel',
	label: 'Bowed panel',
	role: 'panel',
	use: 'A four-cornered sheet raised in its middle: a quilted wall, or a way to take warp.',
	anchor: { kind: 'ring', corners: 4 },
	inputs: [
		length('joint', 'Joint to the grid line', 8, [0, 100]),
		length('rise', 'Rise, negative inward', 120, [-2000, 2000], 'per piece'),
		length('thickness', 'Thickness', 4, [0.5, 100]),
		material('sheet', 'Material', 'aluminium')
	],
	limits: [],
	steps: [
		{ name: 'outline', do: 'inset', ring: 'cell', by: 'joint' },
		{ name: 'bow', do: 'bowed sheet', ring: 'outline', rise: 'rise', along: 'normal', pieces: 6 },
		{ name: 'skin', do: 'thicken', sheet: 'bow', thickness: 'thickness', side: 'in', along: 'normal' }
	],
	elements: [{ name: 'panel_sheet', label: 'Panel', category: 'plate', of: ['skin'], material: 'sheet' }],
	measures: [{ name: 'flat_area', label: 'Area before bowing', kind: 'area', value: 'area(outline)' }]
});
