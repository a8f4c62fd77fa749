import { Bytes, bytesOf } from '../bytes';
import { real, type StepValue } from './text';

/** The longest text that is put at once; longer ones are a piece of the file by themselves. */
const ROOM = 1 << 16;
const DECIMALS = 3;

/**
 * Writes entity instances one after the other as they come; each gets the next number and is referred to as `#n`. What
 * was written is kept as bytes: as texts, a file of a building took several times the memory that it has.
 */
export class StepWriter {
	private readonly bytes = new Bytes(2 * ROOM);
	private readonly pieces: Uint8Array<ArrayBuffer>[] = [];
	private last = 0;
	private readonly shared = new Map<string, StepValue>();

	/** @param header lines of it, each with its end */
	constructor(header: readonly string[]) {
		this.put(['ISO-10303-21;', 'HEADER;', ...header, 'ENDSEC;', 'DATA;', ''].join('\n'));
	}

	private put(text: string): void {
		if (this.bytes.isFull) this.pieces.push(this.bytes.take());
		if (text.length <= ROOM) this.bytes.plain(text);
		else this.pieces.push(this.bytes.take(), bytesOf(text));
	}

	private begin(): StepValue {
		const id = `#${++this.last}`;
		this.put(id);
		this.bytes.plain('=');
		return id;
	}

	add(entity: string, ...attributes: readonly StepValue[]): StepValue {
		const id = this.begin();
		let letters = entity.length;
		for (let k = 0; k < attributes.length; k++) letters += attributes[k]!.length;
		if (letters + attributes.length > ROOM) this.put(`${entity}(${attributes.join(',')});\n`);
		else {
			const { bytes } = this;
			bytes.plain(entity);
			for (let k = 0; k < attributes.length; k++) {
				bytes.plain(k ? ',' : '(');
				bytes.plain(attributes[k]!);
			}
			bytes.plain(attributes.length ? ');\n' : '();\n');
		}
		return id;
	}

	/** An instance whose only attribute is a list of points. @param places flat, so many numbers of each (mm) */
	addPoints(entity: string, places: ArrayLike<number>, each: 2 | 3): StepValue {
		const id = this.begin();
		this.put(entity);
		for (let k = 0; k < places.length; k++) {
			this.put(k % each ? ',' : k ? '),(' : '(((');
			if (!this.bytes.real(places[k]!, DECIMALS)) this.put(real(places[k]!, DECIMALS));
		}
		this.put(')));\n');
		return id;
	}

	/** An instance of a list of a few numbers. @param name before it, where the entity has one */
	addTuple(entity: string, values: readonly number[], decimals: number, name?: StepValue): StepValue {
		const id = this.begin();
		this.put(entity);
		this.put(name === undefined ? '(' : `(${name},`);
		for (let k = 0; k < values.length; k++) {
			this.put(k ? ',' : '(');
			if (!this.bytes.real(values[k]!, decimals)) this.put(real(values[k]!, decimals));
		}
		this.put('));\n');
		return id;
	}

	/** An instance of several types at once. */
	addComplex(...records: readonly string[]): StepValue {
		const id = this.begin();
		this.put(`(${records.join(' ')});\n`);
		return id;
	}

	/** The same instance for the same entity and attributes. */
	once(entity: string, ...attributes: readonly StepValue[]): StepValue {
		return this.known(`${entity}(${attributes.join(',')})`, () => this.add(entity, ...attributes));
	}

	/** The same instance of several types for the same records. */
	onceComplex(...records: readonly string[]): StepValue {
		return this.known(records.join(' '), () => this.addComplex(...records));
	}

	private known(key: string, make: () => StepValue): StepValue {
		const known = this.shared.get(key);
		if (known) return known;
		const id = make();
		this.shared.set(key, id);
		return id;
	}

	/** The file in the pieces that it was written in: as one it would take its room twice. Nothing is added after it. */
	file(): readonly Uint8Array<ArrayBuffer>[] {
		this.put('ENDSEC;\nEND-ISO-10303-21;\n');
		this.pieces.push(this.bytes.take());
		return this.pieces;
	}
}
