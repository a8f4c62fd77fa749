import type { ZoneView } from './model.svelte';
import type { Found } from './selection.svelte';
import type { Marks } from '$core/mark/marks-of';
import { markPrefix } from '$core/cladding/marks';
import { siteSetOf, type GridSite } from '$core/cladding/sites';

/** What pieces are called, on pages: of their own where the project says so, else by their places. */
export class MarkBook {
	private own = $state.raw<ReadonlyMap<string, readonly string[]>>(new Map());
	/** As they came last; null while all are called by their places. */
	now = $state.raw<Marks | null>(null);

	arrived(marks: Marks | null): void {
		this.now = marks;
		this.own = new Map(
			(marks?.own ?? []).map(({ zone, face, over, marks: list }) => [`${zone} ${face} ${over}`, list])
		);
	}

	/** What a site's piece is called. @param code of its zone */
	of(zone: ZoneView, code: string, { face: f, kind, index }: Pick<Found, 'face' | 'kind' | 'index'>): string {
		const own = this.own.get(`${zone.id} ${f} ${kind}`)?.[index];
		return own || siteSetOf(zone.faces[f]!, kind).mark(index, markPrefix(code, zone.faces.length, f));
	}

	/** Every mark of a project's own, with where it is. */
	*all(): Generator<{
		readonly zone: string;
		readonly face: number;
		readonly kind: GridSite;
		readonly site: number;
		readonly mark: string;
	}> {
		for (const [key, list] of this.own) {
			const [zone, face, kind] = key.split(' ') as [string, string, GridSite];
			for (const [site, mark] of list.entries())
				if (mark) yield { zone, face: Number(face), kind, site, mark };
		}
	}
}
