import type { Domain, Kernel as Act, Operation, PointSlots } from '../program';
import { BLOCK, stretches, type BackEnd, type VertexSlots, type Workplace } from './back-end';
import { runOperation } from './column-loops';
import {
	FIRST_VECTOR,
	getLocal,
	lanes,
	load,
	loadSpreadDouble,
	setLocal,
	store,
	storeSingle,
	writeModule,
	type LoopFunction
} from './wasm-module';

const SLOT_BYTES = BLOCK * Float64Array.BYTES_PER_ELEMENT;
const PAGE_BYTES = 65536;

type Bytes = readonly number[];
const one = lanes.constant(1);
const zero = lanes.constant(0);
/** A comparison's mask as 1 or 0. */
const asNumber = (mask: Bytes) => [...mask, ...one, ...lanes.and];

/** The operations that are exactly the same in vectors; the others are done by the column loops. */
const inVectors: Partial<Record<Act, (a: Bytes, b: Bytes, c: Bytes) => Bytes>> = {
	add: (a, b) => [...a, ...b, ...lanes.add],
	subtract: (a, b) => [...a, ...b, ...lanes.subtract],
	multiply: (a, b) => [...a, ...b, ...lanes.multiply],
	'add product': (a, b, c) => [...c, ...a, ...b, ...lanes.multiply, ...lanes.add],
	'subtract product': (a, b, c) => [...c, ...a, ...b, ...lanes.multiply, ...lanes.subtract],
	divide: (a, b) => [...a, ...b, ...lanes.divide],
	min: (a, b) => [...a, ...b, ...lanes.min],
	max: (a, b) => [...a, ...b, ...lanes.max],
	negate: (a) => [...a, ...lanes.negate],
	abs: (a) => [...a, ...lanes.abs],
	sqrt: (a) => [...a, ...lanes.sqrt],
	floor: (a) => [...a, ...lanes.floor],
	ceil: (a) => [...a, ...lanes.ceil],
	less: (a, b) => asNumber([...a, ...b, ...lanes.less]),
	lessOrEqual: (a, b) => asNumber([...a, ...b, ...lanes.lessOrEqual]),
	equal: (a, b) => asNumber([...a, ...b, ...lanes.equal]),
	not: (a) => asNumber([...a, ...zero, ...lanes.equal]),
	and: (a, b) => asNumber([...a, ...zero, ...lanes.notEqual, ...b, ...zero, ...lanes.notEqual, ...lanes.and]),
	or: (a, b) => asNumber([...a, ...zero, ...lanes.notEqual, ...b, ...zero, ...lanes.notEqual, ...lanes.or]),
	choose: (a, b, c) => [...b, ...c, ...a, ...zero, ...lanes.notEqual, ...lanes.select]
};

/** A stretch of operations as one loop: every slot is a local, read once and written back at the end. */
function loopOf(operations: readonly Operation[]): LoopFunction {
	const local = new Map<number, number>();
	const written = new Set<number>();
	const loads: number[] = [];
	const body: number[] = [];
	const localOf = (slot: number) => {
		const known = local.get(slot);
		if (known !== undefined) return known;
		const fresh = FIRST_VECTOR + local.size;
		local.set(slot, fresh);
		return fresh;
	};
	const read = (slot: number) => {
		if (!local.has(slot)) loads.push(...load(localOf(slot), slot * SLOT_BYTES));
		return getLocal(localOf(slot));
	};
	for (const { op, out, a, b, c } of operations) {
		const unary = op === 'sqrt' || op === 'abs' || op === 'negate';
		const ternary = op === 'choose' || op === 'add product' || op === 'subtract product';
		const [x, y, z] = unary ? [read(a), [], []] : [read(a), read(b), ternary ? read(c) : []];
		body.push(...inVectors[op]!(x, y, z), ...setLocal(localOf(out)));
		written.add(out);
	}
	const stores = [...written].flatMap((slot) => store(local.get(slot)!, slot * SLOT_BYTES));
	return { vectors: local.size, body: [...loads, ...body, ...stores], steps: [16] };
}

const [OUT, ORIGIN] = [2, 3];

/**
 * A loop that writes the vertices of two rows at a time, each row's one after another, as single numbers from an origin.
 */
function placesLoop({ vertices, sections, verticesEach }: VertexSlots): LoopFunction {
	const rowBytes = 3 * verticesEach * Float32Array.BYTES_PER_ELEMENT;
	let vectors = 0;
	const local = () => ORIGIN + ++vectors;
	const three = () => [local(), local(), local()];
	const origins = three();
	const [here, rounded, across, along] = [local(), local(), local(), local()];
	const [base, byAcross, byAlong] = [three(), three(), three()];
	const before = origins.flatMap((one, a) => [...loadSpreadDouble(ORIGIN, 8 * a), ...setLocal(one)]);
	const body: number[] = [];
	const read = (into: number, slot: number) => body.push(...load(into, slot * SLOT_BYTES));
	let at = 0;
	/** @param place puts a coordinate there */
	const write = (place: (axis: number) => Bytes) => {
		for (let a = 0; a < 3; a++, at += Float32Array.BYTES_PER_ELEMENT)
			body.push(
				...[
					...place(a),
					...getLocal(origins[a]!),
					...lanes.subtract,
					...lanes.toSingles,
					...setLocal(rounded)
				],
				...storeSingle(OUT, at, getLocal(rounded), 0),
				...storeSingle(OUT, at + rowBytes, getLocal(rounded), 1)
			);
	};
	const slotsOf = ({ x, y, z }: PointSlots) => [x, y, z];
	for (const point of vertices)
		write((a) => [...load(here, slotsOf(point)[a]! * SLOT_BYTES), ...getLocal(here)]);
	for (const { at: place, x, y, corners } of sections) {
		for (const [point, locals] of [
			[place, base],
			[x, byAcross],
			[y, byAlong]
		] as const)
			slotsOf(point).forEach((slot, a) => read(locals[a]!, slot));
		const times = (way: number, share: number) => [...getLocal(way), ...getLocal(share), ...lanes.multiply];
		for (const [u, v] of corners) {
			read(across, u);
			read(along, v);
			write((a) => [
				...[...getLocal(base[a]!), ...times(byAcross[a]!, across), ...lanes.add],
				...[...times(byAlong[a]!, along), ...lanes.add]
			]);
		}
	}
	return { vectors, before, body, steps: [16, 2 * rowBytes, 0] };
}

