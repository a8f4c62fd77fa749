import type { Model } from '../cladding/model';
import type { Shown } from '../project/own-sheet-schema';
import type { Revised } from './clouds';
import type { ShownView } from './shown-views';
import type { DrawnView } from './view-sheet';

/**
 * Views of own sheets that are drawn already: hidden lines take their time, and a view that is moved on its sheet is the
 * same. Good for as long as nothing but drawings has changed in the document.
 *
 * ```ts
 * const kept = new KeptViews();
 * const [cover] = bookOf(model, '2026-11-27', undefined, kept);
 * ```
 */
export class KeptViews {
	private since: readonly unknown[] = [];
	private views = new Map<string, ShownView>();

	get(model: Model, revised: Revised | null, of: Shown, make: () => ShownView): ShownView {
		const { drawings, name, levels, marks, like, zones } = model.project;
		const pieces = model.zones.flatMap(({ model: zone }) => [
			zone?.faces,
			...(zone?.groups ?? []).map(({ serial }) => serial)
		]);
		// What is written on them, beside what the pieces are; documents may be copies of each other.
		const said = JSON.stringify([name, levels, marks, like, zones.map((zone) => [zone.name, zone.code])]);
		const now = [revised, said, ...pieces];
		if (now.length !== this.since.length || now.some((one, k) => one !== this.since[k])) {
			this.since = now;
			this.views = new Map();
		}
		const key = JSON.stringify([of, of.shows === 'section' ? drawings.sections : null]);
		const known = this.views.get(key);
		if (known) return known;
		const shown = make();
		const drawn = new Map<number, DrawnView>();
		const drawnAt = (scale: number): DrawnView => {
			const before = drawn.get(scale);
			if (before) return before;
			const made = shown.drawnAt(scale);
			drawn.set(scale, made);
			return made;
		};
		const kept = { ...shown, drawnAt };
		this.views.set(key, kept);
		return kept;
	}
}
