import { kindOf } from '../cladding/address';
import { lineKindOf } from '../cladding/line-run';
import { columnValues } from '../field/column';
import { fieldOf } from '../field/fields';
import type { SiteKind } from '../field/site-kind';
import type { ElementTable } from '../part/element-table';
import { stockText } from '../part/stock';
import type { NumberKind } from '../units/dimension';
import { elementMass, flagTexts, pieceAddress, pieceMark } from './pieces';
import type { GroupSource } from './sources';

export type Cell = string | number | null;

/** What a column says of itself; numbers are in kernel units. */
export interface ColumnHead {
	readonly key: string;
	readonly title: string;
	readonly kind: NumberKind | 'text';
	/** Whether summing it means something. */
	readonly total: boolean;
}

/** Of a piece: its row in a group. */
export interface PieceColumn extends ColumnHead {
	read(source: GroupSource): (row: number) => Cell;
}

/** One thing that is ordered for a piece. */
export interface ElementRef {
	readonly table: ElementTable;
	/** Its place in the table. */
	readonly at: number;
	/** Counts the elements of its piece from 1. */
	readonly count: number;
}
export interface ElementColumn extends ColumnHead {
	read(source: GroupSource): (ref: ElementRef) => Cell;
}

export const textHead = (key: string, title: string): ColumnHead => ({
	key,
	title,
	kind: 'text',
	total: false
});
export const numberHead = (key: string, title: string, kind: NumberKind, total = false): ColumnHead => ({
	key,
	title,
	kind,
	total
});

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
	said('mark', 'Mark', (source) => (row) => pieceMark(source.zone, source.clause, row)),
	said('address', 'Address', (source) => (row) => pieceAddress(source.zone, source.clause, row)),
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
const flags = said(
	'flags',
	'Flags',
	({ group }) =>
		(row) =>
			flagTexts(group, row).join('; ')
);
const mass = quantity('mass', 'Mass', 'mass', 'mass');
const cutLength = quantity('length', 'Length', 'length', 'cutLength');
const corners = (title: string): PieceColumn => ({
	...numberHead('corners', title, 'count'),
	read:
		({ group }) =>
		() =>
			group.corners
});

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
		field('cell', 'share', 'Share left'),
		corners('Corners'),
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
		cutLength,
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
		corners('Lines'),
		field('node', 'height', 'Height'),
		mass,
		flags
	],
	structure: [...identity, corners('Corners'), cutLength, mass, flags]
} as const satisfies Record<string, readonly PieceColumn[]>;

/** A size that is nothing is left out. */
const none = (value: number): number | null => (value > 0 ? value : null);

const ofPiece = ({ read, ...head }: PieceColumn): ElementColumn => ({
	...head,
	read(source) {
		const value = read(source);
		// A piece of many elements is asked once.
		const known: Cell[] = [];
		return ({ table, at }) => {
			const row = table.row[at]!;
			return (known[row] ??= value(row));
		};
	}
});
const elementMark: ElementColumn = {
	...textHead('mark', 'Mark'),
	read(source) {
		const mark = ofPiece(identity[0]!).read(source);
		return (ref) => `${mark(ref)}-${ref.count}`;
	}
};
const ofElement = (head: ColumnHead, read: ElementColumn['read']): ElementColumn => ({ ...head, read });
const elementIdentity = [elementMark, ...identity.slice(1).map(ofPiece)];
const massOfElement = ofElement(
	numberHead('mass', 'Mass', 'mass', true),
	({ group }) =>
		({ table, at }) =>
			elementMass(group, table, at)
);

/** Schedules with a row for each element that is ordered. */
export const elementColumns = {
	blades: [
		...elementIdentity,
		ofElement(
			numberHead('blade', 'Blade', 'count'),
			() =>
				({ table, at }) =>
					table.turn[at]! + 1
		),
		ofElement(
			numberHead('length', 'Length', 'length', true),
			() =>
				({ table, at }) =>
					table.length[at]!
		),
		massOfElement,
		ofPiece(flags)
	],
	elements: [
		...elementIdentity,
		ofElement(
			numberHead('number', 'Number', 'count'),
			() =>
				({ count }) =>
					count
		),
		ofElement(
			textHead('element', 'Element'),
			({ group }) =>
				({ table }) =>
					group.ready.elements[table.element]!.label
		),
		ofElement(
			textHead('category', 'Category'),
			({ group }) =>
				({ table }) =>
					group.ready.elements[table.element]!.category
		),
		ofElement(
			textHead('material', 'Material'),
			({ group }) =>
				({ table }) =>
					group.ready.materials[table.element]!.label
		),
		ofElement(textHead('stock', 'Stock'), () => ({ table: { stock }, at }) => {
			if (!stock) return null;
			return stockText({ shape: stock.shape, sizes: stock.sizes.map((column) => column[at]!) });
		}),
		ofElement(
			numberHead('thickness', 'Thickness', 'length'),
			() =>
				({ table: { stock }, at }) =>
					stock?.shape === 'plate' ? none(stock.sizes[0]![at]!) : null
		),
		...(
			[
				['length', 'Length', 'length'],
				['area', 'Net area', 'area'],
				['volume', 'Volume', 'volume']
			] as const
		).map(([key, title, kind]) =>
			ofElement(
				numberHead(key, title, kind, true),
				() =>
					({ table, at }) =>
						none(table[key][at]!)
			)
		),
		massOfElement
	]
} as const satisfies Record<string, readonly ElementColumn[]>;
