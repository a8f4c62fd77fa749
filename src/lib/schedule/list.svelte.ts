import { cellOf, wordAt, type Column, type ColumnHead } from '$core/schedule/column';
import { BETWEEN_ADDRESSES } from '$core/schedule/listed';
import { rowName } from '$core/schedule/own-columns';
import { queryRows, totalsOf, type Listed } from '$core/schedule/query';
import type { Filter, Layout, ScheduleName } from '$core/project/schedules-schema';
import { isPlan } from '$core/schedule/table';
import { same } from '$core/units/same';
import { binsOf, type Bin } from '$lib/check/measures';
import type { ListedColumns } from '$lib/worker/lists';

/** Numbers that say where a piece is and not what it is. */
const counters = ['course', 'bay', 'blade', 'number', 'corners', 'point'];
const BINS = 12;

/** What is wanted of a list before anything else: what it is, how large, of what, how heavy, and what is wrong with it. */
const needed: Record<ScheduleName, readonly string[]> = {
	panels: [
		'mark',
		'part',
		'variant',
		'long_side',
		'short_side',
		'area',
		'materials',
		'mass',
		'warp',
		'flags'
	],
	bars: ['mark', 'part', 'variant', 'line', 'length', 'start', 'end', 'materials', 'mass', 'fold', 'flags'],
	connectors: ['mark', 'part', 'variant', 'corners', 'materials', 'mass', 'flags'],
	louvers: ['mark', 'part', 'variant', 'area', 'materials', 'mass', 'flags'],
	blades: ['mark', 'part', 'length', 'mass', 'flags'],
	structure: ['mark', 'part', 'variant', 'length', 'materials', 'mass', 'flags'],
	elements: ['mark', 'part', 'element', 'material', 'stock', 'thickness', 'length', 'area', 'mass'],
	kinds: [
		'kind',
		'sites',
		'picture',
		'variant',
		'pieces',
		'long_side',
		'short_side',
		'edges',
		'each_mass',
		'flagged'
	],
	materials: ['material', 'elements', 'pieces', 'area', 'length', 'blades', 'volume', 'mass'],
	rules: ['named', 'part', 'variant', 'sites', 'pieces', 'area', 'length', 'mass', 'flagged'],
	lengths: ['stock', 'material', 'number', 'pieces', 'cut', 'marks', 'left', 'flags'],
	sheets: ['stock', 'material', 'number', 'pieces', 'marks', 'area', 'waste', 'flags'],
	anchors: ['mark', 'part', 'point', 'node', 'x', 'y', 'z'],
	nodes: ['mark', 'x', 'y', 'z']
};

/** A column that says the same of every row, or nothing of any. */
function isConstant(column: Column): boolean {
	const values = column.kind === 'text' ? column.of : column.numbers;
	const [first] = values;
	return values.length > 1 && values.every((one) => Object.is(one, first));
}

/** What most of the pieces are set to, by a driver or by hand. */
const isOfMost = (column: Column): boolean => {
	if (!column.key.startsWith('set ')) return false;
	const none =
		column.kind === 'text'
			? column.of.filter((word) => wordAt(column, word) === '').length
			: column.numbers.filter(Number.isNaN).length;
	return 2 * none <= (column.kind === 'text' ? column.of : column.numbers).length;
};

/** One of so many rows has what is of many. */
const MANY = 4;
const isOfMany = (column: Column, rows: Uint32Array): boolean =>
	column.kind !== 'text' &&
	MANY * rows.filter((row) => !Number.isNaN(column.numbers[row])).length >= rows.length;

/** How a list is read, as it is kept. */
export type Reading = Pick<Layout, 'columns' | 'totals' | 'groupBy' | 'sort' | 'filters'>;
/** How a list opens. */
const AS_IT_OPENS: Reading = { columns: null, totals: null, groupBy: null, sort: null, filters: [] };

/** The schedule that is looked at: which one, what of it is listed, in which order, under which heads. */
export class ScheduleList {
	name = $state<ScheduleName>('panels');
	/** The figure of the chosen piece whose reckoning is asked for. */
	asked = $state<string | null>(null);
	counts = $state.raw<Partial<Record<ScheduleName, number>>>({});
	/** What came of it last: which columns there are, and those that were asked for; null until the model has been computed. */
	private came = $state.raw<{
		readonly of: number;
		readonly rows: number;
		readonly heads: readonly ColumnHead[];
		readonly problems: ListedColumns['problems'];
		readonly columns: ReadonlyMap<string, Column>;
	} | null>(null);
	private readings = $state.raw<Partial<Record<ScheduleName, Reading>>>({});
	private charted = $state('area');
	/** The layout that was chosen last, by list. */
	private layouts = $state.raw<Partial<Record<ScheduleName, string | null>>>({});

