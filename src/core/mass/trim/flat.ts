import type { Place } from '../../geometry/polygon';
import { transpose } from '../../geometry/surface';
import { lengthTable, lineLength, parametersAt } from '../../geometry/true-length';
import { refuse } from '../../units/problem';
import { formatNumber } from '../../units/quantity';
import type { TrimmedFace } from './trim';

/**
 * Places of a face for places on it laid flat: x mm to the right of its middle line by the true length of
 * the line at that height, y mm up from its foot by the true length of the middle line.
 * @returns @throws ProblemError when one lies beside the face
 */
export function flatPlaces(face: TrimmedFace, at: string): (flat: Place) => Place {
	const { surface, closedAcross } = face;
	const { knotsU } = surface;
	const belt = lengthTable(transpose(surface), [(knotsU[0]! + knotsU.at(-1)!) / 2]);
	const height = lineLength(belt, 0);
	const period = knotsU.at(-1)! - knotsU[0]!;
	const one = new Float64Array(1);
	return ([x, y]) => {
		const beside = () =>
			refuse(
				at,
				`it leaves ${face.name} ${formatNumber(Math.round(x))} mm from its middle line, ${formatNumber(Math.round(y))} mm up; move it or make it smaller`
			);
		if (y < 0 || y > height) beside();
		parametersAt(belt, 0, [y / height], one, 0);
		const v = one[0]!;
		const line = lengthTable(surface, [v]);
		const size = lineLength(line, 0);
		const share = 0.5 + (size > 0 ? x / size : 0);
		const turns = closedAcross ? Math.floor(share) : 0;
		if (!closedAcross && (share < 0 || share > 1)) beside();
		parametersAt(line, 0, [share - turns], one, 0);
		return [one[0]! + turns * period, v];
	};
}
