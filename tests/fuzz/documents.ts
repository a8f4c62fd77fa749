import { readFileSync } from 'node:fs';
import type { Random } from '../saving/wardrobe';

/** Small documents that use everything a project can hold, and what may go wrong with their values. */

type Json = null | boolean | number | string | Json[] | { [key: string]: Json };

const read = (path: string) =>
	JSON.parse(readFileSync(new URL(`../../${path}`, import.meta.url), 'utf8')) as Record<string, Json>;

const point = (x: number, y: number, z: number) => [x, y, z];
const count = (n: number) => ({ by: 'count', count: n });
const rail = (z: number, bulge: number) => ({
	points: [point(0, 0, z), point(4000, bulge, z), point(9000, 0, z)],
	joins: 'smooth',
	closed: false
});
const zone = (mass: string, face: string, rest: Record<string, Json> = {}): Json => ({
	id: 'z',
	code: 'Z',
	name: 'Zone',
	faces: [{ mass, face }],
	settingOut: { across: count(4), up: count(3) },
	pattern: { kind: 'rectangles' },
	rules: [
		{ id: 'edge', cells: 'edge', put: 'open' },
		{ id: 'all', put: { variant: 'glass' } }
	],
	runs: [{ id: 'post', lines: ['bay', 'course', 'rim'], variant: 'post' }],
	nodes: [{ id: 'balls', nodes: 'all', lines: 'any', variant: 'ball', values: {} }],
	...rest
});
const kit: Json = [
	{ id: 'glass', name: 'Glass', part: 'framed-glass', values: {} },
	{ id: 'post', name: 'Post', part: 'box-mullion', values: {} },
	{ id: 'ball', name: 'Ball', part: 'node-ball', values: {} },
	{ id: 'blades', name: 'Blades', part: 'blade-stack', values: {} },
	{ id: 'sheet', name: 'Sheet', part: 'pierced-sheet', values: {} }
];
const project = (
	form: Json,
	face: string,
	ofZone: Record<string, Json> = {},
	rest: Record<string, Json> = {}
) => {
	const { mass, ...others } = rest;
	return {
		format: 'zygaster project',
		version: 4,
		name: 'Fuzz',
		levels: [{ id: 'deck', name: 'Deck', height: 3000 }],
		masses: [{ id: 'm', name: 'Mass', form, ...((mass as Record<string, Json> | undefined) ?? {}) }],
		zones: [zone('m', face, ofZone)],
		variants: kit,
		...others
	} as Record<string, Json>;
};
const square = [
	[0, 0],
	[4000, 0],
	[4000, 3000],
	[0, 3000]
];
const revolved = {
	kind: 'revolved',
	profile: {
		points: [
			[3000, 0],
			[2400, 2500],
			[3200, 6000]
		],
		joins: 'smooth'
	}
};
const flat = { kind: 'ruled', foot: rail(0, 0), head: rail(5000, 0) };
const folded = {
	id: 'folded',
	label: 'Folded',
	family: 'panel',
	use: '',
	anchor: { kind: 'ring', corners: 'any' },
	inputs: [
		{ name: 'rise', label: 'Rise', kind: 'length', default: 80, min: 0, max: 400, scope: 'per piece' }
	],
	limits: [{ of: 'rise', at_most: 'area / perimeter', then: 'hold', says: 'too high' }],
	steps: [
		{ name: 'in', do: 'inset', ring: 'cell', by: '60 mm' },
		{
			name: 'rows',
			do: 'repeat',
			times: '3',
			index: 'k',
			steps: [
				{
					name: 'turns',
					do: 'repeat',
					times: '2',
					index: 'n',
					steps: [{ name: 'sheet', do: 'plate', ring: 'in', thickness: '4 mm', side: 'in' }],
					elements: [{ name: 's', label: 'S', category: 'plate', of: ['sheet'], material: 'zinc' }]
				}
			],
			elements: []
		}
	],
	elements: [],
	measures: [{ name: 'reach', label: 'Reach', kind: 'length', value: 'rise * 2' }]
};

/** Zones of more cells are refused, so that a document stays a small one whatever its sizes become. */
const MOST_CELLS = 1500;
const fewCells = (document: Record<string, Json>) => ({
	...document,
	zones: (document['zones'] as { settingOut: Record<string, Json> }[]).map((one) => ({
		...one,
		settingOut: { ...one.settingOut, mostCells: MOST_CELLS }
	})) as Json
});

/** Documents to begin from: those that take seconds, whole as they are, by themselves. */
export function documents(): Record<'quick' | 'slow', Record<string, Json>[]> {
	const quick = [...ofZones(read('tests/lido.json')), ...others()];
	const slow = ofZones(read('demo/tidal-lido.json'));
	const isSlow = (_: unknown, k: number) => SLOW.includes(k);
	return {
		quick: quick.filter((one, k) => !isSlow(one, k)),
		slow: [...slow, ...quick.filter(isSlow)]
	};
}
/** Of those that are not shipped. */
const SLOW = [12, 13, 16];