	readonly reading = $derived(this.readings[this.name] ?? AS_IT_OPENS);
	readonly heads = $derived(this.came?.heads ?? []);
	/** Rows in all; null until they are there. */
	readonly count = $derived(this.came?.rows ?? null);
	/** Why columns of the project's own are empty, by their keys. */
	readonly problems = $derived(this.came?.problems ?? []);
	/** Columns that are there. */
	private readonly all = $derived(this.heads.flatMap(({ key }) => this.column(key) ?? []));
	private readonly opensOn = $derived(needed[this.name]);
	/** Columns that say the same of every row, of those that it opens on. */
	private readonly constants = $derived(
		this.all.filter((column) => this.opensOn.includes(column.key) && isConstant(column))
	);
	/** The column that its rows are called by. */
	readonly names = $derived(isPlan(this.name) ? 'marks' : (this.heads[0]?.key ?? 'mark'));
	readonly columns = $derived.by(() => {
		const { columns } = this.reading;
		const shown = columns
			? this.all.filter(({ key }) => columns.includes(key))
			: // What all rows have alike is said once, before them.
				this.all.filter(
					(column) =>
						(this.opensOn.includes(column.key) || isOfMost(column) || column.key.startsWith('own ')) &&
						(column.key === this.names || !this.constants.includes(column))
				);
		// Sentences are as long as there is room.
		const isLast = ({ key }: Column) => Number(key === 'flags');
		return shown.sort((a, b) => isLast(a) - isLast(b));
	});
	/** What is needed and the same for all: said in a line. */
	readonly alike = $derived(
		this.reading.columns
			? []
			: this.constants.filter((column) => column.key !== this.names && cellOf(column, 0) !== null)
	);
	private readonly listed = $derived<Listed>({
		rows: this.came?.rows ?? 0,
		heads: this.heads,
		column: (key) => this.column(key)
	});
	readonly groupBy = $derived(this.reading.groupBy);
	readonly sort = $derived(this.reading.sort);
	readonly filters = $derived(this.reading.filters);
	readonly groups = $derived(
		this.came ? queryRows(this.listed, { filters: this.filters, sort: this.sort, groupBy: this.groupBy }) : []
	);
	/** All rows that are listed, in their order. */
	readonly rows = $derived.by(() => {
		const rows = new Uint32Array(this.groups.reduce((sum, group) => sum + group.rows.length, 0));
		let at = 0;
		for (const group of this.groups) {
			rows.set(group.rows, at);
			at += group.rows.length;
		}
		return rows;
	});
	/** What stands on each line of the page: a row, or the head of group `-1 − g`. */
	readonly lines = $derived.by(() => {
		const heads = this.groupBy === null ? 0 : 1;
		const lines = new Int32Array(this.rows.length + heads * this.groups.length);
		let at = 0;
		this.groups.forEach((group, g) => {
			if (heads) lines[at++] = -1 - g;
			lines.set(group.rows, at);
			at += group.rows.length;
		});
		return lines;
	});
	/** Columns whose sums are told: as long as nobody says which, those that many of the listed rows have. */
	readonly summed = $derived(
		this.heads.filter(({ total, key }) => {
			if (!total) return false;
			const column = this.column(key);
			return (
				this.reading.totals?.includes(key) ??
				(this.opensOn.includes(key) || key.startsWith('own ') || (column && isOfMany(column, this.rows)))
			);
		})
	);
	readonly totals = $derived(totalsOf(this.listed, this.rows));
	private readonly addresses = $derived(this.column('address'));

	/** Columns of numbers that can be charted, and the one that is. */
	readonly numbers = $derived(
		this.heads.filter(({ kind, key }) => kind !== 'text' && !counters.includes(key))
	);
	readonly chart = $derived(this.numbers.find(({ key }) => key === this.charted) ?? this.numbers[0]);
	private readonly chartValues = $derived.by(() => {
		const column = this.chart && this.column(this.chart.key);
		return column && column.kind !== 'text' ? column.numbers : null;
	});
	readonly bins = $derived.by((): Bin[] => {
		const values = this.chartValues;
		if (!values) return [];
		// A row without the value, as a bar has no area, is not a row of nought.
		const found = Float64Array.from(this.rows, (row) => values[row]!).filter((value) => !Number.isNaN(value));
		if (!found.length) return [];
		const low = found.reduce((a, b) => Math.min(a, b));
		const high = found.reduce((a, b) => Math.max(a, b));
		return binsOf([found], { low, high }, BINS);
	});

