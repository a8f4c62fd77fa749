import { latticeOf, type Lattice } from '../grid/lattice';
import type { NodeGrid } from '../grid/set-out';
import { isWithin, type Trim } from '../mass/trim';
import { refuse } from '../units/problem';
import { cellKinds, type Cells } from './cells';
import { areApart, boxOf, clipConvex, polygonArea, type Corner, type Place } from './clip-convex';

const CUT = cellKinds.indexOf('cut');

/** Nodes that trims make: one for each place, whichever cells meet there. */
class TrimNodes {
	private readonly known = new Map<string, number>();
	readonly i: number[] = [];
	readonly j: number[] = [];
	readonly positions: number[] = [];
	readonly normals: number[] = [];

	constructor(
		private readonly lattice: Lattice,
		private readonly first: number
	) {}

	/** @param key the same for the same place @param at parameters of the face */
	at(key: string, at: () => { place: Place; u: number; v: number }): number {
		const known = this.known.get(key);
		if (known !== undefined) return known;
		const { place, u, v } = at();
		const { point, normal } = this.lattice.evaluate(u, v);
		const node = this.first + this.i.length;
		this.i.push(place[0]);
		this.j.push(place[1]);
		this.positions.push(...point);
		this.normals.push(...normal);
		this.known.set(key, node);
		return node;
	}
}

/** A cell's corners in the lattice; over the seam of a ring, and at a pole, beside its own step. */
function placesOf(grid: NodeGrid, cells: Cells, c: number): Place[] {
	const { columns, rows, across, up, poles } = grid;
	const home = [cells.bay[c]! - 1, cells.course[c]! - 1] as const;
	const near = (value: number, wanted: number, count: number, closed: boolean) => {
		if (!closed) return value;
		if (value - wanted > count / 2) return value - count;
		return wanted - value > count / 2 ? value + count : value;
	};
	const places = Array.from(cells.corners.subarray(cells.start[c]!, cells.start[c + 1]!), (node): Place => {
		const [i, j] = latticeOf(grid, node);
		return [near(i, home[0], columns, across.closed), near(j, home[1], rows, up.closed)];
	});
	// A pole stands for its whole row: above the middle of the other corners.
	const others = places.filter(([, j]) => !poles.includes(j));
	const middle = others.reduce((sum, [i]) => sum + i, 0) / Math.max(1, others.length);
	return places.map(([i, j]): Place => (poles.includes(j) ? [middle, j] : [i, j]));
}

/** Up to three copies of a curve, so that it meets the cells on both sides of a seam. */
function copies(curve: readonly Place[], grid: NodeGrid): { shift: number; places: Place[] }[] {
	const shifts = grid.across.closed ? [-grid.across.steps, 0, grid.across.steps] : [0];
	return shifts.map((shift) => ({ shift, places: curve.map(([i, j]): Place => [i + shift, j]) }));
}

/** Corners strictly within the cell that lie on a straight line between their neighbours say nothing. */
function isStraight(before: Place, here: Place, after: Place): boolean {
	return (
		Math.abs(polygonArea([before, here, after])) <
		1e-9 * Math.hypot(after[0] - before[0], after[1] - before[1])
	);
}

/**
 * The cells of a trimmed face: those outside are left out, those a trim runs through are cut, with new nodes
 * where it crosses their sides and where it has corners. A cut cell keeps its address; a second piece of
 * one gets the slot of a further round.
 * @throws ProblemError when an opening lies within a single cell, or nothing is left
 */
