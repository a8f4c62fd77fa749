import { pointAt } from '../geometry/vector';
import type { Model } from '../cladding/model';
import { columnValues } from '../field/column';
import { fieldOf } from '../field/fields';
import { CellRectangles } from '../measure/cell-rectangles';
import { kindsOfRows } from '../schedule/kind-of-row';
import { sourcesOf, type GroupSource } from '../schedule/sources';
import { isBarGroup, isConnectorGroup, isLouverGroup, isPanelGroup } from '../schedule/pieces';

/** What is kept of every piece in words, and in numbers (mm, mm², rad, kg). */
export const releasedTexts = [
	'list',
	'address',
	'mark',
	'part',
	'variant',
	'kind',
	'materials',
	/** The points that it is placed by, in their order, as JSON: [[x, y, z], …]. */
	'anchors'
] as const;
export const releasedNumbers = [
	'area',
	'length',
	'long_side',
	'short_side',
	'smallest_angle',
	'mass',
	'x',
	'y',
	'z'
] as const;
export type ReleasedText = (typeof releasedTexts)[number];
export type ReleasedNumber = (typeof releasedNumbers)[number];

/** The pieces of a model as a release keeps them, column by column; null where a piece has no such number. */
export interface ReleasedPieces {
	readonly texts: Readonly<Record<ReleasedText, readonly string[]>>;
	readonly numbers: Readonly<Record<ReleasedNumber, readonly (number | null)[]>>;
}

/**
 * A record that has a value for each key.
 *
 * ```ts
 * byKey(['x', 'y'], (key) => key.length); // { x: 1, y: 1 }
 * ```
 */
export const byKey = <Key extends string, Value>(
	keys: readonly Key[],
	make: (key: Key) => Value
): Record<Key, Value> => Object.fromEntries(keys.map((key) => [key, make(key)])) as Record<Key, Value>;

/** Released pieces of nothing, to be filled. */
const empty = () => ({
	texts: byKey(releasedTexts, (): string[] => []),
	numbers: byKey(releasedNumbers, (): (number | null)[] => [])
});

function listOf({ clause }: GroupSource): string {
	if (isPanelGroup(clause)) return 'panels';
	if (isLouverGroup(clause)) return 'louvers';
	if (isBarGroup(clause)) return 'bars';
	return isConnectorGroup(clause) ? 'connectors' : 'structure';
}

/** A number as a release keeps it: to a millionth, so that it is the same once it has been written and read. */
const kept = (value: number): number | null =>
	Number.isFinite(value) ? Math.round(value * 1e6) / 1e6 : null;

/** The points of pieces that are asked for one after the other. */
function anchorReader({ row: rows, at }: ReturnType<GroupSource['anchors']>): (row: number) => string {
	let next = 0;
	return (row) => {
		const points: string[] = [];
		for (; rows[next] === row; next++)
			points.push(`[${kept(at[3 * next]!)},${kept(at[3 * next + 1]!)},${kept(at[3 * next + 2]!)}]`);
		return `[${points.join()}]`;
	};
}

function add(into: ReturnType<typeof empty>, source: GroupSource): void {
	const { face, group, sites, marks, addresses, quantities } = source;
	const { texts, numbers } = into;
	const [called, placed, kindAt, list] = [marks(), addresses(), kindsOfRows(source), listOf(source)];
	const materials = [...new Set(group.ready.materials.map(({ label }) => label))].join(', ');
	const anchorsAt = anchorReader(source.anchors());
	const { mass, cutLength } = quantities();
	const isOnCells = group.over === 'cell';
	const rectangles = new CellRectangles(face.cells, face.grid.positions);
	const angles = isOnCells
		? columnValues(fieldOf('cell', 'smallest_angle').column(face, group.sites), group.sites.length)
		: null;
	for (let row = 0; row < group.sites.length; row++) {
		const site = group.sites[row]!;
		texts.list.push(list);
		texts.address.push(placed[row]!);
		texts.mark.push(called[row]!);
		texts.part.push(group.ready.part.label);
		texts.variant.push(group.ready.variant.name);
		texts.kind.push(kindAt?.(row).name ?? '');
		texts.materials.push(materials);
		texts.anchors.push(anchorsAt(row));
		if (isOnCells) rectangles.look(site);
		const middle = [0, 0, 0];
		const nodes = sites.nodes(site);
		for (let k = 0; k < nodes.length; k++)
			pointAt(face.grid.positions, nodes[k]!).forEach((one, axis) => (middle[axis]! += one / nodes.length));
		numbers.area.push(isOnCells ? kept(face.measures.area[site]!) : null);
		numbers.length.push(cutLength[row]! > 0 ? kept(cutLength[row]!) : null);
		numbers.long_side.push(isOnCells ? kept(rectangles.long) : null);
		numbers.short_side.push(isOnCells ? kept(rectangles.short) : null);
		numbers.smallest_angle.push(angles ? kept(angles[row]!) : null);
		numbers.mass.push(kept(mass[row]!));
		numbers.x.push(kept(middle[0]!));
		numbers.y.push(kept(middle[1]!));
		numbers.z.push(kept(middle[2]!));
	}
}

/**
 * All pieces of a model as a release keeps them.
 *
 * ```ts
 * const { texts } = releasedPieces(model);
 * const marks = texts.mark;
 * ```
 */
export function releasedPieces(model: Model): ReleasedPieces {
	const into = empty();
	for (const source of sourcesOf(model)) add(into, source);
	return into;
}

/** How many there are. */
export const countReleased = ({ texts }: ReleasedPieces): number => texts.address.length;
