import type { FaceModel, ZoneModel } from '../cladding/model';
import type { PieceGroup } from '../cladding/pieces';
import type { ElementTable } from '../part/element-table';
import type { HeatSettings } from '../project/heat-schema';
import { scales } from '../units/scale';
import { throughOf } from './shipped';

/** Heat and light of the units of a group, by row; NaN for pieces on no cells and without a plate. */
export interface UnitHeat {
	/** W/m²K */
	readonly u: Float64Array;
	/** Glass by its area among that of the cell, 0 to 1. */
	readonly glassShare: Float64Array;
	/** Of the whole cell: what is no glass lets no sun in. */
	readonly g: Float64Array;
	/** What these are of: plates and glass among them (mm²), heat through plates by area (mm² W/m²K), edges of panes (mm). */
	readonly plates: Float64Array;
	readonly glass: Float64Array;
	readonly conducted: Float64Array;
	readonly edge: Float64Array;
}

/** The whole outside of one instance of an element (mm²); 0 where it has no mesh of its own. */
function surfaceOf({ shape }: ElementTable, at: number): number {
	if (shape.is === 'placed') return 0;
	const { positions } = shape;
	const [first, from, to] =
		shape.is === 'made'
			? [at * shape.verticesEach, 0, shape.triangles.length]
			: [shape.firstVertex[at]!, shape.firstCorner[at]!, shape.firstCorner[at + 1]!];
	let sum = 0;
	for (let k = from; k < to; k += 3) {
		const [p, q, r] = [0, 1, 2].map((n) => 3 * (first + shape.triangles[k + n]!)) as [number, number, number];
		const ux = positions[q]! - positions[p]!;
		const uy = positions[q + 1]! - positions[p + 1]!;
		const uz = positions[q + 2]! - positions[p + 2]!;
		const vx = positions[r]! - positions[p]!;
		const vy = positions[r + 1]! - positions[p + 1]!;
		const vz = positions[r + 2]! - positions[p + 2]!;
		sum += Math.hypot(uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx) / 2;
	}
	return sum;
}

/** How long the edge of a plate is (mm): the outside that is neither its face nor its back, over its thickness. */
const edgeOf = (table: ElementTable, at: number): number => {
	const thickness = table.stock?.shape === 'plate' ? table.stock.sizes[0]![at]! : 0;
	return thickness > 0 ? Math.max(0, (surfaceOf(table, at) - 2 * table.area[at]!) / thickness) : 0;
};

/**
 * U, share of glass and g of the units on cells: their plates by area, what is left of the cell as frame of the material
 * of their first bar, the edges of their panes by ψ. Plates that lie behind one another share the cell.
 *
 * ```ts
 * const { u } = unitHeat(faceModel, group.group, project.heat);
 * ```
 */
export function unitHeat(
	{ measures: { area: cellArea } }: Pick<FaceModel, 'measures'>,
	{ run, ready, sites, over }: PieceGroup,
	settings: HeatSettings
): UnitHeat {
	const n = sites.length;
	const [u, glassShare, g] = [0, 0, 0].map(() => new Float64Array(n).fill(NaN)) as [
		Float64Array,
		Float64Array,
		Float64Array
	];
	const [plates, glass, conducted, gained, edge] = [0, 0, 0, 0, 0].map(() => new Float64Array(n)) as [
		Float64Array,
		Float64Array,
		Float64Array,
		Float64Array,
		Float64Array
	];
	if (over !== 'cell') return { u, glassShare, g, plates, glass, conducted, edge };
	for (const table of run.elements) {
		if (ready.elements[table.element]!.category !== 'plate') continue;
		const material = ready.materials[table.element]!;
		const through = throughOf(settings, material);
		for (let k = 0; k < table.count; k++) {
			const row = table.row[k]!;
			const area = table.area[k]!;
			plates[row]! += area;
			conducted[row]! += area * through.u;
			if (!material.glass) continue;
			glass[row]! += area;
			gained[row]! += area * (through.g ?? 0);
			edge[row]! += edgeOf(table, k);
		}
	}
	const bar = ready.elements.findIndex(({ category }) => category === 'bar');
	const frame = bar < 0 ? null : throughOf(settings, ready.materials[bar]!).u;
	for (let row = 0; row < n; row++) {
		const whole = cellArea[sites[row]!]!;
		if (!(plates[row]! > 0 && whole > 0)) continue;
		// More plates than cell: they lie behind one another, or over its rim.
		const shrink = Math.min(1, whole / plates[row]!);
		const rest = whole - plates[row]! * shrink;
		const heat = conducted[row]! * shrink + rest * (frame ?? conducted[row]! / plates[row]!);
		// mm of edge on mm² of cell: a metre is a thousand of them.
		u[row] = heat / whole + (edge[row]! * shrink * settings.spacer * Math.sqrt(scales.area.size)) / whole;
		glassShare[row] = (glass[row]! * shrink) / whole;
		g[row] = (gained[row]! * shrink) / whole;
	}
	return { u, glassShare, g, plates, glass, conducted, edge };
}

/** Heat and light of a zone: those of its units by area. */
export interface ZoneHeat {
	readonly u: number;
	readonly glassShare: number;
	readonly g: number;
	/** Of the cells whose units have a U-value (mm²). */
	readonly area: number;
}

/**
 * A zone's U, share of glass and g by the areas of its units; null where none has any.
 *
 * ```ts
 * const heat = zoneHeat(zoneModel, project.heat);
 * ```
 */
export function zoneHeat({ faces, groups }: ZoneModel, settings: HeatSettings): ZoneHeat | null {
	let [area, u, glassShare, g] = [0, 0, 0, 0];
	for (const { face: f, group, clause } of groups) {
		// What is put beside others is no part of the envelope by itself.
		if (group.over !== 'cell' || (clause.kind === 'rule' && clause.rule.also)) continue;
		const face = faces[f]!;
		const heat = unitHeat(face, group, settings);
		for (let row = 0; row < group.sites.length; row++) {
			if (Number.isNaN(heat.u[row]!)) continue;
			const own = face.measures.area[group.sites[row]!]!;
			area += own;
			u += own * heat.u[row]!;
			glassShare += own * heat.glassShare[row]!;
			g += own * heat.g[row]!;
		}
	}
	return area > 0 ? { u: u / area, glassShare: glassShare / area, g: g / area, area } : null;
}
