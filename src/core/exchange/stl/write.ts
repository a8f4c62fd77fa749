import type { Model } from '../../cladding/model';
import { triangleCount } from '../../part/places';
import { bodiesOf, madePieces } from '../piece-bodies';

const HEADER = 80;
/** A normal, three corners, and two bytes that mean nothing. */
const FACET = 50;

/**
 * All bodies as triangles: binary STL, in millimetres, z up. The format has no units and no names: its header says so.
 */
export function writeStl(model: Model): Uint8Array<ArrayBuffer> {
	let count = 0;
	for (const { model: zone } of model.zones)
		for (const { group } of zone?.groups ?? [])
			for (const table of group.run.elements) count += triangleCount(table);
	const file = new Uint8Array(HEADER + 4 + FACET * count);
	file.set(new TextEncoder().encode('Zygaster: millimetres, z up'));
	const view = new DataView(file.buffer);
	view.setUint32(HEADER, count, true);
	let at = HEADER + 4;
	const corner = new Float64Array(9);
	for (const { clause, row, origin } of madePieces(model))
		for (const { places, triangles } of bodiesOf(clause, row))
			for (let t = 0; t < triangles.length; t += 3) {
				for (let k = 0; k < 9; k++)
					corner[k] = places[3 * triangles[t + Math.floor(k / 3)]! + (k % 3)]! + origin[k % 3]!;
				const [ax, ay, az] = [corner[3]! - corner[0]!, corner[4]! - corner[1]!, corner[5]! - corner[2]!];
				const [bx, by, bz] = [corner[6]! - corner[0]!, corner[7]! - corner[1]!, corner[8]! - corner[2]!];
				const [nx, ny, nz] = [ay * bz - az * by, az * bx - ax * bz, ax * by - ay * bx];
				const size = Math.hypot(nx, ny, nz) || 1;
				view.setFloat32(at, nx / size, true);
				view.setFloat32(at + 4, ny / size, true);
				view.setFloat32(at + 8, nz / size, true);
				for (let k = 0; k < 9; k++) view.setFloat32(at + 12 + 4 * k, corner[k]!, true);
				at += FACET;
			}
	return file;
}
