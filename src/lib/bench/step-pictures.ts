import { shippedMaterials } from '$core/part/materials';
import { shippedParts } from '$core/part/kit';
import { inspectPart } from '$core/part/inspect';
import { joinedMesh } from '$core/part/places';
import { cornersOfTrial } from '$core/part/trials';
import { pointAt, type Vector } from '$core/geometry/vector';
import { partSchema, type AnyStep, type PartDefinition } from '$core/project/part-definition';
import { smallPicture, type SmallPicture } from '$lib/components/small-picture';
import { cameTo, hang } from './hang';
import { newStep } from './new-step';

const SIZE = [96, 66] as const;

/** A standing cell, a little out of true so that nothing hides behind anything. */
const CELL: readonly Vector[] = [
	[0, 0, 0],
	[1800, 0, 0],
	[1800, 250, 1400],
	[0, 100, 1400]
];

/** What there is before the step that is shown: one or more values of every type. */
const BEFORE = [
	{ name: 'ring', do: 'inset', ring: 'cell', by: '330 mm' },
	{ name: 'foot', do: 'edge', of: 'cell', number: 1 },
	{ name: 'head', do: 'edge', of: 'cell', number: 3 },
	{ name: 'one', do: 'line', from: 'corner1', to: 'corner3' },
	{ name: 'other', do: 'line', from: 'corner2', to: 'corner4' },
	{ name: 'middle', do: 'middle', of: 'ring' },
	{ name: 'right', do: 'direction', from: 'corner1', to: 'corner2' },
	{ name: 'tip', do: 'lift', of: 'middle', by: '500 mm', along: 'normal' },
	{ name: 'far', do: 'lift', of: 'ring', by: '380 mm', along: 'normal' },
	{ name: 'flat', do: 'plane', origin: 'middle', right: 'right', normal: 'normal' },
	{ name: 'roof', do: 'fan sheet', ring: 'ring', to: 'tip' }
] as const;

const ball = (of: string) => [{ name: 'ball', do: 'sphere', centre: of, diameter: '170 mm' }];
const balls = [{ name: 'balls', label: 'Balls', category: 'other', of: ['ball'], material: 'steel' }];
const diagonal = { path: 'one' };
const cube = { do: 'block box', from: ['0.1', '0.1', '0.1'], to: ['0.9', '0.9', '0.6'] };
const round = { do: 'block sphere', centre: ['0.5', '0.5', '0.6'], radius: '0.34' };

