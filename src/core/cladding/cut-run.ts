import type { Manifold } from 'manifold-3d';
import { meshOfSolid, solidIfClosed, type ClosedMesh } from '../geometry/solid/library';
import type { Vector } from '../geometry/vector';
import type { ElementTable } from '../part/element-table';
import { ownShape } from '../part/own-shape';
import { placesOf, trianglesOf } from '../part/places';
import type { PartRun } from '../part/run';

/** Pieces of which something was cut away. */
export interface CutRun {
	readonly run: PartRun;
	/** How much of each piece is left, of its volume. */
	readonly left: Float64Array;
	/** Rows with meshes that do not close, and so are not cut. */
	readonly open: ReadonlySet<number>;
}

/** Shares of a volume up to this are rounding. */
export const NOTHING = 1e-6;

/** What is left of an instance: all of it, or a mesh of its own; and which share of its volume. */
export interface Left {
	readonly mesh: ClosedMesh;
	readonly share: number;
	/** It does not close, and could not be cut. */
	readonly open?: boolean;
}

/** Moved by as much as a point is, so that what is far from the origin keeps its digits. */
export function movedBy({ vertices, triangles }: ClosedMesh, [x, y, z]: Vector, sign: 1 | -1): ClosedMesh {
	const moved = new Float64Array(vertices.length);
	for (let k = 0; k < moved.length; k += 3) {
		moved[k] = vertices[k]! + sign * x;
		moved[k + 1] = vertices[k + 1]! + sign * y;
		moved[k + 2] = vertices[k + 2]! + sign * z;
	}
	return { vertices: moved, triangles };
}

/**
 * What a cut leaves of a mesh; null for nothing.
 * @param off what it is cut about: the cut sees the mesh moved there (mm)
 * @throws Error when `loadSolids` has not been awaited
 */
export function cutSolid(mesh: ClosedMesh, off: Vector, cut: (whole: Manifold) => Manifold): Left | null {
	const whole = solidIfClosed(movedBy(mesh, off, -1));
	if (!whole) return { mesh, share: 1, open: true };
	try {
		const part = cut(whole);
		const share = part.volume() / whole.volume();
		const left = share > NOTHING && share < 1 - NOTHING ? meshOfSolid(part) : null;
		part.delete();
		if (left) return { mesh: movedBy(left, off, 1), share };
		return share > NOTHING ? { mesh, share: 1 } : null;
	} finally {
		whole.delete();
	}
}

/** One mesh of an element, and its place in its table. */
interface Instance {
	readonly table: number;
	readonly instance: number;
	readonly mesh: ClosedMesh;
}

const pick = <A extends Uint32Array | Float64Array>(column: A, of: readonly number[]): A =>
	(column.constructor as unknown as { from(of: readonly number[], one: (k: number) => number): A }).from(
		of,
		(k) => column[k]!
	);

/**
 * Cut something away from the pieces of a run. Volumes are those of what is left; areas of plates and lengths of bars
 * go down as their volumes do. Every instance has a mesh of its own then; elements of which nothing is left are gone.
 *
 * @param leftOf what is left of each of the meshes that make a row's piece (mm from the run's origin)
 */
export function cutRun(
	run: PartRun,
	leftOf: (row: number, meshes: readonly ClosedMesh[]) => readonly (Left | null)[]
): CutRun {
	const rows = run.flags.length;
	const ofRow = Array.from({ length: rows }, (): Instance[] => []);
	run.elements.forEach((table, t) => {
		for (let k = 0; k < table.count; k++) {
			const vertices = placesOf(table.shape, k).slice();
			const mesh = { vertices, triangles: trianglesOf(table.shape, k) };
			ofRow[table.row[k]!]!.push({ table: t, instance: k, mesh });
		}
	});
	const left = new Float64Array(rows);
	const open = new Set<number>();
	const kept = run.elements.map((): { instance: number; left: Left }[] => []);
	ofRow.forEach((instances, row) => {
		if (!instances.length) return;
		const found = leftOf(
			row,
			instances.map(({ mesh }) => mesh)
		);
		let [whole, remaining] = [0, 0];
		instances.forEach(({ table, instance }, n) => {
			const volume = run.elements[table]!.volume[instance]!;
			whole += volume;
			const one = found[n];
			if (!one) return;
			if (one.open) open.add(row);
			remaining += one.share * volume;
			kept[table]!.push({ instance, left: one });
		});
		left[row] = whole > 0 ? remaining / whole : 0;
	});
	const elements = run.elements.flatMap((table, t): ElementTable[] => {
		const list = kept[t]!;
		if (!list.length) return [];
		const of = list.map(({ instance }) => instance);
		const lessened = (column: Float64Array) =>
			Float64Array.from(list, ({ instance, left }) => column[instance]! * left.share);
		return [
			{
				element: table.element,
				count: list.length,
				row: pick(table.row, of),
				turn: pick(table.turn, of),
				volume: lessened(table.volume),
				area: lessened(table.area),
				length: lessened(table.length),
				stock: table.stock && { ...table.stock, sizes: table.stock.sizes.map((size) => pick(size, of)) },
				shape: ownShape(list.map(({ left }) => left.mesh))
			}
		];
	});
	return { run: { ...run, elements }, left, open };
}
