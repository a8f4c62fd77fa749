import { definePart, length, material } from './define';

export const curvedTrussCell = definePart({
	id: 'curved-truss-cell',
	label: 'Curved truss cell',
	role: 'structure',
	use: 'Eight points round a cell and one in its middle, lifted by one depth, on smooth chords.',
	anchor: { kind: 'ring', corners: 4 },
	inputs: [
		length('depth', 'Depth, negative inward', -500, [-5000, 5000], 'per piece'),
		length('diameter', 'Tube diameter', 50, [2, 800]),
		material('material', 'Material', 'steel')
	],
	limits: [],
	steps: [
		{ name: 'low', do: 'middle', of: 'edge1' },
		{ name: 'right', do: 'middle', of: 'edge2' },
		{ name: 'high', do: 'middle', of: 'edge3' },
		{ name: 'left', do: 'middle', of: 'edge4' },
		{ name: 'top', do: 'lift', of: 'face_centre', by: 'depth', along: 'normal' },
		{ name: 'chord_up', do: 'path', through: ['low', 'top', 'high'], runs: 'smooth' },
		{ name: 'chord_across', do: 'path', through: ['left', 'top', 'right'], runs: 'smooth' },
		{ name: 'chord_rising', do: 'path', through: ['corner1', 'top', 'corner3'], runs: 'smooth' },
		{ name: 'chord_falling', do: 'path', through: ['corner2', 'top', 'corner4'], runs: 'smooth' },
		{
			name: 'up_tube',
			do: 'bar',
			path: 'chord_up',
			profile: { shape: 'round', diameter: 'diameter' },
			facing: 'normal',
			joints: 'swept',
			placed: 'middle'
		},
		{
			name: 'across_tube',
			do: 'bar',
			path: 'chord_across',
			profile: { shape: 'round', diameter: 'diameter' },
			facing: 'normal',
			joints: 'swept',
			placed: 'middle'
		},
		{
			name: 'rising_tube',
			do: 'bar',
			path: 'chord_rising',
			profile: { shape: 'round', diameter: 'diameter' },
			facing: 'normal',
			joints: 'swept',
			placed: 'middle'
		},
		{
			name: 'falling_tube',
			do: 'bar',
			path: 'chord_falling',
			profile: { shape: 'round', diameter: 'diameter' },
			facing: 'normal',
			joints: 'swept',
			placed: 'middle'
		},
		{
			name: 'rim_tubes',
			do: 'bar',
			path: 'cell',
			profile: { shape: 'round', diameter: 'diameter' },
			facing: 'normal',
			placed: 'middle',
			joints: 'mitred'
		}
	],
	elements: [
		{
			name: 'chords',
			label: 'Chords',
			category: 'bar',
			of: ['up_tube', 'across_tube', 'rising_tube', 'falling_tube'],
			material: 'material',
			each: true
		},
		{ name: 'rim', label: 'Rim', category: 'bar', of: ['rim_tubes'], material: 'material', each: true }
	],
	measures: [
		{
			name: 'chord_length',
			label: 'Longest chord',
			kind: 'length',
			value: 'max(length(chord_rising), length(chord_falling))'
		}
	]
});
