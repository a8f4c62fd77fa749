import { definePart, length, material } from './define';

export const wovenTube = definePart({
	id: 'woven-tube',
	label: 'Woven tube',
	role: 'structure',
	use: 'One smooth tube through nodes that follow one another: basket work, rails, cable paths.',
	anchor: { kind: 'chain', corners: 'any' },
	inputs: [
		length('diameter', 'Diameter', 60, [2, 800]),
		length('wall', 'Wall', 4, [0.5, 100]),
		material('material', 'Material', 'steel')
	],
	limits: [],
	steps: [
		{ name: 'run', do: 'path', through: ['chain'], runs: 'smooth' },
		{
			name: 'tube',
			do: 'bar',
			path: 'run',
			profile: { shape: 'round', diameter: 'diameter', wall: 'wall' },
			facing: 'normal1',
			joints: 'swept',
			placed: 'middle'
		}
	],
	elements: [{ name: 'tube_run', label: 'Tube', category: 'bar', of: ['tube'], material: 'material' }],
	measures: [{ name: 'run_length', label: 'Length', kind: 'length', value: 'length(run)' }]
});
