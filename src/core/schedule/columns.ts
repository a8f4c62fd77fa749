import { kindOf } from '../cladding/address';
import { elementMass } from '../cladding/quantities';
import { lieText } from '../cladding/lie';
import { lineKindOf } from '../cladding/line-run';
import type { PieceGroup } from '../cladding/pieces';
import type { PieceKinds } from '../like/bars-and-nodes';
import { columnValues } from '../field/column';
import { fieldOf } from '../field/fields';
import { CellRectangles } from '../measure/cell-rectangles';
import type { SiteKind } from '../field/site-kind';
import type { ElementTable } from '../part/element-table';
import { stockText } from '../part/stock';
import type { NumberKind } from '../units/dimension';
import { inDegrees, inRadians } from '../units/scale';
import { numberHead, textHead, type Cell, type ColumnHead } from './column';
import { besideName } from '../cladding/beside';
import { flagTexts } from './pieces';
import type { GroupSource, Refs } from './sources';

/** Of a piece: its row in a group. */
export interface PieceColumn extends ColumnHead {
	read(source: GroupSource): (row: number) => Cell;
}

/** Of one thing that is ordered for a piece, or of the piece: row by row of the refs. */
export interface ElementColumn extends ColumnHead {
	read(source: GroupSource, refs: Refs): (ref: number) => Cell;
}

const said = (key: string, title: string, read: PieceColumn['read']): PieceColumn => ({
	...textHead(key, title),
	read
});
/** A field of the sites that pieces hang on, under its own name. */
const field = (over: SiteKind, name: string, title: string, total = false): PieceColumn => {
	const { kind, column } = fieldOf(over, name);
	return {
		...numberHead(name, title, kind, total),
		read({ face, group }) {
			const values = columnValues(column(face, group.sites), group.sites.length);
			return (row) => values[row]!;
		}
	};
};
const quantity = (
	key: string,
	title: string,
	kind: NumberKind,
	of: keyof ReturnType<GroupSource['quantities']>
): PieceColumn => ({
	...numberHead(key, title, kind, true),
	read({ quantities }) {
		const values = quantities()[of];
		return (row) => values[row]!;
	}
});

const identity: readonly PieceColumn[] = [
	said('mark', 'Mark', ({ marks }) => {
		const own = marks();
		return (row) => own[row]!;
	}),
	said('address', 'Address', ({ addresses }) => {
		const own = addresses();
		return (row) => own[row]!;
	}),
	said(
		'zone',
		'Zone',
		({ zone }) =>
			() =>
				zone.zone.name
	),
	{
		...numberHead('course', 'Course', 'count'),
		read:
			({ sites, group }) =>
			(row) =>
				sites.course(group.sites[row]!)
	},
	{
		...numberHead('bay', 'Bay', 'count'),
		read:
			({ sites, group }) =>
			(row) =>
				sites.bay(group.sites[row]!)
	},
	said(
		'part',
		'Part',
		({ group }) =>
			() =>
				group.ready.part.label
	),
	said(
		'variant',
		'Variant',
		({ group }) =>
			() =>
				group.ready.variant.name
	)
];
/** What its elements are of. */
const materials = said('materials', 'Materials', ({ group }) => {
	const text = [...new Set(group.ready.materials.map(({ label }) => label))].join(', ');
	return () => text;
});
/** The sheet that a cell would be cut from. */
const sheetSide = (key: string, title: string, side: 0 | 1): PieceColumn => ({
	...numberHead(key, title, 'length'),
	read({ face, group }) {
		const rectangles = new CellRectangles(face.cells, face.grid.positions);
		return (row) => {
			rectangles.look(group.sites[row]!);
			return side === 0 ? rectangles.long : rectangles.short;
		};
	}
});
const flags = said(
	'flags',
	'Flags',
	({ group }) =>
		(row) =>
			flagTexts(group, row).join('; ')
);
const mass = quantity('mass', 'Mass', 'mass', 'mass');
const cutLength = quantity('length', 'Length', 'length', 'cutLength');
/** How the piece lies on its cell, opposite-handed ones among them. */
const lies = said('lies', 'Lies', ({ group }) => {
	const text = lieText(group.lie);
	return () => text;
});
const corners = (title: string): PieceColumn => ({
	...numberHead('corners', title, 'count'),
	read:
		({ group }) =>
		() =>
			group.corners
});

