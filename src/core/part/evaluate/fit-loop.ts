import {
	getLocal,
	loadSingles,
	loadSpread,
	setLocal,
	singles,
	storeSingles,
	writeModule
} from './wasm-module';

/** Bytes: the eight vectors of a map, one vertex with its product xy, one place (three numbers). */
const MAP = 8 * 16;
const VERTEX = 16;
const PLACE = 12;
const PAGE = 65536;

type Bytes = readonly number[];
const [BASE, OUT, MAPPING] = [0, 2, 3];
const FIRST = 4;
const [X, Y, XY] = [FIRST + 8, FIRST + 9, FIRST + 10];

const add = (a: Bytes, b: Bytes): Bytes => [...a, ...b, ...singles.add];
const times = (a: Bytes, b: Bytes): Bytes => [...a, ...b, ...singles.multiply];

/** One vertex a time: 1, x, y, z, xy, yz, xz, xyz times the map's vectors, all three coordinates at once. */
function module(): WebAssembly.Module {
	const vector = (k: number) => getLocal(FIRST + k);
	/** A sum over 1, x, y and xy of the vectors of those numbers. */
	const flat = (one: number, x: number, y: number, xy: number) =>
		add(
			add(vector(one), times(vector(x), getLocal(X))),
			add(times(vector(y), getLocal(Y)), times(vector(xy), getLocal(XY)))
		);
	const body = [
		...loadSpread(BASE, 0),
		...setLocal(X),
		...loadSpread(BASE, 4),
		...setLocal(Y),
		...loadSpread(BASE, 12),
		...setLocal(XY),
		...storeSingles(OUT, add(flat(0, 1, 2, 4), times(flat(3, 6, 5, 7), loadSpread(BASE, 8))))
	];
	const before = Array.from({ length: 8 }, (_, k) => [
		...loadSingles(MAPPING, 16 * k),
		...setLocal(FIRST + k)
	]).flat();
	return new WebAssembly.Module(writeModule([{ vectors: 11, before, body, steps: [VERTEX, PLACE, 0] }]));
}

let compiled: WebAssembly.Module | null = null;

/** Places of a mesh's vertices under trilinear maps, one map after the other. */
export class FitLoop {
	private readonly map: Float32Array;
	private readonly places: Float32Array;
	private readonly run: (base: number, end: number, out: number, map: number) => void;
	private readonly end: number;

	/** @param vertices x y z of each, 0..1 */
	constructor(vertices: Float64Array) {
		const count = vertices.length / 3;
		this.end = MAP + count * VERTEX;
		const bytes = this.end + count * PLACE + 16;
		const memory = new WebAssembly.Memory({ initial: Math.ceil(bytes / PAGE) });
		this.map = new Float32Array(memory.buffer, 0, MAP / 4);
		this.places = new Float32Array(memory.buffer, this.end, 3 * count);
		const columns = new Float32Array(memory.buffer, MAP, 4 * count);
		for (let k = 0; k < count; k++) {
			const [x, y, z] = [vertices[3 * k]!, vertices[3 * k + 1]!, vertices[3 * k + 2]!];
			columns.set([x, y, z, x * y], 4 * k);
		}
		compiled ??= module();
		const { exports } = new WebAssembly.Instance(compiled, { a: { m: memory } });
		this.run = exports['0'] as FitLoop['run'];
	}

	/** @param map x y z of its vectors of 1, x, y, z, xy, yz, xz, xyz. @returns good until the next call */
	placesUnder(map: Float64Array): Float32Array {
		for (let k = 0; k < 8; k++) {
			this.map[4 * k] = map[3 * k]!;
			this.map[4 * k + 1] = map[3 * k + 1]!;
			this.map[4 * k + 2] = map[3 * k + 2]!;
		}
		this.run(MAP, this.end, this.end, 0);
		return this.places;
	}
}