/** Steps that are shown otherwise than as they begin. */
const examples: Partial<Record<AnyStep['do'], Readonly<Record<string, unknown>>>> = {
	'point on path': { path: 'one', ratio: '0.3', from: 'start' },
	middle: { of: 'foot' },
	corner: { of: 'ring', number: 3 },
	crossing: { first: 'one', second: 'other' },
	lift: { of: 'ring', by: '450 mm', along: 'normal' },
	shift: { of: 'ring', right: '300 mm', up: '200 mm', plane: 'flat' },
	foot: { of: 'tip', on: 'foot' },
	choose: { when: 'true', then: 'far', otherwise: 'ring' },
	line: { from: 'corner1', to: 'tip' },
	edge: { of: 'ring', number: 1 },
	path: { through: ['corner1', 'tip', 'corner3'], runs: 'smooth' },
	ring: { through: ['corner1', 'corner2', 'tip'], runs: 'straight' },
	inset: { ring: 'cell', by: '250 mm' },
	offset: { path: 'foot', by: '-300 mm', facing: 'normal' },
	shrink: { ring: 'cell', to: 'middle', ratio: '0.45' },
	smooth: { of: 'ring', times: 2 },
	rounded: { ring: 'ring', radius: '260 mm', pieces: 6 },
	circle: { plane: 'flat', diameter: '800 mm', pieces: 24 },
	divided: { path: 'foot', into: 5 },
	'flat sheet': { ring: 'ring' },
	'fan sheet': { ring: 'cell', to: 'tip' },
	'ruled sheet': { first: 'foot', second: 'head' },
	'band sheet': { outer: 'cell', inner: 'ring' },
	'bowed sheet': { ring: 'cell', rise: '300 mm', along: 'normal', pieces: 6 },
	plate: { ring: 'cell', opening: ['ring'], thickness: '60 mm', side: 'out' },
	band: { outer: 'cell', inner: 'ring', depth: '120 mm' },
	bar: {
		path: 'foot',
		facing: 'normal',
		profile: { shape: 'box', width: '120 mm', depth: '200 mm' },
		placed: 'behind',
		joints: 'mitred'
	},
	pyramid: { ring: 'cell', to: 'tip' },
	body: { foot: 'cell', head: 'far' },
	thicken: { sheet: 'roof', thickness: '60 mm', side: 'out' },
	sphere: { centre: 'middle', diameter: '700 mm' },
	each: { over: 'corners', of: 'ring', gathers: [], steps: ball('corner'), elements: balls },
	repeat: {
		times: '5',
		index: 'turn',
		steps: [
			{ name: 'place', do: 'point on path', ...diagonal, ratio: '(turn + 0.5) * 0.2', from: 'start' },
			...ball('place')
		],
		elements: balls
	},
	along: {
		path: 'foot',
		spaced: 'at most',
		spacing: '320 mm',
		steps: [{ name: 'place', do: 'middle', of: 'piece' }, ...ball('place')],
		elements: balls
	},
	cases: {
		of: '0.7',
		cases: [
			{ below: '0.5', steps: [], elements: [] },
			{ from: '0.5', steps: ball('middle'), elements: balls }
		]
	},
	part: { part: 'pyramid', on: ['cell'], values: {} },
	'block outline': {
		axis: 'out',
		outline: [
			[0.2, 0.2],
			[0.8, 0.2],
			[0.5, 0.8]
		],
		low: '0',
		high: '0.7'
	}
};

/** Directions are shown by going along them from somewhere; a web by a plate with openings. */
const instead: Partial<Record<AnyStep['do'], readonly object[]>> = {
	direction: [
		{ name: 'way', do: 'direction', from: 'corner1', to: 'tip' },
		{ name: 'end', do: 'lift', of: 'corner1', by: '900 mm', along: 'way' },
		{ name: 'shown', do: 'line', from: 'corner1', to: 'end' }
	],
	normal: [
		{ name: 'way', do: 'normal', of: 'ring' },
		{ name: 'end', do: 'lift', of: 'middle', by: '700 mm', along: 'way' },
		{ name: 'shown', do: 'line', from: 'middle', to: 'end' }
	],
	plane: [
		{ name: 'made', do: 'plane', origin: 'tip', right: 'right', normal: 'normal' },
		{ name: 'shown', do: 'circle', plane: 'made', diameter: '700 mm', pieces: 4 }
	],
	'pierced sheet': [
		{ name: 'opening', do: 'rounded', ring: 'ring', radius: '250 mm', pieces: 6 },
		{ name: 'shown', do: 'plate', ring: 'cell', opening: ['opening'], thickness: '20 mm', side: 'out' }
	]
};

/** Blocks are shown fitted in the space between the cell and a ring before it. */
function blockSteps(kind: AnyStep['do']): { readonly steps: readonly object[]; readonly of: string } {
	const parts = [
		{ name: 'cube', ...cube },
		{ name: 'round', ...round }
	];
	const fit = (block: string, name: string) => ({
		name,
		do: 'fit block',
		block,
		first: 'cell',
		second: 'before',
		turns: '0',
		flip: 'false',
		mirror: 'false'
	});
	const before = { name: 'before', do: 'lift', of: 'cell', by: '500 mm', along: 'normal' };
	const own: Partial<Record<AnyStep['do'], object>> = {
		'block union': { of: ['cube', 'round'] },
		'block intersection': { of: ['cube', 'round'] },
		'block difference': { whole: 'cube', less: ['round'] }
	};
	if (kind === 'fit block') return { steps: [before, ...parts, fit('cube', 'shown')], of: 'shown' };
	const made = newStep(
		kind,
		'shown',
		new Map(['cube', 'round'].map((name): [string, string] => [name, 'block']))
	);
	const step = 'step' in made ? made.step : {};
	return {
		steps: [before, ...parts, { ...step, ...examples[kind], ...own[kind] }, fit('shown', 'fitted')],
		of: 'fitted'
	};
}

