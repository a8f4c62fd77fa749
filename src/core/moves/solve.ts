import type { Steps } from '../units/steps';
import { Rows } from './least-squares';
import { place, type Network } from './network';

/** What is wanted of the nodes of a net. */
export interface Wanted {
	/** Write what is still amiss where all nodes are (mm), as rows. */
	/** @param values of all columns: moves of nodes (mm, flat x y z), and behind them whatever else is looked for */
	write(positions: Float64Array, values: Float64Array, rows: Rows): void;
	/** Whether it is good enough as it is. */
	enough(positions: Float64Array, values: Float64Array): boolean;
	/** How many columns there are behind those of the nodes. */
	readonly more: number;
	readonly rounds: number;
	/** How many steps are taken within each of them at most. */
	readonly inner: number;
	/** Two rounds that bring less than this share are the last. */
	readonly hardly: number;
}

/** How much staying near counts against what is wanted: at first, at last, and where no step helps any more. */
const NEAR = { first: 1e-2, least: 1e-9, most: 1e2 };

/** Cut every move to its bound. */
function bound(offsets: Float64Array, nodes: number, most: number): void {
	for (let at = 0; at < 3 * nodes; at += 3) {
		const far = Math.hypot(offsets[at]!, offsets[at + 1]!, offsets[at + 2]!);
		if (far > most) for (let a = 0; a < 3; a++) offsets[at + a]! *= most / far;
	}
}

/** A node that has gone this share of its way is at the bound. */
const AT_BOUND = 1 - 1e-9;

/**
 * What is taken out of every step: coordinates that are kept, and of nodes at their bound that would go further out the
 * way outward; along the bound they may go.
 * @param uphill where what is amiss grows
 */
function projection(
	{ free, variables }: Network,
	offsets: Float64Array,
	uphill: Float64Array,
	most: number
): (step: Float64Array) => void {
	const outward: number[] = [];
	const ways: number[] = [];
	for (let at = 0; at < 3 * variables; at += 3) {
		const way = [0, 1, 2].map((a) => (free[at + a] ? offsets[at + a]! : 0));
		const far = Math.hypot(...way);
		if (far < most * AT_BOUND || !(far > 0)) continue;
		const out = way.reduce((sum, value, a) => sum - value * uphill[at + a]!, 0);
		if (out <= 0) continue;
		outward.push(at);
		ways.push(...way.map((value) => value / far));
	}
	return (step) => {
		for (let at = 0; at < 3 * variables; at++) if (!free[at]) step[at] = 0;
		for (let k = 0; k < outward.length; k++) {
			const at = outward[k]!;
			let along = 0;
			for (let a = 0; a < 3; a++) along += ways[3 * k + a]! * step[at + a]!;
			for (let a = 0; a < 3; a++) step[at + a]! -= along * ways[3 * k + a]!;
		}
	};
}

/**
 * Move nodes so that what is amiss becomes least (Levenberg and Marquardt's way: Nocedal and Wright, Numerical
 * Optimization, 10.3; from memory), none further than a bound from where it was.
 * @param from offsets to begin with (mm, flat x y z), which stay as they are
 * @returns in steps: the share that is done at most, and the offsets at last
 */
export function* solve(
	network: Network,
	wanted: Wanted,
	most: number,
	from: Float64Array
): Steps<Float64Array> {
	const count = 3 * network.variables;
	let offsets: Float64Array = new Float64Array(count + wanted.more);
	offsets.set(from);
	let positions = new Float64Array(network.base.length);
	let rows = new Rows();
	let [nextPositions, nextRows] = [positions.slice(), new Rows()];
	place(network, offsets, positions);
	wanted.write(positions, offsets, rows);
	let near = NEAR.first;
	let lasting = 0;
	for (let round = 0; round < wanted.rounds && !wanted.enough(positions, offsets); round++) {
		yield round / wanted.rounds;
		const project = projection(network, offsets, rows.gradient(offsets.length), most);
		const step = rows.step(offsets, near, project, wanted.inner);
		const next = step.map((value, k) => offsets[k]! + value);
		bound(next, network.variables, most);
		place(network, next, nextPositions);
		nextRows.clear();
		wanted.write(nextPositions, next, nextRows);
		const [before, after] = [rows.energy(), nextRows.energy()];
		if (!(after < before)) {
			near *= 10;
			if (near > NEAR.most) break;
			continue;
		}
		near = Math.max(NEAR.least, near / 4);
		offsets = next;
		[positions, nextPositions] = [nextPositions, positions];
		[rows, nextRows] = [nextRows, rows];
		lasting = after > before * (1 - wanted.hardly) ? lasting + 1 : 0;
		if (lasting === 2) break;
	}
	return offsets.slice(0, count);
}
