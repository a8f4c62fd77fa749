import type { Model } from '$core/cladding/model';
import { bookOf } from '$core/drawing/book';
import { KeptViews } from '$core/drawing/kept-views';
import type { HeldPoint, LaidSheet } from '$core/drawing/laid-sheet';
import type { Planned, SheetGroup } from '$core/drawing/planned';
import type { Page } from '$core/drawing/drawing';
import { chaptersOf, pagesOf, writtenAt } from '$core/exchange/formats';
import type { PlacedView, Shown } from '$core/project/own-sheet-schema';
import type { ReleasedPieces } from '$core/release/pieces';
import { revisedSince } from '$core/release/revised';
import { drawingFonts } from './fonts';

/** A sheet that can be drawn, or several that go on from one another. */
export interface ListedSheet {
	readonly number: string;
	readonly title: string;
	readonly group: SheetGroup;
	readonly count: number;
}

/** How a sheet is laid out by hand. */
export type SheetLayout = Pick<LaidSheet, 'views' | 'lost'>;

/** Sheets as a file, and those that could not be drawn, in sentences. */
export interface WrittenSheets {
	readonly content: string | Uint8Array;
	readonly failed: readonly string[];
}

/** What was released before sheets are drawn. */
export interface IssuedBefore {
	/** The last release, as the title block tells it. */
	readonly last: string | null;
	/** The release that differences are clouded against; null for no clouds. */
	readonly clouds: { readonly released: ReleasedPieces; readonly since: string } | null;
}

/** Files that several sheets go into. */
export type DrawingFormat = 'pdf' | 'dxf';

/** The drawings of the model as it stands; sheets are drawn when they are looked at, or written. */
export class Drawings {
	private model: Model | null = null;
	private book: readonly Planned[] = [];
	private readonly drawn = new Map<string, readonly Page[]>();
	private issued: IssuedBefore = { last: null, clouds: null };
	private readonly kept = new KeptViews();

	/** Tell what was released before. */
	after(issued: IssuedBefore): void {
		this.issued = issued;
		this.model = null;
	}

	/** The last release, as the title block tells it. */
	get last(): string | null {
		return this.issued.last;
	}

	private of(model: Model): readonly Planned[] {
		if (model !== this.model) {
			this.model = model;
			this.drawn.clear();
			const { last, clouds } = this.issued;
			const revised = clouds && revisedSince(clouds.released, clouds.since, model);
			this.book = bookOf(model, writtenAt().slice(0, 10), { last, revised }, this.kept);
		}
		return this.book;
	}

	sheets(model: Model): ListedSheet[] {
		return this.of(model).map(({ number, title, group, count }) => ({ number, title, group, count }));
	}

	/** The pages of a sheet by its number; none where there is no such sheet. */
	pages(model: Model, number: string): readonly Page[] {
		const planned = this.of(model).find((one) => one.number === number);
		const pages = this.drawn.get(number) ?? planned?.draw() ?? [];
		this.drawn.set(number, pages);
		return pages;
	}

	private laid(model: Model, number: string): LaidSheet | null {
		return (
			this.of(model)
				.find((one) => one.number === number)
				?.layout?.() ?? null
		);
	}

	/** How a sheet is laid out by hand; null for others. */
	layout(model: Model, number: string): SheetLayout | null {
		const laid = this.laid(model, number);
		return laid && { views: laid.views, lost: laid.lost };
	}

	/** Points of a view that dimensions can hang on, the nearest to the eye first. */
	points(model: Model, number: string, view: string): HeldPoint[] {
		return this.laid(model, number)?.points(view) ?? [];
	}

	/** Where one more view has room on a sheet that is laid out by hand, and at which scale. @throws NotShown */
	placeFor(model: Model, number: string, of: Shown): Pick<PlacedView, 'scale' | 'at'> | null {
		return this.laid(model, number)?.placeFor(of) ?? null;
	}

	/**
	 * Some sheets as one file; those that cannot be drawn are left out and told.
	 * @param pause is waited for after every sheet, and told the share that is done
	 * @throws Error where none of them can be drawn
	 */
	async write(
		model: Model,
		numbers: readonly string[],
		format: DrawingFormat,
		pause: (share: number) => Promise<void>
	): Promise<WrittenSheets> {
		const wanted = new Set(numbers);
		const sheets = this.of(model).filter(({ number }) => wanted.has(number));
		const failed: string[] = [];
		const fail = ({ number, title }: Planned, error: unknown) => {
			failed.push(`${number} ${title}: ${error instanceof Error ? error.message : String(error)}`);
			if (failed.length === sheets.length) throw new Error(failed[0]);
		};
		if (format === 'pdf') {
			const { writePdf } = await import('$core/exchange/pdf/write');
			const all = sheets.reduce((sum, { count }) => sum + count, 0);
			const chapters = chaptersOf(sheets, fail);
			const content = await writePdf(
				model.project.name,
				chapters,
				await drawingFonts(),
				writtenAt(),
				(done) => pause(done / all)
			);
			return { content, failed };
		}
		const pages: Page[] = [];
		for (const page of pagesOf(sheets, fail)) {
			pages.push(page);
			await pause(pages.length / sheets.length);
		}
		const { writeDxf } = await import('$core/exchange/dxf/write');
		return { content: writeDxf(pages), failed };
	}
}