/** Which of its kind a bar, or a piece on a node, is like. */
const kindOfPiece = (kindsOf: (source: GroupSource) => PieceKinds): PieceColumn =>
	said('kind', 'Kind', (source) => {
		const { kinds, of } = kindsOf(source);
		const own = of.get(source.clause)!;
		return (row) => kinds[own[row]!]!.name;
	});
/** Cuts that are less off square (rad) are square. */
const SQUARE = inRadians(0.05);
/**
 * How an end of a bar is cut: degrees off square, both where it is cut twice; empty where ends are not cut.
 *
 * ```ts
 * const starts = Array.from(group.group.sites, (_, row) => endWords(group.group, row, 0));
 * ```
 */
export function endWords({ endAngles }: PieceGroup, row: number, end: 0 | 1): string {
	if (!endAngles) return '';
	const cuts = Array.from(endAngles.subarray(4 * row + 2 * end, 4 * row + 2 * end + 2), Math.abs)
		.filter((one) => one > SQUARE)
		.sort((one, other) => one - other);
	return cuts.map((one) => `${inDegrees(one).toFixed(1)}°`).join(' and ') || 'square';
}
const endCut = (key: string, title: string, end: 0 | 1): PieceColumn =>
	said(
		key,
		title,
		({ group }) =>
			(row) =>
				endWords(group, row, end)
	);

/** Schedules with a row for each piece. */
export const pieceColumns = {
	panels: [
		...identity,
		said(
			'cell',
			'Cell',
			({ face, group }) =>
				(row) =>
					kindOf(face.cells, group.sites[row]!)
		),
		said(
			'slot',
			'Slot',
			({ face, group }) =>
				(row) =>
					face.slots[face.cells.polygon[group.sites[row]!]!] ?? ''
		),
		said('kind', 'Kind', ({ kinds, z, clause, group }) => {
			// What is put beside others is of no kind of its own.
			if (besideName(clause)) return () => '';
			const { kinds: all, of } = kinds();
			const own = of[z]![clause.face]!;
			return (row) => all[own[group.sites[row]!]!]!.name;
		}),
		field('cell', 'share', 'Share left'),
		corners('Corners'),
		lies,
		sheetSide('long_side', 'Long side', 0),
		sheetSide('short_side', 'Short side', 1),
		materials,
		field('cell', 'area', 'Area', true),
		field('cell', 'longest_edge', 'Longest edge'),
		field('cell', 'shortest_edge', 'Shortest edge'),
		field('cell', 'smallest_angle', 'Smallest angle'),
		field('cell', 'warp', 'Warp'),
		quantity('glass', 'Glass', 'area', 'glassArea'),
		quantity('frame', 'Frame', 'length', 'barLength'),
		mass,
		flags
	],
	bars: [
		...identity,
		said(
			'line',
			'Line',
			({ face, group }) =>
				(row) =>
					lineKindOf(face.edges, group.sites[row]!, face.sharedEdges)
		),
		kindOfPiece(({ barKinds }) => barKinds()),
		cutLength,
		endCut('start', 'Start cut', 0),
		endCut('end', 'End cut', 1),
		materials,
		field('line', 'fold', 'Fold'),
		mass,
		flags
	],
	connectors: [
		...identity,
		said(
			'node',
			'Node',
			({ face, group }) =>
				(row) =>
					face.nodes().rim[group.sites[row]!] ? 'rim' : 'inner'
		),
		kindOfPiece(({ nodeKinds }) => nodeKinds()),
		corners('Lines'),
		materials,
		field('node', 'height', 'Height'),
		mass,
		flags
	],
	louvers: [
		...identity,
		corners('Corners'),
		lies,
		materials,
		field('cell', 'area', 'Area', true),
		mass,
		flags
	],
	structure: [...identity, corners('Corners'), lies, cutLength, materials, mass, flags]
} as const satisfies Record<string, readonly PieceColumn[]>;

