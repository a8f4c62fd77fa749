import type { FaceModel } from '../cladding/model';
import type { PieceGroup } from '../cladding/pieces';
import { pieceQuantities } from '../cladding/quantities';
import { CellRectangles } from '../measure/cell-rectangles';
import { NO_CELL } from '../pattern/edges';
import type { Loads } from '../project/loads-schema';
import type { Material } from '../project/material-schema';
import { allowedDeflection, beamDeflection, KILONEWTON_PER_M2, neededInertia } from '../strength/beam';
import { bentStress, twistRadius } from '../strength/cold-bent';
import { panesUnderLoad, type PanesUnderLoad } from '../strength/plate';
import { secondMoment } from '../strength/sections';
import type { Given, PieceMeasure } from './measure';
import { platesOf } from './plates';

/** m/s², the standard value (ISO 80000-3). */
const GRAVITY = 9.80665;
/** A piece hangs on two brackets: common practice. */
const BRACKETS = 2;
const MM4_PER_CM4 = 1e4;

/** The thickest float glass (mm; EN 572-2, from memory): a plate beyond it is a unit of panes. */
const THICKEST_PANE = 19;
/** Between the two panes of a unit that is drawn as one plate (mm): common practice. */
const CAVITY = 12;

/** Glass panes of each piece, one behind the other: those of a row are from `first[row]` up to the next row's. */
interface Panes {
	readonly first: Uint32Array;
	/** mm */
	readonly thickness: Float64Array;
}

const panesIn = (thickness: number) => (thickness > THICKEST_PANE ? 2 : thickness > 0 ? 1 : 0);

/** The panes that the plates of glass of each piece are of. */
function panesOf({ run, ready, sites }: PieceGroup, isOf: (material: Material) => boolean): Panes {
	const plates = run.elements.flatMap(({ element, row, stock }) => {
		const material = ready.materials[element]!;
		if (ready.elements[element]!.category !== 'plate' || !material.glass || !isOf(material)) return [];
		return stock?.shape === 'plate' ? [{ row, plate: stock.sizes[0]! }] : [];
	});
	const first = new Uint32Array(sites.length + 1);
	for (const { row, plate } of plates)
		for (let k = 0; k < row.length; k++) first[row[k]! + 1]! += panesIn(plate[k]!);
	for (let row = 0; row < sites.length; row++) first[row + 1]! += first[row]!;
	const thickness = new Float64Array(first[sites.length]!);
	const next = first.slice(0, sites.length);
	for (const { row, plate } of plates)
		for (let k = 0; k < row.length; k++) {
			const panes = panesIn(plate[k]!);
			const each = panes === 2 ? (plate[k]! - CAVITY) / 2 : plate[k]!;
			for (let pane = 0; pane < panes; pane++) thickness[next[row[k]!]!++] = each;
		}
	return { first, thickness };
}

/** Those of one piece. */
const panesAt = ({ first, thickness }: Panes, row: number) =>
	thickness.subarray(first[row]!, first[row + 1]!);

/** E of the first glass of a group that has one (N/mm²). */
const glassStiffness = ({ ready }: PieceGroup): number =>
	ready.materials.find(({ glass, stiffness }) => glass && stiffness !== null)?.stiffness ?? NaN;

/** The bar that each piece along a line is: E I of all its bars together (N mm²), and I alone (mm⁴). */
function barsOf({ run, ready, sites }: PieceGroup): { rigid: Float64Array; inertia: Float64Array } {
	const rigid = new Float64Array(sites.length);
	const inertia = new Float64Array(sites.length);
	for (const { element, row, stock } of run.elements) {
		const { stiffness } = ready.materials[element]!;
		if (ready.elements[element]!.category !== 'bar' || !stock || stiffness === null) continue;
		for (let k = 0; k < row.length; k++) {
			const own = secondMoment(
				stock.shape,
				stock.sizes.map((column) => column[k]!)
			);
			if (own === null) continue;
			inertia[row[k]!]! += own;
			rigid[row[k]!]! += own * stiffness;
		}
	}
	return { rigid, inertia };
}

