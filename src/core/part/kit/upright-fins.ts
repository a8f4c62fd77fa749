import { definePart, angle, count, length, material } from './define';

export const uprightFins = definePart({
	id: 'upright-fins',
	label: 'Upright fins',
	role: 'louver',
	use: 'Fins between the foot and the head of a four-cornered cell, so many to the cell.',
	anchor: { kind: 'ring', corners: 4 },
	inputs: [
		count('fins', 'Fins', 4, [1, 100], 'per piece'),
		length('depth', 'Fin depth', 220, [1, 2000], 'per piece'),
		length('thickness', 'Fin thickness', 20, [0.5, 200]),
		angle('angle', 'Angle', 0, [-90, 90], 'per piece'),
		length('stand_off', 'In front of the grid', 40, [-2000, 2000]),
		length('end_gap', 'Gap at both ends', 10, [0, 500]),
		material('material', 'Material', 'aluminium')
	],
	limits: [],
	steps: [
		{ name: 'foot', do: 'lift', of: 'edge1', by: 'stand_off', along: 'normal' },
		{ name: 'head', do: 'lift', of: 'edge3_aligned', by: 'stand_off', along: 'normal' },
		{
			name: 'row',
			do: 'repeat',
			times: 'fins',
			steps: [
				{ name: 'share', do: 'number', value: '(turn + 0.5) / fins' },
				{ name: 'low', do: 'point on path', path: 'foot', ratio: 'share', from: 'start' },
				{ name: 'high', do: 'point on path', path: 'head', ratio: 'share', from: 'start' },
				{ name: 'axis', do: 'line', from: 'low', to: 'high' },
				{
					name: 'fin',
					do: 'bar',
					path: 'axis',
					profile: { shape: 'blade', thickness: 'thickness', depth: 'depth' },
					facing: 'normal',
					placed: 'before',
					turn: 'angle',
					start_setback: 'end_gap',
					end_setback: 'end_gap',
					joints: 'mitred'
				}
			],
			elements: [{ name: 'fin_blade', label: 'Fin', category: 'blade', of: ['fin'], material: 'material' }]
		}
	],
	elements: [],
	measures: [
		{ name: 'spacing', label: 'Spacing at the foot', kind: 'length', value: 'length(edge1) / fins' },
		{
			name: 'shaded',
			label: 'Shaded share, sun as it stands',
			kind: 'ratio',
			value:
				'abs(plan_angle) > 89.9 deg ? 1 : min(1, abs(cos(angle) * tan(plan_angle) - sin(angle)) * depth * fins / length(edge1))'
		}
	]
});
