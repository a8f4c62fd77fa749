import { definePart, length, material } from './define';

export const castNode = definePart({
	id: 'cast-node',
	label: 'Cast node',
	role: 'structure',
	use: 'One smooth body that takes the bars of a node, whatever their sizes and angles.',
	anchor: { kind: 'node', corners: 'any' },
	inputs: [
		length('reach', 'Reach', 180, [5, 3000]),
		length('wall', 'Around its bars', 8, [0, 200]),
		length('least', 'Diameter where there is no bar', 60, [2, 2000]),
		length('fillet', 'Rounded by', 40, [0, 1000]),
		material('material', 'Material', 'steel')
	],
	limits: [{ of: 'arm', at_least: 'clear', then: 'hold', says: 'its arms run together where they end' }],
	steps: [
		{
			name: 'bar',
			do: 'each',
			over: 'ways',
			of: 'ways',
			gathers: [
				{ name: 'sizes', of: 'size', as: 'lengths' },
				{ name: 'spreads', of: 'spread', as: 'lengths' },
				{ name: 'axes', of: 'middle', as: 'lengths' }
			],
			steps: [
				{
					name: 'size',
					do: 'number',
					value: 'across > 0 mm ? max(across, deep) + 2 * wall : least'
				},
				{ name: 'spread', do: 'number', value: '1 mm / max(tan(apart / 2), 0.01)' }
			],
			elements: []
		},
		// Half the size over the tangent of half the angle: from there on two arms are clear of each other.
		{
			name: 'clear',
			do: 'number',
			value: '1.001 * (largest(sizes) / 2 + fillet) * max(largest(spreads) / 1 mm, 1)'
		},
		{ name: 'arm', do: 'number', value: 'reach' },
		{
			name: 'place',
			do: 'lift',
			of: 'node',
			by: '(largest(axes) + smallest(axes)) / 2',
			along: 'normal'
		},
		{
			name: 'body',
			do: 'joined tubes',
			centre: 'place',
			ways: 'ways',
			diameters: 'sizes',
			reach: 'arm',
			fillet: 'fillet'
		}
	],
	elements: [
		{ name: 'casting', label: 'Casting', category: 'connector', of: ['body'], material: 'material' }
	],
	measures: [
		{ name: 'arm_length', label: 'Length of its arms', kind: 'length', value: 'arm' },
		{ name: 'largest_arm', label: 'Largest arm', kind: 'length', value: 'largest(sizes)' }
	]
});