/** What presses on a bar: half of the cells on both of its sides, evenly along it (N/mm). */
function loadOn({ edges, measures }: FaceModel, line: number, span: number, wind: number): number {
	let area = 0;
	for (const cell of [edges.left[line]!, edges.right[line]!])
		if (cell !== NO_CELL && cell < measures.area.length) area += measures.area[cell]! / 2;
	return (wind * KILONEWTON_PER_M2 * area) / span;
}

/** A measure of bars under wind, from their span, load and E I. */
const ofBars = (
	id: string,
	label: string,
	kind: PieceMeasure['kind'],
	how: string,
	{ wind }: Loads,
	value: (load: number, span: number, rigid: number, inertia: number) => number
): PieceMeasure => ({
	id,
	label,
	kind,
	over: 'line',
	how,
	...(wind === null && { lacks: 'the wind' }),
	read(face, group) {
		const { sites } = group;
		const values = new Float64Array(sites.length).fill(NaN);
		if (wind === null) return values;
		const { rigid, inertia } = barsOf(group);
		const { cutLength } = pieceQuantities(group);
		for (let row = 0; row < sites.length; row++) {
			const span = cutLength[row]!;
			if (!(rigid[row]! > 0 && span > 0)) continue;
			values[row] = value(loadOn(face, sites[row]!, span, wind), span, rigid[row]!, inertia[row]!);
		}
		return values;
	},
	given(face, group, row) {
		if (wind === null) return [];
		const { rigid, inertia } = barsOf(group);
		const span = pieceQuantities(group).cutLength[row]!;
		const load = (loadOn(face, group.sites[row]!, span, wind) * span) / 1000;
		return [
			{ label: 'span L', value: span, kind: 'length' },
			{ label: 'wind on it, w L', value: load, kind: 'force' },
			{ label: 'E', value: rigid[row]! / inertia[row]!, kind: 'stress' },
			{ label: 'I', value: inertia[row]! / MM4_PER_CM4, kind: 'inertia' },
			{ label: 'may bend', value: allowedDeflection(span), kind: 'length' }
		];
	}
});

/** A measure of panes under wind. */
const ofPanes = (
	id: string,
	label: string,
	kind: PieceMeasure['kind'],
	how: string,
	{ wind, glass }: Loads,
	value: (panes: PanesUnderLoad) => number
): PieceMeasure => ({
	id,
	label,
	kind,
	over: 'cell',
	how,
	...(wind === null && { lacks: 'the wind' }),
	read(face, group, _within, isOf) {
		const { sites } = group;
		const values = new Float64Array(sites.length).fill(NaN);
		if (wind === null) return values;
		const stiffness = glassStiffness(group);
		const rectangles = new CellRectangles(face.cells, face.grid.positions);
		const panes = panesOf(group, isOf);
		for (let row = 0; row < sites.length; row++) {
			const own = panesAt(panes, row);
			if (!own.length) continue;
			rectangles.look(sites[row]!);
			const { long, short } = rectangles;
			if (short > 0)
				values[row] = value(panesUnderLoad(long, short, own, wind * KILONEWTON_PER_M2, stiffness, glass));
		}
		return values;
	},
	given(face, group, row) {
		const rectangles = new CellRectangles(face.cells, face.grid.positions);
		rectangles.look(group.sites[row]!);
		return [
			{ label: 'wind p', value: wind ?? NaN, kind: 'pressure' },
			{ label: 'long side', value: rectangles.long, kind: 'length' },
			{ label: 'short side b', value: rectangles.short, kind: 'length' },
			...Array.from(
				panesAt(
					panesOf(group, () => true),
					row
				),
				(value, k): Given => ({ label: `pane ${k + 1}, t`, value, kind: 'length' })
			),
			{ label: 'E', value: glassStiffness(group), kind: 'stress' },
			{ label: 'allowed', value: glass, kind: 'stress' }
		];
	}
});

/**
 * What bars, panes and brackets come to.
 *
 * ```ts
 * const bends = strengthMeasures(project.loads).find(({ id }) => id === 'bar.deflection');
 * ```
 */
