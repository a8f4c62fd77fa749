import { distinctKnots } from '../geometry/curve';
import {
	evaluateGrid,
	evaluateRows,
	transpose,
	type Surface,
	type SurfaceSamples
} from '../geometry/surface';
import type { Face } from '../mass/face';
import type { SettingOut, Spacing } from '../project/schema';
import { refuse } from '../units/problem';
import { formatNumber } from '../units/quantity';
import { divide, type Division, type LineLengths } from './spacing';
import { lengthTable, lineLength, parametersAt } from '../geometry/true-length';

/** What one direction of the grid came to. Lengths in mm. */
export interface Spread {
	readonly steps: number;
	readonly division: Division;
	readonly lengths: LineLengths;
	/** The two ends of the face meet in this direction. */
	readonly closed: boolean;
}

/**
 * The nodes of a face that is set out. Node (i, j) has the index j * columns + i; a closed direction does
 * not repeat its first line. Positions in mm, normals of length 1 pointing outside, flat x y z.
 */
export interface NodeGrid {
	readonly across: Spread;
	readonly up: Spread;
	readonly columns: number;
	readonly rows: number;
	readonly positions: Float64Array;
	readonly normals: Float64Array;
	readonly u: Float64Array;
	readonly v: Float64Array;
	/** Rows whose nodes all fall into one point; their first node stands for all. */
	readonly poles: readonly number[];
	/** Lattice coordinates of the nodes that trims made; they come after the others. */
	readonly trimI: Float64Array;
	readonly trimJ: Float64Array;
	/** True length of each course line, in mm. */
	readonly courseLengths: Float64Array;
}

export const MOST_CELLS = 1_000_000;
const POLE = 1e-3;

function middleOf(knots: Float64Array): number {
	return (knots[0]! + knots.at(-1)!) / 2;
}

/**
 * Lengths of the lines in one direction: the belt line in the middle, and, where a largest size has to hold,
 * the longest of a sample.
 */
function lengthsAcross(surface: Surface, by: Spacing['by']): LineLengths {
	const middle = middleOf(surface.knotsV);
	if (by !== 'at most') {
		const belt = lineLength(lengthTable(surface, [middle]), 0);
		return { belt, longest: belt };
	}
	const knots = distinctKnots(surface.knotsV);
	const at = new Set<number>([middle]);
	for (let k = 0; k + 1 < knots.length; k++)
		for (let s = 0; s <= 4; s++) at.add(knots[k]! + (s / 4) * (knots[k + 1]! - knots[k]!));
	const table = lengthTable(surface, [...at]);
	let longest = 0;
	for (let j = 0; j < table.lines; j++) longest = Math.max(longest, lineLength(table, j));
	return { belt: lineLength(table, 0), longest };
}

function parametersByOwn(knots: Float64Array, shares: Float64Array): Float64Array {
	const from = knots[0]!;
	const span = knots.at(-1)! - from;
	return shares.map((share) => from + share * span);
}

function normalise(samples: SurfaceSamples, normals: Float64Array): number[] {
	const { du, dv } = samples;
	const folded: number[] = [];
	for (let k = 0; k < normals.length; k += 3) {
		const x = du[k + 1]! * dv[k + 2]! - du[k + 2]! * dv[k + 1]!;
		const y = du[k + 2]! * dv[k]! - du[k]! * dv[k + 2]!;
		const z = du[k]! * dv[k + 1]! - du[k + 1]! * dv[k]!;
		const size = Math.sqrt(x * x + y * y + z * z);
		if (!(size > 1e-9)) {
			folded.push(k / 3);
			continue;
		}
		normals[k] = x / size;
		normals[k + 1] = y / size;
		normals[k + 2] = z / size;
	}
	return folded;
}

