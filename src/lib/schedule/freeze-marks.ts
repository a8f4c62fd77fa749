import { formatNumber } from '$core/units/quantity';
import { below, pathTo, setAt } from '$core/project/typed-path';
import type { Desk } from '$lib/state/desk.svelte';

/** Whose mark a line is. */
const ownerOf = (line: string) => line.slice(0, line.indexOf(' '));

/** Let the marks of all pieces stay as they are, whatever comes and goes. */
export async function freezeMarks(desk: Desk): Promise<void> {
	const lines = await desk.model.service.marksToFreeze();
	const known = new Set(lines.map(ownerOf));
	// What has a mark and is not there now keeps it: it may come back, and no other is to have it.
	const gone = (desk.project.document.marks.frozen ?? []).filter((line) => !known.has(ownerOf(line)));
	desk.do(
		`${formatNumber(lines.length)} marks frozen`,
		setAt(below(pathTo('marks'), 'frozen'), [...lines, ...gone])
	);
}
