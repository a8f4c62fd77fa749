import type { Model } from '../cladding/model';
import type { Project } from '../project/schema';
import { bookOf } from '../drawing/book';
import { sheetGroups, type Planned, type SheetGroup } from '../drawing/planned';
import type { Page } from '../drawing/drawing';
import { everySite } from '../field/column';
import { scheduleNames } from '../project/schedules-schema';
import { inFiles } from '../schedule/listed';
import { makeSchedule, scheduleTitles } from '../schedule/table';
import { scheduleCsv } from './csv/write';
import { writeGlb } from './glb/write';
import { writeIfc } from './ifc/write';
import { anchorsJson } from './json/write-anchors';
import { projectJson } from './json/write';
import type { Chapter, DrawingFonts } from './pdf/write';
import type { Packing } from './archive';
import type { Sheet } from './xlsx/sheet';
import { writeXlsx } from './xlsx/write';
import { writeObj } from './obj/write';
import { writeStl } from './stl/write';
import { writeStepSolids } from './step/solids';
import { writeStep } from './step/write';

/** What files are written of. */
export interface Written {
	readonly model: Model;
	/** Its project with what lies in files of its own in its place. */
	readonly project: Project;
	/** As in 2026-11-27T10:00:00. */
	readonly at: string;
	/** The last release as title blocks tell it, as in: 2, 27 Nov 2026; null for none. */
	readonly released: string | null;
	/** The letters of drawings, fetched when they are first asked for. */
	readonly fonts: () => Promise<DrawingFonts>;
	/** How files that are archives are packed. */
	readonly packing: Packing;
}

/** What a file holds: a text, bytes, or large files in pieces. */
export type Content = string | Uint8Array | readonly Uint8Array[];

/** A kind of file that can be written. */
export interface Format {
	/** For good: pages and the command line name it so. */
	readonly id: string;
	/** What is in it. */
	readonly label: string;
	/** What it is called among those who read it. */
	readonly called: string;
	/** What it is for, in a few words. */
	readonly use: string;
	/** What several formats are chosen by at once. */
	readonly group: string;
	/** The end of its files' names, after the project's. */
	readonly ending: string;
	readonly type: string;
	write(of: Written): Content | Promise<Content>;
}

/** What a list is called where it is one file among others. */
const labels = {
	...scheduleTitles,
	structure: 'Structure on cells',
	elements: 'Elements: plates, bars, blades',
	kinds: 'Kinds of pieces',
	materials: 'What is ordered of each material',
	rules: 'What each clause comes to',
	lengths: 'Lengths: bars packed into stock',
	sheets: 'Sheets: plates packed onto stock',
	anchors: 'Anchor points of every piece',
	nodes: 'Setting-out points'
};
const schedules = scheduleNames.map((name): Format => ({
	id: name,
	label: labels[name],
	called: 'CSV',
	use: 'One list for any spreadsheet',
	group: 'csv',
	ending: `-${name}.csv`,
	type: 'text/csv',
	write: ({ model }) => scheduleCsv(makeSchedule(model, name).columns.filter(inFiles))
}));

/** The schedules that have rows, each made when it is written. */
function* sheetsOf(model: Model): Generator<Sheet> {
	for (const name of scheduleNames) {
		const { columns, rows } = makeSchedule(model, name);
		if (rows || name === 'panels')
			yield { name: scheduleTitles[name], columns: columns.filter(inFiles), rows: everySite(rows) };
	}
}

/** Told of a sheet that cannot be drawn: the others are written without it. Where nobody is told, nothing is written. */
export type SheetFailed = (sheet: Planned, error: unknown) => void;

/**
 * Sheets in their groups, each drawn when it is written.
 *
 * ```ts
 * const bytes = await writePdf('Tidal Lido', chaptersOf(bookOf(model, '2026-11-27')), await fonts(), writtenAt());
 * ```
 */
export function* chaptersOf(sheets: readonly Planned[], failed?: SheetFailed): Generator<Chapter> {
	for (const group of Object.keys(sheetGroups) as SheetGroup[])
		yield {
			title: sheetGroups[group],
			pages: pagesOf(
				sheets.filter((one) => one.group === group),
				failed
			)
		};
}
/**
 * Their pages, one after the other.
 *
 * ```ts
 * const text = writeDxf(pagesOf(bookOf(model, '2026-11-27')));
 * ```
 */
export function* pagesOf(sheets: readonly Planned[], failed?: SheetFailed): Generator<Page> {
	for (const sheet of sheets) {
		let pages: Page[] = [];
		try {
			pages = sheet.draw();
		} catch (error) {
			if (!failed) throw error;
			failed(sheet, error);
		}
		yield* pages;
	}
}

