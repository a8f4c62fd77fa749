import { rounded } from '../units/quantity';
import type { Place } from '../geometry/polygon';
import type { PatternChoice, TileDefinition } from '../project/pattern-schema';
import { refuse } from '../units/problem';
import { checkTile } from './check-tile';
import { dualOf, type Pattern, type Tile } from './tile';
import { pathTo } from '../project/typed-path';

/** The patterns that ship, all of them tiles. */

const tile = (
	across: number,
	up: number,
	named: readonly (readonly [name: string, points: readonly Place[]])[]
): Tile => ({
	across,
	up,
	polygons: named.map(([, points]) => points),
	names: named.map(([name]) => name)
});
const box = (x: number, y: number, width: number, height: number): Place[] => [
	[x, y],
	[x + width, y],
	[x + width, y + height],
	[x, y + height]
];
const moved = (points: readonly Place[], x: number, y: number): Place[] =>
	points.map((p) => [p[0] + x, p[1] + y]);

const rectangles = tile(1, 1, [['rectangle', box(0, 0, 1, 1)]]);

const risingHalves: Place[][] = [
	[
		[0, 0],
		[1, 0],
		[1, 1]
	],
	[
		[0, 0],
		[1, 1],
		[0, 1]
	]
];
const fallingHalves: Place[][] = [
	[
		[0, 0],
		[1, 0],
		[0, 1]
	],
	[
		[1, 0],
		[1, 1],
		[0, 1]
	]
];
const halves = (list: readonly Place[][], x: number, y: number) =>
	list.map((points, k) => [k === 0 ? 'lower' : 'upper', moved(points, x, y)] as const);
const rising = tile(1, 1, halves(risingHalves, 0, 0));
const falling = tile(1, 1, halves(fallingHalves, 0, 0));
const alternating = tile(2, 2, [
	...halves(risingHalves, 0, 0),
	...halves(fallingHalves, 1, 0),
	...halves(fallingHalves, 0, 1),
	...halves(risingHalves, 1, 1)
]);

/** Corner 1 is the lowest. A diamond is two bays wide and two courses high. */
const diamonds = tile(2, 2, [
	[
		'diamond',
		[
			[1, -1],
			[2, 0],
			[1, 1],
			[0, 0]
		]
	],
	[
		'diamond',
		[
			[0, 0],
			[1, 1],
			[0, 2],
			[-1, 1]
		]
	]
]);

/** Upright sides two courses high; regular where a bay is √3 courses wide. */
const tallHexagon: Place[] = [
	[1, 0],
	[2, 1],
	[2, 3],
	[1, 4],
	[0, 3],
	[0, 1]
];
const tallHexagons = tile(2, 6, [
	['hexagon', tallHexagon],
	['hexagon', moved(tallHexagon, 1, 3)]
]);
const flatHexagon: Place[] = [
	[1, 0],
	[3, 0],
	[4, 1],
	[3, 2],
	[1, 2],
	[0, 1]
];
const flatHexagons = tile(6, 2, [
	['hexagon', flatHexagon],
	['hexagon', moved(flatHexagon, 3, 1)]
]);

/** Bricks two bays by one course, on end and lying. */
const herringbone = tile(
	4,
	4,
	[0, 1, 2, 3].flatMap((k) => [
		['lying', box(k, k, 2, 1)] as const,
		['upright', box(k + 2, k - 1, 1, 2)] as const
	])
);
const weave = (x: number, y: number, lying: boolean) =>
	[0, 1].map((k) =>
		lying ? (['lying', box(x, y + k, 2, 1)] as const) : (['upright', box(x + k, y, 1, 2)] as const)
	);
const basketWeave = tile(4, 4, [
	...weave(0, 0, true),
	...weave(2, 0, false),
	...weave(0, 2, false),
	...weave(2, 2, true)
]);

