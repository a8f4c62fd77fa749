import type { AnyStep } from '$core/project/part-definition';

/** What stands at a place of a step's sentence: a word, or a value that can be changed. */
export type Field =
	/** The name of another value, of one of these types. */
	| { readonly key: string; readonly is: 'use'; readonly of: readonly string[]; readonly optional?: boolean }
	| { readonly key: string; readonly is: 'uses'; readonly of: readonly string[]; readonly optional?: boolean }
	| { readonly key: string; readonly is: 'formula'; readonly optional?: boolean; readonly given?: string }
	/** One formula, or one for each edge or corner, with semicolons between. */
	| { readonly key: string; readonly is: 'formulas' }
	/** Places of the corners of an outline, in shares of the box. */
	| { readonly key: string; readonly is: 'corners' }
	/** A mesh that was brought in: told, not changed. */
	| { readonly key: string; readonly is: 'mesh' }
	| { readonly key: string; readonly is: 'whole' }
	| { readonly key: string; readonly is: 'words'; readonly words: Readonly<Record<string, string>> }
	| { readonly key: 'profile'; readonly is: 'profile' }
	/** The name under which the steps within know their turn. */
	| { readonly key: 'index'; readonly is: 'name' }
	/** Another part, and what its inputs are bound to. */
	| { readonly key: 'part'; readonly is: 'part' }
	| { readonly key: 'values'; readonly is: 'values' }
	/** Points of all turns that are known together afterwards. */
	| { readonly key: 'gathers'; readonly is: 'gathers' };
export type Sentence = readonly (string | Field)[];

const use = (key: string, ...of: string[]): Field => ({ key, is: 'use', of });
const uses = (key: string, ...of: string[]): Field => ({ key, is: 'uses', of });
const formula = (key: string): Field => ({ key, is: 'formula' });
const optional = (key: string, given: string): Field => ({ key, is: 'formula', optional: true, given });
const whole = (key: string): Field => ({ key, is: 'whole' });
const words = (key: string, of: Readonly<Record<string, string>>): Field => ({ key, is: 'words', words: of });
const runs = words('runs', { straight: 'straight', smooth: 'smoothly' });
const side = words('side', { in: 'inward', out: 'outward', both: 'both ways' });
const line = ['path'];
const formulas = (key: string): Field => ({ key, is: 'formulas' });
const axis = words('axis', { across: 'across', up: 'up', out: 'outward' });

