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
		words('over', { edges: 'edges', corners: 'corners', 'small rings': 'small rings', ways: 'ways' }),
		'of',
		use('of', 'ring', 'path', 'ways'),
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
	'pierced sheet': [
		'Fill the cell with a sheet of',
		formula('thickness'),
		'around its openings, its outer side',
		formula('out'),
		'out, a joint of',
		formula('joint'),
		'open along its rim'
	],
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
	'joined tubes': [
		'Join round arms at',
		use('centre', 'point'),
		'along',
		use('ways', 'ways'),
		'to one smooth body, of diameter',
		use('diameters', 'lengths', 'number'),
		', reaching',
		formula('reach'),
		', its hollows rounded by',
		formula('fillet')
	],
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