/** Every format, in the order it is offered. A format is added here, and nowhere else. */
export const formats: readonly Format[] = [
	...schedules,
	{
		id: 'xlsx',
		label: 'All schedules, a sheet each',
		called: 'XLSX',
		use: 'For spreadsheets: heads, filters and totals; edited, it comes back',
		group: 'xlsx',
		ending: '.xlsx',
		type: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
		write: ({ model, at, packing }) => writeXlsx(sheetsOf(model), at, packing)
	},
	{
		id: 'pdf',
		label: 'All drawings, sheet by sheet',
		called: 'PDF',
		use: 'To be printed and sent',
		group: 'pdf',
		ending: '.pdf',
		type: 'application/pdf',
		async write({ model, at, fonts, released }) {
			const { writePdf } = await import('./pdf/write');
			const sheets = bookOf(model, at.slice(0, 10), { last: released, revised: null });
			return writePdf(model.project.name, chaptersOf(sheets), await fonts(), at);
		}
	},
	{
		id: 'dxf',
		label: 'Elevations and unrolled zones',
		called: 'DXF',
		use: 'For programs that draw lines, by layers',
		group: 'dxf',
		ending: '.dxf',
		type: 'image/vnd.dxf',
		async write({ model, at, released }) {
			const { writeDxf } = await import('./dxf/write');
			const sheets = bookOf(model, at.slice(0, 10), { last: released, revised: null });
			return writeDxf(pagesOf(sheets.filter(({ group }) => group === 'elevations' || group === 'unrolled')));
		}
	},
	{
		id: 'patterns',
		label: 'Flat patterns of sheets, true to size',
		called: 'DXF',
		use: 'To be cut: a block for sheets that are alike, each piece with its mark',
		group: 'dxf',
		ending: '-patterns.dxf',
		type: 'image/vnd.dxf',
		async write({ model }) {
			const { writeDxfPatterns } = await import('./dxf/write-patterns');
			return writeDxfPatterns(model);
		}
	},
	{
		id: 'lines',
		label: 'Grid lines and guides in space',
		called: 'DXF',
		use: 'For setting-out and structure: every line once, in mm',
		group: 'dxf',
		ending: '-lines.dxf',
		type: 'image/vnd.dxf',
		async write({ model }) {
			const { writeDxfLines } = await import('./dxf/write-lines');
			return writeDxfLines(model);
		}
	},
	{
		id: 'glb',
		label: 'Model, metres, Y up',
		called: 'GLB',
		use: 'To be looked at anywhere: every piece with its mark',
		group: 'glb',
		ending: '.glb',
		type: 'model/gltf-binary',
		write: ({ model }) => writeGlb(model)
	},
	{
		id: 'ifc',
		label: 'Building model',
		called: 'IFC4',
		use: 'For building models of all trades: pieces with quantities',
		group: 'ifc',
		ending: '.ifc',
		type: 'application/x-step',
		write: ({ model, at }) => writeIfc(model, at)
	},
	{
		id: 'step',
		label: 'Faces of the masses',
		called: 'STEP',
		use: 'Exact surfaces for design and machines',
		group: 'step',
		ending: '.stp',
		type: 'application/x-step',
		write: ({ model, at }) => writeStep(model, at)
	},
	{
		id: 'solids',
		label: 'Pieces as solids',
		called: 'STEP',
		use: 'For making: plates and straight bars as exact bodies',
		group: 'step',
		ending: '-pieces.stp',
		type: 'application/x-step',
		write: ({ model, at }) => writeStepSolids(model, at)
	},
	{
		id: 'obj',
		label: 'Pieces as meshes, each by its mark',
		called: 'OBJ',
		use: 'For pictures and other models, in mm',
		group: 'obj',
		ending: '.obj',
		type: 'model/obj',
		write: ({ model }) => writeObj(model)
	},
	{
		id: 'stl',
		label: 'All bodies as triangles',
		called: 'STL',
		use: 'For printing in small, in mm',
		group: 'stl',
		ending: '.stl',
		type: 'model/stl',
		write: ({ model }) => writeStl(model)
	},
	{
		id: '3mf',
		label: 'Pieces with materials, in mm',
		called: '3MF',
		use: 'For printing and checking bodies',
		group: '3mf',
		ending: '.3mf',
		type: 'model/3mf',
		async write({ model, at, packing }) {
			const { write3mf } = await import('./3mf/write');
			return write3mf(model, at, packing);
		}
	},
	{
		id: 'placing',
		label: 'Anchor points of every piece',
		called: 'JSON',
		use: 'For site and other programs: where each piece goes',
		group: 'placing',
		ending: '-placing.json',
		type: 'application/json',
		write: ({ model }) => anchorsJson(model)
	},
	{
		id: 'json',
		label: 'Project file',
		called: 'JSON',
		use: 'The project whole, to be kept or opened elsewhere',
		group: 'json',
		ending: '.json',
		type: 'application/json',
		write: ({ project }) => projectJson(project)
	}
];

/** What formats are chosen by. */
export const formatGroups = [...new Set(formats.map(({ group }) => group))];

/**
 * The moment that files say they were written at.
 *
 * ```ts
 * const content = await format.write({ model, project, at: writtenAt(), released: null, fonts, packing });
 * ```
 */
export const writtenAt = (): string => new Date().toISOString().slice(0, 19);
