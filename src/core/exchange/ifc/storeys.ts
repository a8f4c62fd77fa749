import type { ClauseGroup, FaceModel, ZoneModel } from '../../cladding/model';
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

function cellHeight({ cells, grid }: FaceModel, c: number): number {
	let sum = 0;
	for (let k = cells.start[c]!; k < cells.start[c + 1]!; k++)
		sum += grid.positions[3 * cells.corners[k]! + 2]!;
	return sum / (cells.start[c + 1]! - cells.start[c]!);
}

function edgeHeight({ edges, grid }: FaceModel, e: number): number {
	return (grid.positions[3 * edges.from[e]! + 2]! + grid.positions[3 * edges.to[e]! + 2]!) / 2;
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
	for (const face of zone.faces)
		for (let c = 0; c < face.cells.count; c++)
			areas[storeyAt(cellHeight(face, c), storeys)]! += face.measures.area[c]!;
	const rowsOf = ({ clause, face, group }: ClauseGroup) => {
		const heightOf = clause.kind === 'run' ? edgeHeight : cellHeight;
		const rows = storeys.map((): number[] => []);
		for (let row = 0; row < group.anchors.length; row++)
			rows[storeyAt(heightOf(zone.faces[face]!, group.anchors[row]!), storeys)]!.push(row);
		return rows;
	};
	return { areas, rows: zone.groups.map(rowsOf) };
}
