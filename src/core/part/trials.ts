import { columnValues, everySite } from '../field/column';
import type { FieldSource } from '../field/field';
import { SOME_SUN } from '../field/sun';
import { add, cross, dot, length, pointAt, scale, subtract, unit, type Vector } from '../geometry/vector';
import { measureCells, type CellMeasures } from '../measure/cell-measures';
import type { Anchor } from '../project/part-definition';
import { cornersOf, partFields } from './anchors';

/** Anchors to try a part on, mm: standing cells seen from outside, from the south. */
export interface Trial {
	readonly name: string;
	readonly points: readonly Vector[];
}

const rings: readonly Trial[] = [
	{
		name: 'flat',
		points: [
			[0, 0, 0],
			[1800, 0, 0],
			[1800, 0, 1400],
			[0, 0, 1400]
		]
	},
	{
		name: 'leaning',
		points: [
			[0, 0, 0],
			[1800, 0, 0],
			[1800, 600, 1300],
			[0, 600, 1300]
		]
	},
	{
		name: 'warped',
		points: [
			[0, 0, 0],
			[1800, -120, 0],
			[1800, 140, 1400],
			[0, -110, 1400]
		]
	},
	{
		name: 'skewed',
		points: [
			[0, 0, 0],
			[1900, 0, 250],
			[2900, 0, 1500],
			[700, 0, 1150]
		]
	},
	{
		name: 'triangle',
		points: [
			[0, 0, 0],
			[1700, 0, 0],
			[850, 0, 1500]
		]
	},
	{
		name: 'five corners',
		points: [
			[300, 0, 0],
			[1500, 0, 0],
			[1850, 0, 1000],
			[900, 0, 1600],
			[0, 0, 1000]
		]
	},
	{
		name: 'tiny',
		points: [
			[0, 0, 0],
			[120, 0, 0],
			[120, 0, 90],
			[0, 0, 90]
		]
	},
	{
		name: 'huge',
		points: [
			[0, 0, 0],
			[9000, 0, 0],
			[9000, 0, 7000],
			[0, 0, 7000]
		]
	}
];
const pairs: readonly Trial[] = [
	{
		name: 'upright',
		points: [
			[0, 0, 0],
			[0, 0, 3000]
		]
	},
	{
		name: 'level',
		points: [
			[0, 0, 0],
			[2400, 0, 0]
		]
	},
	{
		name: 'leaning',
		points: [
			[0, 0, 0],
			[900, 700, 2600]
		]
	},
	{
		name: 'tiny',
		points: [
			[0, 0, 0],
			[0, 0, 90]
		]
	},
	{
		name: 'huge',
		points: [
			[0, 0, 0],
			[0, 0, 12_000]
		]
	}
];
const chains: readonly Trial[] = [
	{
		name: 'straight',
		points: [
			[0, 0, 0],
			[1000, 0, 0],
			[2000, 0, 0],
			[3000, 0, 0]
		]
	},
	{
		name: 'waving',
		points: [
			[0, 0, 0],
			[900, 250, 500],
			[1900, -250, 700],
			[2900, 200, 1300]
		]
	},
	{
		name: 'two points',
		points: [
			[0, 0, 0],
			[2000, 0, 600]
		]
	},
	{
		name: 'tight',
		points: [
			[0, 0, 0],
			[400, 0, 300],
			[450, 300, 700],
			[0, 350, 1000],
			[-200, 0, 1300]
		]
	}
];
const nodes: readonly Trial[] = [
	{
		name: 'four edges',
		points: [
			[0, 0, 0],
			[1000, 0, 0],
			[0, 0, 1000],
			[-1000, 0, 0],
			[0, 0, -1000]
		]
	},
	{
		name: 'three edges',
		points: [
			[0, 0, 0],
			[1000, 100, 0],
			[-500, 0, 900],
			[-500, 0, -900]
		]
	},
	{
		name: 'six edges',
		points: [0, 1, 2, 3, 4, 5, 6].map((k): Vector =>
			k === 0 ? [0, 0, 0] : [900 * Math.cos((k * Math.PI) / 3), 80, 900 * Math.sin((k * Math.PI) / 3)]
		)
	}
];

/** The bars that meet at a node (mm): boxes whose outer side is on the grid. */
const BAR = { across: 60, deep: 90, middle: -45 };

/** A ring's companion, so far behind it. */
const COMPANION = 500;

/** The vector area of a ring, which points outside. */
function vectorArea(ring: readonly Vector[]): Vector {
	return ring
		.slice(1, -1)
		.map((p, k) => cross(subtract(p, ring[0]!), subtract(ring[k + 2]!, ring[0]!)))
		.reduce((sum, part) => add(sum, part), [0, 0, 0] as Vector);
}

/** A direction square to a way, to the south where that can be. */
function beside(way: Vector): Vector {
	const south: Vector = [0, -1, 0];
	const along = unit(way);
	const rest = subtract(south, scale(along, dot(south, along)));
	return length(rest) > 0.1 ? unit(rest) : [1, 0, 0];
}

/**
 * The trials that suit an anchor.
 *
 * ```ts
 * const [square] = trialsOf(part.anchor);
 * ```
 */
