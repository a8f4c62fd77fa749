import { xmlText } from '../xml';
import { bytesOf } from '../bytes';

/** Texts between two pieces of the file. */
const AT_ONCE = 4000;

/** What stands in the cells of a workbook, each text once: ECMA-376 part 1, 18.4. */
export class Texts {
	private readonly places = new Map<string, number>();

	/** The place of a text among all. */
	placeOf(text: string): number {
		const known = this.places.get(text);
		if (known !== undefined) return known;
		this.places.set(text, this.places.size);
		return this.places.size - 1;
	}

	*xml(): Generator<Uint8Array<ArrayBuffer>> {
		yield bytesOf(
			`<sst xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main" uniqueCount="${this.places.size}">`
		);
		let piece = '';
		let count = 0;
		for (const text of this.places.keys()) {
			piece += `<si><t xml:space="preserve">${xmlText(text)}</t></si>`;
			if (++count % AT_ONCE) continue;
			yield bytesOf(piece);
			piece = '';
		}
		yield bytesOf(`${piece}</sst>`);
	}
}
