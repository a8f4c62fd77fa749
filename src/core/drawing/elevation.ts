import type { Model } from '../cladding/model';
import { boxOf, type Box } from '../geometry/polygon';
import { pointAt } from '../geometry/vector';
import { sourcesOf } from '../schedule/sources';
import type { Revised } from './clouds';
import { boundsOf, Ink, type View } from './drawing';
import { seenAt, type Frame } from './frame';
import { Hiding } from './hidden-lines';
import { markIn } from './mark-in';
import { solidsOf, type Solids } from './solids';
import type { DrawnView } from './view-sheet';

/** Cells that are turned further from the eye have no mark: their lines lie too close. */
const TURNED = 0.2;
/** What covers the middle of a cell by more (mm) hides its mark. */
const COVERED = 400;

/** Lines that are seen, layer by layer. */
export function inkSeen(ink: Ink, { edges }: Solids, hiding: Hiding): void {
	for (const [layer, values] of edges)
		for (let k = 0; k < values.length; k += 6) {
			const [ax, ay, ad] = [values[k]!, values[k + 1]!, values[k + 2]!];
			const [bx, by, bd] = [values[k + 3]!, values[k + 4]!, values[k + 5]!];
			const [dx, dy] = [bx - ax, by - ay];
			hiding.seen(ax, ay, ad, bx, by, bd, (from, to) =>
				ink.line(layer, ax + dx * from, ay + dy * from, ax + dx * to, ay + dy * to)
			);
		}
}

/** What of a view is clouded: where pieces differ, and are turned to the eye and not covered; and where others stood. */
function revisedPlaces(
	model: Model,
	frame: Frame,
	zones: readonly number[] | null,
	{ changed, gone }: Revised,
	isSeen: (x: number, y: number, depth: number) => boolean
): Box[] {
	const boxes: Box[] = [];
	for (const { z, face, group, sites, addresses } of sourcesOf(model)) {
		if (zones && !zones.includes(z)) continue;
		for (const [row, address] of addresses().entries()) {
			if (!changed.has(address)) continue;
			const site = group.sites[row]!;
			if (group.over === 'cell' && seenAt(frame, pointAt(face.measures.normal, site))[2] > -TURNED) continue;
			const places = Array.from(sites.nodes(site), (node) =>
				seenAt(frame, pointAt(face.grid.positions, node))
			);
			const middle = (k: 0 | 1 | 2) => places.reduce((sum, place) => sum + place[k] / places.length, 0);
			if (isSeen(middle(0), middle(1), middle(2))) boxes.push(boxOf(places.map(([x, y]) => [x, y])));
		}
	}
	if (zones) return boxes;
	for (const [x, y, depth] of gone.map((point) => seenAt(frame, point)))
		if (isSeen(x, y, depth)) boxes.push(boxOf([[x, y]]));
	return boxes;
}

/** What is seen of a model from one side, before anything is written on it. */
export interface Seen extends View {
	/** Its lines with the marks of the pieces on cells that are turned to the eye, where they have room. */
	marked(scale: number): DrawnView;
}

/**
 * What is seen of a model: orthographic, hidden lines removed.
 *
 * ```ts
 * const { bounds } = seenOf(model, lookingAlong([0, 1, 0]), null);
 * ```
 * @param zones places of them in the project; null for all
 * @param from what is nearer to the eye is cut away (mm of depth): a section, the cut in wide lines
 * @param revised what is clouded
 */
export function seenOf(
	model: Model,
	frame: Frame,
	zones: readonly number[] | null,
	from = -Infinity,
	revised: Revised | null = null
): Seen {
	const solids = solidsOf(model, frame, zones, from);
	const hiding = new Hiding(solids.corners);
	const lines = new Ink();
	// Nothing stands before the plane that cuts.
	for (const rings of solids.cuts) lines.fill('cuts', rings);
	inkSeen(lines, solids, hiding);
	const inked = lines.done();
	const bounds = boundsOf(inked);
	const isSeen = (x: number, y: number, depth: number) =>
		depth >= from && !hiding.hides(x, y, depth, COVERED);
	const marked = (scale: number): DrawnView => {
		const ink = new Ink();
		ink.place(inked, 1, 0, 0);
		let left = 0;
		for (const { z, face, group, clause, marks } of sourcesOf(model)) {
			const isAlso = clause.clause.kind === 'rule' && clause.clause.rule.also;
			if (group.over !== 'cell' || isAlso || (zones && !zones.includes(z))) continue;
			const own = marks();
			const { normal, centre } = face.measures;
			const { start, corners } = face.cells;
			for (let row = 0; row < group.sites.length; row++) {
				const cell = group.sites[row]!;
				const [, , away] = seenAt(frame, pointAt(normal, cell));
				if (away > -TURNED) continue;
				const [x, y, depth] = seenAt(frame, pointAt(centre, cell));
				if (!isSeen(x, y, depth)) continue;
				const ring = Array.from(
					corners.subarray(start[cell]!, start[cell + 1]!),
					(node): [number, number] => {
						const [px, py] = seenAt(frame, pointAt(face.grid.positions, node));
						return [px, py];
					}
				);
				if (!markIn(ink, ring, own[row]!, scale)) left++;
			}
		}
		const clouded = revised ? revisedPlaces(model, frame, zones, revised, isSeen) : [];
		return { inked: ink.done(), bounds, left, revised: clouded };
	};
	return { inked, bounds, marked };
}

/**
 * A true elevation with its marks.
 *
 * ```ts
 * const { bounds } = elevationOf(model, lookingAlong([0, 1, 0]), null, () => 1 / 100);
 * ```
 * @param scaleOf how many mm of paper a mm of the model is, by what is drawn; the others as for `seenOf`
 */
export function elevationOf(
	model: Model,
	frame: Frame,
	zones: readonly number[] | null,
	scaleOf: (bounds: View['bounds']) => number,
	from = -Infinity,
	revised: Revised | null = null
): DrawnView {
	const seen = seenOf(model, frame, zones, from, revised);
	return seen.marked(scaleOf(seen.bounds));
}
