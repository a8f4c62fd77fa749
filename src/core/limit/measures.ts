import type { FaceModel } from '../cladding/model';
import type { PieceGroup } from '../cladding/pieces';
import { pieceQuantities } from '../cladding/quantities';
import { columnValues } from '../field/column';
import { fieldsOver } from '../field/fields';
import { cellOutline } from '../measure/cell-outline';
import { CellRectangles } from '../measure/cell-rectangles';
import { inputKind } from '../part/inputs';
import { formatNumber } from '../units/quantity';
import type { Project } from '../project/schema';
import type { PartDefinition } from '../project/part-definition';
import { heatMeasures } from './heat';
import type { Given, PieceMeasure } from './measure';
import { platesOf } from './plates';
import { howReckoned } from './reckoned';
import { strengthMeasures } from './strength';

/** The largest distance between two corners of a cell (mm), squared. */
function spanSquared(positions: Float64Array, corners: Uint32Array, from: number, to: number): number {
	let most = 0;
	for (let i = from; i < to; i++) {
		const p = 3 * corners[i]!;
		for (let j = i + 1; j < to; j++) {
			const q = 3 * corners[j]!;
			const x = positions[p]! - positions[q]!;
			const y = positions[p + 1]! - positions[q + 1]!;
			const z = positions[p + 2]! - positions[q + 2]!;
			const away = x * x + y * y + z * z;
			if (away > most) most = away;
		}
	}
	return most;
}

/** How large some cells are without a look at each of their sides. */
interface Spans {
	/** The largest distance between two corners, by row (mm). */
	readonly of: Float64Array;
	/** The longest and the shortest of them. */
	readonly longest: number;
	readonly shortest: number;
	/** The least area over it. */
	readonly narrowest: number;
}

/** Of the same cells of a face they are reckoned once. */
const known = new WeakMap<FaceModel, WeakMap<Uint32Array, Spans>>();

function measureSpans({ cells, grid, measures }: FaceModel, sites: Uint32Array): Spans {
	const { start, corners } = cells;
	const of = new Float64Array(sites.length);
	let [longest, shortest, narrowest] = [0, Infinity, Infinity];
	for (let row = 0; row < sites.length; row++) {
		const cell = sites[row]!;
		const span = Math.sqrt(spanSquared(grid.positions, corners, start[cell]!, start[cell + 1]!));
		of[row] = span;
		longest = Math.max(longest, span);
		shortest = Math.min(shortest, span);
		narrowest = Math.min(narrowest, measures.area[cell]! / span);
	}
	return { of, longest, shortest, narrowest };
}

function spansOf(face: FaceModel, sites: Uint32Array): Spans {
	const ofFace = known.get(face) ?? new WeakMap<Uint32Array, Spans>();
	known.set(face, ofFace);
	const spans = ofFace.get(sites) ?? measureSpans(face, sites);
	ofFace.set(sites, spans);
	return spans;
}

/** Cells of more edges are not told edge by edge. */
const MOST_EDGES = 12;

/** The edges of a piece's cell. */
function edgesOf(face: FaceModel, { over, sites }: PieceGroup, row: number): readonly Given[] {
	if (over !== 'cell') return [];
	const { lengths } = cellOutline(face, sites[row]!);
	return lengths.length > MOST_EDGES
		? []
		: lengths.map((value, k): Given => ({ label: `edge ${k + 1}`, value, kind: 'length' }));
}

/** The elements of a piece by volume, with the density of each in words. */
function elementsOf(_face: FaceModel, { run, ready }: PieceGroup, row: number): readonly Given[] {
	return run.elements.flatMap(({ element, row: rows, volume }) => {
		const { label, density } = ready.materials[element]!;
		const name = `${ready.elements[element]!.label}, ${label} of ${formatNumber(density)} kg/m³`;
		return Array.from(rows.keys())
			.filter((k) => rows[k] === row)
			.map((k): Given => ({ label: name, value: volume[k]!, kind: 'volume' }));
	});
}

/** What the inputs of a piece's part stand at. */
function inputsOf(_face: FaceModel, { ready, perPiece }: PieceGroup, row: number): readonly Given[] {
	return ready.part.inputs.flatMap((input): Given[] => {
		const kind = inputKind(input);
		const value = perPiece.get(input.name)?.[row] ?? ready.inputs.get(input.name);
		if (!kind || kind === 'switch' || input.options || value === undefined) return [];
		return [{ label: input.label, value, kind }];
	});
}

/**
 * A side of the sheet that a cell is cut from. It is no longer than the cell is from corner to corner; the long one is no
 * shorter than that over √2, the short one than the area over it: most cells are within a bound by these alone.
 */
