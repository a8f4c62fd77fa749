import { definePart, length, material } from './define';

export const solidSpandrel = definePart({
	id: 'solid-spandrel',
	label: 'Solid spandrel',
	role: 'panel',
	use: 'Outer sheet, insulation and inner tray: the closed cell between windows.',
	anchor: { kind: 'ring', corners: 'any' },
	inputs: [
		length('joint', 'Joint to the grid line', 10, [0, 100]),
		length('outer', 'Outer sheet', 3, [0.5, 50]),
		length('core', 'Insulation', 120, [1, 500]),
		length('inner', 'Inner tray', 1.5, [0.5, 20]),
		material('sheet', 'Sheets', 'aluminium')
	],
	limits: [],
	steps: [
		{ name: 'outline', do: 'inset', ring: 'cell', by: 'joint' },
		{ name: 'face', do: 'plate', ring: 'outline', thickness: 'outer', side: 'in' },
		{ name: 'core_line', do: 'lift', of: 'outline', by: '-outer', along: 'normal' },
		{ name: 'filling', do: 'plate', ring: 'core_line', thickness: 'core', side: 'in' },
		{ name: 'tray_line', do: 'lift', of: 'outline', by: '-(outer + core)', along: 'normal' },
		{ name: 'tray', do: 'plate', ring: 'tray_line', thickness: 'inner', side: 'in' }
	],
	elements: [
		{ name: 'outer_sheet', label: 'Outer sheet', category: 'plate', of: ['face'], material: 'sheet' },
		{ name: 'insulation', label: 'Insulation', category: 'plate', of: ['filling'], material: 'mineral-wool' },
		{ name: 'inner_tray', label: 'Inner tray', category: 'plate', of: ['tray'], material: 'sheet' }
	],
	measures: [{ name: 'build_up', label: 'Build-up', kind: 'length', value: 'outer + core + inner' }]
});
