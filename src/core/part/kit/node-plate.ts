import { definePart, length, material } from './define';

export const nodePlate = definePart({
	id: 'node-plate',
	label: 'Node plate',
	role: 'structure',
	use: 'A flat plate that reaches as far under every bar that meets there.',
	anchor: { kind: 'node', corners: 'any' },
	inputs: [
		length('reach', 'Reach', 160, [5, 3000]),
		length('thickness', 'Thickness', 10, [0.5, 100]),
		length('beside', 'Beside its bars', 10, [-500, 500]),
		length('least', 'Width where there is no bar', 60, [2, 2000]),
		length('out', 'Outside the grid', 0, [-2000, 2000]),
		material('material', 'Material', 'steel')
	],
	limits: [
		{ of: 'arm', at_least: 'clear', then: 'hold', says: 'its arms run into each other where they end' }
	],
	steps: [
		{ name: 'place', do: 'lift', of: 'node', by: 'out', along: 'normal' },
		{ name: 'flat', do: 'plane', origin: 'place', right: 'way1', normal: 'normal' },
		{
			name: 'bar',
			do: 'each',
			over: 'ways',
			of: 'ways',
			gathers: [
				{ name: 'widths', of: 'width', as: 'lengths' },
				{ name: 'spreads', of: 'spread', as: 'lengths' }
			],
			steps: [
				{ name: 'width', do: 'number', value: 'across > 0 mm ? max(across + 2 * beside, 2 mm) : least' },
				{ name: 'spread', do: 'number', value: '1 mm / max(tan(angle(way, next) / 2), 0.01)' }
			],
			elements: []
		},
		// Half the width over the tangent of half the angle: from there on two arms are clear of each other.
		{
			name: 'clear',
			do: 'number',
			value: '1.001 * largest(widths) / 2 * max(largest(spreads) / 1 mm, 0.1) + 1 mm'
		},
		{ name: 'arm', do: 'number', value: 'reach' },
		{
			name: 'arms',
			do: 'each',
			over: 'ways',
			of: 'ways',
			gathers: [{ name: 'outline', of: 'end', as: 'ring' }],
			steps: [
				{ name: 'half', do: 'number', value: '(across > 0 mm ? max(across + 2 * beside, 2 mm) : least) / 2' },
				{ name: 'tip', do: 'lift', of: 'place', by: 'arm', along: 'way' },
				{ name: 'on', do: 'foot', of: 'tip', on: 'flat' },
				{ name: 'out_there', do: 'direction', from: 'place', to: 'on' },
				{ name: 'there', do: 'plane', origin: 'on', right: 'out_there', normal: 'normal' },
				{ name: 'right_corner', do: 'shift', of: 'on', right: '0 mm', up: '-half', plane: 'there' },
				{ name: 'left_corner', do: 'shift', of: 'on', right: '0 mm', up: 'half', plane: 'there' },
				{ name: 'end', do: 'path', through: ['right_corner', 'left_corner'], runs: 'straight' }
			],
			elements: []
		},
		{ name: 'plate', do: 'plate', ring: 'outline', thickness: 'thickness', side: 'both' }
	],
	elements: [
		{ name: 'node_plate', label: 'Node plate', category: 'plate', of: ['plate'], material: 'material' }
	],
	measures: [
		{ name: 'arm_length', label: 'Length of its arms', kind: 'length', value: 'arm' },
		{ name: 'face_area', label: 'Area', kind: 'area', value: 'area(outline)' }
	]
});
