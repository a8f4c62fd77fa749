import { kindOf } from '../cladding/address';
import { lineKindOf } from '../cladding/line-run';
import type { ClauseGroup, Model, ZoneModel } from '../cladding/model';
import { stockText } from '../part/stock';
import type { NumberKind } from '../units/dimension';
import { nodeRows } from './nodes';
import {
	elementMass,
	failedRows,
	flagTexts,
	isBarGroup,
	isPanelGroup,
	isStructureGroup,
	pieceAddress,
	pieceMark,
	pieceQuantities
} from './pieces';

export const scheduleNames = ['panels', 'bars', 'blades', 'structure', 'elements', 'nodes'] as const;
export type ScheduleName = (typeof scheduleNames)[number];

/** One column; numbers are in kernel units, null where a row has no such value. */
export interface Column {
	readonly key: string;
	readonly title: string;
	readonly kind: NumberKind | 'text';
	/** Whether summing it means something. */
	readonly total: boolean;
	readonly values: (string | number | null)[];
}

/** A schedule in building order: zone by zone, course by course from the foot, bay by bay. */
export interface Schedule {
	readonly name: ScheduleName;
	readonly rows: number;
	readonly columns: readonly Column[];
}

type Cells = Record<string, string | number | null>;
interface Row {
	/** Zone, face, and where it stands there: compared value by value. */
	readonly order: readonly number[];
	readonly cells: Cells;
	/** What it shares with other rows of its piece; its own cells go before. */
	readonly shared?: Cells;
}
type Definition = Omit<Column, 'values'>;

const text = (key: string, title: string): Definition => ({ key, title, kind: 'text', total: false });
const number = (key: string, title: string, kind: NumberKind, total = false): Definition => ({
	key,
	title,
	kind,
	total
});

const common = [
	text('mark', 'Mark'),
	text('address', 'Address'),
	text('zone', 'Zone'),
	number('course', 'Course', 'count'),
	number('bay', 'Bay', 'count'),
	text('part', 'Part'),
	text('variant', 'Variant')
];
const definitions: Record<ScheduleName, readonly Definition[]> = {
	panels: [
		...common,
		text('cell', 'Cell'),
		text('slot', 'Slot'),
		number('share', 'Share left', 'ratio'),
		number('corners', 'Corners', 'count'),
		number('area', 'Area', 'area', true),
		number('longest_edge', 'Longest edge', 'length'),
		number('shortest_edge', 'Shortest edge', 'length'),
		number('smallest_angle', 'Smallest angle', 'angle'),
		number('warp', 'Warp', 'length'),
		number('glass', 'Glass', 'area', true),
		number('frame', 'Frame', 'length', true),
		number('mass', 'Mass', 'mass', true),
		text('flags', 'Flags')
	],
	bars: [
		...common,
		text('line', 'Line'),
		number('length', 'Length', 'length', true),
		number('fold', 'Fold', 'angle'),
		number('mass', 'Mass', 'mass', true),
		text('flags', 'Flags')
	],
	blades: [
		...common,
		number('blade', 'Blade', 'count'),
		number('length', 'Length', 'length', true),
		number('mass', 'Mass', 'mass', true),
		text('flags', 'Flags')
	],
	structure: [
		...common,
		number('corners', 'Corners', 'count'),
		number('length', 'Length', 'length', true),
		number('mass', 'Mass', 'mass', true),
		text('flags', 'Flags')
	],
	elements: [
		...common,
		number('number', 'Number', 'count'),
		text('element', 'Element'),
		text('category', 'Category'),
		text('material', 'Material'),
		text('stock', 'Stock'),
		number('thickness', 'Thickness', 'length'),
		number('length', 'Length', 'length', true),
		number('area', 'Net area', 'area', true),
		number('volume', 'Volume', 'volume', true),
		number('mass', 'Mass', 'mass', true)
	],
	nodes: [
		text('mark', 'Mark'),
		text('address', 'Address'),
		text('zone', 'Zone'),
		number('course', 'Course line', 'count'),
		number('bay', 'Bay line', 'count'),
		number('x', 'x', 'length'),
		number('y', 'y', 'length'),
		number('z', 'z', 'length'),
		number('normal_x', 'Normal x', 'ratio'),
		number('normal_y', 'Normal y', 'ratio'),
		number('normal_z', 'Normal z', 'ratio')
	]
};