/** Regular where bays and courses are of one size. */
const t = 1 - Math.SQRT1_2;
const truncatedSquare = tile(1, 1, [
	[
		'octagon',
		[
			[t, 0],
			[1 - t, 0],
			[1, t],
			[1, 1 - t],
			[1 - t, 1],
			[t, 1],
			[0, 1 - t],
			[0, t]
		]
	],
	[
		'square',
		[
			[0, -t],
			[t, 0],
			[0, t],
			[-t, 0]
		]
	]
]);

const star: Place[] = [
	[1, -1],
	[2, 0],
	[1, 1],
	[-1, 1],
	[-2, 0],
	[-1, -1]
];
/** Regular where a course is √3 bays high. */
const trihexagonal = tile(4, 4, [
	['hexagon', star],
	['hexagon', moved(star, 2, 2)],
	...[
		[0, 0],
		[2, 2]
	].flatMap(([x, y]) => [
		[
			'triangle up',
			moved(
				[
					[2, 0],
					[3, 1],
					[1, 1]
				],
				x!,
				y!
			)
		] as const,
		[
			'triangle down',
			moved(
				[
					[2, 0],
					[1, -1],
					[3, -1]
				],
				x!,
				y!
			)
		] as const
	])
]);

/** Corners of a square about the origin whose sides, a tile's size divided by √(2 + √3), are those of triangles too. */
const p = (0.5 + Math.sqrt(1 / (2 + Math.sqrt(3)) - 0.25)) / 2;
const q = 0.5 - p;
const snubSquare = tile(1, 1, [
	[
		'square',
		[
			[q, -p],
			[p, q],
			[-q, p],
			[-p, -q]
		]
	],
	[
		'square',
		moved(
			[
				[-q, -p],
				[p, -q],
				[q, p],
				[-p, q]
			],
			0.5,
			0.5
		)
	],
	[
		'triangle',
		[
			[q, -p],
			[1 - p, -q],
			[p, q]
		]
	],
	[
		'triangle',
		[
			[p, q],
			[1 - p, -q],
			[1 - q, p]
		]
	],
	[
		'triangle',
		[
			[-q, p],
			[p, q],
			[q, 1 - p]
		]
	],
	[
		'triangle',
		[
			[-q, p],
			[q, 1 - p],
			[-p, 1 - q]
		]
	]
]);

const rhombille = dualOf(trihexagonal, 'rhomb');
const cairo = dualOf(snubSquare, 'pentagon');
const tetrakis = dualOf(truncatedSquare, 'triangle');

const MOST_ROWS = 12;
/** A third is typed as 0.3333: shares this near to a whole part of so many courses are meant as it. */
const MEANT = 5e-4;

/** Bricks of one bay, each course moved along against the one below. */
function running(offset: number, onward: boolean, at: string): Tile {
	if (!(offset > 0 && offset < 1))
		refuse(`${at}/offset`, `an offset of ${offset} bays is none; more than 0 and less than 1 is accepted`);
	if (!onward)
		return tile(1, 2, [
			['brick', box(0, 0, 1, 1)],
			['brick', box(offset, 1, 1, 1)]
		]);
	const rows = Array.from({ length: MOST_ROWS - 1 }, (_, k) => k + 2);
	const count = rows.find((n) => Math.abs(offset - Math.round(n * offset) / n) < MEANT);
	if (count === undefined) {
		const nearest = rows
			.flatMap((n) => Array.from({ length: n - 1 }, (_, k) => (k + 1) / n))
			.reduce((best, share) => (Math.abs(share - offset) < Math.abs(best - offset) ? share : best));
		return refuse(
			`${at}/offset`,
			`an offset of ${offset} bays that goes on from course to course does not come round within ${MOST_ROWS} courses; ${rounded(nearest, 4)} does`,
			[{ label: String(rounded(nearest, 4)), path: `${at}/offset`, value: nearest }]
		);
	}
	return tile(
		1,
		count,
		Array.from({ length: count }, (_, k) => {
			const x = (k * Math.round(offset * count)) / count;
			return ['brick', box(x - Math.floor(x), k, 1, 1)] as const;
		})
	);
}

