import { once } from '../units/once';
import { lieText } from '../cladding/lie';
import type { Model } from '../cladding/model';
import type { GridSite } from '../cladding/sites';
import type { NumberKind } from '../units/dimension';
import { anchorColumns } from './anchors';
import { numberHead, TextFiller, textHead, type Cell, type Column, type ColumnHead } from './column';
import {
	elementColumns,
	ofPiece,
	pieceColumns,
	pointIdentity,
	type ElementColumn,
	type PieceColumn
} from './columns';
import { inputColumns } from './inputs';
import { nodeTable } from './nodes';
import { inOrder } from '../units/in-order';
import { isBarGroup, isConnectorGroup, isLouverGroup, isPanelGroup, isStructureGroup } from './pieces';
import { elementsOf, piecesOf, pointsOf } from './refs';
import { sourcesOf, type GroupSource, type Refs } from './sources';
import { sheetPlan, lengthPlan } from './cutting';
import { namedOrNone } from '../named/named-values';
import type { Table } from '../project/brought-schema';
import { ownColumns } from './own-columns';
import { kindRows, materialRows, ruleRows } from './gathered';
import type { ScheduleName } from '../project/schedules-schema';

/** Lists of what is cut from one stock. */
export const isPlan = (name: ScheduleName): boolean => name === 'lengths' || name === 'sheets';
/** Lists whose rows stand for several pieces each. */
export const isGathered = (name: ScheduleName): boolean =>
	isPlan(name) || name === 'kinds' || name === 'materials' || name === 'rules';

export const scheduleTitles: Record<ScheduleName, string> = {
	panels: 'Panels',
	bars: 'Bars',
	connectors: 'Connectors',
	louvers: 'Louvers',
	blades: 'Blades',
	structure: 'Structure',
	elements: 'Elements',
	kinds: 'Kinds',
	materials: 'Materials',
	rules: 'Rules',
	lengths: 'Lengths',
	sheets: 'Sheets',
	anchors: 'Anchors',
	nodes: 'Nodes'
};

/** Why a column of the project's own is empty. */
export interface ColumnProblem {
	readonly key: string;
	readonly problem: string;
}

/**
 * A schedule in building order: zone by zone, course by course from the foot, bay by bay. A column is made when it is
 * asked for, and kept.
 */
export class Schedule {
	private readonly made = new Map<number, Column>();

	constructor(
		readonly name: ScheduleName,
		readonly rows: number,
		readonly heads: readonly ColumnHead[],
		private readonly make: (place: number) => Column,
		/** Of columns of the project's own: why they are empty. */
		readonly problems: readonly ColumnProblem[] = []
	) {}

	private at(place: number): Column {
		const known = this.made.get(place);
		if (known) return known;
		const column = this.make(place);
		this.made.set(place, column);
		return column;
	}

	column(key: string): Column | undefined {
		const place = this.heads.findIndex((head) => head.key === key);
		return place < 0 ? undefined : this.at(place);
	}

	/** All of them. */
	get columns(): Column[] {
		return this.heads.map((_, place) => this.at(place));
	}
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
	private readonly places = once((): Uint32Array => {
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
	});

	/** Group by group: what a group's rows are read from is looked up once. */
	private column(column: ElementColumn): Column {
		const { key, title, kind, total } = column;
		const places = this.places();
		const filler = kind === 'text' ? new TextFiller(this.count) : null;
		const numbers = new Float64Array(filler ? 0 : this.count);
		let from = 0;
		for (const [g, source] of this.sources.entries()) {
			const refs = this.refs[g]!;
			const { length } = refs.row;
			const value = column.read(source, refs);
			if (filler) for (let r = 0; r < length; r++) filler.set(places[from + r]!, value(r) as string | null);
			else
				for (let r = 0; r < length; r++) {
					const cell = value(r);
					numbers[places[from + r]!] = cell === null ? NaN : (cell as number);
				}
			from += length;
		}
		return filler && kind === 'text'
			? filler.column({ key, title, kind, total })
			: { key, title, kind: kind as NumberKind, total, numbers };
	}

	schedule(name: ScheduleName, columns: readonly ElementColumn[]): Schedule {
		const heads = columns.map(({ key, title, kind, total }) => ({ key, title, kind, total }));
		return new Schedule(name, this.count, heads, (place) => this.column(columns[place]!));
	}
}

/** One whose columns are there already. */
const ready = (
	name: ScheduleName,
	{ rows, columns }: { rows: number; columns: readonly Column[] }
): Schedule => new Schedule(name, rows, columns, (place) => columns[place]!);

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

/** A list with what a project has of its own in it. */
function withOwn(list: Schedule, { project }: Model, tables: readonly Table[]): Schedule {
	const columns = project.schedules.columns.filter((one) => one.list === list.name);
	if (!columns.length) return list;
	const own = ownColumns(list, columns, tables, namedOrNone(project));
	const heads = [...list.heads, ...own.map(({ head }) => head)];
	const wrong = own.flatMap(({ head, problem }) => (problem === null ? [] : [{ key: head.key, problem }]));
	const at = (place: number) => list.heads[place] && list.column(list.heads[place].key);
	return new Schedule(
		list.name,
		list.rows,
		heads,
		(place) => at(place) ?? own[place - list.heads.length]!.make(),
		wrong
	);
}

/**
 * Schedule the pieces of all zones, or their setting-out points, those that are behind too.
 *
 * ```ts
 * const areas = makeSchedule(model, 'panels').column('area');
 * ```
 * @param tables with their rows, where those of the project may be in files
 */
export const makeSchedule = (
	model: Model,
	name: ScheduleName,
	tables: readonly Table[] = model.project.tables
): Schedule => withOwn(listOf(model, name), model, tables);

/** With the columns that it has by itself. */
function listOf(model: Model, name: ScheduleName): Schedule {
	if (name === 'nodes') return ready(name, nodeTable(model.zones.map(({ model: zone }) => zone)));
	const sources = sourcesOf(model);
	if (name === 'kinds') return ready(name, kindRows(sources));
	if (name === 'materials') return ready(name, materialRows(sources));
	if (name === 'rules') return ready(name, ruleRows(sources));
	if (name === 'lengths') return ready(name, lengthPlan(sources, model.project.stock));
	if (name === 'sheets') return ready(name, sheetPlan(sources, model.project.stock));
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
		return rows.schedule(
			name,
			name === 'anchors' ? [...pointIdentity, ...anchorColumns] : elementColumns[name]
		);
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
	return rows.schedule(name, [...said, ...inputColumns(own), ...measureColumns(own)].map(ofPiece));
}