/** Who every piece of a group is; a piece of many elements is asked for it once. */
function identities(zone: ZoneModel, clause: ClauseGroup): (row: number) => Cells {
	const known: Cells[] = [];
	return (row) => (known[row] ??= identity(zone, clause, row));
}

function identity(zone: ZoneModel, clause: ClauseGroup, row: number): Cells {
	const face = zone.faces[clause.face]!;
	const anchor = clause.group.anchors[row]!;
	const at = clause.clause.kind === 'run' ? face.edges : face.cells;
	return {
		mark: pieceMark(zone, clause, row),
		address: pieceAddress(zone, clause, row),
		zone: zone.zone.name,
		course: at.course[anchor]!,
		bay: at.bay[anchor]!,
		part: clause.group.ready.part.label,
		variant: clause.group.ready.variant.name,
		flags: flagTexts(clause.group, row).join('; ')
	};
}

function panelRow(
	zone: ZoneModel,
	clause: ClauseGroup,
	quantities: ReturnType<typeof pieceQuantities>,
	row: number
): Cells {
	const { cells, measures, slots } = zone.faces[clause.face]!;
	const c = clause.group.anchors[row]!;
	return {
		...identity(zone, clause, row),
		cell: kindOf(cells, c),
		slot: slots[cells.polygon[c]!] ?? '',
		share: cells.share[c]!,
		corners: clause.group.corners,
		area: measures.area[c]!,
		longest_edge: measures.longestEdge[c]!,
		shortest_edge: measures.shortestEdge[c]!,
		smallest_angle: measures.smallestAngle[c]!,
		warp: measures.warp[c]!,
		glass: quantities.glassArea[row]!,
		frame: quantities.barLength[row]!,
		mass: quantities.mass[row]!
	};
}

function barRow(
	zone: ZoneModel,
	clause: ClauseGroup,
	quantities: ReturnType<typeof pieceQuantities>,
	row: number
): Cells {
	const face = zone.faces[clause.face]!;
	const e = clause.group.anchors[row]!;
	return {
		...identity(zone, clause, row),
		line: lineKindOf(face.edges, e, face.sharedEdges),
		length: quantities.cutLength[row]!,
		fold: face.folds[e]!,
		mass: quantities.mass[row]!
	};
}

function structureRow(
	zone: ZoneModel,
	clause: ClauseGroup,
	quantities: ReturnType<typeof pieceQuantities>,
	row: number
): Cells {
	return {
		...identity(zone, clause, row),
		corners: clause.group.corners,
		length: quantities.cutLength[row]!,
		mass: quantities.mass[row]!
	};
}

/** Schedules with a row for each piece: whose, and what it says. */
const ofPieces = {
	panels: { has: isPanelGroup, row: panelRow },
	bars: { has: isBarGroup, row: barRow },
	structure: { has: isStructureGroup, row: structureRow }
} as const;

/** What is ordered for the pieces of a group, piece by piece and numbered within each from 1. */
function numbered({ group }: ClauseGroup) {
	const found = group.run.elements.flatMap((table) => Array.from(table.row, (row, k) => ({ table, row, k })));
	found.sort(
		(a, b) => a.row - b.row || a.table.element - b.table.element || a.table.turn[a.k]! - b.table.turn[b.k]!
	);
	let count = 0;
	return found.map((one, n) => ({
		...one,
		count: (count = found[n - 1]?.row === one.row ? count + 1 : 1)
	}));
}

function bladeRows(
	zone: ZoneModel,
	clause: ClauseGroup,
	place: (row: number, turn: number) => Row['order']
): Row[] {
	const { group } = clause;
	const elements = group.ready.elements;
	const who = identities(zone, clause);
	return numbered(clause)
		.filter(({ table }) => elements[table.element]!.category === 'blade')
		.map(({ table, row, k, count }) => {
			const blade = table.turn[k]! + 1;
			const cells = who(row);
			return {
				order: place(row, blade),
				shared: cells,
				cells: {
					mark: `${cells['mark']}-${count}`,
					blade,
					length: table.length[k]!,
					mass: elementMass(group, table, k)
				}
			};
		});
}

/** A size that is nothing is left out. */
const none = (value: number) => (value > 0 ? value : null);

