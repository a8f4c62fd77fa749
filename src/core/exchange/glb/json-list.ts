import { Bytes } from '../bytes';

/** A list of a JSON file that is written item by item, as bytes: there are hundreds of thousands of nodes. */
export class JsonList {
	private readonly bytes = new Bytes();
	private last = -1;

	constructor(readonly name: string) {}

	/** What the next item is written with; it is begun. */
	next(): Bytes {
		if (++this.last) this.bytes.text(',');
		return this.bytes;
	}

	/** @returns its place in the list */
	add(item: string): number {
		this.next().text(item);
		return this.last;
	}

	/** The place of the item that was begun last. */
	get at(): number {
		return this.last;
	}

	/** As a member of an object; nothing when it is empty, which the format does not allow. Nothing is added after it. */
	member(): readonly Uint8Array[] {
		if (this.last < 0) return [];
		const all = new Bytes();
		all.text(`"${this.name}":[`);
		return [...all.all(), ...this.bytes.all(), new Uint8Array([CLOSE])];
	}
}
const CLOSE = 0x5d;