export function trimCells(
	lattice: Lattice,
	cells: Cells,
	trims: readonly Trim[]
): { grid: NodeGrid; cells: Cells } {
	const { grid } = lattice;
	const own = grid.columns * grid.rows;
	const curves = trims.map(({ loop }) => loop.map(([u, v]): Place => lattice.place(u, v)));
	const all = curves.flatMap((curve, trim) =>
		copies(curve, grid).map((copy) => ({ ...copy, trim, box: boxOf(copy.places) }))
	);
	const nodes = new TrimNodes(lattice, own);
	const slots = cells.slot.reduce((most, slot) => Math.max(most, slot), 1);
	const made = {
		corners: [] as number[],
		start: [0],
		kind: [] as number[],
		course: [] as number[],
		bay: [] as number[],
		slot: [] as number[]
	};
	const take = (c: number, corners: Iterable<number>, kind: number, piece: number) => {
		made.corners.push(...corners);
		made.start.push(made.corners.length);
		made.kind.push(kind);
		made.course.push(cells.course[c]!);
		made.bay.push(cells.bay[c]!);
		made.slot.push(cells.slot[c]! + slots * piece);
	};

	for (let c = 0; c < cells.count; c++) {
		const places = placesOf(grid, cells, c);
		const ids = cells.corners.subarray(cells.start[c]!, cells.start[c + 1]!);
		const box = boxOf(places);
		const near = all.filter((one) => !areApart(one.box, box));
		const clipped = clipConvex(
			places,
			near.map((one) => one.places)
		);
		if (clipped.untouched) {
			const middle: Place = [
				places.reduce((sum, p) => sum + p[0], 0) / places.length,
				places.reduce((sum, p) => sum + p[1], 0) / places.length
			];
			const kept = trims.every(({ keep }, t) => {
				const inside = all.some((one) => one.trim === t && isWithin(one.places, middle));
				return inside === (keep === 'inside');
			});
			if (kept) take(c, ids, cells.kind[c]!, 0);
			continue;
		}
		for (const index of clipped.within) {
			const { trim, places: curve } = near[index]!;
			if (Math.abs(polygonArea(curve)) > (1 - 1e-9) * polygonArea(places)) continue;
			refuse(
				trims[trim]!.at,
				`it lies within the single cell of course ${cells.course[c]}, bay ${cells.bay[c]}; make it larger than a cell, or the cells smaller`
			);
		}

		const nodeOf = (corner: Corner): { node: number; place: Place; free: boolean } => {
			if (corner.is === 'cell')
				return { node: ids[corner.corner]!, place: places[corner.corner]!, free: false };
			const { trim, shift, places: curve } = near[corner.curve]!;
			const place = corner.is === 'curve' ? curve[corner.k]! : corner.at;
			const touched = places.findIndex((p) => Math.hypot(p[0] - place[0], p[1] - place[1]) < 1e-7);
			if (touched >= 0) return { node: ids[touched]!, place: places[touched]!, free: false };
			const plain: Place = [place[0] - shift, place[1]];
			if (corner.is === 'curve') {
				const [u, v] = trims[trim]!.loop[corner.k]!;
				return { node: nodes.at(`${trim} ${corner.k}`, () => ({ place: plain, u, v })), place, free: true };
			}
			const [a, b] = [ids[corner.side]!, ids[(corner.side + 1) % ids.length]!];
			const key = `${trim} ${corner.k} ${Math.min(a, b)} ${Math.max(a, b)}`;
			const node = nodes.at(key, () => {
				const [u, v] = lattice.parameters(...plain);
				return { place: plain, u, v };
			});
			return { node, place, free: false };
		};
		clipped.pieces.forEach(({ corners }, piece) => {
			const found = corners
				.map(nodeOf)
				.filter((one, k, list) => one.node !== list[(k + list.length - 1) % list.length]!.node);
			const kept = found.filter(
				(one, k) =>
					!(
						one.free &&
						isStraight(
							found[(k + found.length - 1) % found.length]!.place,
							one.place,
							found[(k + 1) % found.length]!.place
						)
					)
			);
			if (kept.length >= 3)
				take(
					c,
					kept.map((one) => one.node),
					CUT,
					piece
				);
		});
	}
	if (made.kind.length === 0) refuse(trims[0]!.at, 'nothing is left of the face; make the trim smaller');
	const joined = (before: Float64Array, more: readonly number[]) => {
		const whole = new Float64Array(before.length + more.length);
		whole.set(before);
		whole.set(more, before.length);
		return whole;
	};
	return {
		grid: {
			...grid,
			positions: joined(grid.positions, nodes.positions),
			normals: joined(grid.normals, nodes.normals),
			trimI: Float64Array.from(nodes.i),
			trimJ: Float64Array.from(nodes.j)
		},
		cells: {
			count: made.kind.length,
			start: Uint32Array.from(made.start),
			corners: Uint32Array.from(made.corners),
			kind: Uint8Array.from(made.kind),
			course: Uint32Array.from(made.course),
			bay: Uint32Array.from(made.bay),
			slot: Uint8Array.from(made.slot)
		}
	};
}
