import { Cancelled, Chain } from '$core/chain/chain';
import type { Model } from '$core/cladding/model';
import { costOf, type Cost } from '$core/cost/cost';
import { findClashes, type Clashes } from '$core/clash/find';
import type { Page } from '$core/drawing/drawing';
import type { HeldPoint } from '$core/drawing/laid-sheet';
import type { PlacedView, Shown } from '$core/project/own-sheet-schema';
import { compareReleased, type Compared } from '$core/release/compare';
import { releasedPieces, type ReleasedPieces } from '$core/release/pieces';
import { formats, type Content, writtenAt } from '$core/exchange/formats';
import {
	Drawings,
	type DrawingFormat,
	type IssuedBefore,
	type ListedSheet,
	type SheetLayout,
	type WrittenSheets
} from './drawings';
import { SidePacking } from './side-packing';
import { drawingFonts } from './fonts';
import { readEdited, type EditableName, type EditedList } from '$core/exchange/values/read-edited';
import { writePicture } from '$core/exchange/picture/write';
import { zoneHeat, type ZoneHeat } from '$core/heat/pieces';
import { pieceKindsOf } from '$core/like/bars-and-nodes';
import { kindsOf, type Kind, type Kinds } from '$core/like/kinds';
import { marksOf, marksToFreeze, type Marks } from '$core/mark/marks-of';
import { Files } from '$core/project/files';
import type { LikeSettings } from '$core/project/like-schema';
import type { ScheduleName } from '$core/project/schedules-schema';
import type { Project, Zone } from '$core/project/schema';
import type { CladFigures } from '$core/schedule/clad-figures';
import { countPieces } from '$core/schedule/pieces';
import type { MeasuredPoints } from '$core/survey/match';
import { withPauses } from '$core/units/steps';
import { sideWorkers } from './side-workers';
import { surveyOf, type SurveyFound } from './survey';
import { Lists, type ListedColumns } from './lists';
import { practiceProject } from './practice';
import { reckonedOf, type ReckonedFigure } from './reckoned';
import {
	tryCladding,
	tryLayout,
	tryMoves,
	tryProject,
	type LayoutTrial,
	type MovesFound,
	type ProjectTrial
} from './trials';
import { cellsMessage, modelMessage, type ModelMessage } from './views';

export type Progress = (what: string, done: number, of: number) => void;

/** Answers when it has taken them. */
export type FirstCells = (message: ModelMessage) => void | Promise<void>;

/** A fresh task, so that a message (a cancel, a newer document) can come in. */
const letIn = () => new Promise<void>((resolve) => setTimeout(resolve));

/** Kinds of pieces, and the kind of every row of a group by its serial. */
export interface PieceKindsFound {
	readonly kinds: readonly Kind[];
	readonly of: ReadonlyMap<number, Uint32Array>;
}

/** What zones come to: their cost, and what heat and light go through them, by their ids. */
export interface ZoneTotals {
	readonly cost: Cost;
	readonly heat: ReadonlyMap<string, ZoneHeat>;
}

let files = new Files();
/** Threads that take part in all that is made here. */
const threads = sideWorkers();
const newChain = (serials = 0) => new Chain(files, serials, threads);
let chain = newChain();
/** Settings that are compared have a chain of their own, so that what is kept of the model stays. */
let trials = newChain();
const lists = new Lists();
const drawings = new Drawings();
const known = new Set<string>();
let model: Model | null = null;
let cancelled = false;
/** What is looked for: the newest of its kind goes on, and a run ends those that look in the model that stands. */
const searches = {
	clashes: 0,
	kinds: 0,
	'piece kinds': 0,
	fixes: 0,
	totals: 0,
	curve: 0,
	figures: 0,
	moves: 0,
	drawings: 0
};
/** Until somebody asks for a model. */
let practising = false;
/** A program that has run so often has been compiled for good. */
const ROUNDS = 16;
/** How long a run goes on before it tells how far it is and lets messages in (ms). */
const A_BREATH = 60;
let breath = A_BREATH;

function current(): Model {
	if (!model) throw new Error('the model has not been computed yet');
	return model;
}

function endSearches(): void {
	for (const what of ['clashes', 'kinds', 'piece kinds', 'fixes', 'totals', 'curve', 'figures'] as const)
		searches[what]++;
}

/**
 * Look for something, letting messages in now and then.
 * @param work is given what it has to wait for between its steps, and may tell there how far it is
 * @returns null when it was ended
 */
