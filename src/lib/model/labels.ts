import { two } from '$core/cladding/address';
import { AS_DRAWN, numberOfCorner, type Lie } from '$core/cladding/lie';
import type { ModelView } from '$lib/state/model.svelte';
import type { Found } from '$lib/state/selection.svelte';
import type { FaceView } from '$lib/worker/views';

type Point = readonly [number, number, number];
interface Pixel {
	readonly x: number;
	readonly y: number;
}
export interface Label {
	readonly text: string;
	readonly at: Pixel | null;
	/** What it is: a cell's mark, a corner of the chosen cell, a node by its lines. */
	readonly kind: 'mark' | 'corner' | 'node';
}

const MOST_SELECTED = 40;
const MOST_NEAR = 60;
/** Room a mark needs on the picture (pixels): cells that are smaller are too far away to be named. */
const ROOM = 46;

/** Of a letter, and of a line, with a little air (px). */
const [LETTER, LINE] = [6.8, 17];

const pointOf = (list: Float64Array, k: number): Point => [list[3 * k]!, list[3 * k + 1]!, list[3 * k + 2]!];
const cornersOf = ({ cells }: FaceView, c: number) =>
	cells.corners.subarray(cells.start[c]!, cells.start[c + 1]!);

/** How the piece on a cell lies. */
const lieAt = (view: ModelView, { zone, face, index }: Found): Lie =>
	view.zones[zone]!.groups.find(
		(one) => one.over === 'cell' && !one.beside && one.face === face && one.sites.includes(index)
	)?.lie ?? AS_DRAWN;

/**
 * Labels of the model: marks of the selected cells, or else of those near enough to be read; corner numbers
 * of the last one, and the lines its nodes lie on.
 */
export function modelLabels(
	view: ModelView,
	markOf: (z: number, f: number, c: number) => string,
	selected: readonly Found[],
	project: (point: Point) => Pixel | null,
	size: { readonly width: number; readonly height: number }
): Label[] {
	const cells = selected.filter((one) => one.kind === 'cell');
	const labels: Label[] = cells.slice(-MOST_SELECTED).map((one) => ({
		text: markOf(one.zone, one.face, one.index),
		at: project(pointOf(view.zones[one.zone]!.faces[one.face]!.measures.centre, one.index)),
		kind: 'mark'
	}));
	const last = cells.at(-1);
	if (last) {
		const face = view.zones[last.zone]!.faces[last.face]!;
		const own = face.grid.columns * face.grid.rows;
		const nodes = cornersOf(face, last.index);
		const lie = lieAt(view, last);
		nodes.forEach((node, n) => {
			const at = project(pointOf(face.grid.positions, node));
			labels.push({ text: String(numberOfCorner(lie, nodes.length, n)), at, kind: 'corner' });
			const name =
				node < own
					? `${two(Math.floor(node / face.grid.columns) + 1)}/${two((node % face.grid.columns) + 1)}`
					: `X${node - own + 1}`;
			labels.push({ text: name, at: at && { x: at.x, y: at.y + LINE + 1 }, kind: 'node' });
		});
		return labels;
	}
	return [...labels, ...nearMarks(view, markOf, project, size)];
}

/** Marks of the cells that look large enough, those in the middle of the picture first. */
function nearMarks(
	view: ModelView,
	markOf: (z: number, f: number, c: number) => string,
	project: (point: Point) => Pixel | null,
	size: { readonly width: number; readonly height: number }
): Label[] {
	const found: { label: Label; off: number }[] = [];
	view.zones.forEach((zone, z) =>
		zone.faces.forEach((face, f) => {
			for (let c = 0; c < face.cells.count; c++) {
				const at = project(pointOf(face.measures.centre, c));
				if (!at || at.x < 0 || at.y < 0 || at.x > size.width || at.y > size.height) continue;
				const nodes = cornersOf(face, c);
				const [a, b] = [
					project(pointOf(face.grid.positions, nodes[0]!)),
					project(pointOf(face.grid.positions, nodes[1]!))
				];
				if (!a || !b || Math.hypot(a.x - b.x, a.y - b.y) < ROOM) continue;
				const off = Math.hypot(at.x - size.width / 2, at.y - size.height / 2);
				found.push({ label: { text: markOf(z, f, c), at, kind: 'mark' }, off });
			}
		})
	);
	return found
		.sort((one, other) => one.off - other.off)
		.slice(0, MOST_NEAR)
		.map(({ label }) => label);
}

/** Labels that do not lie on one another: those that come first are kept, the rest wait until one comes nearer. */
export function apart(labels: readonly Label[]): (Label & { readonly at: Pixel })[] {
	const kept: (Label & { readonly at: Pixel })[] = [];
	const ordered = [...labels].sort((a, b) => rank(a) - rank(b));
	for (const label of ordered) {
		const { at } = label;
		if (!at) continue;
		const wide = label.text.length * LETTER + 10;
		const isFree = kept.every(
			(one) =>
				Math.abs(one.at.y - at.y) >= LINE ||
				Math.abs(one.at.x - at.x) >= (wide + one.text.length * LETTER + 10) / 2
		);
		if (isFree) kept.push({ ...label, at });
	}
	return kept;
}
const rank = ({ kind }: Label) => ['mark', 'corner', 'node'].indexOf(kind);
