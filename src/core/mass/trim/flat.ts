import type { Place } from '../../geometry/polygon';
import { transpose } from '../../geometry/surface';
import { lengthTable, lineLength, parametersAt } from '../../geometry/true-length';
import type { TrimmedFace } from './trim';

/**
 * Places of a face for places on it laid flat: x mm to the right of its middle line by the true length of
 * the line at that height, y mm up from its foot by the true length of the middle line. Beyond its rims the
 * face is taken to go on as it ends there.
 */
export function flatPlaces({ surface, closedAcross }: TrimmedFace): (flat: Place) => Place {
	const { knotsU, knotsV } = surface;
	const belt = lengthTable(transpose(surface), [(knotsU[0]! + knotsU.at(-1)!) / 2]);
	const height = lineLength(belt, 0);
	const period = knotsU.at(-1)! - knotsU[0]!;
	const rise = knotsV.at(-1)! - knotsV[0]!;
	const one = new Float64Array(1);
	// Points that follow one another often lie at one height.
	let last = { v: NaN, line: belt };
	return ([x, y]) => {
		const up = y / height;
		const heldUp = Math.min(1, Math.max(0, up));
		parametersAt(belt, 0, [heldUp], one, 0);
		const v = one[0]!;
		if (v !== last.v) last = { v, line: lengthTable(surface, [v]) };
		const { line } = last;
		const size = lineLength(line, 0);
		const share = 0.5 + (size > 0 ? x / size : 0);
		const turns = closedAcross ? Math.floor(share) : 0;
		const held = Math.min(1, Math.max(0, share - turns));
		parametersAt(line, 0, [held], one, 0);
		return [one[0]! + (share - held) * period, v + (up - heldUp) * rise];
	};
}
