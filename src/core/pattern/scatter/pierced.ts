import { boxOf, isWithin, polygonArea, side, type Place } from '../../geometry/polygon';
import type { Surface } from '../../geometry/surface';
import { SAME_STEP } from '../../geometry/tolerance';
import { triangulateAround } from '../../geometry/triangulate-around';
import { distance, mix, pointAt, type Vector } from '../../geometry/vector';
import { Lattice, latticeOf } from '../../grid/lattice';
import { refuse } from '../../units/problem';
import { LatticeNodes } from '../cell-maker';
import type { Cells, PiercedCells } from '../cells';
import { ExtraNodes } from '../extra-nodes';
import type { LaidCells } from '../lay-tiles';
import { toField, toLattice, type FlatField } from './flat-field';
import { rimPlaces, SHEET, type RimPlace } from './sheet-rims';

/** Of a part of a step: places that lie nearer to an opening would make needles of triangles. */
const APART = 0.15;

/** A sheet that is being pierced. */
interface Sheet {
	readonly cell: number;
	readonly rim: readonly RimPlace[];
	readonly loop: readonly Place[];
	readonly openings: { readonly cell: number; readonly rim: readonly RimPlace[] }[];
}

/** A place moved by whole turns of a ring to where a loop lies. */
function toward(loop: readonly Place[], { width, height, across, up }: FlatField) {
	const { low, high } = boxOf(loop);
	const turned = (t: number, from: number, to: number, size: number, closed: boolean) => {
		if (!closed) return t;
		return t < from ? t + size : t > to ? t - size : t;
	};
	return ([x, y]: Place): Place => [
		turned(x, low[0], high[0], width, across.closed),
		turned(y, low[1], high[1], height, up.closed)
	];
}

/** The sheets, each with the cells that lie in it. */
function sheetsWithOpenings({ cells, grid }: LaidCells, field: FlatField): Sheet[] {
	const sheets: Sheet[] = [];
	for (let c = 0; c < cells.count; c++)
		if (cells.polygon[c] === SHEET) {
			const rim = rimPlaces(grid, cells, c, field);
			sheets.push({ cell: c, rim, loop: rim.map(({ at }) => at), openings: [] });
		}
	const boxes = sheets.map(({ loop }) => boxOf(loop));
	const moved = sheets.map(({ loop }) => toward(loop, field));
	const place = toField(field);
	for (let c = 0; c < cells.count; c++) {
		if (cells.polygon[c] === SHEET) continue;
		const ring = Array.from(cells.corners.subarray(cells.start[c]!, cells.start[c + 1]!), (node) => ({
			node,
			at: place(latticeOf(grid, node))
		}));
		const own = sheets.findIndex(({ loop }, s) => {
			const { low, high } = boxes[s]!;
			const [x, y] = moved[s]!(ring[0]!.at);
			return x > low[0] && x < high[0] && y > low[1] && y < high[1] && isWithin(loop, [x, y]);
		});
		if (own < 0) continue;
		const rim = ring.map(({ node, at }) => ({ node, at: moved[own]!(at) }));
		sheets[own]!.openings.push({ cell: c, rim });
	}
	return sheets;
}

/** How far a place is from a line between two (mm). */
function fromLine([px, py]: Place, [ax, ay]: Place, [bx, by]: Place): number {
	const [wx, wy] = [bx - ax, by - ay];
	const size = wx * wx + wy * wy;
	const t = size > 0 ? Math.min(1, Math.max(0, ((px - ax) * wx + (py - ay) * wy) / size)) : 0;
	return Math.hypot(px - ax - t * wx, py - ay - t * wy);
}

/** Sheets follow their face between the lines of the grid to within so many mm. */
const FOLLOWED = 2;
const MOST_PARTS = 12;
/** Steps looked at each way. */
const LOOKS = 12;

