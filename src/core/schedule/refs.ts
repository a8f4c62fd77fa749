import { everySite } from '../field/column';
import { inOrder } from '../units/in-order';
import type { GroupSource, Refs } from './sources';

export function piecesOf({ group }: GroupSource): Refs {
	const row = everySite(group.sites.length);
	return { tables: [], table: row, at: row, row, count: row };
}

/** The points that the pieces of a group hang on, each in its order. */
export function pointsOf(source: GroupSource): Refs {
	const { row, count } = source.anchors();
	return { tables: [], table: row, at: row, row, count };
}

/** What is ordered for the pieces of a group, piece by piece and numbered within each from 1. */
export function elementsOf({ group }: GroupSource, category: string | null): Refs {
	const tables = [...group.run.elements].sort((a, b) => a.element - b.element);
	const total = tables.reduce((sum, { count }) => sum + count, 0);
	const [table, at, row, turn] = [0, 0, 0, 0].map(() => new Uint32Array(total)) as [
		Uint32Array,
		Uint32Array,
		Uint32Array,
		Uint32Array
	];
	let n = 0;
	tables.forEach((one, t) => {
		for (let k = 0; k < one.count; k++, n++) {
			table[n] = t;
			at[n] = k;
			row[n] = one.row[k]!;
			turn[n] = one.turn[k]!;
		}
	});
	const order = inOrder([row, table, turn], total);
	const count = new Uint32Array(total);
	let kept = 0;
	for (let k = 0, number = 0; k < total; k++) {
		number = k > 0 && row[order[k]!] === row[order[k - 1]!] ? number + 1 : 1;
		const wanted =
			category === null || group.ready.elements[tables[table[order[k]!]!]!.element]!.category === category;
		if (!wanted) continue;
		count[kept] = number;
		order[kept++] = order[k]!;
	}
	const picked = (column: Uint32Array) => order.subarray(0, kept).map((k) => column[k]!);
	return { tables, table: picked(table), at: picked(at), row: picked(row), count: count.subarray(0, kept) };
}
