import type { Column, Schedule } from './table';

/** What a person wants to see of a schedule. Filters all have to hold. */
export interface Query {
	readonly filters: readonly Filter[];
	readonly sort: { readonly key: string; readonly descending: boolean } | null;
	readonly groupBy: string | null;
}
export interface Filter {
	readonly key: string;
	readonly is: 'equal' | 'contains' | 'at least' | 'at most';
	/** In kernel units for numbers. */
	readonly value: string | number;
}

/** One run of rows under a heading; without grouping there is one group with no label. */
export interface RowGroup {
	readonly label: string | null;
	readonly rows: Uint32Array;
	/** Sums of the columns that can be summed, by key. */
	readonly totals: Readonly<Record<string, number>>;
}

function column(schedule: Schedule, key: string): Column | undefined {
	return schedule.columns.find((one) => one.key === key);
}

function holds(value: string | number | null, filter: Filter): boolean {
	if (value === null) return false;
	switch (filter.is) {
		case 'equal':
			return value === filter.value;
		case 'contains':
			return String(value).toLowerCase().includes(String(filter.value).toLowerCase());
		case 'at least':
			return typeof value === 'number' && value >= Number(filter.value);
		case 'at most':
			return typeof value === 'number' && value <= Number(filter.value);
	}
}

function compare(a: string | number | null, b: string | number | null): number {
	if (a === null || b === null) return (a === null ? 1 : 0) - (b === null ? 1 : 0);
	if (typeof a === 'number' && typeof b === 'number') return a - b;
	return String(a).localeCompare(String(b), 'en', { numeric: true });
}

/**
 * Sums of the summable columns over some rows.
 *
 * ```ts
 * const { area } = totalsOf(schedule, Uint32Array.of(0, 1, 2));
 * ```
 */
export function totalsOf(schedule: Schedule, rows: Uint32Array): Record<string, number> {
	return Object.fromEntries(
		schedule.columns
			.filter((one) => one.total)
			.map((one) => [one.key, rows.reduce((sum, r) => sum + Number(one.values[r] ?? 0), 0)])
	);
}

/**
 * Filter, sort and group. Unsorted rows stay in building order; a sort keeps it among equals.
 *
 * ```ts
 * const [all] = queryRows(schedule, { filters: [], sort: { key: 'area', descending: true }, groupBy: null });
 * ```
 */
export function queryRows(schedule: Schedule, query: Query): RowGroup[] {
	const filters = query.filters.flatMap((filter) => {
		const found = column(schedule, filter.key);
		return found ? [{ filter, values: found.values }] : [];
	});
	let rows: number[] = [];
	for (let r = 0; r < schedule.rows; r++)
		if (filters.every(({ filter, values }) => holds(values[r]!, filter))) rows.push(r);

	const sorted = query.sort && column(schedule, query.sort.key);
	if (sorted) {
		const sign = query.sort!.descending ? -1 : 1;
		rows = rows.sort((a, b) => sign * compare(sorted.values[a]!, sorted.values[b]!) || a - b);
	}
	const grouped = query.groupBy ? column(schedule, query.groupBy) : undefined;
	if (!grouped) {
		const all = Uint32Array.from(rows);
		return [{ label: null, rows: all, totals: totalsOf(schedule, all) }];
	}
	const groups = new Map<string, { key: string | number | null; rows: number[] }>();
	for (const r of rows) {
		const key = grouped.values[r]!;
		const label = key === null || key === '' ? '—' : String(key);
		const group = groups.get(label);
		if (group) group.rows.push(r);
		else groups.set(label, { key, rows: [r] });
	}
	return [...groups]
		.sort(([, a], [, b]) => compare(a.key, b.key))
		.map(([label, group]) => {
			const members = Uint32Array.from(group.rows);
			return { label, rows: members, totals: totalsOf(schedule, members) };
		});
}
