import { nodeName, nodeOfName } from '../cladding/address';
import type { Model } from '../cladding/model';
import { boxOf, type Place } from '../geometry/polygon';
import { outlineOf } from '../pattern/cells';
import type { OwnDimension, OwnSheet, PlacedView, Shown } from '../project/own-sheet-schema';
import type { GroupSource } from '../schedule/sources';
import { drawClouds } from './clouds';
import type { Ink, Page } from './drawing';
import { drawLevels } from './elevation-sheets';
import type { KeptViews } from './kept-views';
import type { HeldPoint, LaidSheet, LaidView } from './laid-sheet';
import { drawDimension } from './own-dimension';
import { sheetNumber, type BookSettings, type Planned } from './planned';
import { placeView, roomOf, scaleThatFits, sheetOf, type Room, type Titles } from './sheet';
import { NotShown, shownView, type FacePlace, type ShownView } from './shown-views';
import { drawHeads } from './unrolled-sheets';
import { VIEW_TEXT } from './view-sheet';

/** A view that is drawn, and where places of it lie on the paper. */
interface PaperView {
	readonly view: PlacedView;
	readonly shown: ShownView;
	readonly at: (x: number, y: number) => Place;
}

/** What a view takes where it cannot be shown (mm of paper). */
const [EMPTY_WIDTH, EMPTY_HEIGHT] = [90, 30];

/** The node that an address means; null where there is none. */
function nodeOf(
	{ zones }: Model,
	address: string
): { readonly face: FacePlace; readonly node: number } | null {
	for (const [z, { id, model }] of zones.entries())
		for (const [f, { address: face, grid }] of (model?.faces ?? []).entries()) {
			const head = `${id}/${face}/N/`;
			if (!address.startsWith(head)) continue;
			const node = nodeOfName(grid, grid.positions.length / 3, address.slice(head.length));
			return node < 0 ? null : { face: { z, f }, node };
		}
	return null;
}

const paperOf = (
	{ at, scale }: PlacedView,
	{ bounds: [left, foot, right, head] }: ShownView
): PaperView['at'] => {
	const [x, y] = [at[0] - (left + right) / 2 / scale, at[1] - (foot + head) / 2 / scale];
	return (mx, my) => [mx / scale + x, my / scale + y];
};

/** Whether a view reaches past its sheet, in a sentence with the scale at which it would not. */
function tooLarge(
	{ box: [left, foot, right, head] }: Pick<LaidView, 'box'>,
	scale: number,
	room: Room
): string | null {
	const out =
		left < room.left || foot < room.foot || right > room.left + room.width || head > room.foot + room.height;
	if (!out) return null;
	const one = scaleThatFits((right - left) * scale, (head - foot) * scale, room.width, room.height);
	return one > scale
		? `it is larger than the sheet at 1 : ${scale}; at 1 : ${one} it has room`
		: 'it reaches past the sheet';
}

/** A sheet whose views are placed by hand. */
class OwnPage {
	private readonly drawn: { readonly laid: LaidView; readonly paper: PaperView | null }[];

	constructor(
		private readonly model: Model,
		private readonly sheet: OwnSheet,
		room: Room,
		show: (of: Shown) => ShownView
	) {
		this.drawn = sheet.views.map((view) => {
			const { id, at, scale } = view;
			try {
				const shown = show(view.of);
				const place = paperOf(view, shown);
				const [left, foot, right, head] = shown.bounds;
				const box = [...place(left, foot), ...place(right, head)] as [number, number, number, number];
				const laid: LaidView = { id, title: shown.title, box, fault: tooLarge({ box }, scale, room) };
				return { laid, paper: { view, shown, at: place } };
			} catch (error) {
				if (!(error instanceof NotShown)) throw error;
				const box = [
					at[0] - EMPTY_WIDTH / 2,
					at[1] - EMPTY_HEIGHT / 2,
					at[0] + EMPTY_WIDTH / 2,
					at[1] + EMPTY_HEIGHT / 2
				] as const;
				return { laid: { id, title: 'A view', box, fault: error.message }, paper: null };
			}
		});
	}

	/** Where both points of a dimension lie in its view; null where one is gone. */
	private ends(dimension: OwnDimension): { paper: PaperView; ends: readonly [Place, Place] } | null {
		const paper = this.drawn.find(({ laid }) => laid.id === dimension.view)?.paper;
		if (!paper) return null;
		const ends = [dimension.from, dimension.to].map((address) => {
			const found = nodeOf(this.model, address);
			const isSeen = found && paper.shown.faces.some(({ z, f }) => z === found.face.z && f === found.face.f);
			return isSeen ? paper.shown.nodeAt(found.face, found.node).at : null;
		});
		return ends[0] && ends[1] ? { paper, ends: [ends[0], ends[1]] } : null;
	}

	get layout(): Omit<LaidSheet, 'placeFor'> {
		return {
			views: this.drawn.map(({ laid }) => laid),
			lost: this.sheet.dimensions.filter((one) => !this.ends(one)).map(({ id }) => id),
			points: (id) => this.pointsOf(id)
		};
	}

