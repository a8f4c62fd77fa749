import type { Surface } from '../../geometry/surface';
import { lengthTable, lineLength, parametersAt } from '../../geometry/true-length';
import type { SettingOut } from '../../project/setting-out-schema';
import type { Belt } from '../belt';
import type { NodeNet, Spread } from '../node-grid';

/** Shares of a line moved on by so much; on a ring those past the seam start anew. */
interface Turned {
	/** Ascending shares up to the seam, and from it. */
	readonly runs: readonly Float64Array[];
}

/** @param turn share of the ring by which its lines are moved on */
function turned(shares: Float64Array, turn: number): Turned {
	if (turn === 0) return { runs: [shares] };
	const moved = shares.map((share) => share + turn);
	const seam = moved.findIndex((share) => share >= 1);
	if (seam < 0) return { runs: [moved] };
	return { runs: [moved.subarray(0, seam), moved.subarray(seam).map((share) => share - 1)] };
}

/** Parameters of lines, on a ring running on over its seam. */
function parametersOf(
	{ runs }: Turned,
	period: number,
	at: (shares: Float64Array) => Float64Array
): Float64Array {
	const parts = runs.map((run, k) => at(run).map((t) => t + k * period));
	const all = new Float64Array(parts.reduce((sum, part) => sum + part.length, 0));
	let o = 0;
	for (const part of parts) {
		all.set(part, o);
		o += part.length;
	}
	return all;
}

const span = (knots: Float64Array) => knots.at(-1)! - knots[0]!;
const byOwn = (knots: Float64Array) => (shares: Float64Array) =>
	shares.map((share) => knots[0]! + share * span(knots));

/** The share of a ring by which a shift turns its lines, 0 up to 1. */
function turnBy(shift: number, { closed, lengths }: Spread): number {
	if (!closed) return 0;
	const share = shift / lengths.belt;
	return share - Math.floor(share);
}

/** Nodes where bay lines and course lines meet: courses placed along the belt, bays along every course. */
export function lineNet(
	surface: Surface,
	settingOut: SettingOut,
	{ across, up }: { across: Spread; up: Spread },
	belts: { across: Belt; up: Belt }
): NodeNet {
	const { knotsU, knotsV } = surface;
	const columns = across.steps + (across.closed ? 0 : 1);
	const rows = up.steps + (up.closed ? 0 : 1);
	const own = (by: string) => settingOut.along === 'own parameter' || by === 'parameters';
	const upShares = turned(up.division.fractions.subarray(0, rows), turnBy(settingOut.shift[1], up));
	const low = belts.up.parameters([0])[0]!;
	const high = belts.up.parameters([1])[0]!;
	const v = parametersOf(
		upShares,
		span(knotsV),
		own(settingOut.up.by)
			? (shares) => shares.map((share) => low + share * (high - low))
			: (shares) => belts.up.parameters(shares)
	);
	const shares = turned(across.division.fractions.subarray(0, columns), turnBy(settingOut.shift[0], across));
	const u = new Float64Array(columns * rows);
	let even: NodeNet['even'];
	if (own(settingOut.across.by) || settingOut.along === 'belt line') {
		const row = parametersOf(
			shares,
			span(knotsU),
			own(settingOut.across.by) ? byOwn(knotsU) : (run) => belts.across.parameters(run)
		);
		for (let j = 0; j < rows; j++) u.set(row, j * columns);
	} else {
		const at = v.map((t) => (t > knotsV.at(-1)! ? t - span(knotsV) : t));
		const table = lengthTable(surface, at);
		even = {
			across: parametersOf(shares, 1, (run) => run),
			up: parametersOf(upShares, 1, (run) => run).map((share) => share * up.lengths.belt),
			courseLengths: Float64Array.from(at, (_, j) => lineLength(table, j))
		};
		for (let j = 0; j < rows; j++) {
			let o = j * columns;
			shares.runs.forEach((run, k) => {
				parametersAt(table, j, run, u, o);
				if (k) for (let n = o; n < o + run.length; n++) u[n]! += span(knotsU);
				o += run.length;
			});
		}
	}
	const each = new Float64Array(columns * rows);
	for (let j = 0; j < rows; j++) each.fill(v[j]!, j * columns, (j + 1) * columns);
	return {
		columns,
		rows,
		u,
		v: each,
		absent: null,
		rims: null,
		open: false,
		...(even && !own(settingOut.up.by) && { even })
	};
}