/** Where du × dv vanishes (a pole, a pinched corner), the normal a little further inside stands in. */
function mendNormals(
	surface: Surface,
	u: Float64Array,
	v: Float64Array,
	columns: number,
	folded: readonly number[],
	normals: Float64Array
): void {
	const inside = (t: number, knots: Float64Array) => t + (middleOf(knots) - t) * 1e-4;
	for (const node of folded) {
		const at = [inside(u[node]!, surface.knotsU)];
		const up = [inside(v[Math.floor(node / columns)]!, surface.knotsV)];
		const one = new Float64Array(3);
		if (normalise(evaluateGrid(surface, at, up), one).length) one.set([0, 0, 1]);
		normals.set(one, 3 * node);
	}
}

/**
 * Divide a face into bays and courses.
 *
 * Courses are placed by true length on the belt line (the bay line in the middle of the face), bays by true
 * length on every course line, to 0.1 mm or better.
 * @param at the path of the setting-out clause
 * @throws ProblemError when the counts or sizes cannot be made on this face
 */
export function setOut(face: Face, settingOut: SettingOut, at: string): NodeGrid {
	const { surface } = face;
	const turned = transpose(surface);
	const lengths = {
		across: lengthsAcross(surface, settingOut.across.by),
		up: lengthsAcross(turned, settingOut.up.by)
	};
	if (lengths.across.longest < POLE || lengths.up.longest < POLE)
		refuse(at, `${face.name} has no size to divide`);
	const across: Spread = spread(
		divide(settingOut.across, lengths.across, `${at}/across`, 'bays'),
		lengths.across,
		face.closedAcross
	);
	const up: Spread = spread(
		divide(settingOut.up, lengths.up, `${at}/up`, 'courses'),
		lengths.up,
		face.closedUp
	);
	for (const [one, key, what] of [
		[across, 'across', 'bays'],
		[up, 'up', 'courses']
	] as const)
		if (one.closed && one.steps < 3)
			refuse(`${at}/${key}`, `a closed ring needs at least 3 ${what}; ${one.steps} is too few`, [
				{ label: `3 ${what}`, path: `${at}/${key}`, value: { by: 'count', count: 3 } }
			]);
	if (across.steps * up.steps > MOST_CELLS)
		refuse(
			at,
			`${formatNumber(across.steps)} bays by ${formatNumber(up.steps)} courses make ${formatNumber(across.steps * up.steps)} cells; at most ${formatNumber(MOST_CELLS)} are accepted`
		);

	const columns = across.steps + (across.closed ? 0 : 1);
	const rows = up.steps + (up.closed ? 0 : 1);
	const trueLength = settingOut.along === 'true length';
	const v = new Float64Array(rows);
	const shares = up.division.fractions.subarray(0, rows);
	if (trueLength) parametersAt(lengthTable(turned, [middleOf(surface.knotsU)]), 0, shares, v, 0);
	else v.set(parametersByOwn(surface.knotsV, shares));

	const u = new Float64Array(columns * rows);
	const along = across.division.fractions.subarray(0, columns);
	const table = lengthTable(surface, v);
	const own = parametersByOwn(surface.knotsU, along);
	const courseLengths = new Float64Array(rows);
	const poles: number[] = [];
	for (let j = 0; j < rows; j++) {
		courseLengths[j] = lineLength(table, j);
		if (courseLengths[j]! < POLE) poles.push(j);
		if (trueLength) parametersAt(table, j, along, u, j * columns);
		else u.set(own, j * columns);
	}
	const samples = evaluateRows(surface, u, columns, v);
	const normals = new Float64Array(3 * columns * rows);
	mendNormals(surface, u, v, columns, normalise(samples, normals), normals);
	const none = new Float64Array(0);
	return {
		across,
		up,
		columns,
		rows,
		positions: samples.points,
		normals,
		u,
		v,
		poles,
		trimI: none,
		trimJ: none,
		courseLengths
	};
}

function spread(division: Division, lengths: LineLengths, closed: boolean): Spread {
	return { steps: division.fractions.length - 1, division, lengths, closed };
}