export const strengthMeasures = (loads: Loads): readonly PieceMeasure[] => [
	{
		id: 'glass.bent',
		label: 'stress of the pane bent cold',
		kind: 'stress',
		over: 'cell',
		how: 'E t / (2 R), with R the area over twice the warp: the pane is twisted to its corners. E of its glass, t of its pane, of pieces of one plate; a plate over 19 mm is taken for two panes with 12 mm between them (common practice)',
		read({ measures: { warp, area } }, group, _within, isOf) {
			const { sites } = group;
			const stiffness = glassStiffness(group);
			const plates = platesOf(group, ({ glass }) => glass);
			const values = new Float64Array(sites.length).fill(NaN);
			const { first, thickness } = panesOf(group, isOf);
			for (let row = 0; row < sites.length; row++) {
				const cell = sites[row]!;
				// Where several plates make up a cell each is flat, or its part says what it is.
				if (plates[row] !== 1 || first[row] === first[row + 1] || !(area[cell]! > 0)) continue;
				const radius = twistRadius(area[cell]!, warp[cell]!);
				values[row] = warp[cell]! > 0 ? bentStress(stiffness, thickness[first[row]!]!, radius) : 0;
			}
			return values;
		},
		given({ measures: { warp, area } }, group, row) {
			const cell = group.sites[row]!;
			return [
				{ label: 'warp', value: warp[cell]!, kind: 'length' },
				{ label: 'area', value: area[cell]!, kind: 'area' },
				{ label: 'R', value: twistRadius(area[cell]!, warp[cell]!), kind: 'length' },
				{
					label: 't',
					value:
						panesAt(
							panesOf(group, () => true),
							row
						)[0] ?? NaN,
					kind: 'length'
				},
				{ label: 'E', value: glassStiffness(group), kind: 'stress' }
			];
		}
	},
	ofPanes(
		'glass.stress',
		'stress of the pane under wind',
		'stress',
		'6 M / t², M of a thin plate on four sides (Navier’s series, Timoshenko; small deflections as in EN 16612, from memory) with the sides of its smallest rectangle; several panes share the wind as they are stiff; a plate over 19 mm is taken for two, with 12 mm between them (common practice)',
		loads,
		({ stress }) => stress
	),
	ofPanes(
		'glass.deflection',
		'deflection of the pane under wind',
		'length',
		'the same plate in its middle: a share of p b⁴ / D, D of all panes together',
		loads,
		({ deflection }) => deflection
	),
	ofPanes(
		'glass.needed',
		'thickness that one pane would need',
		'length',
		'the thickness at which the same plate has the allowed stress of the project',
		loads,
		({ needed }) => needed
	),
	ofBars(
		'bar.deflection',
		'deflection of the bar under wind',
		'length',
		'5 w L⁴ / (384 E I): it lies on its two ends; w is the wind on half of the cells on both sides, I of its section about the axis across its depth',
		loads,
		(load, span, rigid) => beamDeflection(load, span, rigid, 1)
	),
	ofBars(
		'bar.deflection_share',
		'deflection of the bar as a share of what it may',
		'ratio',
		'its deflection over L/200 up to 3 m, 5 mm + L/300 up to 7.5 m, L/250 above (EN 13830, from memory)',
		loads,
		(load, span, rigid) => beamDeflection(load, span, rigid, 1) / allowedDeflection(span)
	),
	ofBars(
		'bar.inertia',
		'second moment of area of the bar',
		'inertia',
		'closed form of its section, about the axis across its depth',
		loads,
		(_load, _span, _rigid, inertia) => inertia / MM4_PER_CM4
	),
	ofBars(
		'bar.inertia_needed',
		'second moment of area that the bar would need',
		'inertia',
		'5 w L⁴ / (384 E δ), δ what it may bend by EN 13830 (from memory)',
		loads,
		(load, span, rigid, inertia) =>
			neededInertia(load, span, rigid / inertia, allowedDeflection(span)) / MM4_PER_CM4
	),
	{
		id: 'piece.bracket',
		label: 'dead load on each of its brackets',
		kind: 'force',
		over: null,
		how: `m g / ${BRACKETS}: a piece hangs on two brackets (common practice), g 9.80665 m/s²`,
		read: (_face, group) => pieceQuantities(group).mass.map((mass) => (mass * GRAVITY) / BRACKETS / 1000),
		given: (_face, group, row) => [{ label: 'm', value: pieceQuantities(group).mass[row]!, kind: 'mass' }]
	}
];