/** How many parts a step is divided into, across and up, for a sheet to follow its face. */
function partsOfStep(lattice: Lattice): readonly [across: number, up: number] {
	const { across, up, columns, rows, positions, absent } = lattice.grid;
	const most = [0, 0];
	const sample = (steps: number) =>
		Array.from({ length: Math.min(LOOKS, steps) }, (_, k) =>
			Math.floor((k * steps) / Math.min(LOOKS, steps))
		);
	for (const j of sample(up.steps))
		for (const i of sample(across.steps))
			for (const [way, di, dj] of [
				[0, 1, 0],
				[1, 0, 1]
			] as const) {
				const nodes = [j * columns + i, ((j + dj) % rows) * columns + ((i + di) % columns)];
				if (nodes.some((node) => absent?.[node])) continue;
				const [p, q] = nodes.map((node) => pointAt(positions, node)) as [Vector, Vector];
				const { point } = lattice.evaluate(...lattice.parameters(i + di / 2, j + dj / 2));
				most[way] = Math.max(most[way]!, distance(mix(p, q, 0.5), pointAt(point, 0)));
			}
	const parts = (sag: number) => Math.min(MOST_PARTS, Math.max(1, Math.ceil(Math.sqrt(sag / FOLLOWED))));
	return [parts(most[0]!), parts(most[1]!)];
}

/** What triangles that follow the face are made with. */
interface Following {
	readonly field: FlatField;
	readonly nodes: LatticeNodes;
	/** Of every step, across and up. */
	readonly parts: readonly [across: number, up: number];
}

/** The rim of a sheet with nodes between those of the grid, where it runs along lines of the grid. */
function finerRim(rim: readonly RimPlace[], { field, nodes, parts: [across, up] }: Following): RimPlace[] {
	const place = toField(field);
	const lattice = toLattice(field);
	return rim.flatMap((from, k) => {
		const to = rim[(k + 1) % rim.length]!;
		const [a, b] = [lattice(from.at), lattice(to.at)];
		const level = Math.abs(a[1] - b[1]) < SAME_STEP;
		const upright = Math.abs(a[0] - b[0]) < SAME_STEP;
		if (from.node === to.node || level === upright) return [from];
		const axis = level ? 0 : 1;
		const parts = level ? across : up;
		// On lines that every sheet divides alike, so that neighbours have the same nodes.
		const [low, high] = [Math.min(a[axis], b[axis]), Math.max(a[axis], b[axis])];
		const between: RimPlace[] = [];
		for (let n = Math.floor(low * parts) + 1; n < high * parts - SAME_STEP; n++) {
			if (n <= low * parts + SAME_STEP) continue;
			const at: Place = level ? [n / parts, a[1]] : [a[0], n / parts];
			between.push({ node: nodes.at(...at), at: place(at) });
		}
		return [from, ...(b[axis] > a[axis] ? between : between.reverse())];
	});
}

/** Places between the lines of loops and away from them: with nodes there triangles follow the face. */
function nodesWithin(
	{ rim, loop, openings }: Sheet,
	{ field, nodes, parts: [across, up] }: Following
): RimPlace[] {
	const place = toField(field);
	const lattice = toLattice(field);
	const { low, high } = boxOf(loop);
	const [from, to] = [lattice(low), lattice(high)];
	const width = field.width / field.across.steps / across;
	const apart = APART * Math.min(width, field.height / field.up.steps / up);
	/** Lines of loops by the columns that they touch, so that a place looks at few. */
	const lines = new Map<number, [Place, Place][]>();
	const column = (x: number) => Math.floor((x - low[0]) / width);
	for (const ring of [rim, ...openings.map((one) => one.rim)])
		ring.forEach(({ at: a }, k) => {
			const { at: b } = ring[(k + 1) % ring.length]!;
			for (let n = column(Math.min(a[0], b[0]) - apart); n <= column(Math.max(a[0], b[0]) + apart); n++) {
				const known = lines.get(n);
				if (known) known.push([a, b]);
				else lines.set(n, [[a, b]]);
			}
		});
	const found: RimPlace[] = [];
	for (let m = Math.floor(from[1] * up) + 1; m < to[1] * up; m++)
		for (let n = Math.floor(from[0] * across) + 1; n < to[0] * across; n++) {
			const [i, j] = [n / across, m / up];
			const at = place([i, j]);
			// Within the rim and in no opening is an odd number of crossings upward of it.
			let crossings = 0;
			let isClear = true;
			for (const [a, b] of lines.get(column(at[0])) ?? []) {
				if (fromLine(at, a, b) < apart) {
					isClear = false;
					break;
				}
				if (a[0] > at[0] !== b[0] > at[0] && a[1] + ((at[0] - a[0]) / (b[0] - a[0])) * (b[1] - a[1]) > at[1])
					crossings++;
			}
			if (isClear && crossings % 2) found.push({ node: nodes.at(i, j), at });
		}
	return found;
}

