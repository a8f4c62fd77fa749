import { count, definePart, material, ratio } from './define';

const ends = ['0', '1'] as const;
const corners = ends.flatMap((z) =>
	ends.flatMap((y) => ends.map((x): [string, string, string] => [x, y, z]))
);
const balls = corners.map((_, k) => `ball_${k + 1}`);

export const hollowBlock = definePart({
	id: 'hollow-block',
	label: 'Hollow block',
	role: 'structure',
	use: 'The space between two grids as a cast block, open at its corners and hollow in its middle; blocks beside each other make round openings.',
	anchor: { kind: 'double ring', corners: 4 },
	inputs: [
		ratio('corner_radius', 'Radius at the corners, of the block', 0.3, [0.05, 0.9]),
		ratio('hollow_radius', 'Radius in the middle, of the block', 0.35, [0.05, 0.9]),
		count('quarter_turns', 'Quarter turns', 0, [0, 3], 'per piece'),
		material('block', 'Material', 'concrete')
	],
	limits: [
		{ of: 'corner_radius', at_most: '0.48', then: 'hold', says: 'openings of a side may not meet' },
		{
			of: 'hollow_radius',
			at_most: 'sqrt(0.75) - corner_radius - 0.02',
			then: 'flag',
			says: 'the hollow breaks through to the corners'
		}
	],
	steps: [
		{ name: 'whole', do: 'block box', from: ['0', '0', '0'], to: ['1', '1', '1'] },
		...corners.map(
			(centre, k) => ({ name: balls[k]!, do: 'block sphere', centre, radius: 'corner_radius' }) as const
		),
		{ name: 'hollow', do: 'block sphere', centre: ['0.5', '0.5', '0.5'], radius: 'hollow_radius' },
		{ name: 'shaped', do: 'block difference', whole: 'whole', less: [...balls, 'hollow'] },
		{
			name: 'body',
			do: 'fit block',
			block: 'shaped',
			first: 'cell',
			second: 'far',
			turns: 'quarter_turns',
			flip: 'false',
			mirror: 'false'
		}
	],
	elements: [{ name: 'block', label: 'Block', category: 'other', of: ['body'], material: 'block' }],
	measures: [
		{
			name: 'depth',
			label: 'Depth in its middle',
			kind: 'length',
			value: 'distance(centre, far_centre)'
		}
	]
});
