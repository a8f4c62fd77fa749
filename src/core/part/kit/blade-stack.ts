import { definePart, angle, length, material } from './define';

export const bladeStack = definePart({
	id: 'blade-stack',
	label: 'Blade stack',
	role: 'louver',
	use: 'Blades between the left and the right edge of a four-cornered cell: sun and view control.',
	anchor: { kind: 'ring', corners: 4 },
	inputs: [
		length('spacing', 'Spacing at most', 250, [10, 5000]),
		length('depth', 'Blade depth', 180, [1, 2000]),
		length('thickness', 'Blade thickness', 12, [0.5, 200]),
		angle('angle', 'Angle', 30, [-90, 90], 'per piece'),
		length('stand_off', 'In front of the grid', 120, [-2000, 2000]),
		length('end_gap', 'Gap at both ends', 15, [0, 500]),
		material('material', 'Material', 'timber')
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
				{ name: 'from', do: 'point on path', path: 'left', ratio: 'share', from: 'start' },
				{ name: 'to', do: 'point on path', path: 'right', ratio: 'share', from: 'start' },
				{ name: 'axis', do: 'line', from: 'from', to: 'to' },
				{
					name: 'flat',
					do: 'bar',
					path: 'axis',
					profile: { shape: 'blade', thickness: 'thickness', depth: 'depth' },
					facing: 'normal',
					turn: 'angle',
					start_setback: 'end_gap',
					end_setback: 'end_gap',
					placed: 'middle',
					joints: 'mitred'
				}
			],
			elements: [{ name: 'blade', label: 'Blade', category: 'blade', of: ['flat'], material: 'material' }]
		}
	],
	elements: [],
	measures: [
		{ name: 'blade_count', label: 'Blades', kind: 'count', value: 'count' },
		{
			name: 'cut_off',
			label: 'Keeps out a sun higher than',
			kind: 'angle',
			value: 'atan2(height_between / count / depth + sin(angle), cos(angle))'
		},
		{
			name: 'shaded',
			label: 'Shaded share, sun as it stands',
			kind: 'ratio',
			value:
				'abs(profile_angle) > 89.9 deg ? 1 : min(1, abs(cos(angle) * tan(profile_angle) - sin(angle)) * depth * count / height_between)'
		}
	]
});