/** Of the area of a sheet: what rounding does. */
const ROUNDING = 1e-6;

/** Where openings meet, what is between them is no longer the sheet without them. @throws ProblemError */
function checkArea(
	{ loop, openings }: Sheet,
	places: readonly Place[],
	triangles: readonly number[],
	at: string
): void {
	const within = openings.reduce((sum, { rim }) => sum + polygonArea(rim.map((one) => one.at)), 0);
	const whole = polygonArea(loop);
	let area = 0;
	for (let k = 0; k < triangles.length; k += 3)
		area += side(places[triangles[k]!]!, places[triangles[k + 1]!]!, places[triangles[k + 2]!]!) / 2;
	if (Math.abs(whole - within - area) > ROUNDING * whole)
		refuse(at, 'the openings of a sheet meet; leave a larger margin between cells, or a wider plain rim');
}

/** Triangles of a sheet without its openings, by nodes. @throws ProblemError when openings meet */
function trianglesOf(sheet: Sheet, following: Following, at: string): number[] {
	const all: RimPlace[] = [];
	const loopOf = (ring: readonly RimPlace[]) => ring.map((one) => all.push(one) - 1);
	const outline = loopOf(finerRim(sheet.rim, following));
	const openings = sheet.openings.map(({ rim }) => loopOf(rim));
	for (const one of nodesWithin(sheet, following)) all.push(one);
	const places = all.map((one) => one.at);
	const found = triangulateAround(places, outline, openings);
	checkArea(sheet, places, found, at);
	const triangles: number[] = [];
	for (let k = 0; k < found.length; k += 3) {
		const [a, b, c] = [all[found[k]!]!.node, all[found[k + 1]!]!.node, all[found[k + 2]!]!.node];
		// At a pole corners fall together.
		if (a !== b && b !== c && c !== a) triangles.push(a, b, c);
	}
	return triangles;
}

/**
 * Sheets and the scattered cells in them, with what is left of each sheet around its openings.
 * @throws ProblemError when openings meet
 */
export function pierced(laid: LaidCells, surface: Surface, field: FlatField, at: string): LaidCells {
	const sheets = sheetsWithOpenings(laid, field);
	const lattice = new Lattice(laid.grid, surface);
	const extra = new ExtraNodes(lattice);
	const following = { field, nodes: new LatticeNodes(laid.grid, extra), parts: partsOfStep(lattice) };
	const openings: number[] = [];
	const triangles: number[] = [];
	const firstOpening = [0];
	const firstCorner = [0];
	for (const sheet of sheets) {
		for (const { cell } of sheet.openings) openings.push(cell);
		for (const node of trianglesOf(sheet, following, at)) triangles.push(node);
		firstOpening.push(openings.length);
		firstCorner.push(triangles.length);
	}
	const found: PiercedCells = {
		cells: Uint32Array.from(sheets, ({ cell }) => cell),
		firstOpening: Uint32Array.from(firstOpening),
		openings: Uint32Array.from(openings),
		firstCorner: Uint32Array.from(firstCorner),
		triangles: Uint32Array.from(triangles)
	};
	const cells: Cells = { ...laid.cells, pierced: found };
	return { grid: extra.joined(), cells };
}