function elementRows(zone: ZoneModel, z: number, clause: ClauseGroup): Row[] {
	const { group } = clause;
	const { cells: faceCells, edges } = zone.faces[clause.face]!;
	const at = isBarGroup(clause) ? edges : faceCells;
	const onLines = Number(isBarGroup(clause));
	const who = identities(zone, clause);
	return numbered(clause).map(({ table, row, k, count }): Row => {
		const { label, category } = group.ready.elements[table.element]!;
		const stock = table.stock && {
			shape: table.stock.shape,
			sizes: table.stock.sizes.map((column) => column[k]!)
		};
		const cells = who(row);
		const anchor = group.anchors[row]!;
		return {
			// Cells and lines of one place stand together, cells first.
			order: [z, clause.face, at.course[anchor]!, at.bay[anchor]!, onLines, anchor, count],
			shared: cells,
			cells: {
				mark: `${cells['mark']}-${count}`,
				number: count,
				element: label,
				category,
				material: group.ready.materials[table.element]!.label,
				stock: stock && stockText(stock),
				thickness: stock?.shape === 'plate' ? none(stock.sizes[0]!) : null,
				length: none(table.length[k]!),
				area: none(table.area[k]!),
				volume: none(table.volume[k]!),
				mass: elementMass(group, table, k)
			}
		};
	});
}

/** What the parts of a schedule's pieces measure, each name and kind once. */
function measureColumns(clauses: readonly ClauseGroup[]): Definition[] {
	const found = new Map<string, Definition>();
	for (const { label, kind } of clauses.flatMap(({ group }) => group.ready.part.measures)) {
		const key = measureKey(label, kind);
		const total = kind === 'area' || kind === 'volume' || kind === 'mass';
		found.set(key, kind === 'switch' ? text(key, label) : number(key, label, kind, total));
	}
	return [...found.values()];
}

/** What stands for a measure of parts: those of one name and kind are one. */
export const measureKey = (label: string, kind: NumberKind) => `measure ${label} ${kind}`;

/** What a piece's own part measures. */
function measured({ group }: ClauseGroup, row: number): Cells {
	return Object.fromEntries(
		group.ready.part.measures.map(({ name, label, kind }) => {
			const value = group.run.results.get(name)![row]!;
			return [measureKey(label, kind), kind === 'switch' ? (value ? 'yes' : 'no') : value];
		})
	);
}

function nodeTable(zone: ZoneModel, z: number): Row[] {
	return zone.faces.flatMap((_, f) =>
		nodeRows(zone, f).map(({ node, point, normal, mark, address, course, bay }): Row => ({
			order: [z, f, node, 0],
			cells: {
				mark,
				address,
				zone: zone.zone.name,
				course,
				bay,
				x: point[0],
				y: point[1],
				z: point[2],
				normal_x: normal[0],
				normal_y: normal[1],
				normal_z: normal[2]
			}
		}))
	);
}

function inOrder({ order: a }: Row, { order: b }: Row): number {
	for (let k = 0; k < a.length; k++) if (a[k] !== b[k]) return a[k]! - b[k]!;
	return 0;
}

/** Schedule the pieces of all zones, or their setting-out points, those that are behind too. */
export function makeSchedule(model: Model, name: ScheduleName): Schedule {
	const rows: Row[] = [];
	const scheduled: ClauseGroup[] = [];
	model.zones.forEach(({ model: zone }, z) => {
		if (!zone) return;
		if (name === 'nodes') for (const row of nodeTable(zone, z)) rows.push(row);
		for (const clause of zone.groups) {
			const place = (row: number, turn: number) => [z, clause.face, clause.group.anchors[row]!, turn];
			if (name === 'blades' || name === 'elements') {
				const more = name === 'blades' ? bladeRows(zone, clause, place) : elementRows(zone, z, clause);
				for (const row of more) rows.push(row);
				continue;
			}
			if (name === 'nodes' || !ofPieces[name].has(clause)) continue;
			const quantities = pieceQuantities(clause.group);
			const make = ofPieces[name].row;
			const failed = new Set(failedRows(clause.group));
			for (let row = 0; row < clause.group.anchors.length; row++)
				rows.push({
					order: place(row, 0),
					cells: {
						...make(zone, clause, quantities, row),
						...(failed.has(row) ? {} : measured(clause, row))
					}
				});
			scheduled.push(clause);
		}
	});
	rows.sort(inOrder);
	return {
		name,
		rows: rows.length,
		columns: [...definitions[name], ...measureColumns(scheduled)].map((definition) => ({
			...definition,
			values: rows.map(({ cells, shared }) => cells[definition.key] ?? shared?.[definition.key] ?? null)
		}))
	};
}
