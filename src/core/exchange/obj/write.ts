import type { Model } from '../../cladding/model';
import { Bytes } from '../bytes';
import { bodiesOf, madePieces } from '../piece-bodies';

/** Names in this format end at a space. */
const nameOf = (text: string) => text.trim().replace(/\s+/g, '_');

/**
 * All pieces as meshes: an object for each, called by its mark, with a group and a material for each of its elements.
 * In millimetres, z up, which the format cannot say: its first line does.
 */
export function writeObj(model: Model): readonly Uint8Array<ArrayBuffer>[] {
	const bytes = new Bytes();
	bytes.text(`# ${nameOf(model.project.name)}: millimetres, z up\n`);
	let first = 1;
	for (const { clause, row, mark, origin } of madePieces(model)) {
		const { elements, materials } = clause.group.ready;
		bytes.text(`o ${nameOf(mark)}\n`);
		for (const { element, places, triangles } of bodiesOf(clause, row)) {
			const called = `g ${nameOf(elements[element]!.label)}\nusemtl ${nameOf(materials[element]!.label)}\n`;
			bytes.text(called);
			for (let k = 0; k < places.length; k++) {
				bytes.text(k % 3 ? ' ' : 'v ');
				bytes.number(places[k]! + origin[k % 3]!, 3);
				if (k % 3 === 2) bytes.text('\n');
			}
			for (let t = 0; t < triangles.length; t++) {
				bytes.text(t % 3 ? ' ' : 'f ');
				bytes.count(first + triangles[t]!);
				if (t % 3 === 2) bytes.text('\n');
			}
			first += places.length / 3;
		}
	}
	return bytes.all();
}