	private pointsOf(id: string): HeldPoint[] {
		const paper = this.drawn.find(({ laid }) => laid.id === id)?.paper;
		if (!paper) return [];
		const { shown, at } = paper;
		return shown.faces
			.flatMap((face) => {
				const { cells, grid, address } = this.model.zones[face.z]!.model!.faces[face.f]!;
				const head = `${this.model.zones[face.z]!.id}/${address}/N/`;
				return Array.from(new Set<number>(outlineOf(cells).nodes), (node) => {
					const seen = shown.nodeAt(face, node);
					return { address: head + nodeName(grid, node), at: at(...seen.at), depth: seen.depth };
				});
			})
			.sort((a, b) => a.depth - b.depth)
			.map(({ address, at: place }) => ({ address, at: place }));
	}

	/** Draw all of it. */
	draw(ink: Ink): void {
		const { levels } = this.model.project;
		for (const { laid, paper } of this.drawn) {
			const [left, foot, right, head] = laid.box;
			if (!paper) {
				ink.box('tables', left, foot, right - left, head - foot);
				ink.text('text', left + 3, (foot + head) / 2, VIEW_TEXT, `Not drawn: ${laid.fault}`);
				continue;
			}
			const { view, shown } = paper;
			const drawn = shown.drawnAt(1 / view.scale);
			const at = placeView(ink, drawn, 1 / view.scale, {
				left,
				foot,
				width: right - left,
				height: head - foot
			});
			if (shown.isUpright) drawLevels(ink, at, shown.bounds, levels);
			if (shown.heads) drawHeads(ink, at, shown.bounds, shown.heads);
			drawClouds(
				ink,
				drawn.revised.map(({ low, high }) => boxOf([at(...low), at(...high)]))
			);
			ink.text('text', left, foot - CAPTION_OFF, VIEW_TEXT, `${shown.title} · 1 : ${view.scale}`, {
				bold: true
			});
		}
		for (const dimension of this.sheet.dimensions) {
			const found = this.ends(dimension);
			if (!found) continue;
			const { paper, ends } = found;
			const [[ax, ay], [bx, by]] = ends;
			const across = Math.abs(bx - ax);
			const mm = { along: Math.hypot(bx - ax, by - ay), across, up: Math.abs(by - ay) }[dimension.way];
			drawDimension(ink, paper.at(ax, ay), paper.at(bx, by), dimension, mm);
		}
		for (const { text, at } of this.sheet.written) ink.text('text', ...at, WRITTEN, text);
	}
}
/** Under a view to what it is called, and of what is written by hand (mm of paper). */
const [CAPTION_OFF, WRITTEN] = [9, 3];

/** Round a view that is placed: its name, levels and heads (mm of paper). */
const AROUND = 24;

/** Places that are tried across and up a sheet. */
const TRIES = 12;

/**
 * Where a view has room beside those that lie on a sheet already, and at which scale: all of the sheet for the first, a
 * quarter of it for the others.
 */
function roomForView(
	{ bounds: [left, foot, right, head] }: ShownView,
	others: readonly LaidView[],
	room: Room
): Pick<PlacedView, 'scale' | 'at'> {
	const parts = others.length ? 2 : 1;
	const [width, height] = [room.width / parts, room.height / parts];
	const scale = scaleThatFits(right - left, head - foot, width - 2 * AROUND, height - AROUND);
	const [wide, tall] = [(right - left) / scale, (head - foot) / scale];
	let best: { readonly at: [number, number]; readonly over: number } | null = null;
	// From the upper left, as a sheet is read: the first place that covers least of what is there.
	for (let row = 0; row <= TRIES; row++)
		for (let column = 0; column <= TRIES; column++) {
			const x = room.left + AROUND + wide / 2 + (column / TRIES) * (room.width - 2 * AROUND - wide);
			const y =
				room.foot + room.height - AROUND / 2 - tall / 2 - (row / TRIES) * (room.height - 1.5 * AROUND - tall);
			const over = others.reduce((sum, { box }) => {
				const across = Math.min(box[2], x + wide / 2) - Math.max(box[0], x - wide / 2) + AROUND;
				const up = Math.min(box[3], y + tall / 2) - Math.max(box[1], y - tall / 2) + AROUND;
				return sum + Math.max(0, across) * Math.max(0, up);
			}, 0);
			if (!best || over < best.over - 1e-6) best = { at: [Math.round(x), Math.round(y)], over };
		}
	return { scale, at: best!.at };
}

/** The sheets whose views are placed by hand. */
export function ownSheets(
	model: Model,
	sources: readonly GroupSource[],
	settings: BookSettings,
	titles: Titles,
	kept: KeptViews
): Planned[] {
	const room = roomOf(settings.paper);
	return model.project.drawings.sheets.map((sheet, k): Planned => {
		const name = { number: sheetNumber('L', k + 1), title: sheet.title };
		const show = (of: Shown) =>
			kept.get(model, settings.revised, of, () => shownView(model, sources, of, settings.revised));
		const page = () => new OwnPage(model, sheet, room, show);
		const scales = new Set(sheet.views.map(({ scale }) => scale));
		const scale = scales.size > 1 ? 'as told' : [...scales].map((one) => `1 : ${one}`).join('');
		const draw = (): Page[] => [
			sheetOf(settings.paper, titles, { ...name, scale }, (ink) => page().draw(ink))
		];
		const layout = (): LaidSheet => ({
			...page().layout,
			placeFor: (of) => roomForView(show(of), page().layout.views, room)
		});
		return { ...name, group: 'own', count: 1, draw, layout };
	});
}
