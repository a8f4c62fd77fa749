import type { PartDefinition } from '../../project/part-definition';

export const bladeStack: PartDefinition = {
	id: 'blade-stack',
	label: 'Blade stack',
	family: 'louver',
	use: 'Blades between the left and the right edge of a four-cornered cell: sun and view control.',
	anchor: { kind: 'ring', corners: 4 },
	inputs: [
		{
			name: 'spacing',
			label: 'Spacing at most',
			kind: 'length',
			default: 250,
			min: 10,
			max: 5000,
			scope: 'shared'
		},
		{ name: 'depth', label: 'Blade depth', kind: 'length', default: 180, min: 1, max: 2000, scope: 'shared' },
		{
			name: 'thickness',
			label: 'Blade thickness',
			kind: 'length',
			default: 12,
			min: 0.5,
			max: 200,
			scope: 'shared'
		},
		{ name: 'angle', label: 'Angle', kind: 'angle', default: 30, min: -90, max: 90, scope: 'per piece' },
		{
			name: 'stand_off',
			label: 'In front of the grid',
			kind: 'length',
			default: 120,
			min: -2000,
			max: 2000,
			scope: 'shared'
		},
		{
			name: 'end_gap',
			label: 'Gap at both ends',
			kind: 'length',
			default: 15,
			min: 0,
			max: 500,
			scope: 'shared'
		},
		{ name: 'material', label: 'Material', kind: 'material', default: 'timber', scope: 'shared' }
	],
	limits: [
		{
			of: 'spacing',
			at_least: 'thickness * 1.5',
			then: 'hold',
			says: 'held back so that the blades do not touch'
		}
	],
	steps: [
		{ name: 'height_between', do: 'number', value: 'max(length(edge2), length(edge4))' },
		{ name: 'count', do: 'number', value: 'max(1, ceil(height_between / spacing))' },
		{ name: 'left', do: 'lift', of: 'edge4_aligned', by: 'stand_off', along: 'normal' },
		{ name: 'right', do: 'lift', of: 'edge2', by: 'stand_off', along: 'normal' },
		{
			name: 'blades',
			do: 'repeat',
			times: 'count',
			index: 'turn',
			steps: [
				{ name: 'share', do: 'number', value: '(turn + 0.5) / count' },
				{ name: 'from', do: 'point on path', path: 'left', ratio: 'share' },
				{ name: 'to', do: 'point on path', path: 'right', ratio: 'share' },
				{ name: 'axis', do: 'line', from: 'from', to: 'to' },
				{
					name: 'flat',
					do: 'bar',
					path: 'axis',
					width: 'thickness',
					depth: 'depth',
					facing: 'normal',
					placed: 'middle',
					turn: 'angle',
					start_setback: 'end_gap',
					end_setback: 'end_gap'
				}
			],
			elements: [{ name: 'blade', label: 'Blade', category: 'blade', of: ['flat'], material: 'material' }]
		}
	],
	elements: [],
	measures: [{ name: 'blade_count', label: 'Blades', kind: 'count', value: 'count' }]
};
