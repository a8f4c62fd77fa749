import { definePart, choice, length, material } from './define';

export const splitPanel = definePart({
	id: 'split-panel',
	label: 'Split panel',
	role: 'panel',
	use: 'A four-cornered cell as two flat triangles: the plain way to clad a warped grid.',
	anchor: { kind: 'ring', corners: 4 },
	inputs: [
		length('joint', 'Joint to the grid line', 8, [0, 100]),
		length('gap', 'Joint along the diagonal', 6, [0, 100]),
		length('thickness', 'Thickness', 5, [0.5, 100]),
		choice('diagonal', 'Diagonal', {
			shorter: 'the shorter one',
			rising: 'from corner 1 to 3',
			falling: 'from corner 2 to 4'
		}),
		material('sheet', 'Material', 'aluminium')
	],
	limits: [],
	steps: [
		{ name: 'outline', do: 'inset', ring: 'cell', by: 'joint' },
		{ name: 'one', do: 'corner', of: 'outline', number: 1 },
		{ name: 'two', do: 'corner', of: 'outline', number: 2 },
		{ name: 'three', do: 'corner', of: 'outline', number: 3 },
		{ name: 'four', do: 'corner', of: 'outline', number: 4 },
		{
			name: 'rises',
			do: 'number',
			value: 'diagonal == rising or (diagonal == shorter and distance(one, three) <= distance(two, four))'
		},
		{ name: 'first_tip', do: 'choose', when: 'rises', then: 'three', otherwise: 'four' },
		{ name: 'second_tip', do: 'choose', when: 'rises', then: 'one', otherwise: 'two' },
		{ name: 'first_ring', do: 'ring', through: ['one', 'two', 'first_tip'], runs: 'straight' },
		{ name: 'second_ring', do: 'ring', through: ['second_tip', 'three', 'four'], runs: 'straight' },
		{
			name: 'first_face',
			do: 'inset',
			ring: 'first_ring',
			by: ['0 mm', 'rises ? 0 mm : gap / 2', 'rises ? gap / 2 : 0 mm']
		},
		{
			name: 'second_face',
			do: 'inset',
			ring: 'second_ring',
			by: ['rises ? gap / 2 : 0 mm', '0 mm', 'rises ? 0 mm : gap / 2']
		},
		{ name: 'first_plate', do: 'plate', ring: 'first_face', thickness: 'thickness', side: 'in' },
		{ name: 'second_plate', do: 'plate', ring: 'second_face', thickness: 'thickness', side: 'in' },
		{ name: 'first_normal', do: 'normal', of: 'first_ring' },
		{ name: 'second_normal', do: 'normal', of: 'second_ring' }
	],
	elements: [
		{
			name: 'first_sheet',
			label: 'First triangle',
			category: 'plate',
			of: ['first_plate'],
			material: 'sheet'
		},
		{
			name: 'second_sheet',
			label: 'Second triangle',
			category: 'plate',
			of: ['second_plate'],
			material: 'sheet'
		}
	],
	measures: [
		{ name: 'fold', label: 'Fold', kind: 'angle', value: 'angle(first_normal, second_normal)' },
		{
			name: 'diagonal_length',
			label: 'Diagonal',
			kind: 'length',
			value: 'rises ? distance(one, three) : distance(two, four)'
		}
	]
});
