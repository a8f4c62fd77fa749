import type { Mass } from '../project/form-schema';
import type { Project, Zone } from '../project/schema';

/** What forms take, roughly, as against a ruled one; others as much as a sheet through all their points. */
const WORK_OF_FORM: Partial<Record<Mass['form']['kind'], number>> = {
	ruled: 1,
	prism: 1,
	dome: 1,
	revolved: 2
};
const [OF_ANOTHER_FORM, OF_A_TRIM, OF_DRAWN_TILES, OF_SCATTERED_CELLS] = [6, 4, 4, 16];

function workOf({ faces, pattern }: Zone, masses: ReadonlyMap<string, Mass>): number {
	const under = new Set(faces.flatMap(({ mass }) => masses.get(mass) ?? []));
	if (!under.size) return Infinity;
	let work = faces.length;
	for (const { form, trims } of under)
		work += (WORK_OF_FORM[form.kind] ?? OF_ANOTHER_FORM) + OF_A_TRIM * trims.length;
	if (pattern.kind === 'tile') work += OF_DRAWN_TILES;
	if (pattern.kind === 'voronoi' || pattern.kind === 'random splits') work += OF_SCATTERED_CELLS;
	return work;
}

/**
 * The zone whose cells stand soonest, by its place in the document: whoever opens a project sees something of it while
 * the others are set out.
 *
 * ```ts
 * const first = quickestZone(project); // 0 where all are alike
 * ```
 */
export function quickestZone({ masses, zones }: Pick<Project, 'masses' | 'zones'>): number {
	const known = new Map(masses.map((mass) => [mass.id, mass]));
	let [quickest, least] = [0, Infinity];
	for (const [k, zone] of zones.entries()) {
		const work = zone.on.is === 'faces' ? workOf(zone, known) : Infinity;
		if (work < least) [quickest, least] = [k, work];
	}
	return quickest;
}
