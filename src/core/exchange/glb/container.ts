/**
 * A binary glTF file as it is put together: its accessors, and the bytes they look at.
 * Source: Khronos glTF 2.0 specification, chapters 3.6 (buffers) and 4.4 (the binary container).
 */

const MAGIC = 0x46546c67;
const JSON_CHUNK = 0x4e4f534a;
const BINARY_CHUNK = 0x004e4942;
const [FLOAT, UNSIGNED_SHORT, UNSIGNED_INT] = [5126, 5123, 5125];
const [VERTICES, INDICES] = [34962, 34963];
/** Vertices that indices of two bytes can tell apart; the last value means none. */
const MOST_SHORT = 65_535;

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

export class GlbContainer {
	/** Made when they are first needed: a view of nothing is not allowed. */
	private readonly views: View[] = [];
	private readonly accessors: string[] = [];

	private accessor(
		component: number,
		target: number,
		piece: Float32Array | Uint16Array | Uint32Array,
		rest: string
	): number {
		let view = this.views.findIndex((one) => one.component === component);
		if (view < 0) view = this.views.push(new View(component, target)) - 1;
		const at = this.views[view]!.add(piece);
		const text = `{"bufferView":${view},"byteOffset":${at},"componentType":${component},${rest}}`;
		return this.accessors.push(text) - 1;
	}

	/** @param places x y z of every vertex, as the file has them @returns the accessor */
	positions(places: Float32Array): number {
		const low = [Infinity, Infinity, Infinity];
		const high = [-Infinity, -Infinity, -Infinity];
		for (let k = 0; k < places.length; k += 3)
			for (let a = 0; a < 3; a++) {
				const value = places[k + a]!;
				if (value < low[a]!) low[a] = value;
				if (value > high[a]!) high[a] = value;
			}
		const rest = `"count":${places.length / 3},"type":"VEC3","min":[${low}],"max":[${high}]`;
		return this.accessor(FLOAT, VERTICES, places, rest);
	}

	/** @param vertices how many there are to choose from @returns the accessor */
	indices(triangles: Uint32Array, vertices: number): number {
		const rest = `"count":${triangles.length},"type":"SCALAR"`;
		return vertices < MOST_SHORT
			? this.accessor(UNSIGNED_SHORT, INDICES, Uint16Array.from(triangles), rest)
			: this.accessor(UNSIGNED_INT, INDICES, triangles, rest);
	}

	/** The whole file. @param rest the members of its JSON that are not of its buffers */
	file(rest: readonly string[]): Uint8Array {
		let binary = 0;
		const views = this.views.map(({ length, target, component }) => {
			const at = binary;
			binary += padded(length);
			const stride = component === FLOAT ? ',"byteStride":12' : '';
			return `{"buffer":0,"byteOffset":${at},"byteLength":${length},"target":${target}${stride}}`;
		});
		const buffers = binary
			? [
					`"buffers":[{"byteLength":${binary}}]`,
					`"bufferViews":[${views}]`,
					`"accessors":[${this.accessors}]`
				]
			: [];
		const json = new TextEncoder().encode(`{${[...rest, ...buffers].join(',')}}`);
		const bytes = new Uint8Array(12 + 8 + padded(json.length) + (binary && 8 + binary));
		const head = new DataView(bytes.buffer);
		const words = (at: number, ...values: number[]) =>
			values.forEach((value, k) => head.setUint32(at + 4 * k, value, true));
		words(0, MAGIC, 2, bytes.length, padded(json.length), JSON_CHUNK);
		bytes.set(json, 20);
		bytes.fill(0x20, 20 + json.length, 20 + padded(json.length));
		if (!binary) return bytes;
		let at = 20 + padded(json.length);
		words(at, binary, BINARY_CHUNK);
		at += 8;
		for (const { pieces, length } of this.views) {
			let inView = at;
			for (const piece of pieces) {
				bytes.set(new Uint8Array(piece.buffer, piece.byteOffset, piece.byteLength), inView);
				inView += piece.byteLength;
			}
			at += padded(length);
		}
		return bytes;
	}
}
