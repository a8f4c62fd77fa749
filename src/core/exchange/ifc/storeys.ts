import type { ClauseGroup, FaceModel, ZoneModel } from '../../cladding/model';
import { siteSetOf, type SiteSet } from '../../cladding/sites';
import type { Project } from '../../project/schema';

/** The storeys of a project, from the lowest up: its levels; one on the ground where it has none. Heights in mm. */
export function storeysOf(
	levels: Project['levels']
): Pick<Project['levels'][number], 'id' | 'name' | 'height'>[] {
	if (!levels.length) return [{ id: 'ground', name: 'Ground level', height: 0 }];
	return [...levels].sort((a, b) => a.height - b.height);
}

/** The storey that a height is in: the highest that begins at or below it; what is below all is in the lowest. */
function storeyAt(height: number, storeys: readonly number[]): number {
	let found = 0;
	while (found + 1 < storeys.length && storeys[found + 1]! <= height) found++;
	return found;
}

/** The middle of the nodes that a site lies on (mm). */
function heightOf({ nodes }: SiteSet, { grid: { positions } }: FaceModel, site: number): number {
	const found = nodes(site);
	let sum = 0;
	for (let k = 0; k < found.length; k++) sum += positions[3 * found[k]! + 2]!;
	return sum / found.length;
}

export interface InStoreys {
	/** Of the cells of each storey (mm²). */
	readonly areas: readonly number[];
	/** For every group of pieces the rows in each storey. */
	readonly rows: readonly (readonly (readonly number[])[])[];
}

/**
 * Which cells and pieces of a zone are in which storey, by the middle of their corners.
 * @param storeys their heights from the lowest up (mm)
 */
export function inStoreys(zone: ZoneModel, storeys: readonly number[]): InStoreys {
	const areas = storeys.map(() => 0);
	for (const face of zone.faces) {
		const cells = siteSetOf(face, 'cell');
		for (let c = 0; c < face.cells.count; c++)
			areas[storeyAt(heightOf(cells, face, c), storeys)]! += face.measures.area[c]!;
	}
	const rowsOf = ({ face: f, group }: ClauseGroup) => {
		const face = zone.faces[f]!;
		const sites = siteSetOf(face, group.over);
		const rows = storeys.map((): number[] => []);
		for (let row = 0; row < group.sites.length; row++)
			rows[storeyAt(heightOf(sites, face, group.sites[row]!), storeys)]!.push(row);
		return rows;
	};
	return { areas, rows: zone.groups.map(rowsOf) };
}
