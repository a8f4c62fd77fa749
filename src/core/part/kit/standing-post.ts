import { definePart, length, material } from './define';

export const standingPost = definePart({
	id: 'standing-post',
	label: 'Standing post',
	role: 'structure',
	use: 'A round post on a foot plate, square to the face or upright: railings, masts, stand-offs.',
	anchor: { kind: 'node', corners: 'any' },
	inputs: [
		length('height', 'Height', 1000, [1, 20_000], 'per piece'),
		length('diameter', 'Diameter', 48, [2, 1000]),
		length('wall', 'Wall', 4, [0.5, 100]),
		length('plate', 'Foot plate', 140, [2, 2000]),
		length('plate_thickness', 'Thickness of the plate', 12, [0.5, 200]),
		length('back', 'Behind the grid', 0, [-2000, 2000]),
		material('material', 'Material', 'steel')
	],
	limits: [
		{ of: 'plate', at_least: 'diameter', then: 'flag', says: 'the foot plate is narrower than the post' }
	],
	steps: [
		{ name: 'foot', do: 'lift', of: 'node', by: '-back', along: 'normal' },
		{ name: 'top_of_plate', do: 'lift', of: 'foot', by: 'plate_thickness', along: 'normal' },
		{ name: 'head', do: 'lift', of: 'foot', by: 'height', along: 'normal' },
		{ name: 'axis', do: 'line', from: 'top_of_plate', to: 'head' },
		{ name: 'thickness', do: 'line', from: 'foot', to: 'top_of_plate' },
		{
			name: 'shaft',
			do: 'bar',
			path: 'axis',
			profile: { shape: 'round', diameter: 'diameter', wall: 'wall' },
			facing: 'way1',
			placed: 'middle',
			joints: 'mitred'
		},
		{
			name: 'plate_disc',
			do: 'bar',
			path: 'thickness',
			profile: { shape: 'round', diameter: 'plate' },
			facing: 'way1',
			placed: 'middle',
			joints: 'mitred'
		}
	],
	elements: [
		{ name: 'post_tube', label: 'Post', category: 'bar', of: ['shaft'], material: 'material' },
		{
			name: 'post_plate',
			label: 'Foot plate',
			category: 'connector',
			of: ['plate_disc'],
			material: 'material'
		}
	],
	measures: [{ name: 'post_length', label: 'Post length', kind: 'length', value: 'height - plate_thickness' }]
});
