import { markPrefix } from '../cladding/marks';
import type { ZoneModel } from '../cladding/model';
import { boxOf, type Box } from '../geometry/polygon';
import { flatLayout } from '../measure/flat-layout';
import type { GroupSource } from '../schedule/sources';
import type { Revised } from './clouds';
import { Ink, type View } from './drawing';
import { markIn } from './mark-in';
import type { DrawnView } from './view-sheet';

/** A face of a zone laid flat by true lengths. */
export interface Unrolled extends DrawnView {
	/** The middle of every bay along the foot and of every course up the side (mm), with their numbers. */
	readonly bays: readonly { readonly number: number; readonly at: number }[];
	readonly courses: readonly { readonly number: number; readonly at: number }[];
}

/** Where each number stands in the middle. */
class Middles {
	private readonly sums = new Map<number, [sum: number, count: number]>();

	add(number: number, at: number): void {
		const known = this.sums.get(number) ?? [0, 0];
		this.sums.set(number, [known[0] + at, known[1] + 1]);
	}

	done(): { number: number; at: number }[] {
		return [...this.sums]
			.map(([number, [sum, count]]) => ({ number, at: sum / count }))
			.sort((a, b) => a.number - b.number);
	}
}

/**
 * The cells of a face laid flat: every course line at its true length, with the marks of what stands on them. Cells that
 * are curved both ways do not lie flat: their edges along courses are true, the others nearly so.
 * @param sources of all groups @param scaleOf mm of paper to a mm of the model, by what is drawn
 * @param revised what is clouded
 */
export function unrolledFace(
	zone: ZoneModel,
	f: number,
	sources: readonly GroupSource[],
	scaleOf: (bounds: View['bounds']) => number,
	revised: Revised | null = null
): Unrolled {
	const face = zone.faces[f]!;
	const { cells } = face;
	const { points, left, right, height } = flatLayout(face);
	const bounds = [left, 0, right, height] as const;
	const scale = scaleOf(bounds);
	const ink = new Ink();
	const marks = new Map<number, string>();
	const clouded = new Set<number>();
	for (const { zone: own, clause, group, marks: marksOf, addresses } of sources) {
		if (own !== zone || clause.face !== f || group.over !== 'cell') continue;
		if (revised)
			for (const [row, address] of addresses().entries())
				if (revised.changed.has(address)) clouded.add(group.sites[row]!);
		if (clause.clause.kind === 'rule' && clause.clause.rule.also) continue;
		const called = marksOf();
		group.sites.forEach((site, row) => marks.set(site, called[row]!));
	}
	const prefix = `${markPrefix(zone.zone.code, zone.faces.length, f)}-`;
	const [bays, courses] = [new Middles(), new Middles()];
	let omitted = 0;
	const boxes: Box[] = [];
	for (let c = 0; c < cells.count; c++) {
		const ring: [number, number][] = [];
		for (let k = cells.start[c]!; k < cells.start[c + 1]!; k++)
			ring.push([points[2 * k]!, points[2 * k + 1]!]);
		ink.ring(marks.has(c) ? 'panels' : 'cells', ring);
		const middle = ring.reduce(([x, y], [px, py]) => [x + px / ring.length, y + py / ring.length], [0, 0]);
		bays.add(cells.bay[c]!, middle[0]);
		courses.add(cells.course[c]!, middle[1]);
		if (clouded.has(c)) boxes.push(boxOf(ring));
		const mark = marks.get(c);
		// The zone stands in the title.
		if (mark && !markIn(ink, ring, mark.startsWith(prefix) ? mark.slice(prefix.length) : mark, scale))
			omitted++;
	}
	return {
		inked: ink.done(),
		bounds,
		left: omitted,
		revised: boxes,
		bays: bays.done(),
		courses: courses.done()
	};
}