/** A project as one document for each of its zones, few cells on each. */
function ofZones(demo: Record<string, Json>): Record<string, Json>[] {
	const zones = demo['zones'] as (Record<string, Json> & { settingOut: Record<string, Json> })[];
	const masses = demo['masses'] as { id: string }[];
	return zones.map((one) => ({
		...demo,
		masses: masses.filter(({ id }) =>
			(one['faces'] as { mass: string }[]).some(({ mass }) => mass === id)
		) as Json,
		zones: [
			{
				...one,
				settingOut: { ...one.settingOut, across: count(6), up: count(4) }
			} as Json
		]
	}));
}

function others(): Record<string, Json>[] {
	return [
		read('docs/examples/small.json'),
		project(revolved, 'shell', {
			pattern: { kind: 'diamonds' },
			settingOut: { across: count(6), up: count(4) }
		}),
		project({ kind: 'ruled', foot: rail(0, 0), head: rail(5000, 1500) }, 'wall', {
			pattern: { kind: 'triangles', diagonal: 'shorter' },
			slivers: { under: 200_000, put: 'merge' }
		}),
		project(flat, 'wall', {
			settingOut: {
				across: { by: 'exact size', size: 1300, start: 'middle' },
				up: { by: 'list', sizes: [900, 1400], start: 'foot', run: 'repeated' },
				joint: 12
			},
			layer: { depth: '-300 mm - height / 20', shifted: true }
		}),
		project(
			{
				kind: 'lofted',
				sections: [0, 2500, 6000].map((height, k) => ({
					outline: {
						shape: k === 1 ? 'circle' : 'rectangle',
						...(k === 1 ? { radius: 2200 } : { width: 5000, depth: 3500 })
					},
					height,
					turn: 10 * k
				}))
			} as Json,
			'skin',
			{ pattern: { kind: 'hexagons' }, settingOut: { across: count(4), up: count(4) } }
		),
		project(
			{
				kind: 'vaulted',
				profile: {
					points: [
						[-3000, 0],
						[0, 2400],
						[3000, 0]
					]
				},
				length: 7000
			},
			'vault',
			{ pattern: { kind: 'running bond', offset: 0.5 } }
		),
		project(
			{
				kind: 'twisted',
				outline: { shape: 'drawn', points: square, rounding: 300 },
				head: { level: 'deck', plus: 2000 },
				twist: [
					[0, 0],
					[0.5, 20],
					[1, 30]
				],
				taper: 0.8
			},
			'shell',
			{ pattern: { kind: 'undulating', bays: 4, rise: 0.5 } }
		),
		project({ kind: 'dome', radii: [4000, 4500, 3000], cut: 500 }, 'shell', {
			settingOut: { across: count(8), up: count(4), poleHole: 200 },
			pattern: { kind: 'trihexagonal' }
		}),
		project(
			{
				kind: 'net',
				rows: [0, 1, 2, 3].map((j) =>
					[0, 1, 2, 3].map((i) => [i * 2000, j * 400, j * 1500 + ((i * j) % 3) * 300])
				),
				points: 'through'
			},
			'skin',
			{
				pattern: {
					kind: 'voronoi',
					count: 20,
					margin: 20,
					size: { is: 'follows', field: 'up', from: [0, 1], to: [1, 0] },
					sheet: { per: { bays: 3, courses: 2 } }
				},
				rules: [{ id: 'all', put: { variant: 'sheet' } }],
				settingOut: { across: count(4), up: count(4) }
			}
		),
		project(
			{
				kind: 'waves',
				size: [6000, 5000],
				height: 'a * sin(x * 40 deg / 1 m) + 900 mm',
				values: [{ id: 'a', value: '400 mm' }]
			},
			'skin',
			{
				pattern: { kind: 'random splits', smallest: 500 },
				settingOut: { across: count(4), up: count(3), along: 'geodesics' }
			}
		),
		project(
			{ kind: 'prism', outline: { shape: 'polygon', sides: 5, radius: 4000 }, head: 5000, curved: [] },
			'south',
			{
				pattern: { kind: 'tile', tile: 't' }
			},
			{
				tiles: [
					{
						id: 't',
						name: 'Two',
						across: 2,
						up: 1,
						polygons: [
							{
								slot: 'a',
								points: [
									[0, 0],
									[1, 0],
									[1, 1],
									[0, 1]
								]
							},
							{
								slot: 'b',
								points: [
									[1, 0],
									[2, 0],
									[2, 1],
									[1, 1]
								]
							}
						]
					}
				]
			}
		),
		project(
			flat,
			'wall',
			{},
			{
				mass: {
					trims: [
						{
							id: 'door',
							by: 'map',
							face: 'wall',
							outline: { shape: 'rectangle', width: 1500, depth: 1800, rounding: 200 },
							at: [300, 2500]
						},
						{ id: 'top', by: 'plane', face: 'wall', at: [4000, 0, 4200], normal: [0.1, 0, -1] }
					]
				}
			}
		),
		project(
			revolved,
			'shell',
			{ settingOut: { across: count(6), up: { by: 'levels', each: 2 }, along: 'level planes' } },
			{
				mass: {
					evened: 20,
					trims: [{ id: 'cut', by: 'level', face: 'shell', height: { level: 'deck', plus: 1000 } }]
				}
			}
		),
		project(
			flat,
			'wall',
			{ rules: [{ id: 'all', put: { variant: 'folded', values: { rise: '40 mm + 10 mm * bay' } } }] },
			{
				parts: [folded],
				variants: [...(kit as Json[]), { id: 'folded', name: 'Folded', part: 'folded', values: {} }]
			}
		),
		project(
			{
				kind: 'imported',
				source: 'x.stp',
				faces: [
					{
						name: 'f',
						degrees: [1, 1],
						knotsU: [0, 0, 1, 1],
						knotsV: [0, 0, 1, 1],
						net: [0, 0, 0, 1, 6000, 0, 0, 1, 0, 0, 4000, 1, 6000, 0, 4000, 1],
						ends: [
							[
								[0, 0, 0],
								[6000, 0, 0],
								[6000, 0, 3000],
								[0, 0, 4000]
							]
						]
					}
				]
			},
			'f',
			{
				settingOut: {
					across: { by: 'at most', size: 1400 },
					up: { by: 'at least', size: 900 },
					along: 'equal chords'
				}
			}
		)
	].map(fewCells);
}

