import { evaluateGrid, type Surface } from '../geometry/surface';
import type { Face } from '../mass/face';
import { isWithin } from '../mass/trim';
import { areApart, boxOf, clipConvex, type Place } from '../pattern/clip-convex';

/** A piece of a step of a parameter grid, counter-clockwise. */
export interface KeptPiece {
	readonly places: readonly Place[];
	/** The step itself, uncut: from column i and row j. */
	readonly whole: boolean;
	readonly i: number;
	readonly j: number;
}

/** What trims leave of every step of a grid of parameters. */
export function keptPieces(face: Face, us: readonly number[], vs: readonly number[]): KeptPiece[] {
	const { knotsU } = face.surface;
	const period = knotsU.at(-1)! - knotsU[0]!;
	const shifts = face.closedAcross ? [-period, 0, period] : [0];
	const curves = face.trims.flatMap(({ loop }, trim) =>
		shifts.map((shift) => {
			const places = loop.map(([u, v]): Place => [u + shift, v]);
			return { trim, places, box: boxOf(places) };
		})
	);
	const pieces: KeptPiece[] = [];
	for (let j = 0; j + 1 < vs.length; j++)
		for (let i = 0; i + 1 < us.length; i++) {
			const step: Place[] = [
				[us[i]!, vs[j]!],
				[us[i + 1]!, vs[j]!],
				[us[i + 1]!, vs[j + 1]!],
				[us[i]!, vs[j + 1]!]
			];
			const near = curves.filter(({ box }) => !areApart(box, boxOf(step)));
			const clipped = clipConvex(
				step,
				near.map((curve) => curve.places)
			);
			if (!clipped.untouched) {
				for (const { corners } of clipped.pieces)
					pieces.push({
						places: corners.map((corner) => {
							if (corner.is === 'cell') return step[corner.corner]!;
							return corner.is === 'curve' ? near[corner.curve]!.places[corner.k]! : corner.at;
						}),
						whole: false,
						i,
						j
					});
				continue;
			}
			const middle: Place = [(us[i]! + us[i + 1]!) / 2, (vs[j]! + vs[j + 1]!) / 2];
			const kept = face.trims.every(({ keep }, t) => {
				const inside = curves.some((curve) => curve.trim === t && isWithin(curve.places, middle));
				return inside === (keep === 'inside');
			});
			if (kept) pieces.push({ places: step, whole: true, i, j });
		}
	return pieces;
}

const STEPS = 96;

function stretchAt(surface: Surface, [u, v]: Place): number {
	const held = (t: number, knots: Float64Array) => Math.min(knots.at(-1)!, Math.max(knots[0]!, t));
	const { du, dv } = evaluateGrid(surface, [held(u, surface.knotsU)], [held(v, surface.knotsV)]);
	return Math.hypot(
		du[1]! * dv[2]! - du[2]! * dv[1]!,
		du[2]! * dv[0]! - du[0]! * dv[2]!,
		du[0]! * dv[1]! - du[1]! * dv[0]!
	);
}

/** Area of a trimmed face (mm²): pieces of a fine grid, each by its middle; exact on a plane. */
export function trimmedArea(face: Face): number {
	const steps = (knots: Float64Array) =>
		Array.from({ length: STEPS + 1 }, (_, k) => knots[0]! + (k / STEPS) * (knots.at(-1)! - knots[0]!));
	const { surface } = face;
	let sum = 0;
	for (const { places } of keptPieces(face, steps(surface.knotsU), steps(surface.knotsV))) {
		let area = 0;
		let [x, y] = [0, 0];
		places.forEach((p, k) => {
			const q = places[(k + 1) % places.length]!;
			const part = p[0] * q[1] - q[0] * p[1];
			area += part / 2;
			x += ((p[0] + q[0]) * part) / 6;
			y += ((p[1] + q[1]) * part) / 6;
		});
		sum += area * stretchAt(surface, [x / area, y / area]);
	}
	return sum;
}