/** Every step as a sentence; of groups the words before what stands in them. */
export const sentences: { readonly [Do in AnyStep['do']]: Sentence } = {
	each: [
		'For all',
		words('over', { edges: 'edges', corners: 'corners', 'small rings': 'small rings' }),
		'of',
		use('of', 'ring', 'path'),
		{ key: 'gathers', is: 'gathers' }
	],
	repeat: [
		'Repeat',
		optional('times', '3'),
		'times, when',
		optional('when', 'true'),
		', the turn known as',
		{ key: 'index', is: 'name' }
	],
	along: [
		'Along',
		use('path', 'path'),
		'in pieces of',
		words('spaced', { 'at most': 'at most', exactly: 'exactly' }),
		formula('spacing')
	],
	cases: ['By', formula('of')],
	part: [
		'Put the part',
		{ key: 'part', is: 'part' },
		'on',
		uses('on', 'point', 'ring', 'path'),
		{ key: 'values', is: 'values' }
	],
	number: ['Let it be', formula('value')],
	'point on path': [
		'A point on',
		use('path', 'path'),
		'at ratio',
		optional('ratio', '0.5'),
		'or distance',
		optional('distance', '100 mm'),
		'from its',
		words('from', { start: 'start', end: 'end' })
	],
	middle: ['The middle of', use('of', 'path', 'ring')],
	corner: ['Corner', whole('number'), 'of', use('of', 'ring', 'path')],
	crossing: ['Where', use('first', 'path'), 'and', use('second', 'path'), 'meet'],
	lift: [
		'Lift',
		use('of', 'point', 'path', 'ring'),
		'by',
		{ key: 'by', is: 'formulas' },
		'along',
		use('along', 'direction', 'directions')
	],
	shift: [
		'Shift',
		use('of', 'point', 'path', 'ring'),
		'by',
		formula('right'),
		'right and',
		formula('up'),
		'up in',
		use('plane', 'plane')
	],
	foot: ['The foot of', use('of', 'point'), 'on', use('on', 'path', 'plane')],
	direction: ['The direction from', use('from', 'point'), 'to', use('to', 'point')],
	normal: ['Square to', use('of', 'ring')],
	plane: [
		'A plane at',
		use('origin', 'point'),
		'with its right along',
		use('right', 'direction'),
		'square to',
		use('normal', 'direction')
	],
	choose: [
		'When',
		formula('when'),
		'take',
		use('then', 'point', 'ring', 'path', 'direction'),
		'otherwise',
		use('otherwise', 'point', 'ring', 'path', 'direction')
	],
	line: ['A line from', use('from', 'point'), 'to', use('to', 'point')],
	edge: ['Edge', whole('number'), 'of', use('of', 'ring')],
	circle: [
		'A circle of',
		formula('diameter'),
		'about',
		use('plane', 'plane'),
		'in',
		whole('pieces'),
		'pieces'
	],
	path: ['A path through', uses('through', 'point', ...line), 'run', runs],
	ring: ['A ring through', uses('through', 'point', ...line), 'run', runs],
	inset: ['Inset', use('ring', 'ring'), 'by', { key: 'by', is: 'formulas' }],
	offset: ['Offset', use('path', 'path'), 'by', formula('by'), 'seen against', use('facing', 'direction')],
	shrink: ['Shrink', use('ring', 'ring'), 'towards', use('to', 'point'), 'by ratio', formula('ratio')],
	smooth: ['Cut the corners of', use('of', 'ring', 'path'), whole('times'), 'times'],
	rounded: [
		'Round the corners of',
		use('ring', 'ring'),
		'by',
		formula('radius'),
		'in',
		whole('pieces'),
		'pieces'
	],
	divided: ['Divide', use('path', 'path'), 'into', whole('into')],
	'flat sheet': ['A sheet on', use('ring', 'ring')],
	'fan sheet': ['A fan from', use('ring', 'ring', 'path'), 'to', use('to', 'point')],
	'ruled sheet': ['A ruled sheet between', use('first', 'path'), 'and', use('second', 'path')],
	'band sheet': ['A band from', use('outer', 'ring'), 'to', use('inner', 'ring')],
	'bowed sheet': [
		'Bow',
		use('ring', 'ring'),
		'by',
		formula('rise'),
		'along',
		use('along', 'direction'),
		'in',
		whole('pieces'),
		'steps'
	],
	plate: [
		'A plate on',
		use('ring', 'ring'),
		'with openings',
		{ key: 'opening', is: 'uses', of: ['ring', 'rings'], optional: true },
		',',
		formula('thickness'),
		'thick,',
		side,
		'along',
		{ key: 'along', is: 'use', of: ['directions'], optional: true }
	],
	band: ['Bars between', use('outer', 'ring'), 'and', use('inner', 'ring'), ',', formula('depth'), 'deep'],
	bar: [
		'Run a',
		{ key: 'profile', is: 'profile' },
		'along',
		use('path', 'path', 'ring'),
		'facing',
		use('facing', 'direction'),
		', standing',
		words('placed', { middle: 'on it', behind: 'behind it', before: 'before it' }),
		',',
		words('joints', { mitred: 'mitred', swept: 'bent' }),
		', turned',
		optional('turn', '0 deg'),
		', set back',
		optional('start_setback', '0 mm'),
		'and',
		optional('end_setback', '0 mm')
	],
	pyramid: ['A solid from', use('ring', 'ring'), 'to', use('to', 'point')],
	body: ['A solid between', use('foot', 'ring'), 'and', use('head', 'ring')],
	thicken: [
		'Thicken',
		use('sheet', 'sheet'),
		'by',
		formula('thickness'),
		side,
		'along',
		{ key: 'along', is: 'use', of: ['direction'], optional: true }
	],
	sphere: ['A ball of', formula('diameter'), 'at', use('centre', 'point')],
	'block box': ['In a block, a box from', formulas('from'), 'to', formulas('to')],
	'block sphere': ['In a block, a ball of radius', formula('radius'), 'at', formulas('centre')],
	'block cylinder': [
		'In a block, a cylinder of radius',
		formula('radius'),
		axis,
		'about',
		formulas('middle'),
		'from',
		formula('low'),
		'to',
		formula('high')
	],
	'block outline': [
		'In a block, the outline',
		{ key: 'outline', is: 'corners' },
		'swept',
		axis,
		'from',
		formula('low'),
		'to',
		formula('high')
	],
	'block mesh': ['In a block, the mesh', { key: 'vertices', is: 'mesh' }],
	'block sheet': [
		'In a block, the sheet',
		{ key: 'vertices', is: 'mesh' },
		',',
		formula('thickness'),
		'of its size thick'
	],
	'block union': ['In a block,', uses('of', 'block'), 'together'],
	'block intersection': ['In a block, what is common to', uses('of', 'block')],
	'block difference': ['In a block,', use('whole', 'block'), 'less', uses('less', 'block')],
	'fit block': [
		'Fit',
		use('block', 'block'),
		'between',
		use('first', 'ring'),
		'and',
		use('second', 'ring'),
		', turned by',
		formula('turns'),
		'quarters, turned over',
		formula('flip'),
		', mirrored',
		formula('mirror')
	]
};

