import type { PatternChoice } from '$core/project/pattern-schema';

/** A pattern as it is chosen from the list, with values to start from. */
export interface PatternWord {
	readonly value: string;
	readonly label: string;
	readonly choice: PatternChoice;
}

const plain = (kind: string, label: string): PatternWord => ({
	value: kind,
	label,
	choice: { kind } as PatternChoice
});

export const patternWords: readonly PatternWord[] = [
	plain('rectangles', 'rectangles'),
	{
		value: 'triangles rising',
		label: 'triangles, rising diagonal',
		choice: { kind: 'triangles', diagonal: 'rising' }
	},
	{
		value: 'triangles falling',
		label: 'triangles, falling diagonal',
		choice: { kind: 'triangles', diagonal: 'falling' }
	},
	{
		value: 'triangles alternating',
		label: 'triangles, alternating',
		choice: { kind: 'triangles', diagonal: 'alternating' }
	},
	{
		value: 'triangles shorter',
		label: 'triangles, shorter diagonal',
		choice: { kind: 'triangles', diagonal: 'shorter' }
	},
	plain('diamonds', 'diamonds'),
	{ value: 'hexagons upright', label: 'tall hexagons', choice: { kind: 'hexagons', sides: 'upright' } },
	{ value: 'hexagons level', label: 'flat hexagons', choice: { kind: 'hexagons', sides: 'level' } },
	{
		value: 'running bond',
		label: 'running bond',
		choice: { kind: 'running bond', offset: 0.5, way: 'back and forth' }
	},
	plain('herringbone', 'herringbone'),
	plain('basket weave', 'basket weave'),
	{ value: 'undulating', label: 'undulating courses', choice: { kind: 'undulating', bays: 8, rise: 0.8 } },
	plain('truncated square', 'octagons and squares, 4.8.8'),
	plain('trihexagonal', 'hexagons and triangles, 3.6.3.6'),
	plain('snub square', 'snub squares, 3.3.4.3.4'),
	plain('rhombille', 'rhombs'),
	plain('cairo', 'Cairo pentagons'),
	plain('tetrakis square', 'tetrakis triangles'),
	{
		value: 'random splits',
		label: 'rectangles split at random',
		choice: { kind: 'random splits', seed: 1, smallest: 600, often: 0.6, along: 'both' }
	},
	{
		value: 'voronoi',
		label: 'Voronoi cells',
		choice: {
			kind: 'voronoi',
			seed: 1,
			count: 120,
			evening: 2,
			smallest: 150,
			margin: 0,
			near: null,
			size: 1,
			sheet: null
		}
	}
];

/** Which of the words stands for a choice; a tile of one's own by its id. */
export function patternValue(choice: PatternChoice): string {
	switch (choice.kind) {
		case 'triangles':
			return `triangles ${choice.diagonal}`;
		case 'hexagons':
			return `hexagons ${choice.sides}`;
		case 'tile':
			return `tile ${choice.tile}`;
		default:
			return choice.kind;
	}
}
