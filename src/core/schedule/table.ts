import type { Model } from '../cladding/model';
import type { GridSite } from '../cladding/sites';
import type { NumberKind } from '../units/dimension';
import {
	elementColumns,
	numberHead,
	pieceColumns,
	textHead,
	type Cell,
	type ColumnHead,
	type ElementRef,
	type PieceColumn
} from './columns';
import { nodeTable } from './nodes';
import { isBarGroup, isConnectorGroup, isPanelGroup, isStructureGroup } from './pieces';
import { groupSource, type GroupSource } from './sources';

export const scheduleNames = [
	'panels',
	'bars',
	'connectors',
	'blades',
	'structure',
	'elements',
	'nodes'
] as const;
export type ScheduleName = (typeof scheduleNames)[number];

/** One column; numbers are in kernel units, null where a row has no such value. */
export interface Column extends ColumnHead {
	readonly values: readonly Cell[];
}

/** A schedule in building order: zone by zone, course by course from the foot, bay by bay. */
export interface Schedule {
	readonly name: ScheduleName;
	readonly rows: number;
	readonly columns: readonly Column[];
}

/** The groups that have a row for each of their pieces in a schedule. */
const ofPieces = {
	panels: isPanelGroup,
	bars: isBarGroup,
	connectors: isConnectorGroup,
	structure: isStructureGroup
} as const;

const siteOrder: Record<GridSite, number> = { cell: 0, line: 1, node: 2 };

/** Rows of several groups, each with what it is read from, put into building order by keys compared one by one. */
class Rows<Ref> {
	private readonly sources: GroupSource[] = [];
	private readonly refs: Ref[] = [];
	private readonly source: number[] = [];
	private readonly keys: number[] = [];

	/** @param each keys of a row */
	constructor(private readonly each: number) {}

	add(
		source: GroupSource,
		refs: readonly Ref[],
		keys: (ref: Ref, push: (key: number) => void) => void
	): void {
		const s = this.sources.push(source) - 1;
		const push = (key: number) => this.keys.push(key);
		for (const ref of refs) {
			this.refs.push(ref);
			this.source.push(s);
			keys(ref, push);
		}
	}

	get count(): number {
		return this.refs.length;
	}

	private ordered(): Uint32Array {
		const { each } = this;
		const keys = Float64Array.from(this.keys);
		const order = Uint32Array.from({ length: this.count }, (_, k) => k);
		return order.sort((a, b) => {
			for (let k = 0; k < each; k++) {
				const less = keys[each * a + k]! - keys[each * b + k]!;
				if (less !== 0) return less;
			}
			return a - b;
		});
	}

	columns(heads: readonly (ColumnHead & { read(source: GroupSource): (ref: Ref) => Cell })[]): Column[] {
		const order = this.ordered();
		return heads.map(({ read, ...head }) => {
			const readers = this.sources.map(read);
			const values = new Array<Cell>(order.length);
			for (let k = 0; k < order.length; k++) {
				const at = order[k]!;
				values[k] = readers[this.source[at]!]!(this.refs[at]!);
			}
			return { ...head, values };
		});
	}
}

/** What is ordered for the pieces of a group, piece by piece and numbered within each from 1. */
function elementsOf({ group }: GroupSource): ElementRef[] {
	const found = group.run.elements.flatMap((table) =>
		Array.from(table.row, (row, at) => ({ table, row, at }))
	);
	found.sort(
		(a, b) => a.row - b.row || a.table.element - b.table.element || a.table.turn[a.at]! - b.table.turn[b.at]!
	);
	let count = 0;
	return found.map(({ table, row, at }, n) => ({
		table,
		at,
		count: (count = found[n - 1]?.row === row ? count + 1 : 1)
	}));
}

/** What stands for a measure of parts: those of one name and kind are one. */
export const measureKey = (label: string, kind: NumberKind) => `measure ${label} ${kind}`;

/** What the parts of a schedule's pieces measure, each name and kind once. */
function measureColumns(sources: readonly GroupSource[]): PieceColumn[] {
	const found = new Map<string, PieceColumn>();
	for (const { label, kind } of sources.flatMap(({ group }) => group.ready.part.measures)) {
		const key = measureKey(label, kind);
		if (found.has(key)) continue;
		const total = kind === 'area' || kind === 'volume' || kind === 'mass';
		const head = kind === 'switch' ? textHead(key, label) : numberHead(key, label, kind, total);
		found.set(key, { ...head, read: (source) => measured(source, label, kind) });
	}
	return [...found.values()];
}

/** What a piece's own part measures; nothing where it could not be made or does not measure that. */
function measured({ group, failed }: GroupSource, label: string, kind: NumberKind): (row: number) => Cell {
	const measure = group.ready.part.measures.find((one) => one.label === label && one.kind === kind);
	if (!measure) return () => null;
	const values = group.run.results.get(measure.name)!;
	return (row) => {
		if (failed().has(row)) return null;
		return kind === 'switch' ? (values[row] ? 'yes' : 'no') : values[row]!;
	};
}

/** Schedule the pieces of all zones, or their setting-out points, those that are behind too. */
export function makeSchedule(model: Model, name: ScheduleName): Schedule {
	const zones = model.zones.map(({ model: zone }) => zone);
	if (name === 'nodes') return { name, ...nodeTable(zones) };
	const sources = zones.flatMap(
		(zone, z) => zone?.groups.map((clause) => groupSource(zone, z, clause)) ?? []
	);
	if (name === 'blades' || name === 'elements') {
		const rows = new Rows<ElementRef>(7);
		for (const source of sources) {
			const { group, sites, clause, z } = source;
			const kind = siteOrder[group.over];
			const elements = elementsOf(source).filter(
				({ table }) => name === 'elements' || group.ready.elements[table.element]!.category === 'blade'
			);
			rows.add(source, elements, ({ table, at, count }, push) => {
				const site = group.sites[table.row[at]!]!;
				push(z);
				push(clause.face);
				// Cells, lines and nodes of one place stand together, in this order.
				push(sites.course(site));
				push(sites.bay(site));
				push(kind);
				push(site);
				push(count);
			});
		}
		return { name, rows: rows.count, columns: rows.columns(elementColumns[name]) };
	}
	const own = sources.filter(({ clause }) => ofPieces[name](clause));
	const rows = new Rows<number>(3);
	for (const source of own) {
		const { group, clause, z } = source;
		rows.add(source, [...group.sites.keys()], (row, push) => {
			push(z);
			push(clause.face);
			push(group.sites[row]!);
		});
	}
	return { name, rows: rows.count, columns: rows.columns([...pieceColumns[name], ...measureColumns(own)]) };
}