const sheetSide = (id: string, label: string, side: 0 | 1): PieceMeasure => ({
	id,
	label,
	how: 'of the smallest rectangle around the cell, laid on its middle plane',
	kind: 'length',
	over: 'cell',
	isWithin(face, { sites }, { than, bound }) {
		const { longest, shortest, narrowest } = spansOf(face, sites);
		return than === 'most' ? longest <= bound : (side === 0 ? shortest * Math.SQRT1_2 : narrowest) >= bound;
	},
	read(face, { sites }, { than, bound }) {
		const rectangles = new CellRectangles(face.cells, face.grid.positions);
		const { area } = face.measures;
		const { of: spans } = spansOf(face, sites);
		const values = new Float64Array(sites.length);
		for (let row = 0; row < sites.length; row++) {
			const cell = sites[row]!;
			const span = spans[row]!;
			const least = side === 0 ? span * Math.SQRT1_2 : area[cell]! / span;
			if (than === 'most' ? span <= bound : least >= bound) {
				values[row] = than === 'most' ? span : least;
				continue;
			}
			rectangles.look(cell);
			values[row] = side === 0 ? rectangles.long : rectangles.short;
		}
		return values;
	},
	given: edgesOf
});

const own: readonly PieceMeasure[] = [
	sheetSide('sheet.long', 'long side of the sheet', 0),
	sheetSide('sheet.short', 'short side of the sheet', 1),
	{
		// Where several plates make up a cell each is flat, or its part says what it is.
		id: 'plate.warp',
		label: 'warp of the plate',
		how: 'the warp of its cell where one plate makes it up: of four corners the gap between the diagonals, of more how far they spread across the middle plane',
		kind: 'length',
		over: 'cell',
		isWithin({ measures: { warp } }, { sites }, { than, bound }) {
			if (than === 'least') return bound <= 0;
			// Plates are as warped as their cells, or flat.
			let row = 0;
			while (row < sites.length && !(warp[sites[row]!]! > bound)) row++;
			return bound >= 0 && row === sites.length;
		},
		read({ measures: { warp } }, group, _within, isOf) {
			const plates = platesOf(group, isOf);
			const { sites } = group;
			const values = new Float64Array(sites.length);
			for (let row = 0; row < sites.length; row++) if (plates[row] === 1) values[row] = warp[sites[row]!]!;
			return values;
		},
		given: edgesOf
	},
	{
		id: 'piece.mass',
		label: 'mass',
		how: 'the volumes of its elements, as they are drawn, times the densities of their materials',
		kind: 'mass',
		over: null,
		read: (_face, group) => pieceQuantities(group).mass,
		given: elementsOf
	},
	{
		id: 'bar.length',
		label: 'length',
		how: 'of its bars as they are cut, from end to end',
		kind: 'length',
		over: 'line',
		read: (_face, group) => pieceQuantities(group).cutLength
	}
];

/** Fields that say where a site is, not what a piece is like. */
const NO_MEASURES = new Set(['chance', 'across', 'up', 'course', 'bay', 'from_rim', 'corners', 'facing']);

const ofFields: readonly PieceMeasure[] = (['cell', 'line', 'node'] as const).flatMap((over) =>
	fieldsOver(over)
		.filter(({ name, needs }) => !NO_MEASURES.has(name) && !needs.includes('sun'))
		.map(({ id, label, kind, column }): PieceMeasure => ({
			id,
			label: over === 'cell' ? label : `${label} of the ${over}`,
			kind,
			over,
			how: howReckoned(id),
			read: (face, { sites }) => columnValues(column(face, sites), sites.length),
			given: edgesOf
		}))
);

/** What parts report themselves, by its name. */
const ofParts = (parts: readonly PartDefinition[]): PieceMeasure[] => {
	const found = new Map<string, PieceMeasure>();
	for (const { measures } of parts)
		for (const { name, label, kind } of measures) {
			const id = `part.${name}`;
			if (kind === 'switch' || found.has(id)) continue;
			const read: PieceMeasure['read'] = (_face, { run, sites }) =>
				run.results.get(name) ?? new Float64Array(sites.length).fill(NaN);
			found.set(id, {
				id,
				label: label.toLowerCase(),
				kind,
				over: null,
				how: `reported by the part as ${name}, from its inputs and its cell`,
				read,
				given: inputsOf
			});
		}
	return [...found.values()];
};

/**
 * What can be limited of pieces of some parts, in the order it is offered.
 *
 * ```ts
 * const mass = measuresFor([part], project).find(({ id }) => id === 'piece.mass');
 * ```
 */
export const measuresFor = (
	parts: readonly PartDefinition[],
	{ loads, heat }: Pick<Project, 'loads' | 'heat'>
): readonly PieceMeasure[] => [
	...own,
	...strengthMeasures(loads),
	...heatMeasures(heat),
	...ofFields,
	...ofParts(parts)
];
