import { kindsOf } from '../like/kinds';
import { once } from '../units/once';
import { atOnce } from '../units/steps';
import { lieText } from '../cladding/lie';
import type { Model } from '../cladding/model';
import type { GridSite } from '../cladding/sites';
import type { NumberKind } from '../units/dimension';
import { anchorColumns } from './anchors';
import {
	elementColumns,
	numberHead,
	ofPiece,
	pieceColumns,
	pointIdentity,
	textHead,
	type Cell,
	type ColumnHead,
	type ElementColumn,
	type ElementRef,
	type PieceColumn
} from './columns';
import { inputColumns } from './inputs';
import { nodeTable } from './nodes';
import { inOrder } from './order';
import { isBarGroup, isConnectorGroup, isLouverGroup, isPanelGroup, isStructureGroup } from './pieces';
import { elementsOf, piecesOf, pointsOf, type Refs } from './refs';
import { groupSource, type GroupSource } from './sources';
import { sheetPlan, lengthPlan } from './cutting';

export const scheduleNames = [
	'panels',
	'bars',
	'connectors',
	'louvers',
	'blades',
	'structure',
	'elements',
	'lengths',
	'sheets',
	'anchors',
	'nodes'
] as const;
export type ScheduleName = (typeof scheduleNames)[number];

/** Lists of what is cut from one stock: their rows are no pieces. */
export const isPlan = (name: ScheduleName): boolean => name === 'lengths' || name === 'sheets';

export const scheduleTitles: Record<ScheduleName, string> = {
	panels: 'Panels',
	bars: 'Bars',
	connectors: 'Connectors',
	louvers: 'Louvers',
	blades: 'Blades',
	structure: 'Structure',
	elements: 'Elements',
	lengths: 'Lengths',
	sheets: 'Sheets',
	anchors: 'Anchors',
	nodes: 'Nodes'
};

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

/**
 * The groups that have a row for each of their pieces in a schedule.
 *
 * ```ts
 * const panels = zoneModel.groups.filter(ofPieces.panels);
 * ```
 */
export const ofPieces = {
	panels: isPanelGroup,
	bars: isBarGroup,
	connectors: isConnectorGroup,
	louvers: isLouverGroup,
	structure: isStructureGroup
} as const;

const siteOrder: Record<GridSite, number> = { cell: 0, line: 1, node: 2, chain: 3 };

/**
 * Rows of several groups in building order. Where each comes from is kept in columns, and one object is filled for
 * every row that is read: a schedule has more rows than there should be objects.
 */
class Rows {
	private readonly sources: GroupSource[] = [];
	private readonly refs: Refs[] = [];
	private readonly keys: (readonly Uint32Array[])[] = [];
	count = 0;

	/** @param keys columns that put the rows in order, the first counting most */
	add(source: GroupSource, refs: Refs, keys: readonly Uint32Array[]): void {
		this.sources.push(source);
		this.refs.push(refs);
		this.keys.push(keys);
		this.count += refs.row.length;
	}

	/** Where each row of each group comes to stand: group after group. */
	private places(): Uint32Array {
		const { count } = this;
		const keys = (this.keys[0] ?? []).map(() => new Uint32Array(count));
		let from = 0;
		this.refs.forEach(({ row }, g) => {
			for (const [k, key] of keys.entries()) key.set(this.keys[g]![k]!, from);
			from += row.length;
		});
		const order = inOrder(keys, count);
		const places = new Uint32Array(count);
		for (let k = 0; k < count; k++) places[order[k]!] = k;
		return places;
	}

	/** Column by column, and in each group by group: what a group's rows are read from is looked up once. */
	columns(heads: readonly ElementColumn[]): Column[] {
		const places = this.places();
		const at: { -readonly [K in keyof ElementRef]: ElementRef[K] } = { table: null, at: 0, row: 0, count: 0 };
		return heads.map(({ read, ...head }) => {
			const values = new Array<Cell>(this.count);
			let from = 0;
			this.sources.forEach((source, g) => {
				const value = read(source);
				const { tables, table, at: ats, row, count } = this.refs[g]!;
				for (let r = 0; r < row.length; r++) {
					at.table = tables[table[r]!] ?? null;
					at.at = ats[r]!;
					at.row = row[r]!;
					at.count = count[r]!;
					values[places[from + r]!] = value(at);
				}
				from += row.length;
			});
			return { ...head, values };
		});
	}
}

/**
 * What stands for a measure of parts: those of one name and kind are one.
 *
 * ```ts
 * measureKey('Net area', 'area'); // measure Net area area
 * ```
 */
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

/**
 * Schedule the pieces of all zones, or their setting-out points, those that are behind too.
 *
 * ```ts
 * const { columns, rows } = makeSchedule(model, 'panels');
 * ```
 */
export function makeSchedule(model: Model, name: ScheduleName): Schedule {
	const zones = model.zones.map(({ model: zone }) => zone);
	if (name === 'nodes') return { name, ...nodeTable(zones) };
	const kinds = once(() => atOnce(kindsOf(model, model.project.like)));
	const sources = zones.flatMap(
		(zone, z) => zone?.groups.map((clause) => groupSource(zone, z, clause, kinds)) ?? []
	);
	if (name === 'lengths') return { name, ...lengthPlan(sources, model.project.stock) };
	if (name === 'sheets') return { name, ...sheetPlan(sources, model.project.stock) };
	if (name === 'blades' || name === 'elements' || name === 'anchors') {
		const rows = new Rows();
		for (const source of sources) {
			const { group, sites, clause, z } = source;
			const refs =
				name === 'anchors' ? pointsOf(source) : elementsOf(source, name === 'blades' ? 'blade' : null);
			const site = refs.row.map((row) => group.sites[row]!);
			const all = (value: number) => new Uint32Array(site.length).fill(value);
			rows.add(source, refs, [
				all(z),
				all(clause.face),
				// Cells, lines and nodes of one place stand together, in this order.
				site.map(sites.course),
				site.map(sites.bay),
				all(siteOrder[group.over]),
				site,
				refs.count
			]);
		}
		return {
			name,
			rows: rows.count,
			columns: rows.columns(name === 'anchors' ? [...pointIdentity, ...anchorColumns] : elementColumns[name])
		};
	}
	const own = sources.filter(({ clause }) => ofPieces[name](clause));
	const rows = new Rows();
	for (const source of own) {
		const { sites } = source.group;
		const all = (value: number) => new Uint32Array(sites.length).fill(value);
		rows.add(source, piecesOf(source), [all(source.z), all(source.clause.face), sites]);
	}
	// How pieces lie is told where any lies otherwise than as it was drawn.
	const isDrawn = own.every(({ group }) => lieText(group.lie) === '');
	const said = pieceColumns[name].filter(({ key }) => !isDrawn || key !== 'lies');
	const heads = [...said, ...inputColumns(own), ...measureColumns(own)].map(ofPiece);
	return { name, rows: rows.count, columns: rows.columns(heads) };
}
