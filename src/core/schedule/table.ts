import { kindOf } from '../cladding/address';
import { lineKindOf } from '../cladding/line-run';
import type { ClauseGroup, Model, ZoneModel } from '../cladding/model';
import type { NumberKind } from '../units/dimension';
import { nodeRows } from './nodes';
import {
	elementMass,
	flagTexts,
	isBarGroup,
	isPanelGroup,
	pieceAddress,
	pieceMark,
	pieceQuantities
} from './pieces';

export const scheduleNames = ['panels', 'bars', 'blades', 'nodes'] as const;
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
	readonly order: readonly [zone: number, face: number, anchor: number, turn: number];
	readonly cells: Cells;
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
		length: quantities.barLength[row]!,
		fold: face.folds[e]!,
		mass: quantities.mass[row]!
	};
}

function bladeRows(
	zone: ZoneModel,
	clause: ClauseGroup,
	place: (row: number, turn: number) => Row['order']
): Row[] {
	const { group } = clause;
	const elements = group.ready.elements;
	return group.run.elements
		.filter((table) => elements[table.element]!.category === 'blade')
		.flatMap((table) =>
			Array.from(table.row, (row, k) => {
				const blade = table.turn[k]! + 1;
				const cells = identity(zone, clause, row);
				return {
					order: place(row, blade),
					cells: {
						...cells,
						mark: `${cells['mark']}-${blade}`,
						blade,
						length: table.length[k]!,
						mass: elementMass(group, table, k)
					}
				};
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

/** Schedule the pieces of all zones, or their setting-out points, those that are behind too. */
export function makeSchedule(model: Model, name: ScheduleName): Schedule {
	const rows: Row[] = [];
	model.zones.forEach(({ model: zone }, z) => {
		if (!zone) return;
		if (name === 'nodes') rows.push(...nodeTable(zone, z));
		for (const clause of zone.groups) {
			const place = (row: number, turn: number): Row['order'] => [
				z,
				clause.face,
				clause.group.anchors[row]!,
				turn
			];
			if (name === 'blades') {
				rows.push(...bladeRows(zone, clause, place));
				continue;
			}
			if (name === 'nodes' || !(name === 'bars' ? isBarGroup : isPanelGroup)(clause)) continue;
			const quantities = pieceQuantities(clause.group);
			const make = name === 'bars' ? barRow : panelRow;
			for (let row = 0; row < clause.group.anchors.length; row++)
				rows.push({ order: place(row, 0), cells: make(zone, clause, quantities, row) });
		}
	});
	rows.sort(
		(a, b) =>
			a.order[0] - b.order[0] || a.order[1] - b.order[1] || a.order[2] - b.order[2] || a.order[3] - b.order[3]
	);
	return {
		name,
		rows: rows.length,
		columns: definitions[name].map((definition) => ({
			...definition,
			values: rows.map((row) => row.cells[definition.key] ?? null)
		}))
	};
}