export function trialsOf(anchor: Anchor): readonly Trial[] {
	const fits = (trial: Trial, corners: number) =>
		anchor.kind !== 'pair' && (anchor.corners === 'any' || anchor.corners === corners) ? [trial] : [];
	switch (anchor.kind) {
		case 'pair':
			return pairs;
		case 'chain':
			return chains.flatMap((trial) => fits(trial, trial.points.length));
		case 'node':
			return nodes.flatMap((trial) => fits(trial, trial.points.length - 1));
		case 'ring':
			return rings.flatMap((trial) => fits(trial, trial.points.length));
		case 'double ring':
			return rings
				.flatMap((trial) => fits(trial, trial.points.length))
				.map(({ name, points }) => {
					const back = scale(unit(vectorArea(points)), -COMPANION);
					return { name, points: [...points, ...points.map((p) => add(p, back))] };
				});
	}
}

/**
 * The number of corners that a part is compiled for, on so many points.
 *
 * ```ts
 * cornersOfTrial(part.anchor, 4);
 * ```
 */
export function cornersOfTrial(anchor: Anchor, points: number): number {
	if (anchor.kind === 'double ring') return points / 2;
	return cornersOf(anchor, anchor.kind === 'node' ? points - 1 : points);
}

/** One site on given points, as fields are read from it: double rings have the ring's corners first. */
function sourceOf(anchor: Anchor, points: readonly Vector[]): Partial<FieldSource> {
	const positions = Float64Array.from(points.flat());
	const none = new Float64Array(0);
	const single = { steps: 1, closed: false };
	const lattice = { columns: points.length, rows: 1, extraI: none, extraJ: none, across: single, up: single };
	const grid = { ...lattice, positions, off: none };
	const one = Uint32Array.of(1);
	switch (anchor.kind) {
		case 'pair': {
			const [from, to] = [Uint32Array.of(0), Uint32Array.of(1)];
			const flags = new Uint8Array(1);
			const edges = { count: 1, from, to, left: from, right: from, direction: flags, ordinal: from };
			return { grid, folds: Float64Array.of(0), edges: { ...edges, course: one, bay: one } };
		}
		case 'node':
			return { grid };
		case 'chain':
			return { chains: { start: Uint32Array.of(0, points.length), positions } };
		case 'double ring':
		case 'ring': {
			const n = anchor.kind === 'ring' ? points.length : points.length / 2;
			const cells = {
				count: 1,
				start: Uint32Array.of(0, n),
				corners: everySite(n),
				kind: new Uint8Array(1),
				course: one,
				bay: one,
				slot: one,
				polygon: new Uint16Array(1),
				share: Float64Array.of(1),
				outline: null,
				uncut: null,
				pierced: null
			};
			return { grid, cells, measures: measureCells(cells, positions), sun: SOME_SUN };
		}
	}
}

/**
 * What an anchor on given points gives to the columns of a program, by name; mm, rad.
 * Double rings have the ring's corners first, nodes the node and then the ends of its edges.
 *
 * ```ts
 * const columns = trialColumns(part.anchor, trialsOf(part.anchor)[0]!.points);
 * ```
 */
export function trialColumns(anchor: Anchor, points: readonly Vector[]): Map<string, number> {
	const source = sourceOf(anchor, points);
	const first = everySite(1);
	const columns = new Map(
		partFields(anchor).map((field) => [field.name, columnValues(field.column(source, first), 1)[0]!])
	);
	const put = (name: string, p: Vector) => p.forEach((value, k) => columns.set(`${name}.${'xyz'[k]}`, value));
	switch (anchor.kind) {
		case 'pair': {
			const [start, end] = points as [Vector, Vector];
			put('start', start);
			put('end', end);
			for (const name of ['normal', 'normal_left', 'normal_right']) put(name, beside(subtract(end, start)));
			break;
		}
		case 'node': {
			const [node, ...ends] = points as [Vector, ...Vector[]];
			put('node', node);
			put('normal', [0, -1, 0]);
			ends.forEach((end, k) => {
				put(`way${k + 1}`, unit(subtract(end, node)));
				columns.set(`span${k + 1}`, length(subtract(end, node)));
				for (const [name, value] of Object.entries(BAR)) columns.set(`${name}${k + 1}`, value);
			});
			break;
		}
		case 'chain':
			points.forEach((p, k) => {
				put(`point${k + 1}`, p);
				const [a, b] = [points[Math.max(0, k - 1)]!, points[Math.min(points.length - 1, k + 1)]!];
				put(`normal${k + 1}`, beside(subtract(b, a)));
			});
			break;
		case 'double ring':
		case 'ring': {
			const n = anchor.kind === 'ring' ? points.length : points.length / 2;
			points.slice(n).forEach((p, k) => put(`far${k + 1}`, p));
			putRing(points.slice(0, n), source.measures!, put);
		}
	}
	return columns;
}

function putRing(
	ring: readonly Vector[],
	measures: CellMeasures,
	put: (name: string, p: Vector) => void
): void {
	const n = ring.length;
	const across = pointAt(measures.normal, 0);
	const normal = length(across) > 0 ? across : ([0, -1, 0] as Vector);
	const edges = ring.map((p, k) => subtract(ring[(k + 1) % n]!, p));
	ring.forEach((p, k) => {
		put(`corner${k + 1}`, p);
		const own = cross(edges[(k + n - 1) % n]!, edges[k]!);
		put(`normal${k + 1}`, length(own) > 1e-6 && dot(own, normal) > 0 ? unit(own) : normal);
	});
	put('normal', normal);
	put('centre', pointAt(measures.centre, 0));
	put('face_centre', pointAt(measures.centre, 0));
}