type WritePlaces = (base: number, end: number, out: number, origin: number) => void;
const placeWriters = new WeakMap<VertexSlots, WritePlaces>();

function placeWriter(of: VertexSlots, scratch: WebAssembly.Memory): WritePlaces {
	const known = placeWriters.get(of);
	if (known) return known;
	const { exports } = new WebAssembly.Instance(new WebAssembly.Module(writeModule([placesLoop(of)])), {
		a: { m: scratch }
	});
	const write = exports['0'] as WritePlaces;
	placeWriters.set(of, write);
	return write;
}

interface Kernel {
	/** `entry` is a function of the module, or the operations that no vector instruction does. */
	readonly steps: readonly (number | readonly Operation[])[];
	readonly entries: readonly ((base: number, end: number) => void)[];
}

let memory: WebAssembly.Memory | null = null;
/** Compiled once for a domain, for good: a program carries no values. */
const kernels = new WeakMap<Domain, Kernel>();

function kernelOf(domain: Domain, scratch: WebAssembly.Memory): Kernel {
	const known = kernels.get(domain);
	if (known) return known;
	const loops: LoopFunction[] = [];
	const steps = stretches(domain.operations, ({ op }) => inVectors[op] !== undefined).map((stretch) =>
		stretch.fused ? loops.push(loopOf(stretch.operations)) - 1 : stretch.operations
	);
	const { exports } = new WebAssembly.Instance(new WebAssembly.Module(writeModule(loops)), {
		a: { m: scratch }
	});
	const entries = loops.map((_, k) => exports[k] as Kernel['entries'][number]);
	const kernel = { steps, entries };
	kernels.set(domain, kernel);
	return kernel;
}

/** The last workplaces of every program, by its outermost domain, and the memory they lie in. */
const opened = new WeakMap<
	Domain,
	{ readonly memory: ArrayBuffer; readonly workplaces: readonly Workplace[] }
>();

/** The memory all runs share, with so many bytes at least. */
function scratchOf(bytes: number): WebAssembly.Memory {
	const pages = Math.ceil(bytes / PAGE_BYTES);
	memory ??= new WebAssembly.Memory({ initial: pages });
	const missing = pages - memory.buffer.byteLength / PAGE_BYTES;
	if (missing > 0) memory.grow(missing);
	return memory;
}

/** What lies in the scratch memory: the origin, the places of one element at a time, the slots of every domain. */
function layoutOf(domains: readonly Domain[]): { places: number; slots: number; bytes: number } {
	const points = Math.max(
		0,
		...domains.flatMap(({ elements }) => elements.map(({ verticesEach }) => verticesEach))
	);
	const places = 4 * Float64Array.BYTES_PER_ELEMENT;
	const slots = places + Math.ceil((BLOCK * points * 12) / 16) * 16;
	return { places, slots, bytes: domains.reduce((sum, domain) => sum + domain.slots * SLOT_BYTES, slots) };
}

function workplacesIn(scratch: WebAssembly.Memory, domains: readonly Domain[]): Workplace[] {
	const { places: placesAt, slots: first } = layoutOf(domains);
	const originAt = new Float64Array(scratch.buffer, 0, 3);
	let next = first;
	return domains.map((domain) => {
		const base = next;
		next += domain.slots * SLOT_BYTES;
		const slots = Array.from(
			{ length: domain.slots },
			(_, k) => new Float64Array(scratch.buffer, base + k * SLOT_BYTES, BLOCK)
		);
		const { steps, entries } = kernelOf(domain, scratch);
		return {
			slots,
			compute(rows) {
				const end = base + rows * Float64Array.BYTES_PER_ELEMENT;
				for (const step of steps)
					if (typeof step === 'number') entries[step]!(base, end);
					else for (const operation of step) runOperation(operation, slots, rows);
			},
			places(of, rows, origin) {
				originAt.set(origin);
				const end = base + rows * Float64Array.BYTES_PER_ELEMENT;
				placeWriter(of, scratch)(base, end, placesAt, 0);
				return new Float32Array(scratch.buffer, placesAt, 3 * of.verticesEach * rows);
			}
		};
	});
}

/**
 * Two rows at a time: the operations of a domain become a WebAssembly loop that keeps what lies between them
 * in registers. All runs share one scratch memory; a part runs for many chunks of sites, in the same places of it.
 */
export const twoLanes: BackEnd = {
	open(domains) {
		const scratch = scratchOf(layoutOf(domains).bytes);
		const known = opened.get(domains[0]!);
		// Memory that grows is another buffer.
		if (known?.memory === scratch.buffer) return known.workplaces;
		const workplaces = workplacesIn(scratch, domains);
		opened.set(domains[0]!, { memory: scratch.buffer, workplaces });
		return workplaces;
	}
};
