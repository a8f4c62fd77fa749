import { queryRows, totalsOf, type Filter } from '$core/schedule/query';
import type { Column, Schedule, ScheduleName } from '$core/schedule/table';
import { BETWEEN_ADDRESSES } from '$core/schedule/listed';
import { scales } from '$core/units/scale';
import { binsOf, type Bin } from '$lib/check/measures';

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
	bars: ['mark', 'part', 'variant', 'line', 'length', 'materials', 'mass', 'fold', 'flags'],
	connectors: ['mark', 'part', 'variant', 'corners', 'materials', 'mass', 'flags'],
	louvers: ['mark', 'part', 'variant', 'area', 'materials', 'mass', 'flags'],
	blades: ['mark', 'part', 'length', 'mass', 'flags'],
	structure: ['mark', 'part', 'variant', 'length', 'materials', 'mass', 'flags'],
	elements: ['mark', 'part', 'element', 'material', 'stock', 'thickness', 'length', 'area', 'mass'],
	lengths: ['stock', 'material', 'number', 'pieces', 'cut', 'marks', 'left', 'flags'],
	sheets: ['stock', 'material', 'number', 'pieces', 'marks', 'area', 'waste', 'flags'],
	anchors: ['mark', 'part', 'point', 'node', 'x', 'y', 'z'],
	nodes: ['mark', 'x', 'y', 'z']
};

/** A column that says the same of every row, or nothing of any. */
const isConstant = ({ values }: Column) => values.length > 1 && values.every((one) => one === values[0]);

/** What most of the pieces are set to, by a driver or by hand. */
const isOfMost = ({ key, values }: Column) =>
	key.startsWith('set ') && 2 * values.filter((one) => one !== null).length >= values.length;

/** The schedule that is looked at: which one, what of it is listed, in which order, under which heads. */
export class ScheduleList {
	name = $state<ScheduleName>('panels');
	/** As it was made last; null until the model has been computed. */
	schedule = $state.raw<Schedule | null>(null);
	counts = $state.raw<Partial<Record<ScheduleName, number>>>({});
	sort = $state.raw<{ key: string; descending: boolean } | null>(null);
	groupBy = $state<string | null>(null);
	filterKey = $state<string | null>(null);
	filterIs = $state<Filter['is']>('contains');
	filterValue = $state('');
	private charted = $state('area');
	/** Columns that were chosen by hand. */
	private chosenOf = $state.raw<Partial<Record<ScheduleName, readonly string[]>>>({});

	readonly all = $derived(this.schedule?.columns ?? []);
	/** Columns that say the same of every row, and what it is. */
	readonly constants = $derived(this.all.filter(isConstant));
	readonly columns = $derived.by(() => {
		const chosen = this.chosenOf[this.name];
		if (chosen) return this.all.filter(({ key }) => chosen.includes(key));
		// What all rows have alike is said once, before them.
		return this.all.filter(
			(column) =>
				(needed[this.name].includes(column.key) || isOfMost(column)) &&
				(column.key === 'mark' || !this.constants.includes(column))
		);
	});
	/** What is needed and the same for all: said in a line. */
	readonly alike = $derived(
		this.chosenOf[this.name]
			? []
			: this.constants.filter(({ key, values }) => needed[this.name].includes(key) && values[0] !== null)
	);
	readonly filterColumn = $derived(this.column(this.filterKey));
	private readonly filters = $derived.by((): Filter[] => {
		const { filterColumn: column, filterIs: is, filterValue: text } = this;
		if (!column || !text.trim()) return [];
		if (column.kind === 'text' || is === 'contains')
			return [{ key: column.key, is: 'contains', value: text }];
		const value = Number(text.replace(',', '.'));
		return Number.isFinite(value) ? [{ key: column.key, is, value: value * scales[column.kind].size }] : [];
	});
	readonly groups = $derived(
		this.schedule
			? queryRows(this.schedule, { filters: this.filters, sort: this.sort, groupBy: this.groupBy })
			: []
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
	readonly totals = $derived(this.schedule ? totalsOf(this.schedule, this.rows) : {});
	private readonly addresses = $derived(this.column('address')?.values ?? []);

	/** Columns of numbers that can be charted, and the one that is. */
	readonly numbers = $derived(this.all.filter(({ kind, key }) => kind !== 'text' && !counters.includes(key)));
	readonly chart = $derived(this.numbers.find(({ key }) => key === this.charted) ?? this.numbers[0]);
	readonly bins = $derived.by((): Bin[] => {
		const values = this.chart?.values;
		if (!values) return [];
		// A row without the value, as a bar has no area, is not a row of nought.
		const found = Float64Array.from(this.rows, (row) => {
			const value = values[row];
			return typeof value === 'number' ? value : NaN;
		}).filter((value) => !Number.isNaN(value));
		if (!found.length) return [];
		const low = found.reduce((a, b) => Math.min(a, b));
		const high = found.reduce((a, b) => Math.max(a, b));
		return binsOf([found], { low, high }, BINS);
	});

	column(key: string | null): Column | undefined {
		return this.all.find((one) => one.key === key);
	}

	/** Look at another one. */
	show(name: ScheduleName): void {
		this.name = name;
		this.sort = null;
	}

	/** What has been made of the one that is looked at. */
	arrived(schedule: Schedule): void {
		this.schedule = schedule;
		this.counts = { ...this.counts, [this.name]: schedule.rows };
	}

	showColumns(keys: readonly string[]): void {
		this.chosenOf = { ...this.chosenOf, [this.name]: keys };
	}

	filterBy(key: string | null): void {
		this.filterKey = key;
		this.filterIs = this.filterColumn?.kind === 'text' ? 'contains' : 'at least';
	}

	chartOf(key: string): void {
		this.charted = key;
	}

	/** Once by the column, then the other way round, then in building order again. */
	sortBy({ key, kind }: Column): void {
		const first = kind !== 'text';
		if (this.sort?.key !== key) this.sort = { key, descending: first };
		else this.sort = this.sort.descending === first ? { key, descending: !first } : null;
	}

	/** Of the pieces that a row stands for. */
	addressesOf(row: number): string[] {
		return String(this.addresses[row]).split(BETWEEN_ADDRESSES);
	}

	/** The line on which an address stands, or -1. */
	lineOf(address: string): number {
		return this.lines.findIndex((row) => row >= 0 && this.addresses[row] === address);
	}

	/** Addresses of the rows whose charted value lies in a bin. */
	within(bin: Bin): string[] {
		const values = this.chart?.values ?? [];
		const last = bin === this.bins.at(-1);
		return Array.from(this.rows)
			.filter((row) => {
				const value = values[row];
				return typeof value === 'number' && value >= bin.from && (value < bin.to || last);
			})
			.flatMap((row) => this.addressesOf(row));
	}
}
