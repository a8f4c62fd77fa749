import { barSheets } from './bar-sheets';
import { elevations, sections } from './elevation-sheets';
import { listSheets } from './list-sheets';
import { unrolled } from './unrolled-sheets';
import type { Model } from '../cladding/model';
import { sourcesOf } from '../schedule/sources';
import { KeptViews } from './kept-views';
import { nodeSheets } from './node-sheets';
import { ownSheets } from './own-sheets';
import { pieceSheet } from './piece-sheet';
import { piecesByKind } from './pieces-of-kinds';
import { NOT_ISSUED, sheetNumber, type BookSettings, type Issued, type Planned } from './planned';
import { cover } from './cover';
import type { Titles } from './sheet';

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
	const pieces = piecesByKind(sources, 'cell').map((of, k): Planned => {
		const name = { number: sheetNumber('P', k + 1, 3), title: `Piece ${of.kind.name}` };
		return {
			...name,
			group: 'pieces',
			series: 'Pieces, a sheet for each kind',
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
		...barSheets(sources, settings, titles),
		...listSheets(model, 'nodes', ['mark', 'x', 'y', 'z'], 'N', 'Setting-out points', settings, titles),
		...nodeSheets(sources, settings, titles)
	];
	return [cover(model, settings, titles, () => sheets), ...sheets];
}
