import { makeBvh, type Bvh } from '../geometry/bvh';
import type { Face } from '../mass/face';
import { sampleFace } from '../measure/face-shape';
import type { SunnedPlaces } from './direct-hours';
import type { CellMeasures } from '../measure/cell-measures';

/** Shade is thrown by meshes of about so many steps across and up: chords of them lie nearer to a face than cells do. */
const STEPS = 24;

/**
 * All that throws shade: the faces of masses as they stand, openings left open.
 *
 * ```ts
 * const bvh = shadeOf([face]);
 * ```
 */
export function shadeOf(faces: readonly Face[]): Bvh {
	const sampled = faces.map((face) => sampleFace(face, STEPS));
	const points = new Float64Array(sampled.reduce((sum, { samples }) => sum + samples.points.length, 0));
	const index = new Uint32Array(sampled.reduce((sum, { triangles }) => sum + triangles.length, 0));
	let [p, t] = [0, 0];
	for (const { samples, triangles } of sampled) {
		points.set(samples.points, p);
		for (const corner of triangles) index[t++] = corner + p / 3;
		p += samples.points.length;
	}
	return makeBvh(points, index);
}

/** Cells lie on chords of a bent face, up to a share of their own size behind it; they are tried from before it. */
const BEFORE_SHARE = 0.05;
const LEAST_BEFORE = 10;

/**
 * The middles of cells, as the sun falls on them.
 *
 * ```ts
 * const { before } = sunnedCells(faceModel.measures); // 5 % of a cell's size before its face
 * ```
 */
export const sunnedCells = ({ centre, normal, area }: CellMeasures): SunnedPlaces => ({
	middles: centre,
	normals: normal,
	before: area.map((size) => Math.max(LEAST_BEFORE, BEFORE_SHARE * Math.sqrt(size)))
});
