import { formatNumber } from '../../units/quantity';
import { CodedError } from '../../units/coded-error';

/** Triangles as a file has them: three corners each, not yet joined. */
export interface Triangles {
	/** x y z of every corner, x to the right, y up and z towards who looks at it; any unit. */
	readonly corners: Float64Array;
}

/** A file of a mesh that cannot be taken, in words. */
export class MeshFault extends CodedError {
	readonly code = 'file.mesh';
}

/** What has z up, seen from the south (−y): as most files of solids have it. */
export function standing(corners: Float64Array): Triangles {
	const turned = new Float64Array(corners.length);
	for (let k = 0; k < corners.length; k += 3) turned.set([corners[k]!, corners[k + 2]!, -corners[k + 1]!], k);
	return { corners: turned };
}

/** @throws MeshFault when there are more triangles than are taken */
export function refuseMany(count: number, most: number): void {
	if (count > most)
		throw new MeshFault(
			`it has ${formatNumber(count)} triangles; a block has at most ${formatNumber(most)}. Simplify it first`
		);
}
