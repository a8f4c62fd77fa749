import { latticeOf } from '../grid/lattice';
import type { FaceModel, ZoneModel } from '../cladding/model';
import { markPrefix } from './marks';
import { outlineOf } from '../pattern/cells';

/** A setting-out point. mm; the normal has length 1 and points outside. */
export interface NodeRow {
	readonly node: number;
	readonly mark: string;
	/** zone/face/N/course line/bay line; further points of a trim or pattern are counted. */
	readonly address: string;
	/** Lines count from 1, from the left and the foot; points between have none. */
	readonly course: number | null;
	readonly bay: number | null;
	readonly point: readonly [number, number, number];
	readonly normal: readonly [number, number, number];
}

const two = (n: number) => String(n).padStart(2, '0');
const triple = (list: Float64Array, k: number) => [list[3 * k]!, list[3 * k + 1]!, list[3 * k + 2]!] as const;

/** The points of a face that its cells hang on, course line by course line. */
export function nodeRows(zone: ZoneModel, f: number): NodeRow[] {
	const face: FaceModel = zone.faces[f]!;
	const { grid, cells } = face;
	const own = grid.columns * grid.rows;
	const used = new Set<number>(outlineOf(cells).nodes);
	return [...used]
		.sort((a, b) => a - b)
		.map((node): NodeRow => {
			const [i, j] = latticeOf(grid, node);
			const between = node >= own;
			const name = between ? `X${node - own + 1}` : `C${two(j + 1)}/B${two(i + 1)}`;
			return {
				node,
				mark: `${markPrefix(zone.zone.code, zone.faces.length, f)}-N-${name.replace('/', '-')}`,
				address: `${zone.zone.id}/${face.address}/N/${name}`,
				course: between ? null : j + 1,
				bay: between ? null : i + 1,
				point: triple(grid.positions, node),
				normal: triple(grid.normals, node)
			};
		});
}
