import { kindOf } from '../cladding/address';
import { lineKindOf } from '../cladding/line-run';
import type { ClauseGroup, Model, ZoneModel } from '../cladding/model';
import { elementsOf } from '../part/compile';
import type { NumberKind } from '../units/dimension';
import {
	elementMass,
	flagTexts,
	isBarGroup,
	isPanelGroup,
	pieceAddress,
	pieceMark,
	pieceQuantities
} from './pieces';

export const scheduleNames = ['panels', 'bars', 'blades'] as const;
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
	const { cells, measures } = zone.faces[clause.face]!;
	const c = clause.group.anchors[row]!;
	return {
		...identity(zone, clause, row),
		cell: kindOf(cells, c),
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
		line: lineKindOf(face.edges, e),
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
	const elements = elementsOf(group.ready.part);
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

/** Schedule the pieces of all zones, those that are behind too. */
export function makeSchedule(model: Model, name: ScheduleName): Schedule {
	const rows: Row[] = [];
	model.zones.forEach(({ model: zone }, z) => {
		if (!zone) return;
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
			if (!(name === 'bars' ? isBarGroup : isPanelGroup)(clause)) continue;
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
