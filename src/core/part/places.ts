import { MAP, type ElementTable } from './element-table';
import { placesUnder } from './evaluate/fit-loop';

/** x y z of the vertices of one instance (mm from the run's origin). Good until the next call. */
export function placesOf(
	{ vertices, verticesEach }: Pick<ElementTable, 'vertices' | 'verticesEach'>,
	instance: number
): Float32Array {
	if (vertices.is === 'fitted')
		return placesUnder(vertices.unit, vertices.maps.subarray(MAP * instance, MAP * (instance + 1)));
	const values = 3 * verticesEach;
	return vertices.positions.subarray(values * instance, values * (instance + 1));
}
