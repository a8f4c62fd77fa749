import type { Model } from '../../cladding/model';
import { anchorPoints } from '../../cladding/anchor-points';
import { anchorMark } from '../../schedule/anchors';
import { pieceMarks } from '../../mark/marks-of';
import { pieceAddress } from '../../schedule/pieces';

/** Where every piece is to be placed, for other programs: its points in order, with their marks. mm */
export function anchorsJson(model: Model): string {
	const { project, zones } = model;
	const markOf = pieceMarks(model);
	const pieces: string[] = [];
	for (const { model: zone } of zones)
		for (const clause of zone?.groups ?? []) {
			const face = zone!.faces[clause.face]!;
			const { group } = clause;
			const nodeCalled = anchorMark({ zone: zone!, clause, face });
			for (let row = 0; row < group.sites.length; row++)
				pieces.push(
					JSON.stringify({
						mark: markOf(zone!, clause, row),
						address: pieceAddress(zone!, clause, row),
						part: group.ready.part.label,
						variant: group.ready.variant.name,
						points: anchorPoints(face, group, row).map((point) => ({
							node: nodeCalled(point),
							at: point.at
						}))
					})
				);
		}
	const head = JSON.stringify({ project: project.name, unit: 'mm' }).slice(1, -1);
	return `{${head},"pieces":[\n${pieces.join(',\n')}\n]}\n`;
}
