import { Bytes } from '../bytes';
import { real, told, type StepRef, type StepValue } from './text';

const DECIMALS = 3;

/**
 * Writes entity instances one after the other as they come; each gets the next number. What was written is kept as
 * bytes, and what a file has a million times becomes bytes without a text for it: as texts, a file of a building took
 * several times the memory and the time.
 */
export class StepWriter {
	private readonly bytes = new Bytes();
	private last: StepRef = 0;
	private readonly shared = new Map<string, StepRef>();

	/** @param header lines of it, each with its end */
	constructor(header: readonly string[]) {
		this.bytes.text(['ISO-10303-21;', 'HEADER;', ...header, 'ENDSEC;', 'DATA;', ''].join('\n'));
	}

	private value(value: StepValue): void {
		if (typeof value === 'string') this.bytes.text(value);
		else if (typeof value === 'number') {
			this.bytes.text('#');
			this.bytes.count(value);
		} else if (value instanceof Uint8Array) this.bytes.put(value);
		else {
			this.bytes.text('(');
			for (let k = 0; k < value.length; k++) {
				if (k) this.bytes.text(',');
				this.value(value[k]!);
			}
			this.bytes.text(')');
		}
	}

	private begin(entity: string): StepRef {
		const id = ++this.last;
		this.value(id);
		this.bytes.text('=');
		this.bytes.text(entity);
		return id;
	}

	add(entity: string, ...attributes: readonly StepValue[]): StepRef {
		const id = this.begin(entity);
		this.value(attributes);
		this.bytes.text(';\n');
		return id;
	}

	/** An instance whose only attribute is a list of points. @param places flat, so many numbers of each (mm) */
	addPoints(entity: string, places: ArrayLike<number>, each: 2 | 3): StepRef {
		const id = this.begin(entity);
		for (let k = 0; k < places.length; k++) {
			this.bytes.text(k % each ? ',' : k ? '),(' : '(((');
			this.real(places[k]!, DECIMALS);
		}
		this.bytes.text(')));\n');
		return id;
	}

	/** An instance of a list of a few numbers. @param name before it, where the entity has one */
	addTuple(entity: string, values: readonly number[], decimals: number, name?: string): StepRef {
		const id = this.begin(entity);
		const { bytes } = this;
		bytes.text('(');
		if (name !== undefined) {
			bytes.text(name);
			bytes.text(',');
		}
		for (let k = 0; k < values.length; k++) {
			bytes.text(k ? ',' : '(');
			this.real(values[k]!, decimals);
		}
		bytes.text('));\n');
		return id;
	}

	private real(value: number, decimals: number): void {
		if (!this.bytes.real(value, decimals)) this.bytes.text(real(value, decimals));
	}

	/** An instance of several types at once. */
	addComplex(...records: readonly string[]): StepRef {
		const id = this.begin('');
		this.bytes.text(`(${records.join(' ')});\n`);
		return id;
	}

	/** The same instance for the same entity and attributes. */
	once(entity: string, ...attributes: readonly StepValue[]): StepRef {
		return this.known(entity + told(attributes), () => this.add(entity, ...attributes));
	}

	/** The same instance of several types for the same records. */
	onceComplex(...records: readonly string[]): StepRef {
		return this.known(records.join(' '), () => this.addComplex(...records));
	}

	private known(key: string, make: () => StepRef): StepRef {
		const known = this.shared.get(key);
		if (known) return known;
		const id = make();
		this.shared.set(key, id);
		return id;
	}

	/** The file in the pieces that it was written in: as one it would take its room twice. Nothing is added after it. */
	file(): readonly Uint8Array<ArrayBuffer>[] {
		this.bytes.text('ENDSEC;\nEND-ISO-10303-21;\n');
		return this.bytes.all();
	}
}
