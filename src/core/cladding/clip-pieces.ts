import type { Manifold } from 'manifold-3d';
import type { Place } from '../geometry/polygon';
import { solidIfClosed, sweptOutline, type ClosedMesh } from '../geometry/solid/library';
import { subtract, type Vector } from '../geometry/vector';
import type { PartRun } from '../part/run';
import { plainFlag, type Flag } from '../units/flag';
import { formatNumber } from '../units/quantity';
import { cutRun, cutSolid, movedBy, type CutRun, type Left } from './cut-run';
import type { CladFace } from './given-columns';
import {
	keptSpace,
	openSidesOf,
	spaceWithin,
	standing,
	type KeptSpace,
	type SpaceWithin
} from './kept-space';
import type { PieceGroup } from './pieces';

/** Of pieces of which less than this share is left it is told. */
const LITTLE = 0.05;

/** How far the vertices of some meshes reach in a space, and seen from outside the box round each. */
function reachOf(space: KeptSpace, meshes: readonly ClosedMesh[], origin: Vector) {
	const { middle, axes } = space;
	const sides = openSidesOf(space);
	const [ox, oy, oz] = subtract(middle, origin);
	const [a, b, c] = axes;
	let [aside, behind, before] = [0, 0, 0];
	const boxes = meshes.map(({ vertices }) => {
		let [left, right, foot, head] = [Infinity, -Infinity, Infinity, -Infinity];
		for (let k = 0; k < vertices.length; k += 3) {
			const [x, y, z] = [vertices[k]! - ox, vertices[k + 1]! - oy, vertices[k + 2]! - oz];
			const across = a[0] * x + a[1] * y + a[2] * z;
			const up = b[0] * x + b[1] * y + b[2] * z;
			const out = c[0] * x + c[1] * y + c[2] * z;
			left = Math.min(left, across);
			right = Math.max(right, across);
			foot = Math.min(foot, up);
			head = Math.max(head, up);
			behind = Math.max(behind, -out);
			before = Math.max(before, out);
			for (const side of sides) aside = Math.max(aside, across * side.across + up * side.up - side.from);
		}
		return { low: [left, foot] as Place, high: [right, head] as Place };
	});
	return { reach: { aside, behind, before }, boxes };
}

/** A space as a solid about its middle: swept along the face's normals, straight where its outline crosses itself. */
function solidOfSpace(
	{ middle, axes: [a, b, c] }: KeptSpace,
	{ mesh, outline, swept }: SpaceWithin
): Manifold {
	const solid = mesh && solidIfClosed(movedBy(mesh, middle, -1));
	if (solid) return solid;
	const straight = sweptOutline(outline, -swept[0], swept[1]);
	const placed = straight.transform([...a, 0, ...b, 0, ...c, 0, 0, 0, 0, 1]);
	straight.delete();
	return placed;
}

/** What is left of each of the meshes that make one piece; null for those of which nothing is. */
function leftOf(space: KeptSpace, meshes: readonly ClosedMesh[], origin: Vector): (Left | null)[] {
	const { reach, boxes } = reachOf(space, meshes, origin);
	const within = spaceWithin(space, reach);
	if (!within) return meshes.map((mesh) => ({ mesh, share: 1 }));
	const kept = solidOfSpace(space, within);
	const off = subtract(space.middle, origin);
	try {
		return meshes.map((mesh, k): Left | null => {
			const where = standing(within, boxes[k]!.low, boxes[k]!.high);
			if (where === 'within') return { mesh, share: 1 };
			if (where === 'beside') return null;
			return cutSolid(mesh, off, (whole) => whole.intersect(kept));
		});
	} finally {
		kept.delete();
	}
}

/**
 * Cut the pieces of a run by what trims leave of their cells.
 *
 * ```ts
 * await loadSolids();
 * const { run: cut, left } = clipPieces(run, [0, 0, 0], (row) => keptSpace(faceModel.grid, faceModel.cells, sites[row]!));
 * ```
 * @param origin of the run (mm) @param spaceOf the space of each row's cell
 * @throws Error when `loadSolids` has not been awaited
 */
export const clipPieces = (run: PartRun, origin: Vector, spaceOf: (row: number) => KeptSpace): CutRun =>
	cutRun(run, (row, meshes) => leftOf(spaceOf(row), meshes, origin));

/** What is to be said of pieces that were cut. */
function flagsOf({ left, open }: CutRun, made: ReadonlySet<number>): Map<number, Flag> {
	const told = new Map<number, Flag>();
	for (const row of made) {
		if (left[row] === 0)
			told.set(row, plainFlag('piece.clipped-away', 'failed', 'the piece', 'the trim leaves nothing of it'));
		else if (left[row]! < LITTLE) {
			const says = `the trim leaves only ${formatNumber(Math.max(1, Math.round(100 * left[row]!)))} % of it`;
			told.set(row, plainFlag('piece.little-left', 'flagged', 'the piece', says));
		}
		if (open.has(row)) told.set(row, notClosed);
	}
	return told;
}
const notClosed = plainFlag(
	'piece.not-closed',
	'flagged',
	'the piece',
	'it has a mesh that does not close, which the trim does not cut'
);

/**
 * Pieces that were made for whole cells, cut as trims cut their cells.
 *
 * ```ts
 * const { left } = clipped(group.group, faceModel); // how much of each is left
 * ```
 * @throws Error when `loadSolids` has not been awaited
 */
export function clipped(group: PieceGroup, { grid, cells, origin }: CutFace): PieceGroup {
	const made = new Set(group.run.elements.flatMap(({ row }) => Array.from(row)));
	const cut = clipPieces(group.run, origin, (row) => keptSpace(grid, cells, group.sites[row]!));
	return { ...group, run: cut.run, left: cut.left, flags: group.flags.with(flagsOf(cut, made)) };
}

/** A face with its cells as trims leave them. */
type CutFace = Pick<CladFace, 'grid' | 'cells' | 'origin'>;