/** A size that is nothing is left out. */
const none = (value: number): number | null => (value > 0 ? value : null);

/** What is said of a piece, for every row of it; a piece of many elements is asked once. */
export const ofPiece = ({ read, ...head }: PieceColumn): ElementColumn => ({
	...head,
	read(source, { row }) {
		const value = read(source);
		if (head.kind !== 'text') return (ref) => value(row[ref]!);
		let last = -1;
		let said: Cell = null;
		return (ref) => {
			if (row[ref] !== last) {
				last = row[ref]!;
				said = value(last);
			}
			return said;
		};
	}
});
const elementMark: ElementColumn = {
	...textHead('mark', 'Mark'),
	read(source, refs) {
		const mark = ofPiece(identity[0]!).read(source, refs);
		const { count } = refs;
		return (ref) => `${mark(ref)}-${count[ref]}`;
	}
};
const ofElement = (
	head: ColumnHead,
	read: (source: GroupSource) => (table: ElementTable, at: number) => Cell
): ElementColumn => ({
	...head,
	read(source, { tables, table, at }) {
		const value = read(source);
		return (ref) => value(tables[table[ref]!]!, at[ref]!);
	}
});
/** Of an element's kind, the same for all of them. */
const ofKind = (
	key: string,
	title: string,
	say: (group: GroupSource['group'], element: number) => string
): ElementColumn => ({
	...textHead(key, title),
	read({ group }, { tables, table }) {
		const words = tables.map(({ element }) => say(group, element));
		return (ref) => words[table[ref]!]!;
	}
});
const elementIdentity = [elementMark, ...identity.slice(1).map(ofPiece)];
/** What is said of a piece before its points. */
export const pointIdentity = identity.map(ofPiece);
const massOfElement = ofElement(
	numberHead('mass', 'Mass', 'mass', true),
	({ group }) =>
		(table, at) =>
			elementMass(group, table, at)
);

/**
 * What an element is cut from, in words; most elements of a kind are cut from the same.
 *
 * ```ts
 * const stockOf = stockReader();
 * const [first] = group.group.run.elements.map((table) => stockOf(table, 0)); // plate 24
 * ```
 */
export function stockReader(): (table: ElementTable, at: number) => string | null {
	const last = new Map<ElementTable, { readonly sizes: readonly number[]; readonly said: string }>();
	return (table, at) => {
		if (!table.stock) return null;
		const { shape, sizes } = table.stock;
		const known = last.get(table);
		if (known && sizes.every((column, k) => column[at] === known.sizes[k])) return known.said;
		const own = sizes.map((column) => column[at]!);
		const said = stockText({ shape, sizes: own });
		last.set(table, { sizes: own, said });
		return said;
	};
}

const size = (key: 'length' | 'area' | 'volume', title: string): ElementColumn =>
	ofElement(numberHead(key, title, key, true), () => (table, at) => none(table[key][at]!));

/** Schedules with a row for each element that is ordered. */
export const elementColumns = {
	blades: [
		...elementIdentity,
		ofElement(numberHead('blade', 'Blade', 'count'), () => (table, at) => table.turn[at]! + 1),
		ofElement(numberHead('length', 'Length', 'length', true), () => (table, at) => table.length[at]!),
		massOfElement,
		ofPiece(flags)
	],
	elements: [
		...elementIdentity,
		{
			...numberHead('number', 'Number', 'count'),
			read:
				(_source, { count }) =>
				(ref) =>
					count[ref]!
		},
		ofKind('element', 'Element', ({ ready }, element) => ready.elements[element]!.label),
		ofKind('category', 'Category', ({ ready }, element) => ready.elements[element]!.category),
		ofKind('material', 'Material', ({ ready }, element) => ready.materials[element]!.label),
		ofElement(textHead('stock', 'Stock'), stockReader),
		ofElement(numberHead('thickness', 'Thickness', 'length'), () => ({ stock }, at) => {
			return stock?.shape === 'plate' ? none(stock.sizes[0]![at]!) : null;
		}),
		size('length', 'Length'),
		size('area', 'Net area'),
		size('volume', 'Volume'),
		massOfElement
	]
} as const satisfies Record<string, readonly ElementColumn[]>;
