import type { Model } from '../../cladding/model';
import { Bytes, bytesOf } from '../bytes';
import { bodiesOf, madePieces } from '../piece-bodies';

/** Of a line. */
const ROOM = 1000;
/** Names in this format end at a space. */
const nameOf = (text: string) => text.trim().replace(/\s+/g, '_');

/**
 * All pieces as meshes: an object for each, called by its mark, with a group and a material for each of its elements.
 * In millimetres, z up, which the format cannot say: its first line does.
 */
export function writeObj(model: Model): readonly Uint8Array<ArrayBuffer>[] {
	const bytes = new Bytes(ROOM);
	const pieces: Uint8Array<ArrayBuffer>[] = [];
	const full = () => {
		if (bytes.isFull) pieces.push(bytes.take());
	};
	bytes.put(bytesOf(`# ${nameOf(model.project.name)}: millimetres, z up\n`));
	let first = 1;
	for (const { clause, row, mark, origin } of madePieces(model)) {
		const { elements, materials } = clause.group.ready;
		full();
		bytes.put(bytesOf(`o ${nameOf(mark)}\n`));
		for (const { element, places, triangles } of bodiesOf(clause, row)) {
			const called = `g ${nameOf(elements[element]!.label)}\nusemtl ${nameOf(materials[element]!.label)}\n`;
			bytes.put(bytesOf(called));
			for (let k = 0; k < places.length; k++) {
				bytes.plain(k % 3 ? ' ' : 'v ');
				bytes.number(Math.round(1000 * (places[k]! + origin[k % 3]!)) / 1000);
				if (k % 3 < 2) continue;
				bytes.plain('\n');
				full();
			}
			for (let t = 0; t < triangles.length; t++) {
				bytes.plain(t % 3 ? ' ' : 'f ');
				bytes.count(first + triangles[t]!);
				if (t % 3 < 2) continue;
				bytes.plain('\n');
				full();
			}
			first += places.length / 3;
		}
	}
	pieces.push(bytes.take());
	return pieces;
}