	/** What it is read by, before its heads are known. */
	readonly first = $derived([
		...new Set([
			'address',
			// Rows of elements are known by them.
			'number',
			'blade',
			'point',
			...needed[this.name],
			...(this.reading.columns ?? []),
			...this.filters.map(({ key }) => key),
			...(this.sort ? [this.sort.key] : []),
			...(this.groupBy ? [this.groupBy] : [])
		])
	]);
	/** Columns that are wanted beside the first ones: sums, the chart, what is set piece by piece, what is the project's own. */
	readonly missing = $derived.by(() => {
		const { came } = this;
		if (!came) return null;
		const wanted = new Set([...this.first, ...(this.chart ? [this.chart.key] : [])]);
		const keys = came.heads
			.filter(
				({ key, total }) => wanted.has(key) || total || key.startsWith('set ') || key.startsWith('own ')
			)
			.map(({ key }) => key)
			.filter((key) => !came.columns.has(key));
		return keys.length ? { of: came.of, keys } : null;
	});

	/** Whether columns that it opens on are still to come, which may stand between those that are there. */
	readonly isComing = $derived(!this.came || this.missing !== null);

	column(key: string): Column | undefined {
		return this.came?.columns.get(key);
	}

	/** Look at another one. */
	show(name: ScheduleName): void {
		if (name !== this.name) this.came = null;
		this.name = name;
	}

	/** What has been made of the one that is looked at: anew, or more columns of what came before. */
	arrived({ of, rows, heads, columns, problems, name }: ListedColumns): void {
		if (name !== this.name) return;
		const before = this.came?.of === of ? this.came.columns : [];
		this.came = {
			of,
			rows,
			heads,
			problems,
			columns: new Map([...before, ...columns.map((one) => [one.key, one] as const)])
		};
		this.counts = { ...this.counts, [name]: rows };
	}

	/** The same as long as the rows are. */
	get stamp(): number | null {
		return this.came?.of ?? null;
	}

	/** What a row is known by where values are written by hand. */
	nameOf = (row: number): string => rowName(this.listed, row);

	/** Read it another way. */
	read(change: Partial<Reading>): void {
		this.readings = { ...this.readings, [this.name]: { ...this.reading, ...change } };
	}

	/** The layout that was chosen, by its id; null for none. */
	get layout(): string | null {
		return this.layouts[this.name] ?? null;
	}
	set layout(id: string | null) {
		this.layouts = { ...this.layouts, [this.name]: id };
	}

	/** As a layout has it, or as it opens. */
	layOut(layout: Layout | null): void {
		this.layout = layout?.id ?? null;
		const { columns, totals, groupBy, sort, filters } = layout ?? AS_IT_OPENS;
		this.readings = { ...this.readings, [this.name]: { columns, totals, groupBy, sort, filters } };
	}

	/** Whether it is read as it opens, or as a layout has it. */
	isAs = (layout: Reading | null): boolean => {
		const { columns, totals, groupBy, sort, filters } = layout ?? AS_IT_OPENS;
		return same(this.reading, { columns, totals, groupBy, sort, filters });
	};

	setFilter(place: number, filter: Filter | null): void {
		const filters = [...this.filters];
		filters.splice(place, 1, ...(filter ? [filter] : []));
		this.read({ filters });
	}

	chartOf(key: string): void {
		this.charted = key;
	}

	/** Once by the column, then the other way round, then in building order again. */
	sortBy({ key, kind }: ColumnHead): void {
		const first = kind !== 'text';
		if (this.sort?.key !== key) this.read({ sort: { key, descending: first } });
		else this.read({ sort: this.sort.descending === first ? { key, descending: !first } : null });
	}

	/** Of the pieces that a row stands for. */
	addressesOf(row: number): string[] {
		const { addresses } = this;
		return addresses ? String(cellOf(addresses, row)).split(BETWEEN_ADDRESSES) : [];
	}

	/** The line on which an address stands, or -1. */
	lineOf(address: string): number {
		const { addresses } = this;
		if (!addresses) return -1;
		return this.lines.findIndex((row) => row >= 0 && cellOf(addresses, row) === address);
	}

	/** Addresses of the rows whose charted value lies in a bin. */
	within(bin: Bin): string[] {
		const values = this.chartValues;
		const last = bin === this.bins.at(-1);
		if (!values) return [];
		return Array.from(this.rows)
			.filter((row) => values[row]! >= bin.from && (values[row]! < bin.to || last))
			.flatMap((row) => this.addressesOf(row));
	}
}
