import { definePart, length, material } from './define';

export const trussCell = definePart({
	id: 'truss-cell',
	label: 'Truss cell',
	role: 'structure',
	use: 'Four corners and two lifted points, joined to triangles: a space truss cell by cell.',
	anchor: { kind: 'ring', corners: 4 },
	inputs: [
		length('depth', 'Depth, negative inward', -600, [-5000, 5000], 'per piece'),
		length('diameter', 'Tube diameter', 60, [2, 800]),
		length('wall', 'Wall', 4, [0.5, 50]),
		length('setback', 'Setback at the nodes', 40, [0, 1000]),
		material('material', 'Material', 'steel')
	],
	limits: [],
	steps: [
		{ name: 'foot', do: 'middle', of: 'edge1' },
		{ name: 'head', do: 'middle', of: 'edge3' },
		{ name: 'spine', do: 'line', from: 'foot', to: 'head' },
		{ name: 'low_base', do: 'point on path', path: 'spine', ratio: '0.25', from: 'start' },
		{ name: 'high_base', do: 'point on path', path: 'spine', ratio: '0.75', from: 'start' },
		{ name: 'low', do: 'lift', of: 'low_base', by: 'depth', along: 'normal' },
		{ name: 'high', do: 'lift', of: 'high_base', by: 'depth', along: 'normal' },
		{ name: 'ridge', do: 'line', from: 'low', to: 'high' },
		{ name: 'web1', do: 'line', from: 'corner1', to: 'low' },
		{ name: 'web2', do: 'line', from: 'corner2', to: 'low' },
		{ name: 'web3', do: 'line', from: 'corner3', to: 'high' },
		{ name: 'web4', do: 'line', from: 'corner4', to: 'high' },
		{ name: 'lace1', do: 'line', from: 'corner4', to: 'low' },
		{ name: 'lace2', do: 'line', from: 'corner2', to: 'high' },
		{ name: 'up_edge', do: 'direction', from: 'foot', to: 'head' },
		{
			name: 'ridge_tube',
			do: 'bar',
			path: 'ridge',
			profile: { shape: 'round', diameter: 'diameter', wall: 'wall' },
			facing: 'normal',
			start_setback: 'setback',
			end_setback: 'setback',
			placed: 'middle',
			joints: 'mitred'
		},
		{
			name: 'web1_tube',
			do: 'bar',
			path: 'web1',
			profile: { shape: 'round', diameter: 'diameter', wall: 'wall' },
			facing: 'up_edge',
			start_setback: 'setback',
			end_setback: 'setback',
			placed: 'middle',
			joints: 'mitred'
		},
		{
			name: 'web2_tube',
			do: 'bar',
			path: 'web2',
			profile: { shape: 'round', diameter: 'diameter', wall: 'wall' },
			facing: 'up_edge',
			start_setback: 'setback',
			end_setback: 'setback',
			placed: 'middle',
			joints: 'mitred'
		},
		{
			name: 'web3_tube',
			do: 'bar',
			path: 'web3',
			profile: { shape: 'round', diameter: 'diameter', wall: 'wall' },
			facing: 'up_edge',
			start_setback: 'setback',
			end_setback: 'setback',
			placed: 'middle',
			joints: 'mitred'
		},
		{
			name: 'web4_tube',
			do: 'bar',
			path: 'web4',
			profile: { shape: 'round', diameter: 'diameter', wall: 'wall' },
			facing: 'up_edge',
			start_setback: 'setback',
			end_setback: 'setback',
			placed: 'middle',
			joints: 'mitred'
		},
		{
			name: 'lace1_tube',
			do: 'bar',
			path: 'lace1',
			profile: { shape: 'round', diameter: 'diameter', wall: 'wall' },
			facing: 'up_edge',
			start_setback: 'setback',
			end_setback: 'setback',
			placed: 'middle',
			joints: 'mitred'
		},
		{
			name: 'lace2_tube',
			do: 'bar',
			path: 'lace2',
			profile: { shape: 'round', diameter: 'diameter', wall: 'wall' },
			facing: 'up_edge',
			start_setback: 'setback',
			end_setback: 'setback',
			placed: 'middle',
			joints: 'mitred'
		},
		{
			name: 'edge1_tube',
			do: 'bar',
			path: 'edge1',
			profile: { shape: 'round', diameter: 'diameter', wall: 'wall' },
			facing: 'normal',
			start_setback: 'setback',
			end_setback: 'setback',
			placed: 'middle',
			joints: 'mitred'
		},
		{
			name: 'edge2_tube',
			do: 'bar',
			path: 'edge2',
			profile: { shape: 'round', diameter: 'diameter', wall: 'wall' },
			facing: 'normal',
			start_setback: 'setback',
			end_setback: 'setback',
			placed: 'middle',
			joints: 'mitred'
		},
		{
			name: 'edge3_tube',
			do: 'bar',
			path: 'edge3',
			profile: { shape: 'round', diameter: 'diameter', wall: 'wall' },
			facing: 'normal',
			start_setback: 'setback',
			end_setback: 'setback',
			placed: 'middle',
			joints: 'mitred'
		},
		{
			name: 'edge4_tube',
			do: 'bar',
			path: 'edge4',
			profile: { shape: 'round', diameter: 'diameter', wall: 'wall' },
			facing: 'normal',
			start_setback: 'setback',
			end_setback: 'setback',
			placed: 'middle',
			joints: 'mitred'
		}
	],
	elements: [
		{
			name: 'chords',
			label: 'Chords',
			category: 'bar',
			of: ['edge1_tube', 'edge2_tube', 'edge3_tube', 'edge4_tube', 'ridge_tube'],
			material: 'material',
			each: true
		},
		{
			name: 'webs',
			label: 'Webs',
			category: 'bar',
			of: ['web1_tube', 'web2_tube', 'web3_tube', 'web4_tube', 'lace1_tube', 'lace2_tube'],
			material: 'material',
			each: true
		}
	],
	measures: [
		{ name: 'ridge_length', label: 'Ridge', kind: 'length', value: 'length(ridge)' },
		{
			name: 'longest_web',
			label: 'Longest web',
			kind: 'length',
			value: 'max(length(web1), length(web2), length(web3), length(web4))'
		}
	]
});
