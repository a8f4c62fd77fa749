import { definePart, length, material } from './define';

export const nodeBall = definePart({
	id: 'node-ball',
	label: 'Node ball',
	role: 'structure',
	use: 'A ball where bars meet, as large as they need if wanted.',
	anchor: { kind: 'node', corners: 'any' },
	inputs: [
		length('diameter', 'Diameter', 140, [2, 2000]),
		{
			name: 'takes_bars',
			label: 'At least as large as its bars need',
			kind: 'switch',
			default: false,
			scope: 'shared'
		},
		length('back', 'Behind the grid', 0, [-2000, 2000]),
		material('material', 'Material', 'steel')
	],
	limits: [],
	steps: [
		// A bar clears the one nearest to it where it has gone on by half its width over the sine of half the angle between them.
		{
			name: 'bar',
			do: 'each',
			over: 'ways',
			of: 'ways',
			gathers: [{ name: 'needs', of: 'need', as: 'lengths' }],
			steps: [{ name: 'need', do: 'number', value: 'across / max(sin(apart / 2), 0.05)' }],
			elements: []
		},
		{ name: 'needed', do: 'number', value: 'largest(needs)' },
		{ name: 'size', do: 'number', value: 'takes_bars ? max(diameter, needed) : diameter' },
		{ name: 'place', do: 'lift', of: 'node', by: '-back', along: 'normal' },
		{ name: 'ball', do: 'sphere', centre: 'place', diameter: 'size' }
	],
	elements: [{ name: 'node_body', label: 'Node', category: 'connector', of: ['ball'], material: 'material' }],
	measures: [
		{ name: 'at_height', label: 'Height', kind: 'length', value: 'height(place)' },
		{ name: 'needed_diameter', label: 'Diameter its bars need', kind: 'length', value: 'needed' }
	]
});