/** Rectangles between course lines that rise and fall. */
function undulating(bays: number, rise: number, at: string): Tile {
	if (!Number.isInteger(bays) || bays < 2 || bays > 60)
		refuse(`${at}/bays`, `a wave over ${bays} bays cannot be made; 2 to 60 are accepted`);
	if (!(rise > 0 && rise < 2))
		refuse(`${at}/rise`, `a rise of ${rise} courses cannot be made; more than 0 and less than 2 is accepted`);
	const height = (i: number) => (rise / 2) * Math.sin((2 * Math.PI * i) / bays);
	return tile(
		bays,
		1,
		Array.from({ length: bays }, (_, i) => [
			'wave',
			[
				[i, height(i)],
				[i + 1, height(i + 1)],
				[i + 1, 1 + height(i + 1)],
				[i, 1 + height(i)]
			] as Place[]
		])
	);
}

/** A tile drawn by the designer. @throws ProblemError when it does not cover the plane once */
export function drawnTile(definition: TileDefinition, at: string): Tile {
	const { across, up, polygons, name } = definition;
	if (!polygons.length) refuse(at, `the tile ${name} has no polygon yet; draw at least one`);
	for (const [key, count] of [
		['across', across],
		['up', up]
	] as const)
		if (!Number.isInteger(count) || count < 1 || count > 60)
			refuse(`${at}/${key}`, `a tile of ${count} steps cannot be made; 1 to 60 are accepted`);
	const [fault, ...more] = checkTile(definition);
	if (fault) refuse(at, `the tile ${name}: ${fault.text}${more.length ? `, and ${more.length} more` : ''}`);
	return {
		across,
		up,
		polygons: polygons.map(({ points }) => points),
		names: polygons.map(({ slot }) => slot)
	};
}

const fixed: Record<string, { label: string; tile: Tile }> = {
	rectangles: { label: 'rectangles', tile: rectangles },
	diamonds: { label: 'diamonds', tile: diamonds },
	herringbone: { label: 'herringbone bricks', tile: herringbone },
	'basket weave': { label: 'basket weave bricks', tile: basketWeave },
	'truncated square': { label: 'octagons and squares', tile: truncatedSquare },
	trihexagonal: { label: 'hexagons and triangles', tile: trihexagonal },
	'snub square': { label: 'snub squares', tile: snubSquare },
	rhombille: { label: 'rhombs', tile: rhombille },
	cairo: { label: 'Cairo pentagons', tile: cairo },
	'tetrakis square': { label: 'tetrakis triangles', tile: tetrakis }
};

/** Scattered cells are made on a grid of rectangles. */
type Tiled = Exclude<PatternChoice, { kind: 'random splits' | 'voronoi' }>;

/**
 * The tile behind a choice of pattern.
 *
 * ```ts
 * const { label } = patternOf({ kind: 'diamonds' });
 * ```
 * @param tiles drawn by the designer
 * @param at the path of the pattern
 * @throws ProblemError for values that make no tile
 */
export function patternOf(choice: Tiled, tiles: readonly TileDefinition[] = [], at = 'pattern'): Pattern {
	switch (choice.kind) {
		case 'triangles': {
			const label = `triangles, ${choice.diagonal}`;
			if (choice.diagonal === 'shorter') return { label, tile: rising, otherwise: falling };
			return { label, tile: { rising, falling, alternating }[choice.diagonal] };
		}
		case 'hexagons':
			return { label: 'hexagons', tile: choice.sides === 'upright' ? tallHexagons : flatHexagons };
		case 'running bond':
			return { label: 'bricks', tile: running(choice.offset, choice.way === 'onward', at) };
		case 'undulating':
			return { label: 'undulating courses', tile: undulating(choice.bays, choice.rise, at) };
		case 'tile': {
			const drawn = tiles.find((one) => one.id === choice.tile);
			if (!drawn) {
				const names = tiles.map((one) => one.name).join(', ') || 'none yet';
				return refuse(at, `the tile "${choice.tile}" does not exist; known: ${names}`);
			}
			return { label: drawn.name, tile: drawnTile(drawn, pathTo('tiles', drawn.id)) };
		}
		default:
			return fixed[choice.kind]!;
	}
}