/** A node and where its lines go, for what is made of them. */
const NODE: readonly Vector[] = [
	[0, 0, 0],
	[1000, 200, 500],
	[-800, 100, 700],
	[-100, 300, -900]
];

interface Example {
	readonly steps: readonly object[];
	/** What an element is made of, where it is not seen without. */
	readonly of: string | null;
	readonly anchor?: PartDefinition['anchor'];
	readonly points?: readonly Vector[];
}

function exampleOf(kind: AnyStep['do']): Example {
	if (kind.startsWith('block') || kind === 'fit block') return blockSteps(kind);
	if (kind === 'joined tubes')
		return {
			steps: [
				{ name: 'size', do: 'number', value: '330 mm' },
				{ name: 'shown', do: kind, centre: 'node', ways: 'ways', ...TUBES }
			],
			of: 'shown',
			anchor: { kind: 'node', corners: 3 },
			points: NODE
		};
	return { steps: instead[kind] ?? [{ name: 'shown', do: kind, ...examples[kind] }], of: null };
}
const TUBES = { diameters: 'size', reach: '800 mm', fillet: '260 mm' };

function picture(kind: AnyStep['do']): SmallPicture | null {
	const { steps, of, anchor = { kind: 'ring', corners: 4 }, points: on = CELL } = exampleOf(kind);
	const isCell = on === CELL;
	const part = partSchema.safeParse({
		id: 'example',
		label: 'Example',
		role: 'panel',
		use: 'An example.',
		anchor,
		inputs: [],
		limits: [],
		steps: [...(isCell ? BEFORE : []), ...steps],
		elements: of
			? [{ name: 'element', label: 'Element', category: 'other', of: [of], material: 'steel' }]
			: [],
		measures: []
	});
	if (!part.success) return null;
	const inspection = inspectPart(part.data, cornersOfTrial(part.data.anchor, on.length), shippedParts);
	if (inspection.faults.length) return null;
	const piece = hang(part.data, inspection, { library: shippedParts, materials: shippedMaterials }, on, {});
	const faces: Vector[][] = [];
	for (const { table } of piece.elements) {
		const { places, triangles } = joinedMesh(
			table.shape,
			Array.from({ length: table.count }, (_, k) => k)
		);
		for (let k = 0; k < triangles.length; k += 3)
			faces.push([0, 1, 2].map((n) => pointAt(places, triangles[k + n]!)));
	}
	const lines: { points: Vector[]; lit: boolean }[] = isCell
		? [{ points: [...CELL, CELL[0]!], lit: false }]
		: on.slice(1).map((end) => ({ points: [on[0]!, end], lit: false }));
	const dots: { at: Vector; lit: boolean }[] = [];
	const used = JSON.stringify(steps);
	for (const [name, view] of inspection.steps) {
		const lit = name === 'shown';
		if (!lit && !used.includes(`"${name}"`)) continue;
		const { points, loops, triangles } = cameTo(piece, view);
		if (lit)
			for (let k = 0; k < triangles.length; k += 3)
				faces.push([0, 1, 2].map((n) => points[triangles[k + n]!]!));
		if (!triangles.length) for (const loop of loops) lines.push({ points: loop.map((k) => points[k]!), lit });
		if (view.is === 'point' || view.is === 'plane' || kind === 'divided')
			for (const at of points) dots.push({ at, lit });
	}
	return smallPicture({ faces, lines, dots }, SIZE);
}

const made = new Map<AnyStep['do'], SmallPicture | null>();

/** What a step of a kind makes of a cell, as it would; null of those that make nothing to be seen. */
export function stepPicture(kind: AnyStep['do']): SmallPicture | null {
	if (!made.has(kind)) made.set(kind, picture(kind));
	return made.get(kind)!;
}
