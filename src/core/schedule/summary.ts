import { pieceQuantities } from '../cladding/quantities';
import { rounded } from '../units/quantity';
import type { Model, StageName, ZoneModel } from '../cladding/model';
import { cellKinds, type CellKind } from '../pattern/cells';
import { isBarGroup, isConnectorGroup, isPanelGroup, isStructureGroup } from './pieces';

export interface ZoneSummary {
	name: string;
	code: string;
	faces: number;
	/** Summed over the zone's faces, like all counts here. */
	bays: number;
	courses: number;
	nodes: number;
	edges: number;
	cells: Record<CellKind, number>;
	area_m2: number;
	cell_area_m2: number;
	warp_mm: { max: number; mean: number };
	/** Pieces by the label of their part. */
	pieces: Record<string, number>;
	/** Cells that no rule took. */
	untaken: number;
	/** Pieces with a flag. */
	flags: number;
}

export interface ProjectSummary {
	project: string;
	zones: ZoneSummary[];
	panels: number;
	bars: { count: number; length_m: number };
	/** Parts on nodes. */
	connectors: number;
	blades: { count: number; length_m: number };
	/** Structure hung on cells. */
	structure: { count: number; length_m: number };
	/** Bars of the frames within panels. */
	frame_length_m: number;
	glass_m2: number;
	mass_kg: number;
	like_sets: number | null;
	flags: number;
	ms: Record<StageName, number>;
}

const sum = (values: ArrayLike<number>) => {
	let total = 0;
	for (let k = 0; k < values.length; k++) total += values[k]!;
	return total;
};
const six = (value: number) => rounded(value, 6);

function summariseZone(zone: ZoneModel): ZoneSummary {
	const { faces, groups } = zone;
	const cells = { whole: 0, edge: 0, cut: 0, strip: 0 };
	let warpMax = 0;
	let warpSum = 0;
	let count = 0;
	for (const face of faces) {
		for (const kind of face.cells.kind) cells[cellKinds[kind]!]++;
		for (const warp of face.measures.warp) {
			warpMax = Math.max(warpMax, warp);
			warpSum += warp;
		}
		count += face.cells.count;
	}
	const pieces: Record<string, number> = {};
	let flags = 0;
	for (const { group } of groups) {
		const { label } = group.ready.part;
		pieces[label] = (pieces[label] ?? 0) + group.sites.length;
		flags += group.flags.rows().length;
	}
	return {
		name: zone.zone.name,
		code: zone.zone.code,
		faces: faces.length,
		bays: sum(faces.map((face) => face.grid.across.steps)),
		courses: sum(faces.map((face) => face.grid.up.steps)),
		nodes: sum(faces.map((face) => face.usedNodes)),
		edges: sum(faces.map((face) => face.edges.count)),
		cells,
		area_m2: rounded(sum(faces.map((face) => face.area())) / 1e6, 9),
		cell_area_m2: rounded(sum(faces.map((face) => sum(face.measures.area))) / 1e6, 9),
		warp_mm: { max: six(warpMax), mean: six(count ? warpSum / count : 0) },
		pieces,
		untaken: sum(zone.assignments.map((assignment) => assignment.untaken)),
		flags
	};
}

/**
 * Everything counted and totalled. m, m², kg.
 *
 * ```ts
 * const { zones } = summarise(model);
 * ```
 */
export function summarise(model: Model): ProjectSummary {
	const zones = model.zones.flatMap(({ model: zone }) => (zone ? [zone] : []));
	const summary: ProjectSummary = {
		project: model.project.name,
		zones: zones.map(summariseZone),
		panels: 0,
		bars: { count: 0, length_m: 0 },
		connectors: 0,
		blades: { count: 0, length_m: 0 },
		structure: { count: 0, length_m: 0 },
		frame_length_m: 0,
		glass_m2: 0,
		mass_kg: 0,
		like_sets: null,
		flags: 0,
		ms: { ...model.ms }
	};
	for (const clause of zones.flatMap((zone) => zone.groups)) {
		const { group } = clause;
		const quantities = pieceQuantities(group);
		const barLength = sum(quantities.barLength) / 1000;
		summary.mass_kg += sum(quantities.mass);
		summary.glass_m2 += sum(quantities.glassArea) / 1e6;
		if (isPanelGroup(clause)) {
			summary.panels += group.sites.length;
			summary.frame_length_m += barLength;
		}
		if (isStructureGroup(clause)) {
			summary.structure.count += group.sites.length;
			summary.structure.length_m += sum(quantities.cutLength) / 1000;
		}
		if (isConnectorGroup(clause)) summary.connectors += group.sites.length;
		if (isBarGroup(clause)) {
			summary.bars.count += group.sites.length;
			summary.bars.length_m += sum(quantities.cutLength) / 1000;
		}
		const elements = group.ready.elements;
		for (const table of group.run.elements)
			if (elements[table.element]!.category === 'blade') {
				summary.blades.count += table.count;
				summary.blades.length_m += sum(table.length) / 1000;
			}
	}
	summary.flags = sum(summary.zones.map((zone) => zone.flags));
	for (const part of [summary.bars, summary.blades, summary.structure]) part.length_m = six(part.length_m);
	summary.frame_length_m = six(summary.frame_length_m);
	summary.glass_m2 = six(summary.glass_m2);
	summary.mass_kg = six(summary.mass_kg);
	for (const stage of Object.keys(summary.ms) as StageName[])
		summary.ms[stage] = rounded(summary.ms[stage], 3);
	return summary;
}
