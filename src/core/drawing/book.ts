import { elevations, sections } from './elevation-sheets';
import { listSheets } from './list-sheets';
import { unrolled } from './unrolled-sheets';
import { besideName } from '../cladding/beside';
import type { Model } from '../cladding/model';
import { sourcesOf, type GroupSource } from '../schedule/sources';
import { KeptViews } from './kept-views';
import { ownSheets } from './own-sheets';
import { pieceSheet, type PiecesOfKind } from './piece-sheet';
import { NOT_ISSUED, sheetNumber, type BookSettings, type Issued, type Planned } from './planned';
import { cover } from './cover';
import type { Titles } from './sheet';

/** Pieces on cells by their kinds, in the order of the kinds. */
function piecesByKind(sources: readonly GroupSource[]): PiecesOfKind[] {
	const [first] = sources;
	if (!first) return [];
	const { kinds, of } = first.kinds();
	const found = new Map<number, { source: GroupSource; row: number; marks: string[] }>();
	for (const source of sources) {
		const { group, clause, z, marks } = source;
		if (group.over !== 'cell' || besideName(clause)) continue;
		const called = marks();
		group.sites.forEach((site, row) => {
			const kind = of[z]![clause.face]![site]!;
			const known = found.get(kind) ?? { source, row, marks: [] };
			found.set(kind, known);
			known.marks.push(called[row]!);
		});
	}
	return kinds.flatMap((kind, k) => (found.has(k) ? [{ kind, ...found.get(k)! }] : []));
}

/**
 * The sheets of a project, none of them drawn yet.
 *
 * ```ts
 * const [cover] = bookOf(model, '2026-11-27');
 * const [page] = cover!.draw();
 * ```
 * @param date the day they are of, as in 2026-11-27 @param issued what was released before
 * @param kept views that are drawn already
 */
export function bookOf(
	model: Model,
	date: string,
	{ last, revised }: Issued = NOT_ISSUED,
	kept = new KeptViews()
): Planned[] {
	const { paper, block } = model.project.drawings;
	const settings: BookSettings = { paper, date, revised };
	const sources = sourcesOf(model);
	const lines = [...block, ...(last ? [{ label: 'Last release', text: last }] : [])];
	const titles: Titles = { project: model.project.name, date, lines };
	const pieces = piecesByKind(sources).map((of, k): Planned => {
		const name = { number: sheetNumber('P', k + 1, 3), title: `Piece ${of.kind.name}` };
		return {
			...name,
			group: 'pieces',
			count: 1,
			draw: () => [pieceSheet(settings.paper, titles, name.number, of)]
		};
	});
	const sheets: Planned[] = [
		...ownSheets(model, sources, settings, titles, kept),
		...elevations(model, settings, titles),
		...sections(model, settings, titles),
		...unrolled(model, sources, settings, titles),
		...pieces,
		...listSheets(
			model,
			'bars',
			['mark', 'kind', 'variant', 'length', 'start', 'end', 'mass'],
			'B',
			'Bars: cut lengths and ends',
			settings,
			titles
		),
		...listSheets(model, 'nodes', ['mark', 'x', 'y', 'z'], 'N', 'Setting-out points', settings, titles)
	];
	return [cover(model, settings, titles, () => sheets), ...sheets];
}