async function search<Found>(
	what: keyof typeof searches,
	work: (pause: (tell?: () => void) => Promise<void>) => Promise<Found>
): Promise<Found | null> {
	const own = ++searches[what];
	let told = performance.now();
	try {
		return await work(async (tell) => {
			if (performance.now() - told < breath) return;
			told = performance.now();
			tell?.();
			await letIn();
			if (own !== searches[what]) throw new Cancelled();
		});
	} catch (error) {
		if (error instanceof Cancelled) return null;
		throw error;
	}
}

/** The chain in its own thread. One run at a time; the interface asks for the next when one has ended. */
export const chainService = {
	/**
	 * Begin anew: for another project, or in the place of a thread that was ended.
	 * @param serials those it gives out come after these @param between how often a run lets messages in (ms)
	 */
	begin(serials: number, between = A_BREATH): void {
		breath = between;
		endSearches();
		searches.moves++;
		files = new Files();
		chain = newChain(serials);
		trials = newChain();
		known.clear();
		model = null;
	},
	/** Compute what nobody waits for, again and again, so that its programs are quick before somebody does. */
	async practise(): Promise<void> {
		practising = true;
		for (let round = 0; practising && round < ROUNDS; round++) {
			const began = performance.now();
			cellsMessage(await new Chain().run(practiceProject(round)), new Set(), began);
			await letIn();
		}
	},
	/** A file that documents will name. */
	takeFile(hash: string, text: string): void {
		files.take(hash, text);
	},
	/**
	 * @param cells takes the cells while their pieces are still being made, where nothing is shown yet
	 * @param hoursOfSun are counted on every cell
	 * @returns what changed, or null when the run was cancelled; the last model then stands
	 */
	async run(
		project: Project,
		progress: Progress,
		cells: FirstCells | null,
		hoursOfSun = false
	): Promise<ModelMessage | null> {
		cancelled = practising = false;
		endSearches();
		const started = performance.now();
		let told = started;
		const taken: (void | Promise<void>)[] = [];
		try {
			model = await chain.run(project, {
				step: async (what, done, of) => {
					if (performance.now() - told < breath) return;
					told = performance.now();
					progress(what, done, of);
					await letIn();
					if (cancelled) throw new Cancelled();
				},
				hoursOfSun,
				cells: (laid) => taken.push(cells?.(cellsMessage(laid, known, started)))
			});
		} catch (error) {
			if (error instanceof Cancelled) return null;
			throw error;
		} finally {
			// They come by a line of their own: what comes next says of some things only that they are there already.
			await Promise.all(taken);
		}
		return modelMessage(model, known, started);
	},
	cancel(): void {
		cancelled = true;
	},
	/**
	 * Pieces that reach into each other by more than a bound (mm).
	 * @param progress takes the share that is done @returns null when the search was ended
	 */
	clashes(deeper: number, progress: (share: number) => void): Promise<Clashes | null> {
		return search('clashes', (pause) =>
			findClashes(current(), deeper, (share) => pause(() => progress(share)))
		);
	},
	endSearch(what: 'clashes' | 'moves' | 'drawings'): void {
		searches[what]++;
	},
	/** What a zone comes to in another project. @returns null when the search was ended */
	tryOut(project: Project, zone: string, limit: string): Promise<ProjectTrial | null> {
		// It has a chain to itself: one that is given up leaves nothing half done.
		return search('fixes', (pause) => tryProject(newChain(), project, zone, limit, pause));
	},
	/**
	 * How the nodes of a zone are moved best for one of its clauses.
	 * @param progress takes the share that is done @returns null when the search was ended
	 */
	moves(
		project: Project,
		zone: Zone,
		clause: string,
		progress: (share: number) => void
	): Promise<MovesFound | null> {
		return search('moves', (pause) => tryMoves(newChain(), project, zone, clause, pause, progress));
	},
	/** How many kinds of pieces there are at other tolerances (mm). @returns null when it was ended */
	kindsOver(like: LikeSettings, tolerances: readonly number[]): Promise<number[] | null> {
		return search('curve', async (pause) => {
			const counts: number[] = [];
			for (const tolerance of tolerances) {
				const { kinds } = await withPauses(kindsOf(current(), { ...like, tolerance }), () => pause());
				counts.push(kinds.filter(({ variant }) => variant !== null).length);
			}
			return counts;
		});
	},
	/** All that is reckoned of a piece. @param serial of its group @throws Error when the model has another one by now */
	reckoned(serial: number, row: number): ReckonedFigure[] {
		return reckonedOf(current(), serial, row);
	},
	/** What the zones of the model come to. @returns null when it was ended */
	totals(): Promise<ZoneTotals | null> {
		return search('totals', async (pause) => {
			const made = current();
			const heat = new Map<string, ZoneHeat>();
			for (const { model: zone } of made.zones) {
				const own = zone && zoneHeat(zone, made.project.heat);
				if (own) heat.set(zone.zone.id, own);
				await pause();
			}
			return { heat, cost: await withPauses(costOf(made), () => pause()) };
		});
	},
	/** The cells of the model by what is alike. @returns null when the search was ended */
	kinds(like: LikeSettings): Promise<Kinds | null> {
		return search('kinds', (pause) => withPauses(kindsOf(current(), like), () => pause()));
	},
	/** Bars, or pieces on nodes, by what is alike; by the serials of their groups. @returns null when it was ended */
	pieceKinds(over: 'line' | 'node', like: LikeSettings): Promise<PieceKindsFound | null> {
		return search('piece kinds', async (pause) => {
			const { kinds, of } = await withPauses(pieceKindsOf(current(), over, like), () => pause());
			return { kinds, of: new Map(Array.from(of, ([{ serial }, own]) => [serial, own])) };
		});
	},
	/** Measured points against the nodes of the model. @param within how near a point has to be to its node (mm) */
	survey(points: MeasuredPoints, within: number): SurveyFound {
		return surveyOf(current(), points, within);
	},
	/** Some columns of a list of the model. */
	schedule(name: ScheduleName, keys: readonly string[]): ListedColumns {
		const made = current();
		return lists.columns(made, () => files.wholeList(made.project.tables), name, keys);
	},
	/** What the pieces of the model are called otherwise than by their places. */
	marks(): Marks {
		return marksOf(current());
	},
	/** The marks of all pieces, to be kept as they are. */
	marksToFreeze(): string[] {
		return marksToFreeze(current());
	},
	/** An edited list against the model. @throws Error with a sentence when it is none */
	readEdited(lines: readonly (readonly unknown[])[], list: EditableName): EditedList {
		return readEdited(lines, current(), list);
	},
	/** The model in a format, by its id. */
	async write(id: string): Promise<Content> {
		const format = formats.find((one) => one.id === id);
		if (!format) throw new Error(`there is no format "${id}"`);
		const made = current();
		const packing = new SidePacking();
		try {
			return await format.write({
				model: made,
				project: files.wholeProject(made.project),
				at: writtenAt(),
				released: drawings.last,
				fonts: drawingFonts,
				packing: packing.open
			});
		} finally {
			packing.end();
		}
	},
	/** Two releases against each other; null stands for the model as it is. */
	compareReleases(before: ReleasedPieces, after: ReleasedPieces | null): Compared {
		return compareReleased(before, after ?? releasedPieces(current()));
	},
	/** Tell what was released before the sheets that are drawn from now on. */
	drawAfter(issued: IssuedBefore): void {
		drawings.after(issued);
	},
	/** The sheets that can be drawn of the model. */
	sheets(): ListedSheet[] {
		return drawings.sheets(current());
	},
	/** The pages of a sheet, by its number. */
	pages(number: string): readonly Page[] {
		return drawings.pages(current(), number);
	},
	/** How a sheet is laid out by hand; null for others. */
	sheetLayout(number: string): SheetLayout | null {
		return drawings.layout(current(), number);
	},
	/** Points of a view on a sheet that dimensions can hang on. */
	sheetPoints(number: string, view: string): HeldPoint[] {
		return drawings.points(current(), number, view);
	},
	/** Where one more view has room on a sheet that is laid out by hand. */
	placeForView(number: string, of: Shown): Pick<PlacedView, 'scale' | 'at'> | null {
		return drawings.placeFor(current(), number, of);
	},
	/**
	 * Some sheets as one file, of the model as it stands when it is begun.
	 * @param progress takes the share that is done @returns null when it was ended
	 */
	writeSheets(
		numbers: readonly string[],
		format: DrawingFormat,
		progress: (share: number) => void
	): Promise<WrittenSheets | null> {
		const made = current();
		return search('drawings', (pause) =>
			drawings.write(made, numbers, format, (share) => pause(() => progress(share)))
		);
	},
	/** One zone with other settings, set out by itself: its cells and what they come to, or what is wrong. */
	layout(project: Project, zone: Zone): Promise<LayoutTrial> {
		return tryLayout(trials, project, zone);
	},
	/** What a zone comes to with other settings and all that is put on it. @returns null when it was ended */
	cladFigures(project: Project, zone: Zone): Promise<CladFigures | null> {
		return search('figures', (pause) => tryCladding(newChain(), project, zone, pause));
	},
	picture(): { picture: string; pieces: number } {
		return { picture: writePicture(current()), pieces: countPieces(current()) };
	}
};

export type ChainService = typeof chainService;
