import type { FaceModel } from '../cladding/model';
import { evaluateCurvature } from '../geometry/curvature';
import { coordinateSum } from '../grid/displaced';
import { Lattice } from '../grid/lattice';
import { measureCells } from '../measure/cell-measures';
import { cellMiddle } from '../pattern/trim-cells';
import type { LikeSettings } from '../project/like-schema';
import type { MovedFace, Moves } from '../project/moves-schema';
import { refuse } from '../units/problem';
import { formatNumber, formatQuantity } from '../units/quantity';
import type { Steps } from '../units/steps';
import { ConeRows } from './cone-rows';
import { FlatRows } from './flat-rows';
import { KindRows, type Sorted } from './kind-rows';
import { Rows } from './least-squares';
import { movableCells, networkOf, place, type Network } from './network';
import { solve, type Wanted } from './solve';
import { countKinds, ringsByCorners, sortAnew, sortInto, sortNear } from './sort-kinds';
import { translationOffsets } from './translation';

/** What moving the nodes of a zone comes to. */
export interface FoundMoves {
	readonly faces: readonly MovedFace[];
	/** Nodes that are moved, how far at most, and how far off the face at most (mm). */
	readonly moved: number;
	readonly furthest: number;
	readonly off: number;
	/** The largest warp before and after (mm), and what is left. */
	readonly warp: readonly [before: number, after: number];
	/** Cells that are not flat within the bound before and after; how many of these have no corner that may move, and how many lie where the face curves both ways. */
	readonly warped: readonly [before: number, after: number];
	readonly kept: number;
	readonly onSaddle: number;
	/** How many different cells before and after, and how far those of one kind are apart at most then (mm). */
	readonly kinds: readonly [before: number, after: number];
	readonly spread: number;
}

/** Moves by less (mm) are none: files have as many decimals. */
const DECIMALS = 1e4;
/** Rows of the cone are met when they are this near (mm). */
const CONE_WITHIN = 0.05;
/** Cells are meant to be alike this much better than they have to be. */
const BETTER = 8;

type Face = Pick<FaceModel, 'face' | 'address' | 'grid' | 'cells' | 'edges' | 'sharedEdges'>;

/** The largest warp of the cells of some faces (mm). @param positions of all nodes, one face behind the other */
function warpOf(network: Network, faces: readonly Face[], positions: Float64Array): Float64Array[] {
	return faces.map(({ cells, grid }, k) => {
		const { first } = network.faces[k]!;
		return measureCells(cells, positions.subarray(3 * first, 3 * first + grid.positions.length)).warp;
	});
}
/** The largest of some columns, one behind the other. @param counts 1 for those that count; null for all */
function largest(columns: readonly Float64Array[], counts: Uint8Array | null = null): number {
	let [most, at] = [0, 0];
	for (const column of columns)
		for (const value of column) if (counts?.[at++] !== 0 && value > most) most = value;
	return most;
}

/** Whether the face curves both ways where a cell lies. */
function isOnSaddle({ face, grid, cells }: Face, cell: number): boolean {
	if (!face) return false;
	const [u, v] = new Lattice(grid, face.surface).parameters(...cellMiddle(grid, cells, cell));
	return evaluateCurvature(face.surface, [u], [v]).gaussian[0]! < 0;
}

function* flat(network: Network, faces: readonly Face[], { aim, most, within }: Moves): Steps<Float64Array> {
	const flatRows = new FlatRows(network);
	const cones = aim === 'conical' ? new ConeRows(network) : null;
	const rows = new Rows();
	const isFlat = (positions: Float64Array): boolean => {
		if (largest(warpOf(network, faces, positions)) > within) return false;
		if (!cones) return true;
		rows.clear();
		cones.write(positions, rows);
		return rows.largest() <= CONE_WITHIN;
	};
	const wanted = (peaks: boolean): Wanted => ({
		more: 0,
		rounds: 80,
		inner: 120,
		hardly: 1e-4,
		write(positions, _values, into) {
			flatRows.write(positions, into);
			cones?.write(positions, into);
			if (peaks) into.raisePeaks(PEAK);
		},
		enough: isFlat
	});
	const stay = new Float64Array(3 * network.variables);
	const even = yield* halfOf(solve(network, wanted(false), most, stay), 0);
	const positions = new Float64Array(network.base.length);
	place(network, even, positions);
	if (isFlat(positions)) return even;
	// What cannot be had everywhere is to be least where it is most, and no worse anywhere than the worst was before.
	const peaked = yield* halfOf(solve(network, wanted(true), most, even), 1);
	const movable = movableCells(network);
	const worst = [peaked, even, stay].map((offsets) => {
		place(network, offsets, positions);
		return largest(warpOf(network, faces, positions), movable);
	});
	const least = Math.min(...worst) * (1 + SAME_WARP);
	return [peaked, even, stay][worst.findIndex((one) => one <= least)]!;
}
/** Residuals are compared with this (mm) where the worst of them are to count most. */
const PEAK = 1;
/** Two results whose worst cells differ by less than this share are as good as each other. */
const SAME_WARP = 1e-3;

