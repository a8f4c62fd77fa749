import { definePart, length, material } from './define';

export const spacedSleeve = definePart({
	id: 'spaced-sleeve',
	label: 'Spaced sleeve',
	role: 'structure',
	use: 'A sleeve of fixed length in the middle between two points: spacers, couplers.',
	anchor: { kind: 'pair' },
	inputs: [
		length('sleeve', 'Sleeve length', 400, [1, 20_000]),
		length('diameter', 'Diameter', 48, [2, 500]),
		length('wall', 'Wall', 4, [0.5, 100]),
		material('material', 'Material', 'steel')
	],
	limits: [
		{ of: 'setback', at_least: '0 mm', then: 'flag', says: 'the points are nearer than the sleeve is long' }
	],
	steps: [
		{ name: 'setback', do: 'number', value: '(length - sleeve) / 2' },
		{
			name: 'tube',
			do: 'bar',
			path: 'line',
			profile: { shape: 'round', diameter: 'diameter', wall: 'wall' },
			facing: 'normal',
			start_setback: 'setback',
			end_setback: 'setback',
			placed: 'middle',
			joints: 'mitred'
		}
	],
	elements: [
		{ name: 'sleeve_tube', label: 'Sleeve', category: 'connector', of: ['tube'], material: 'material' }
	],
	measures: [{ name: 'end_distance', label: 'Left at each end', kind: 'length', value: 'setback' }]
});
