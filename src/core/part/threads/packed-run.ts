import { columnValues, type ColumnReader } from '../../field/column';
import type { Domain, Program } from '../program';
import { runProgram, type PartRun } from '../run';
import type { ProgramWork } from './program-runner';

/** A program for rows as plain data, for another thread. */
export interface PackedWork {
	readonly count: number;
	readonly origin: readonly [number, number, number];
	/** One after the other, in the order in which the program has them. */
	readonly columns: Float64Array;
}

const fits = new WeakMap<Program, boolean>();
const isPlain = ({ blocks, sheets, groups }: Domain): boolean =>
	!blocks.length && !sheets.length && groups.every(({ domain }) => isPlain(domain));

/**
 * Whether a program can be run from its columns alone. Sheets look at their cells, and what is cut from a block is made
 * once for all rows that are alike: both stay where their faces are.
 */
export function canLeave(program: Program): boolean {
	const known = fits.get(program) ?? isPlain(program.root);
	fits.set(program, known);
	return known;
}

export function packWork({ program, column, count, origin }: ProgramWork): PackedWork {
	const { columns: named } = program.root;
	const columns = new Float64Array(named.length * count);
	for (const [k, { name }] of named.entries()) columns.set(columnValues(column(name), count), k * count);
	return { count, origin, columns };
}

/** A list of triangles that all instances of an element share, by its place among those of the program. */
type SharedTriangles = number;

/** What came of a work, for the thread that asked for it. */
export interface PackedRun extends Omit<PartRun, 'elements'> {
	readonly elements: readonly {
		readonly table: PartRun['elements'][number];
		readonly triangles: SharedTriangles | null;
	}[];
}

const lists = new WeakMap<Program, readonly (readonly number[])[]>();

/** The triangles of a program's elements. */
function trianglesOf(program: Program): readonly (readonly number[])[] {
	const all = ({ elements, groups }: Domain): (readonly number[])[] => [
		...elements.map(({ triangles }) => triangles),
		...groups.flatMap(({ domain }) => all(domain))
	];
	const known = lists.get(program) ?? all(program.root);
	lists.set(program, known);
	return known;
}

/** Do what was packed. */
export function runPacked(program: Program, { count, origin, columns }: PackedWork): PackedRun {
	const places = new Map(program.root.columns.map(({ name }, k) => [name, k * count]));
	const column = (name: string): ColumnReader => {
		const first = places.get(name)!;
		return (out, from, to) => out.set(columns.subarray(first + from, first + to));
	};
	const { elements, ...rest } = runProgram(program, column, count, origin);
	const shared = trianglesOf(program);
	return {
		...rest,
		elements: elements.map((table) => {
			const { shape } = table;
			const at = shape.is === 'made' ? shared.indexOf(shape.triangles) : -1;
			if (shape.is !== 'made' || at < 0) return { table, triangles: null };
			return { table: { ...table, shape: { ...shape, triangles: [] } }, triangles: at };
		})
	};
}

/** As if it had been run here: what elements share is one thing again. */
export function unpackRun(program: Program, { elements, ...rest }: PackedRun): PartRun {
	const shared = trianglesOf(program);
	return {
		...rest,
		elements: elements.map(({ table, triangles }) =>
			triangles === null || table.shape.is !== 'made'
				? table
				: { ...table, shape: { ...table.shape, triangles: shared[triangles]! } }
		)
	};
}

/** The memory that goes over to another thread with a run; what is shared stays where it is. */
export function memoryOf({ elements, flags, results }: PackedRun): ArrayBuffer[] {
	const columns = elements.flatMap(({ table: { row, turn, volume, area, length, stock, shape } }) => [
		...[row, turn, volume, area, length, ...(stock?.sizes ?? [])],
		...(shape.is === 'placed' ? [shape.unit, shape.maps, shape.mirrored] : [shape.positions]),
		...(shape.is === 'own' ? [shape.firstVertex, shape.firstCorner, shape.triangles] : [])
	]);
	const buffers = [...columns, flags, ...results.values()].map(({ buffer }) => buffer);
	return [...new Set(buffers)].filter((buffer): buffer is ArrayBuffer => buffer instanceof ArrayBuffer);
}