/** One half of the work. */
function* halfOf<Made>(steps: Steps<Made>, half: number): Steps<Made> {
	for (let next = steps.next(); ; next = steps.next()) {
		if (next.done) return next.value;
		yield (half + next.value) / 2;
	}
}

/** Move nodes towards the shapes that cells are sorted to. */
function* towards(
	network: Network,
	sorted: readonly Sorted[],
	most: number,
	from: Float64Array,
	like: LikeSettings
): Steps<Float64Array> {
	const kindRows = new KindRows(network, sorted, like.mirrored === 'together');
	const rows = new Rows();
	const wanted: Wanted = {
		more: kindRows.columns,
		rounds: 8,
		inner: 40,
		hardly: 2e-2,
		write: (positions, values, into) => kindRows.write(positions, values, into),
		enough(positions, values) {
			rows.clear();
			kindRows.write(positions, values, rows);
			return rows.largest() <= like.tolerance / BETTER;
		}
	};
	return yield* solve(network, wanted, most, from);
}

/** Tolerances at which cells are taken together before they are made alike, as shares of how far nodes may go. */
const TRIES = [2, 0.75, 0.25];
/** How often cells are sorted anew and moved on. */
const SORTINGS = 3;

function* alike(network: Network, { most, kinds }: Moves, like: LikeSettings): Steps<Float64Array> {
	const positions = new Float64Array(network.base.length);
	const stay = new Float64Array(3 * network.variables);
	place(network, stay, positions);
	const before = ringsByCorners(network, positions);
	let best: { offsets: Float64Array; kinds: number } = {
		offsets: stay,
		kinds: (yield* countKinds(before, like)).kinds
	};
	const tries = kinds === null ? TRIES : [0];
	for (const [turn, share] of tries.entries()) {
		let sorted: Sorted[] =
			kinds === null
				? yield* sortNear(before, { ...like, tolerance: Math.max(like.tolerance, share * most) })
				: yield* sortInto(before, kinds, like);
		let offsets: Float64Array = stay;
		for (let round = 0; round < SORTINGS; round++) {
			const done = (turn + round / SORTINGS) / tries.length;
			const steps = towards(network, sorted, most, offsets, like);
			for (let next = steps.next(); ; next = steps.next()) {
				if (next.done) {
					offsets = next.value;
					break;
				}
				yield done + next.value / (SORTINGS * tries.length);
			}
			place(network, offsets, positions);
			const now = ringsByCorners(network, positions);
			const count = (yield* countKinds(now, like)).kinds;
			if (count < best.kinds) best = { offsets, kinds: count };
			else if (round > 0) break;
			sorted = sortAnew(sorted, now, like, kinds !== null);
		}
	}
	return best.offsets;
}

/** @throws ProblemError */
function translated(network: Network, faces: readonly Face[], { most }: Moves, at: string): Float64Array {
	const offsets = new Float64Array(3 * network.variables);
	const [face, other] = faces;
	if (other) refuse(`${at}/aim`, 'cells are made parallelograms on one face alone; this zone has several');
	const { grid } = face!;
	if (grid.poles.length || grid.rims)
		refuse(
			`${at}/aim`,
			'lines of this face run together in one point: no course of it is another one, moved; cells can be made flat'
		);
	const all = translationOffsets(grid);
	let furthest = 0;
	network.faces[0]!.variable.forEach((variable, node) => {
		if (variable < 0) return;
		const own = all.subarray(3 * node, 3 * node + 3);
		offsets.set(own, 3 * variable);
		furthest = Math.max(furthest, Math.hypot(...own));
	});
	if (furthest > most)
		refuse(
			`${at}/most`,
			`as parallelograms, its nodes have to move by up to ${formatQuantity(furthest, 'length')}`,
			[{ label: `${formatNumber(Math.ceil(furthest))} mm`, path: `${at}/most`, value: Math.ceil(furthest) }]
		);
	return offsets;
}

