import { definePart, length, material, ratio } from './define';

export const sunHood = definePart({
	id: 'sun-hood',
	label: 'Sun hood',
	role: 'louver',
	use: 'A shelf before the head of a four-cornered cell on two brackets: shade from a high sun.',
	anchor: { kind: 'ring', corners: 4 },
	inputs: [
		length('depth', 'Depth', 600, [10, 4000], 'per piece'),
		length('thickness', 'Shelf thickness', 25, [1, 200]),
		ratio('at', 'Up the cell', 0.9, [0.05, 1]),
		length('bracket', 'Bracket thickness', 10, [1, 100]),
		length('drop', 'Bracket height', 180, [10, 2000]),
		material('shelf', 'Shelf', 'aluminium'),
		material('brackets', 'Brackets', 'steel')
	],
	limits: [],
	steps: [
		{ name: 'left', do: 'point on path', path: 'edge4_aligned', ratio: 'at', from: 'start' },
		{ name: 'right', do: 'point on path', path: 'edge2', ratio: 'at', from: 'start' },
		{ name: 'left_out', do: 'lift', of: 'left', by: 'depth', along: 'normal' },
		{ name: 'right_out', do: 'lift', of: 'right', by: 'depth', along: 'normal' },
		{ name: 'top', do: 'ring', through: ['left_out', 'right_out', 'right', 'left'], runs: 'straight' },
		{ name: 'slab', do: 'plate', ring: 'top', thickness: 'thickness', side: 'in' },
		{
			name: 'left_low',
			do: 'point on path',
			path: 'edge4_aligned',
			ratio: 'at - drop / length(edge4)',
			from: 'start'
		},
		{
			name: 'right_low',
			do: 'point on path',
			path: 'edge2',
			ratio: 'at - drop / length(edge2)',
			from: 'start'
		},
		{ name: 'left_side', do: 'ring', through: ['left_low', 'left_out', 'left'], runs: 'straight' },
		{ name: 'right_side', do: 'ring', through: ['right_low', 'right_out', 'right'], runs: 'straight' },
		{ name: 'left_bracket', do: 'plate', ring: 'left_side', thickness: 'bracket', side: 'both' },
		{ name: 'right_bracket', do: 'plate', ring: 'right_side', thickness: 'bracket', side: 'both' },
		{ name: 'span', do: 'line', from: 'left', to: 'right' }
	],
	elements: [
		{ name: 'shelf_blade', label: 'Shelf', category: 'blade', of: ['slab'], material: 'shelf' },
		{
			name: 'bracket_plates',
			label: 'Brackets',
			category: 'plate',
			of: ['left_bracket', 'right_bracket'],
			material: 'brackets',
			each: true
		}
	],
	measures: [
		{ name: 'width', label: 'Width', kind: 'length', value: 'length(span)' },
		{
			name: 'shade',
			label: 'Shade below the shelf, sun as it stands',
			kind: 'length',
			value:
				'abs(profile_angle) > 89.9 deg ? at * length(edge2) : max(0 mm, min(at * length(edge2), depth * tan(profile_angle)))'
		}
	]
});