/** The steps in groups, as they are offered. */
export const stepGroups: readonly { readonly label: string; readonly steps: readonly AnyStep['do'][] }[] = [
	{
		label: 'Numbers and points',
		steps: ['number', 'point on path', 'middle', 'corner', 'crossing', 'lift', 'shift', 'foot', 'choose']
	},
	{ label: 'Directions', steps: ['direction', 'normal', 'plane'] },
	{
		label: 'Lines and rings',
		steps: [
			'line',
			'edge',
			'path',
			'ring',
			'inset',
			'offset',
			'shrink',
			'smooth',
			'rounded',
			'circle',
			'divided'
		]
	},
	{ label: 'Sheets', steps: ['flat sheet', 'fan sheet', 'ruled sheet', 'band sheet', 'bowed sheet'] },
	{ label: 'Solids', steps: ['plate', 'band', 'bar', 'pyramid', 'body', 'thicken', 'sphere'] },
	{
		label: 'Blocks',
		steps: [
			'block box',
			'block sphere',
			'block cylinder',
			'block outline',
			'block union',
			'block intersection',
			'block difference',
			'fit block'
		]
	},
	{ label: 'Many and sub-parts', steps: ['each', 'repeat', 'along', 'cases', 'part'] }
];

/** Where a new step starts from, apart from its name and the values it uses. */
const beginnings: Partial<Record<AnyStep['do'], Readonly<Record<string, unknown>>>> = {
	each: { over: 'edges', gathers: [], steps: [], elements: [] },
	repeat: { times: '3', index: 'turn', steps: [], elements: [] },
	along: { spaced: 'at most', spacing: '300 mm', steps: [], elements: [] },
	cases: {
		of: '0.5',
		cases: [
			{ below: '0.5', steps: [], elements: [] },
			{ from: '0.5', steps: [], elements: [] }
		]
	},
	part: { part: 'flat-panel', values: {} },
	number: { value: '100 mm' },
	'point on path': { ratio: '0.5', from: 'start' },
	corner: { number: 1 },
	lift: { by: '100 mm' },
	shift: { right: '100 mm', up: '0 mm' },
	choose: { when: 'true' },
	edge: { number: 1 },
	circle: { diameter: '300 mm', pieces: 16 },
	path: { runs: 'straight' },
	ring: { runs: 'straight' },
	inset: { by: '50 mm' },
	offset: { by: '50 mm' },
	shrink: { ratio: '0.2' },
	smooth: { times: 1 },
	rounded: { radius: '60 mm', pieces: 6 },
	divided: { into: 4 },
	'bowed sheet': { rise: '100 mm', pieces: 6 },
	plate: { thickness: '6 mm', side: 'in' },
	band: { depth: '60 mm' },
	bar: {
		profile: { shape: 'box', width: '50 mm', depth: '80 mm' },
		placed: 'behind',
		joints: 'mitred'
	},
	thicken: { thickness: '4 mm', side: 'in' },
	sphere: { diameter: '120 mm' },
	'block box': { from: ['0', '0', '0'], to: ['1', '1', '1'] },
	'block sphere': { centre: ['0.5', '0.5', '0.5'], radius: '0.3' },
	'block cylinder': { axis: 'out', middle: ['0.5', '0.5'], radius: '0.3', low: '0', high: '1' },
	'block outline': {
		axis: 'out',
		outline: [
			[0.2, 0.2],
			[0.8, 0.2],
			[0.5, 0.8]
		],
		low: '0',
		high: '1'
	},
	'fit block': { turns: '0', flip: 'false', mirror: 'false' }
};

