import { definePart, length, material, ratio } from './define';

export const foldedHood = definePart({
	id: 'folded-hood',
	label: 'Folded hood',
	role: 'panel',
	use: 'Two skins and two end triangles over a ridge, open at the foot: shade above, view below.',
	anchor: { kind: 'ring', corners: 4 },
	inputs: [
		length('depth', 'Depth of the ridge', 350, [1, 3000], 'per piece'),
		ratio('ridge_at', 'Ridge up the cell', 0.55, [0.1, 0.95]),
		ratio('open', 'Open at the foot', 0.3, [0, 0.9]),
		length('joint', 'Joint to the grid line', 8, [0, 100]),
		length('thickness', 'Thickness', 3, [0.5, 50]),
		material('sheet', 'Material', 'aluminium')
	],
	limits: [
		{
			of: 'open',
			at_most: 'ridge_at - 0.05',
			then: 'hold',
			says: 'held back so that it stays below the ridge'
		}
	],
	steps: [
		{ name: 'outline', do: 'inset', ring: 'cell', by: 'joint' },
		{ name: 'foot_right', do: 'corner', of: 'outline', number: 2 },
		{ name: 'foot_left', do: 'corner', of: 'outline', number: 1 },
		{ name: 'head_right', do: 'corner', of: 'outline', number: 3 },
		{ name: 'head_left', do: 'corner', of: 'outline', number: 4 },
		{ name: 'left', do: 'line', from: 'foot_left', to: 'head_left' },
		{ name: 'right', do: 'line', from: 'foot_right', to: 'head_right' },
		{ name: 'lip_left', do: 'point on path', path: 'left', ratio: 'open', from: 'start' },
		{ name: 'lip_right', do: 'point on path', path: 'right', ratio: 'open', from: 'start' },
		{ name: 'under_left', do: 'point on path', path: 'left', ratio: 'ridge_at', from: 'start' },
		{ name: 'under_right', do: 'point on path', path: 'right', ratio: 'ridge_at', from: 'start' },
		{ name: 'ridge_left', do: 'lift', of: 'under_left', by: 'depth', along: 'normal' },
		{ name: 'ridge_right', do: 'lift', of: 'under_right', by: 'depth', along: 'normal' },
		{
			name: 'upper',
			do: 'ring',
			through: ['ridge_left', 'ridge_right', 'head_right', 'head_left'],
			runs: 'straight'
		},
		{
			name: 'lower',
			do: 'ring',
			through: ['lip_left', 'lip_right', 'ridge_right', 'ridge_left'],
			runs: 'straight'
		},
		{ name: 'left_end', do: 'ring', through: ['lip_left', 'ridge_left', 'head_left'], runs: 'straight' },
		{ name: 'right_end', do: 'ring', through: ['lip_right', 'head_right', 'ridge_right'], runs: 'straight' },
		{ name: 'upper_skin', do: 'plate', ring: 'upper', thickness: 'thickness', side: 'in' },
		{ name: 'lower_skin', do: 'plate', ring: 'lower', thickness: 'thickness', side: 'in' },
		{ name: 'left_cheek', do: 'plate', ring: 'left_end', thickness: 'thickness', side: 'in' },
		{ name: 'right_cheek', do: 'plate', ring: 'right_end', thickness: 'thickness', side: 'in' },
		{ name: 'ridge', do: 'line', from: 'ridge_left', to: 'ridge_right' }
	],
	elements: [
		{
			name: 'skins',
			label: 'Skins',
			category: 'plate',
			of: ['upper_skin', 'lower_skin'],
			material: 'sheet',
			each: true
		},
		{
			name: 'cheeks',
			label: 'Ends',
			category: 'plate',
			of: ['left_cheek', 'right_cheek'],
			material: 'sheet',
			each: true
		}
	],
	measures: [{ name: 'ridge_length', label: 'Ridge', kind: 'length', value: 'length(ridge)' }]
});
