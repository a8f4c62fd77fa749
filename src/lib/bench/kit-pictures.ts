import { materialsOf, partsOf } from '$core/cladding/kit';
import { loadSolids } from '$core/geometry/solid/library';
import { inspectPart } from '$core/part/inspect';
import { cornersOfTrial, trialsOf } from '$core/part/trials';
import type { PartDefinition } from '$core/project/part-definition';
import type { Project } from '$core/project/schema';
import { mannerHere } from '$lib/model/renderer';
import { hang } from './hang';
import { Pictures } from './pictures';

/** Pictures of parts that were drawn once; null of those that have nothing to show. */
const drawn = new WeakMap<PartDefinition, string | null>();

type Stock = Parameters<typeof hang>[2];

/** Of the first trial on which it can be made. */
function pictureOf(maker: Pictures, part: PartDefinition, stock: Stock): string | null {
	for (const { points } of trialsOf(part.anchor)) {
		const inspection = inspectPart(part, cornersOfTrial(part.anchor, points.length), [...stock.library]);
		const picture = maker.of(hang(part, inspection, stock, points, {}).elements);
		if (picture) return picture;
	}
	return null;
}

/**
 * Draw the parts of a kit, one after the other, so that the page can be used meanwhile.
 * @param tell takes the pictures there are, by the ids of their parts @returns stops it
 */
export function drawKit(project: Project, tell: (pictures: ReadonlyMap<string, string>) => void): () => void {
	const library = partsOf(project);
	const stock = { library, materials: materialsOf(project) };
	const pictures = new Map<string, string>();
	const take = (part: PartDefinition) => {
		const picture = drawn.get(part);
		if (picture) pictures.set(part.id, picture);
	};
	for (const part of library) take(part);
	tell(new Map(pictures));
	const wanted = library.filter((part) => !drawn.has(part));
	if (!wanted.length) return () => undefined;
	let maker: Pictures | null = null;
	let stopped = false;
	function next() {
		const part = wanted.shift();
		if (stopped || !part) {
			maker?.dispose();
			return;
		}
		try {
			maker ??= new Pictures(mannerHere());
		} catch {
			// Without pictures the words still say what each part is for.
			return;
		}
		drawn.set(part, pictureOf(maker, part, stock));
		take(part);
		tell(new Map(pictures));
		setTimeout(next);
	}
	// Blocks are made by a library of their own; without it the others are drawn all the same.
	void loadSolids()
		.catch(() => undefined)
		.then(() => setTimeout(next));
	return () => (stopped = true);
}