/** What a step within a group is about, and directions that most go along; of other things the newest is first. */
const preferred = ['edge', 'small', 'piece', 'from', 'normal', 'plane'];

/**
 * A new step of a kind, standing on values that are there already.
 * @param sees names it may use, with their types
 * @returns null when a value it needs is not there yet, with what is missing
 */
export function newStep(
	kind: AnyStep['do'],
	name: string,
	sees: ReadonlyMap<string, string>
): { readonly step: Record<string, unknown> } | { readonly missing: string } {
	const step: Record<string, unknown> = { name, do: kind, ...beginnings[kind] };
	const known = [...sees];
	const taken = new Set<string>();
	const pick = (of: readonly string[]): string | undefined => {
		const fits = known.filter(([one, is]) => of.includes(is) && !taken.has(one)).map(([one]) => one);
		const found = preferred.find((one) => fits.includes(one)) ?? fits.at(-1);
		if (found) taken.add(found);
		return found;
	};
	for (const field of sentences[kind]) {
		if (typeof field === 'string') continue;
		if (field.is === 'use' && !field.optional) {
			// What is gone round is a ring, where there is one.
			const found = (kind === 'each' && pick(['ring'])) || pick(field.of);
			if (!found) return { missing: field.of[0]! };
			step[field.key] = found;
		} else if (field.is === 'uses' && !field.optional) {
			const ring = kind === 'part' ? pick(['ring']) : undefined;
			const corners = known.filter(([one, is]) => is === 'point' && /^(corner|point)\d+$/.test(one));
			const through = ring
				? [ring]
				: field.of.includes('point') && corners.length
					? corners.map(([one]) => one)
					: [pick(field.of)];
			if (!through[0]) return { missing: field.of[0]! };
			step[field.key] = through;
		}
	}
	return { step };
}

/** Sections that a bar may have, with what a new one starts from. */
export const profiles: Readonly<
	Record<string, { readonly label: string; readonly values: Record<string, unknown> }>
> = {
	box: { label: 'box', values: { width: '50 mm', depth: '80 mm' } },
	tube: { label: 'hollow box', values: { width: '50 mm', depth: '80 mm', wall: '4 mm' } },
	round: { label: 'round', values: { diameter: '60 mm' } },
	angle: { label: 'angle', values: { width: '60 mm', depth: '60 mm', wall: '6 mm' } },
	tee: { label: 'tee', values: { width: '60 mm', depth: '80 mm', wall: '8 mm' } },
	blade: { label: 'blade', values: { thickness: '12 mm', depth: '180 mm' } },
	own: {
		label: 'own outline',
		values: {
			outline: [
				[-25, 0],
				[25, 0],
				[10, 60],
				[-10, 60]
			]
		}
	}
};
