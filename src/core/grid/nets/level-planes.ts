import { evaluateGrid, type Surface } from '../../geometry/surface';
import { scale, type Vector } from '../../geometry/vector';
import { refuse } from '../../units/problem';
import type { Belt } from '../belt';
import type { NodeNet, Spread } from '../node-grid';

/** Places looked at along every course and up every bay line. */
const ACROSS = 256;
const UP = 128;
const ROUNDS = 50;
/** mm */
const SAME_HEIGHT = 1e-6;

/** How far points are along a direction. */
const heightAlong = (points: Float64Array, k: number, [x, y, z]: Vector) =>
	x * points[3 * k]! + y * points[3 * k + 1]! + z * points[3 * k + 2]!;

/** The height of a surface along a direction, and where its lines up cross a height. */
class Heights {
	private readonly vs: number[];

	constructor(
		private readonly surface: Surface,
		private readonly up: Vector
	) {
		const { knotsV } = surface;
		this.vs = Array.from({ length: UP + 1 }, (_, k) => knotsV[0]! + (k / UP) * (knotsV.at(-1)! - knotsV[0]!));
	}

	private z(u: number, v: number): number {
		return heightAlong(evaluateGrid(this.surface, [u], [v]).points, 0, this.up);
	}

	/** Where the line up at u comes to a height first, and whether it does. */
	crossing(u: number, height: number): { v: number; meets: boolean } {
		const { points } = evaluateGrid(this.surface, [u], this.vs);
		const z = (k: number) => heightAlong(points, k, this.up);
		if (height <= z(0) + SAME_HEIGHT)
			return { v: this.vs[0]!, meets: Math.abs(height - z(0)) <= SAME_HEIGHT };
		for (let k = 0; k < UP; k++) {
			if (z(k + 1) < height) continue;
			let [low, high] = [this.vs[k]!, this.vs[k + 1]!];
			for (let round = 0; round < ROUNDS; round++) {
				const middle = (low + high) / 2;
				if (this.z(u, middle) < height) low = middle;
				else high = middle;
			}
			return { v: (low + high) / 2, meets: true };
		}
		return { v: this.vs.at(-1)!, meets: Math.abs(height - z(UP)) <= SAME_HEIGHT };
	}
}

/**
 * Course lines where level planes, or others of one direction, cut the face, bays by even true length along each of them. Where a plane
 * runs out over the foot or the head, its nodes lie on that rim, and further ones are left out.
 * @throws ProblemError when the face does not rise
 */
export function levelPlaneNet(
	surface: Surface,
	{ across, up }: { across: Spread; up: Spread },
	belts: { up: Belt },
	direction: Vector,
	at: string
): NodeNet {
	const size = Math.hypot(...direction);
	if (!(size > 1e-9)) refuse(`${at}/planes`, 'the direction of the planes is nothing; give it a length');
	const upward = scale(direction, 1 / size);
	const { knotsU } = surface;
	const columns = across.steps + (across.closed ? 0 : 1);
	const rows = up.steps + 1;
	const middle = (knotsU[0]! + knotsU.at(-1)!) / 2;
	const lines = belts.up.parameters(up.division.fractions);
	const wanted = lines.map((v) => heightAlong(evaluateGrid(surface, [middle], [v]).points, 0, upward));
	for (let j = 1; j < rows; j++)
		if (!(wanted[j]! > wanted[j - 1]! + SAME_HEIGHT) || up.closed)
			refuse(
				`${at}/along`,
				'the planes need a face that rises through them all the way from its foot to its head; turn them, or choose another way to measure'
			);
	const heights = new Heights(surface, upward);
	const us = Array.from(
		{ length: ACROSS + 1 },
		(_, k) => knotsU[0]! + (k / ACROSS) * (knotsU.at(-1)! - knotsU[0]!)
	);
	const u = new Float64Array(columns * rows);
	const v = new Float64Array(columns * rows);
	const meets = new Uint8Array(columns * rows);
	for (let j = 0; j < rows; j++) {
		const end = j === 0 ? surface.knotsV[0]! : j === rows - 1 ? surface.knotsV.at(-1)! : null;
		const on = (t: number) => (end === null ? heights.crossing(t, wanted[j]!) : { v: end, meets: true });
		const line = us.map((t) => {
			const { points } = evaluateGrid(surface, [t], [on(t).v]);
			return [points[0]!, points[1]!, points[2]!] as const;
		});
		const upTo = [0];
		for (let k = 1; k <= ACROSS; k++) {
			const [a, b] = [line[k - 1]!, line[k]!];
			upTo.push(upTo[k - 1]! + Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2]));
		}
		for (let i = 0, k = 0; i < columns; i++) {
			const length = across.division.fractions[i]! * upTo[ACROSS]!;
			while (k < ACROSS - 1 && upTo[k + 1]! < length) k++;
			const step = upTo[k + 1]! - upTo[k]!;
			const share = step > 0 ? (length - upTo[k]!) / step : 0;
			const node = j * columns + i;
			u[node] = us[k]! + share * (us[k + 1]! - us[k]!);
			const found = on(u[node]!);
			v[node] = found.v;
			meets[node] = found.meets ? 1 : 0;
		}
	}
	return { columns, rows, u, v, absent: beyondRims(meets, columns, rows), open: false };
}

/** Of the nodes that lie on a rim because their plane runs out, all but the ones next to the face. */
function beyondRims(meets: Uint8Array, columns: number, rows: number): Uint8Array | null {
	const absent = new Uint8Array(columns * rows);
	for (let i = 0; i < columns; i++) {
		const at = (j: number) => meets[j * columns + i] === 1;
		let low = 1;
		let high = rows - 2;
		while (low < rows - 1 && !at(low)) low++;
		while (high > 0 && !at(high)) high--;
		// The first and the last row are the rims themselves.
		for (let j = 1; j < low; j++) absent[j * columns + i] = 1;
		for (let j = high + 1; j < rows - 1; j++) absent[j * columns + i] = 1;
	}
	return absent.includes(1) ? absent : null;
}
