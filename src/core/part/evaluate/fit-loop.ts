import {
	getLocal,
	loadSingles,
	loadSpread,
	setLocal,
	singles,
	storeSingles,
	writeModule
} from './wasm-module';
import { MAP } from '../element-table';

/** Bytes: a map, one vertex with its product xy, one place (three numbers). */
const MAP_BYTES = MAP * 4;
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

/** The loop in its memory, set up for one mesh at a time. */
class Workshop {
	private readonly memory = new WebAssembly.Memory({ initial: 1 });
	private readonly run: (base: number, end: number, out: number, map: number) => void;
	private unit: Float32Array | null = null;
	private map = new Float32Array();
	private places = new Float32Array();

	constructor() {
		this.run = new WebAssembly.Instance(module(), { a: { m: this.memory } }).exports['0'] as Workshop['run'];
	}

	private load(unit: Float32Array): void {
		const count = unit.length / 3;
		const end = MAP_BYTES + count * VERTEX;
		// A place is stored with four numbers; the last one reaches out.
		const missing = end + count * PLACE + VERTEX - this.memory.buffer.byteLength;
		if (missing > 0) this.memory.grow(Math.ceil(missing / PAGE));
		const { buffer } = this.memory;
		this.map = new Float32Array(buffer, 0, MAP);
		this.places = new Float32Array(buffer, end, 3 * count);
		const columns = new Float32Array(buffer, MAP_BYTES, 4 * count);
		for (let k = 0; k < count; k++) {
			columns.set(unit.subarray(3 * k, 3 * k + 3), 4 * k);
			columns[4 * k + 3] = unit[3 * k]! * unit[3 * k + 1]!;
		}
		this.unit = unit;
	}

	placesUnder(unit: Float32Array, map: Float32Array): Float32Array {
		if (unit !== this.unit) this.load(unit);
		this.map.set(map);
		const { byteOffset } = this.places;
		this.run(MAP_BYTES, byteOffset, byteOffset, 0);
		return this.places;
	}
}

let workshop: Workshop | null = null;

/** Places of a mesh's vertices under a trilinear map; see `Placed`. Good until the next call. */
export const placesUnder = (unit: Float32Array, map: Float32Array): Float32Array =>
	(workshop ??= new Workshop()).placesUnder(unit, map);
