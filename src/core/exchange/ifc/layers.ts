import type { PieceGroup } from '../../cladding/pieces';
import type { ElementTable } from '../../part/element-table';
import type { Material } from '../../project/material-schema';

/** A piece that is plates laid upon each other: of what, and how thick (mm). */
export interface Layer {
	readonly label: string;
	readonly material: Material;
	readonly thickness: number;
}

/** Instances of an element by row; null where a piece has none of it, or several. */
function oneEach({ row, count }: ElementTable, rows: number): Int32Array | null {
	if (count > rows) return null;
	const at = new Int32Array(rows).fill(-1);
	for (let k = 0; k < count; k++) {
		if (at[row[k]!] !== -1) return null;
		at[row[k]!] = k;
	}
	return at;
}

/**
 * What the pieces of a group are of, layer by layer, where each is plates laid upon each other and nothing else: one of
 * every element.
 * @returns by row; null for a row that could not be made, and for a group of other things
 */
export function layersOf({
	ready,
	run,
	sites
}: PieceGroup): ((row: number) => readonly Layer[] | null) | null {
	const { elements } = ready;
	const isPlates =
		elements.length > 0 &&
		elements.every(({ category }) => category === 'plate') &&
		run.elements.every(({ stock }) => stock?.shape === 'plate');
	if (!isPlates) return null;
	const columns = elements.map((_, e) => {
		const tables = run.elements.filter(({ element }) => element === e);
		// Where caps differ an element has several tables: each row is in one of them.
		const places = tables.map((table) => ({ table, at: oneEach(table, sites.length) }));
		if (places.some(({ at }) => !at)) return null;
		return (row: number): number | null => {
			const found = places.filter(({ at }) => at![row] !== -1);
			return found.length === 1 ? found[0]!.table.stock!.sizes[0]![found[0]!.at![row]!]! : null;
		};
	});
	return (row) => {
		const layers = elements.map(({ label }, e) => ({
			label,
			material: ready.materials[e]!,
			thickness: columns[e]?.(row) ?? NaN
		}));
		return layers.every(({ thickness }) => thickness > 0) ? layers : null;
	};
}