const NUMBERS = [
	0,
	-1,
	1,
	2,
	3,
	0.5,
	1e-9,
	1e-3,
	1e3,
	1e5,
	1e9,
	-1e9,
	1e15,
	1e308,
	-1e308,
	5e-324,
	0.1 + 0.2,
	19_999,
	20_001
];
const FORMULAS = [
	'0',
	'1/0',
	'0/0',
	'-1',
	'sqrt(-1)',
	'1e9',
	'bay',
	'x',
	'1 mm',
	'90 deg',
	'(',
	'area',
	'1e400',
	'10 mm ^ 3',
	'cell.warp * 2',
	'distance.x'
];

/** Another value in the place of one. */
function otherValue(value: Json, random: Random, whole: Json): Json {
	const pick = <T>(list: readonly T[]) => list[Math.floor(random() * list.length)]!;
	if (typeof value === 'number') {
		const way = random();
		if (way < 0.45) return pick(NUMBERS);
		if (way < 0.75) return value * 10 ** Math.floor(random() * 9 - 4);
		if (way < 0.85) return -value;
		return value + (random() - 0.5) * 10;
	}
	if (typeof value === 'string') return random() < 0.5 ? pick(FORMULAS) : pick(stringsOf(whole));
	if (typeof value === 'boolean') return !value;
	if (Array.isArray(value)) {
		const way = random();
		if (way < 0.2) return [];
		if (way < 0.4) return value.slice(0, Math.floor(random() * value.length));
		if (way < 0.6 && value.length) return [...value, pick(value)];
		if (way < 0.75) return [...value].reverse();
		if (way < 0.85 && value.length)
			return Array.from({ length: Math.floor(random() * 300) }, (_, k) => value[k % value.length]!);
		return value.map((one) => (random() < 0.5 ? otherValue(one, random, whole) : one));
	}
	return value;
}

function stringsOf(value: Json): string[] {
	if (typeof value === 'string') return [value];
	if (typeof value !== 'object' || value === null) return [];
	return Object.values(value).flatMap((one) => stringsOf(one as Json));
}

/** All places of a document, as keys from its root. */
function placesOf(value: Json, at: (string | number)[] = []): (string | number)[][] {
	if (typeof value !== 'object' || value === null) return [at];
	const below = Array.isArray(value)
		? value.flatMap((one, k) => placesOf(one, [...at, k]))
		: Object.entries(value).flatMap(([key, one]) => placesOf(one, [...at, key]));
	return at.length ? [at, ...below] : below;
}

/** A document with one to three of its values changed. */
export function mutated(document: Record<string, Json>, random: Random): Record<string, Json> {
	const copy = structuredClone(document);
	for (let n = 1 + Math.floor(random() * 3); n > 0; n--) {
		const places = placesOf(copy).filter(([first]) => first !== 'format' && first !== 'version');
		const keys = places[Math.floor(random() * places.length)]!;
		let holder = copy as Record<string | number, Json>;
		for (const key of keys.slice(0, -1)) holder = holder[key] as Record<string | number, Json>;
		const last = keys.at(-1)!;
		if (random() < 0.04 && !Array.isArray(holder)) Reflect.deleteProperty(holder, last);
		else holder[last] = otherValue(holder[last]!, random, copy);
	}
	return copy;
}
