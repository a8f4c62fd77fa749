/**
 * A binary glTF file as it is put together: its accessors, and the bytes they look at.
 * Source: Khronos glTF 2.0 specification, chapters 3.6 (buffers) and 4.4 (the binary container).
 */
import { bytesOf } from '../bytes';
import { JsonList } from './json-list';

const MAGIC = 0x46546c67;
const JSON_CHUNK = 0x4e4f534a;
const BINARY_CHUNK = 0x004e4942;
const [FLOAT, UNSIGNED_SHORT, UNSIGNED_INT] = [5126, 5123, 5125];
const [VERTICES, INDICES] = [34962, 34963];
/** Vertices that indices of two bytes can tell apart; the last value means none. */
const MOST_SHORT = 65_535;
/** Places are told to a millionth of a metre, so that their bounds in the JSON are those of the bytes to the last bit. */
const FINE = 1e6;
const DECIMALS = 6;

const padded = (bytes: number) => Math.ceil(bytes / 4) * 4;

/** Bytes of one kind, one after the other. */
class View {
	length = 0;
	readonly pieces: ArrayBufferView[] = [];

	constructor(
		readonly component: number,
		readonly target: number
	) {}

	/** @returns where they begin */
	add(piece: ArrayBufferView): number {
		const at = this.length;
		this.pieces.push(piece);
		this.length += piece.byteLength;
		return at;
	}
}

/** Numbers of a piece of the file. */
const AT_ONCE = 1 << 16;

/** Vertices as the file has them: metres, y up. */
class Vertices {
	private values = new Float32Array(AT_ONCE);
	private length = 0;
	private from = 0;
	private readonly low = new Float64Array(3);
	private readonly high = new Float64Array(3);

	constructor(private readonly view: View) {}

	begin(): void {
		this.from = this.view.length + 4 * this.length;
		this.low.fill(Infinity);
		this.high.fill(-Infinity);
	}

	/** @param places x y z of each, z up (mm) */
	add(places: Float32Array | Float64Array): void {
		if (this.length + places.length > this.values.length) {
			this.end();
			this.values = new Float32Array(Math.max(AT_ONCE, places.length));
		}
		const { values, low, high } = this;
		let at = this.length;
		for (let k = 0; k < places.length; k += 3)
			for (let a = 0; a < 3; a++) {
				const mm = a === 0 ? places[k]! : a === 1 ? places[k + 2]! : -places[k + 1]!;
				const value = Math.round(mm * (FINE / 1000)) / FINE;
				if (value < low[a]!) low[a] = value;
				if (value > high[a]!) high[a] = value;
				values[at++] = value;
			}
		this.length = at;
	}

	/** Where those begin that were added since, and within which bounds they are. */
	get added(): { readonly at: number; readonly count: number; readonly bounds: readonly Float64Array[] } {
		const { from, view, length, low, high } = this;
		return { at: from, count: (view.length + 4 * length - from) / 12, bounds: [low, high] };
	}

	/** Put what has been added into the view. */
	end(): void {
		if (this.length) this.view.add(this.values.subarray(0, this.length));
		this.length = 0;
	}
}

export class GlbContainer {
	/** Made when they are first needed: a view of nothing is not allowed. */
	private readonly views: View[] = [];
	private readonly accessors = new JsonList('accessors');
	private vertices: Vertices | null = null;

	private view(component: number, target: number): number {
		const known = this.views.findIndex((one) => one.component === component);
		return known < 0 ? this.views.push(new View(component, target)) - 1 : known;
	}

	/** Begin the vertices of an accessor. */
	begin(): void {
		this.vertices ??= new Vertices(this.views[this.view(FLOAT, VERTICES)]!);
		this.vertices.begin();
	}

	/** Vertices of the accessor that was begun. @param places x y z of each, z up (mm) */
	add(places: Float32Array | Float64Array): void {
		this.vertices!.add(places);
	}

	/** @returns the accessor of the vertices that were added since it was begun */
	positions(): number {
		const { at, count, bounds } = this.vertices!.added;
		const text = this.accessors.next();
		text.text(`{"bufferView":${this.view(FLOAT, VERTICES)},"byteOffset":${at},"componentType":${FLOAT}`);
		text.text(`,"count":${count},"type":"VEC3"`);
		bounds.forEach((values, k) => {
			text.text(k ? ',"max":[' : ',"min":[');
			for (let a = 0; a < 3; a++) {
				if (a) text.text(',');
				text.number(values[a]!, DECIMALS);
			}
			text.text(']');
		});
		text.text('}');
		return this.accessors.at;
	}

	/** @param vertices how many there are to choose from @returns the accessor */
	indices(triangles: Uint32Array, vertices: number): number {
		const isShort = vertices < MOST_SHORT;
		const component = isShort ? UNSIGNED_SHORT : UNSIGNED_INT;
		const view = this.view(component, INDICES);
		const at = this.views[view]!.add(isShort ? Uint16Array.from(triangles) : triangles);
		return this.accessors.add(
			`{"bufferView":${view},"byteOffset":${at},"componentType":${component},"count":${triangles.length},"type":"SCALAR"}`
		);
	}

	/** The whole file. @param rest the members of its JSON that are not of its buffers */
	file(rest: readonly (string | JsonList)[]): Uint8Array {
		this.vertices?.end();
		let binary = 0;
		const views = this.views.map(({ length, target, component }) => {
			const at = binary;
			binary += padded(length);
			const stride = component === FLOAT ? ',"byteStride":12' : '';
			return `{"buffer":0,"byteOffset":${at},"byteLength":${length},"target":${target}${stride}}`;
		});
		const buffers = binary
			? [`"buffers":[{"byteLength":${binary}}]`, `"bufferViews":[${views}]`, this.accessors]
			: [];
		const members = [...rest, ...buffers]
			.map((one) => (typeof one === 'string' ? [bytesOf(one)] : one.member()))
			.filter((one) => one.length);
		const json = [
			bytesOf('{'),
			...members.flatMap((one, k) => (k ? [bytesOf(','), ...one] : one)),
			bytesOf('}')
		];
		const jsonLength = json.reduce((sum, { length }) => sum + length, 0);
		const bytes = new Uint8Array(12 + 8 + padded(jsonLength) + (binary && 8 + binary));
		const head = new DataView(bytes.buffer);
		const words = (at: number, ...values: number[]) =>
			values.forEach((value, k) => head.setUint32(at + 4 * k, value, true));
		let at = 20;
		const put = (piece: ArrayBufferView) => {
			bytes.set(new Uint8Array(piece.buffer, piece.byteOffset, piece.byteLength), at);
			at += piece.byteLength;
		};
		words(0, MAGIC, 2, bytes.length, padded(jsonLength), JSON_CHUNK);
		for (const piece of json) put(piece);
		bytes.fill(BLANK, at, 20 + padded(jsonLength));
		at = 20 + padded(jsonLength);
		if (!binary) return bytes;
		words(at, binary, BINARY_CHUNK);
		at += 8;
		for (const { pieces, length } of this.views) {
			const next = at + padded(length);
			for (const piece of pieces) put(piece);
			at = next;
		}
		return bytes;
	}
}
const BLANK = 0x20;
