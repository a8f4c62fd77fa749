import type { Model } from '$core/cladding/model';
import type { Table } from '$core/project/brought-schema';
import type { ScheduleName } from '$core/project/schedules-schema';
import type { Column, ColumnHead } from '$core/schedule/column';
import { makeSchedule, type ColumnProblem, type Schedule } from '$core/schedule/table';

/** Columns of a list, of those that were asked for the ones that it has. */
export interface ListedColumns {
	readonly name: ScheduleName;
	/** The same for columns of one model. */
	readonly of: number;
	readonly rows: number;
	readonly heads: readonly ColumnHead[];
	readonly columns: readonly Column[];
	readonly problems: readonly ColumnProblem[];
}

/** The lists of the model as it stands: each is made when it is looked at, and kept as long as the model is. */
export class Lists {
	private model: Model | null = null;
	private count = 0;
	private readonly made = new Map<ScheduleName, Schedule>();

	columns(
		model: Model,
		tables: () => readonly Table[],
		name: ScheduleName,
		keys: readonly string[]
	): ListedColumns {
		if (model !== this.model) {
			this.model = model;
			this.count++;
			this.made.clear();
		}
		const list = this.made.get(name) ?? makeSchedule(model, name, tables());
		this.made.set(name, list);
		const { rows, heads, problems } = list;
		return {
			name,
			of: this.count,
			rows,
			heads,
			problems,
			columns: keys.flatMap((key) => list.column(key) ?? [])
		};
	}
}
