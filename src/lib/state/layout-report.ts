import type { Assignment } from '$core/cladding/assign';
import type { FaceView } from '$lib/worker/views';

/** What is looked at of a zone. */
interface ReportedZone {
	readonly id: string;
	readonly faces: readonly FaceView[];
	readonly assignments: readonly Assignment[];
}

/** What a change of layout did to the addresses of a zone, and to its exceptions. */
export interface LayoutReport {
	readonly zone: string;
	readonly kept: number;
	readonly fresh: number;
	readonly gone: number;
	/** Exceptions put at the same place again under another address, and those that wait for a place. */
	readonly moved: number;
	readonly waiting: number;
}

/** The addresses of a zone's cells as numbers, and by what they were made. */
export interface Addresses {
	readonly serials: string;
	readonly keys: ReadonlySet<number>;
}

/** Beyond this a report costs more than it says. */
const MOST_CELLS = 60_000;

export function addressesOf({ faces }: ReportedZone): Addresses {
	const keys = new Set<number>();
	const count = faces.reduce((sum, { cells }) => sum + cells.count, 0);
	if (count <= MOST_CELLS)
		faces.forEach(({ cells }, f) => {
			for (let c = 0; c < cells.count; c++)
				keys.add(((f * 32768 + cells.course[c]!) * 32768 + cells.bay[c]!) * 256 + (cells.slot[c]! & 255));
		});
	return { serials: faces.map(({ serial }) => serial).join(' '), keys };
}

/** What has changed in a zone, or null when its addresses and exceptions are as they were. */
export function layoutReport(before: Addresses, after: Addresses, zone: ReportedZone): LayoutReport | null {
	if (before.serials === after.serials) return null;
	let kept = 0;
	for (const key of after.keys) if (before.keys.has(key)) kept++;
	const [fresh, gone] = [after.keys.size - kept, before.keys.size - kept];
	if (fresh === 0 && gone === 0) return null;
	return {
		zone: zone.id,
		kept,
		fresh,
		gone,
		moved: zone.assignments.reduce((sum, { moved }) => sum + moved.size, 0),
		waiting: zone.assignments.reduce((sum, { waiting }) => sum + waiting.length, 0)
	};
}
