import { partSchema } from '../src/core/project/part-definition';

/** A part on nodes that only tells of the bars that meet there. */
export const teller = partSchema.parse({
	id: 'teller',
	label: 'Teller',
	role: 'structure',
	use: '',
	anchor: { kind: 'node', corners: 'any' },
	inputs: [],
	limits: [],
	steps: [
		{
			name: 'bars',
			do: 'each',
			over: 'ways',
			of: 'ways',
			gathers: [
				{ name: 'widths', of: 'across', as: 'lengths' },
				{ name: 'depths', of: 'deep', as: 'lengths' },
				{ name: 'middles', of: 'middle', as: 'lengths' },
				{ name: 'spans', of: 'span', as: 'lengths' }
			],
			steps: [{ name: 'span', do: 'number', value: 'distance(node, far)' }],
			elements: []
		},
		{ name: 'ball', do: 'sphere', centre: 'node', diameter: '50 mm' }
	],
	elements: [{ name: 'ball_made', label: 'Ball', category: 'connector', of: ['ball'], material: 'steel' }],
	measures: [
		['widest', 'largest(widths)'],
		['narrowest', 'smallest(widths)'],
		['all_widths', 'total(widths)'],
		['deepest', 'largest(depths)'],
		['shallowest', 'smallest(depths)'],
		['outermost', 'largest(middles)'],
		['innermost', 'smallest(middles)'],
		['longest', 'largest(spans)']
	].map(([name, value]) => ({ name, label: name, kind: 'length', value }))
});
