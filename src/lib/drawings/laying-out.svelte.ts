import type { HeldPoint } from '$core/drawing/laid-sheet';
import type { OwnDimension, OwnSheet, PlacedView, Shown } from '$core/project/own-sheet-schema';
import { below, insertAt, pathTo, removeAt, setAt, type Place } from '$core/project/typed-path';
import { freshId } from '$lib/edits/fresh-id';
import type { Desk } from '$lib/state/desk.svelte';
import type { SheetLayout } from '$lib/worker/drawings';

/** Something on a sheet that is laid out by hand. */
export interface OnSheet {
	readonly is: 'view' | 'dimension' | 'written';
	readonly id: string;
}

/** A dimension on its way: the points it has so far. */
export interface Measuring {
	readonly way: OwnDimension['way'];
	readonly view: string | null;
	readonly points: readonly HeldPoint[];
}

/** A sheet that is laid out by hand: what is chosen on it, and what is done to it. */
export class LayingOut {
	layout = $state.raw<SheetLayout | null>(null);
	chosen = $state.raw<OnSheet | null>(null);
	/** Null while nothing is measured. */
	measuring = $state.raw<Measuring | null>(null);

	constructor(
		private readonly desk: Desk,
		private readonly sheetOf: () => OwnSheet | null
	) {}

	get sheet(): OwnSheet | null {
		return this.sheetOf();
	}

	/** The view that is chosen. */
	get view(): PlacedView | null {
		const { chosen } = this;
		return (chosen?.is === 'view' && this.sheet?.views.find(({ id }) => id === chosen.id)) || null;
	}

	private get path() {
		return pathTo('drawings', 'sheets', this.sheet!.id);
	}

	viewPath(id: string) {
		return below(this.path, 'views', id);
	}

	titleOf(view: string): string {
		return this.layout?.views.find(({ id }) => id === view)?.title ?? 'view';
	}

	rename(title: string): void {
		this.desk.do(`sheet is ${title}`, setAt(below(this.path, 'title'), title));
	}

	/** @param place where it has room */
	addView(of: Shown, label: string, place: Pick<PlacedView, 'scale' | 'at'>): void {
		const { views } = this.sheet!;
		const view = { id: freshId('view', views), of, ...place };
		if (
			this.desk.do(
				`${label} on ${this.sheet!.title}`,
				insertAt(below(this.path, 'views'), views.length, view)
			)
		)
			this.chosen = { is: 'view', id: view.id };
	}

	/** @param at mm of paper */
	move({ is, id }: OnSheet, [x, y]: readonly [number, number]): void {
		const at: [number, number] = [Math.round(10 * x) / 10, Math.round(10 * y) / 10];
		if (is === 'view') this.desk.do(`${this.titleOf(id)} moved`, setAt(below(this.viewPath(id), 'at'), at));
		if (is === 'written') this.desk.do('words moved', setAt(below(this.path, 'written', id, 'at'), at));
	}

	private placeOf({ is, id }: OnSheet): Place {
		if (is === 'view') return this.viewPath(id);
		return is === 'dimension' ? this.dimensionPath(id) : below(this.path, 'written', id);
	}

	remove(one: OnSheet): void {
		const { sheet } = this;
		// What is measured in a view goes with it.
		const hung = one.is === 'view' ? sheet!.dimensions.filter(({ view }) => view === one.id) : [];
		const said = { view: this.titleOf(one.id), dimension: 'dimension', written: 'words' }[one.is];
		this.desk.do(
			`${said} off ${sheet!.title}`,
			...hung.map(({ id }) => removeAt(this.dimensionPath(id))),
			removeAt(this.placeOf(one))
		);
		this.chosen = null;
	}

	/** The whole sheet. */
	drop(): void {
		this.desk.do(`sheet ${this.sheet!.title} removed`, removeAt(this.path));
		this.chosen = null;
	}

	/** @param say how it is told */
	show(view: PlacedView, of: Shown, say: string): void {
		this.desk.do(`${this.titleOf(view.id)} ${say}`, setAt(below(this.viewPath(view.id), 'of'), of));
	}

	write(): void {
		const { written } = this.sheet!;
		const one = { id: freshId('words', written), text: 'Words', at: [40, 60] as [number, number] };
		if (
			this.desk.do(
				`words on ${this.sheet!.title}`,
				insertAt(below(this.path, 'written'), written.length, one)
			)
		)
			this.chosen = { is: 'written', id: one.id };
	}

	reword(id: string, text: string): void {
		this.desk.do(`words are ${text}`, setAt(below(this.path, 'written', id, 'text'), text));
	}

	/** Take one more point. */
	hold(view: string, point: HeldPoint): void {
		const { measuring } = this;
		if (!measuring || measuring.points.length === 2) return;
		const points = measuring.view === view ? measuring.points : [];
		if (points[0]?.address === point.address) return;
		this.measuring = { ...measuring, view, points: [...points, point] };
	}

	/** The dimension is put so far from its first point. @param off mm of paper */
	put(off: number): void {
		const { measuring } = this;
		const [from, to] = measuring?.points ?? [];
		if (!measuring?.view || !from || !to) return;
		const { view, way } = measuring;
		this.measure({ view, from: from.address, to: to.address, way, off: Math.round(10 * off) / 10 });
		this.measuring = { way, view: null, points: [] };
	}

	measure(dimension: Omit<OwnDimension, 'id'>): void {
		const { dimensions } = this.sheet!;
		const one = { id: freshId('dimension', dimensions), ...dimension };
		this.desk.do(
			`dimension in ${this.titleOf(one.view)}`,
			insertAt(below(this.path, 'dimensions'), dimensions.length, one)
		);
	}

	dimensionPath(id: string) {
		return below(this.path, 'dimensions', id);
	}
}