/** The moves of each face as they are kept. */
function movedFaces(network: Network, faces: readonly Face[], offsets: Float64Array): MovedFace[] {
	return faces.map(({ address, grid }, k) => {
		const { columns, across, up, positions } = grid;
		const nodes: number[] = [];
		const { variable } = network.faces[k]!;
		for (let node = 0; node < variable.length; node++) {
			const at = 3 * variable[node]!;
			if (at < 0) continue;
			const own = [0, 1, 2].map((a) => Math.round(offsets[at + a]! * DECIMALS) / DECIMALS);
			if (own.every((value) => value === 0)) continue;
			nodes.push(Math.floor(node / columns) + 1, (node % columns) + 1, ...own);
		}
		return {
			face: address,
			steps: [across.steps, up.steps],
			sum: coordinateSum(positions, variable.length),
			nodes
		};
	});
}

/**
 * Find how the nodes of a zone are moved best for what a clause aims at.
 *
 * ```ts
 * const { warp } = atOnce(findMoves([faceModel], zone.moves[0]!, project.like, [], 'zones/gull/moves/flat'));
 * ```
 * @param faces as they stand without it @param levels heights (mm) @param at the clause
 * @returns in steps: the share that is done @throws ProblemError
 */
export function* findMoves(
	faces: readonly Face[],
	moves: Moves,
	like: LikeSettings,
	levels: readonly number[],
	at: string
): Steps<FoundMoves> {
	if (moves.aim === 'survey')
		refuse(`${at}/aim`, 'these nodes stand where they were measured; bring the survey in again to move them');
	if (!(moves.most > 0)) refuse(`${at}/most`, 'no node may move at all; a way above 0 mm is accepted');
	if (!(moves.within > 0))
		refuse(`${at}/within`, 'nothing is flat within 0 mm; a way above 0 mm is accepted');
	if (moves.kinds !== null && moves.kinds < 1)
		refuse(`${at}/kinds`, 'no cell is of no kind; one kind or more is accepted');
	const network = networkOf(faces, moves.aim === 'translation' ? KEEPS_NOTHING : moves.keeps, levels);
	if (moves.aim !== 'translation' && !network.free.includes(1))
		refuse(`${at}/keeps`, 'every node stays where it is, by what the clause keeps; let some go');
	const offsets =
		moves.aim === 'translation'
			? translated(network, faces, moves, at)
			: moves.aim === 'alike'
				? yield* alike(network, moves, like)
				: yield* flat(network, faces, moves);
	const found = movedFaces(network, faces, offsets);
	const positions = new Float64Array(network.base.length);
	const warpsBefore = warpOf(network, faces, network.base);
	const warpedBefore = warpsBefore.reduce(
		(sum, warp) => sum + warp.filter((one) => one > moves.within).length,
		0
	);
	const kindsBefore = yield* countKinds(ringsByCorners(network, network.base), like);
	place(network, offsets, positions);
	const warps = warpOf(network, faces, positions);
	const kindsAfter = yield* countKinds(ringsByCorners(network, positions), like);
	let [moved, furthest, off, warped, kept, onSaddle] = [0, 0, 0, 0, 0, 0];
	const { upright } = network;
	for (let k = 0; k < offsets.length; k += 3) {
		const way = Math.hypot(offsets[k]!, offsets[k + 1]!, offsets[k + 2]!);
		if (way * DECIMALS >= 1) moved++;
		furthest = Math.max(furthest, way);
		off = Math.max(
			off,
			Math.abs(
				offsets[k]! * upright[k]! + offsets[k + 1]! * upright[k + 1]! + offsets[k + 2]! * upright[k + 2]!
			)
		);
	}
	const bound = moves.within * (1 + SAME_WARP);
	const movable = movableCells(network);
	let cell = 0;
	for (const [k, warp] of warps.entries())
		for (let c = 0; c < warp.length; c++, cell++) {
			if (!(warp[c]! > bound)) continue;
			warped++;
			if (!movable[cell]) kept++;
			else if (isOnSaddle(faces[k]!, c)) onSaddle++;
		}
	return {
		faces: found,
		moved,
		furthest,
		off,
		warp: [largest(warpsBefore), largest(warps)],
		warped: [warpedBefore, warped],
		kept,
		onSaddle,
		kinds: [kindsBefore.kinds, kindsAfter.kinds],
		spread: kindsAfter.spread
	};
}
const KEEPS_NOTHING = { rims: false, levels: false, openings: false };
