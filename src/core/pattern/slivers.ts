import { ringArea } from '../geometry/ring-area';
import type { NodeGrid } from '../grid/node-grid';
import type { Zone } from '../project/schema';
import { cellKinds, CellList, outlineOf, type Cells } from './cells';

const WHOLE = cellKinds.indexOf('whole');

/** Cells that are smaller than their zone wants, what is done with them, and how many were joined to a neighbour. */
export interface Slivers {
	readonly cells: Uint32Array;
	readonly joined: number;
	readonly put: 'open' | 'flag';
}

/** Edge and cut cells smaller than an area (mm²), ascending. */
function sliversOf(cells: Cells, { positions }: NodeGrid, under: number): Uint32Array {
	const found: number[] = [];
	for (let c = 0; c < cells.count; c++) {
		if (cells.kind[c] === WHOLE) continue;
		if (ringArea(cells.corners.subarray(cells.start[c]!, cells.start[c + 1]!), positions) < under)
			found.push(c);
	}
	return Uint32Array.from(found);
}

/** A ring without the stretches that it runs out and back again. */
function withoutSpikes(ring: readonly number[]): number[] {
	const left = [...ring];
	for (let k = 0; k < left.length && left.length > 2;) {
		const n = left.length;
		if (left[(k + n - 1) % n] === left[(k + 1) % n]) {
			// The corner between two equal neighbours, and one of them.
			left.splice(k, 1);
			left.splice(k % left.length, 1);
			k = Math.max(0, k - 2);
		} else k++;
	}
	return left;
}

/** The ring around two rings that share the edge from a to b (in the first). */
function joined(ring: readonly number[], a: number, b: number, other: readonly number[]): number[] {
	const at = ring.findIndex((node, k) => node === a && ring[(k + 1) % ring.length] === b);
	const from = other.indexOf(a);
	const around = Array.from({ length: other.length - 2 }, (_, k) => other[(from + 1 + k) % other.length]!);
	return withoutSpikes([...ring.slice(0, at + 1), ...around, ...ring.slice(at + 1)]);
}

/**
 * Slivers joined to the neighbour they share their longest edge with. The neighbour keeps its address and
 * becomes a cut cell; a sliver without neighbours stays.
 * @returns the cells, and how many were joined
 */
function mergeSlivers(
	cells: Cells,
	{ positions }: NodeGrid,
	slivers: Uint32Array
): { cells: Cells; joined: number } {
	const { start, nodes } = outlineOf(cells);
	const rings: (number[] | null)[] = Array.from({ length: cells.count }, (_, c) => [
		...nodes.subarray(start[c]!, start[c + 1]!)
	]);
	const corners = rings.map((_, c) => new Set(cells.corners.subarray(cells.start[c]!, cells.start[c + 1]!)));
	const owner = new Map<string, number>();
	const claim = (c: number) =>
		rings[c]!.forEach((a, k, ring) => owner.set(`${a} ${ring[(k + 1) % ring.length]!}`, c));
	rings.forEach((_, c) => claim(c));
	const length = (a: number, b: number) =>
		Math.hypot(...[0, 1, 2].map((n) => positions[3 * a + n]! - positions[3 * b + n]!));
	const grown = new Map<number, number>();
	let count = 0;
	for (const c of slivers) {
		const ring = rings[c];
		if (!ring) continue;
		let best: { a: number; b: number; into: number } | null = null;
		let most = 0;
		ring.forEach((b, k) => {
			const a = ring[(k + 1) % ring.length]!;
			const into = owner.get(`${a} ${b}`);
			if (into === undefined || into === c || !rings[into]) return;
			if (length(a, b) > most) [most, best] = [length(a, b), { a, b, into }];
		});
		if (!best) continue;
		const { a, b, into } = best as { a: number; b: number; into: number };
		const ring2 = joined(rings[into]!, a, b, ring);
		if (new Set(ring2).size !== ring2.length || ring2.length < 3) continue;
		rings[into] = ring2;
		rings[c] = null;
		for (const node of corners[c]!) corners[into]!.add(node);
		grown.set(into, (grown.get(into) ?? cells.share[into]!) + cells.share[c]!);
		claim(into);
		count++;
	}
	const made = new CellList();
	rings.forEach((ring, c) => {
		if (!ring) return;
		if (!grown.has(c)) {
			made.copy(cells, c);
			return;
		}
		const own = ring.filter((node) => corners[c]!.has(node));
		made.push({
			corners: own,
			outline: own.length < ring.length ? ring : null,
			kind: cellKinds.indexOf('cut'),
			course: cells.course[c]!,
			bay: cells.bay[c]!,
			slot: cells.slot[c]!,
			polygon: cells.polygon[c]!,
			share: Math.min(1, grown.get(c)!)
		});
	});
	return { cells: made.cells(), joined: count };
}

/**
 * Slivers joined, left open or flagged, as the zone wants it.
 *
 * ```ts
 * const { cells: joined } = withoutSlivers(cells, grid, { under: 50_000, put: 'merge' });
 * ```
 */
export function withoutSlivers(
	cells: Cells,
	grid: NodeGrid,
	wanted: Zone['slivers']
): { cells: Cells; slivers: Slivers } {
	const none: Slivers = { cells: new Uint32Array(0), joined: 0, put: 'flag' };
	if (!wanted) return { cells, slivers: none };
	const found = sliversOf(cells, grid, wanted.under);
	if (wanted.put !== 'merge') return { cells, slivers: { cells: found, joined: 0, put: wanted.put } };
	// Openings have no neighbour to join, and a sheet keeps its own.
	if (cells.pierced) return { cells, slivers: { ...none, cells: found } };
	const merged = mergeSlivers(cells, grid, found);
	// One without a neighbour to join stays, and is flagged.
	return {
		cells: merged.cells,
		slivers: { ...none, cells: sliversOf(merged.cells, grid, wanted.under), joined: merged.joined }
	};
}
