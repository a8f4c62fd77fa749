import { definePart, length, material } from './define';

export const nodeStar = definePart({
	id: 'node-star',
	label: 'Node star',
	role: 'structure',
	use: 'A hub with an arm into every bar that meets there.',
	anchor: { kind: 'node', corners: 'any' },
	inputs: [
		length('reach', 'Reach', 180, [5, 3000]),
		length('play', 'Smaller than its bars by', 8, [0, 200]),
		length('least', 'Arm where there is no bar', 40, [2, 2000]),
		material('material', 'Material', 'steel')
	],
	limits: [],
	steps: [
		{
			name: 'bar',
			do: 'each',
			over: 'ways',
			of: 'ways',
			gathers: [
				{ name: 'needs', of: 'need', as: 'lengths' },
				{ name: 'depths', of: 'depth', as: 'lengths' },
				{ name: 'axes', of: 'middle', as: 'lengths' }
			],
			steps: [
				{ name: 'width', do: 'number', value: 'across > 0 mm ? max(across - play, 2 mm) : least' },
				{ name: 'depth', do: 'number', value: 'across > 0 mm ? max(deep - play, 2 mm) : least' },
				{ name: 'need', do: 'number', value: 'width / max(sin(angle(way, next) / 2), 0.1)' }
			],
			elements: []
		},
		{
			name: 'place',
			do: 'lift',
			of: 'node',
			by: '(largest(axes) + smallest(axes)) / 2',
			along: 'normal'
		},
		{ name: 'hub_size', do: 'number', value: 'largest(needs)' },
		{ name: 'foot', do: 'lift', of: 'place', by: '-largest(depths) / 2', along: 'normal' },
		{ name: 'head', do: 'lift', of: 'place', by: 'largest(depths) / 2', along: 'normal' },
		{ name: 'axis_line', do: 'line', from: 'foot', to: 'head' },
		{
			name: 'hub',
			do: 'bar',
			path: 'axis_line',
			profile: { shape: 'round', diameter: 'hub_size' },
			facing: 'way1',
			placed: 'middle',
			joints: 'mitred'
		},
		{
			name: 'arms',
			do: 'each',
			over: 'ways',
			of: 'ways',
			gathers: [],
			steps: [
				{ name: 'wide', do: 'number', value: 'across > 0 mm ? max(across - play, 2 mm) : least' },
				{ name: 'high', do: 'number', value: 'across > 0 mm ? max(deep - play, 2 mm) : least' },
				{ name: 'tip', do: 'lift', of: 'place', by: 'max(reach, 0.6 * hub_size)', along: 'way' },
				{ name: 'arm_axis', do: 'line', from: 'place', to: 'tip' },
				{
					name: 'arm',
					do: 'bar',
					path: 'arm_axis',
					profile: { shape: 'box', width: 'wide', depth: 'high' },
					facing: 'normal',
					placed: 'middle',
					joints: 'mitred',
					start_setback: '0.4 * hub_size'
				}
			],
			elements: [{ name: 'arm_body', label: 'Arm', category: 'connector', of: ['arm'], material: 'material' }]
		}
	],
	elements: [{ name: 'hub_body', label: 'Hub', category: 'connector', of: ['hub'], material: 'material' }],
	measures: [{ name: 'hub_diameter', label: 'Diameter of its hub', kind: 'length', value: 'hub_size' }]
});
