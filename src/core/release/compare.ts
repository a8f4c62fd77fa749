import type { NumberKind } from '../units/dimension';
import { formatQuantity } from '../units/quantity';
import { distance, type Vector } from '../geometry/vector';
import { listedAlike } from '../schedule/listed';
import type { ReleasedNumber, ReleasedPieces, ReleasedText } from './pieces';

/** What can be another one, in words. */
export const changes = ['size', 'angle', 'mass', 'part', 'variant', 'material', 'place', 'mark'] as const;
export type Change = (typeof changes)[number];

/** A piece that is not the same on both sides. */
export interface Difference {
	readonly is: 'added' | 'removed' | 'changed';
	readonly list: string;
	readonly address: string;
	/** What it is called, on the later side where it is there. */
	readonly mark: string;
	readonly what: readonly Change[];
	/** What it was and what it is, in a line; empty where it came or went. */
	readonly told: string;
}

/** Two sides against each other. */
export interface Compared {
	readonly same: number;
	readonly differences: readonly Difference[];
}

/** Pieces that have moved by less (mm) stand where they stood. */
const MOVED = 1;

/** Kinds are counted anew in every model: that one has another name is no change of its pieces. */
const texts: readonly (readonly [key: ReleasedText, change: Change])[] = [
	['part', 'part'],
	['variant', 'variant'],
	['materials', 'material'],
	['mark', 'mark']
];
const numbers: readonly (readonly [key: ReleasedNumber, change: Change, label: string, kind: NumberKind])[] =
	[
		['length', 'size', 'length', 'length'],
		['long_side', 'size', 'long side', 'length'],
		['short_side', 'size', 'short side', 'length'],
		['area', 'size', 'area', 'area'],
		['smallest_angle', 'angle', 'smallest angle', 'angle'],
		['mass', 'mass', 'mass', 'mass']
	];

/** How far the points that a piece is placed by have moved at most (mm); its middle, where it has others than before. */
function movedBy(before: ReleasedPieces, b: number, after: ReleasedPieces, a: number): number {
	const pointsOf = ({ texts }: ReleasedPieces, k: number) => JSON.parse(texts.anchors[k]!) as Vector[];
	const [was, is] = [pointsOf(before, b), pointsOf(after, a)];
	if (was.length === is.length) return Math.max(0, ...was.map((p, k) => distance(p, is[k]!)));
	const middle = ({ numbers: { x, y, z } }: ReleasedPieces, k: number): Vector => [
		x[k] ?? 0,
		y[k] ?? 0,
		z[k] ?? 0
	];
	return distance(middle(before, b), middle(after, a));
}

/** What of a piece is another one than before, and how it is told. */
function changesOf(
	before: ReleasedPieces,
	b: number,
	after: ReleasedPieces,
	a: number
): { readonly what: readonly Change[]; readonly told: string } | null {
	const what = new Set<Change>();
	const told: string[] = [];
	for (const [key, change, label, kind] of numbers) {
		const [was, is] = [before.numbers[key][b] ?? null, after.numbers[key][a] ?? null];
		if (was === is || (was !== null && is !== null && listedAlike(kind, was, is))) continue;
		const said = (value: number | null) => (value === null ? 'none' : formatQuantity(value, kind));
		// What would be told as the same is the same.
		if (said(was) === said(is)) continue;
		what.add(change);
		told.push(`${label} ${said(was)} → ${said(is)}`);
	}
	for (const [key, change] of texts) {
		const [was, is] = [before.texts[key][b]!, after.texts[key][a]!];
		if (was === is) continue;
		what.add(change);
		told.push(`${change} ${was || 'none'} → ${is || 'none'}`);
	}
	const moved = before.texts.anchors[b] === after.texts.anchors[a] ? 0 : movedBy(before, b, after, a);
	if (moved >= MOVED) {
		what.add('place');
		told.push(`moved by up to ${formatQuantity(moved, 'length')}`);
	}
	return what.size ? { what: changes.filter((one) => what.has(one)), told: told.join('; ') } : null;
}

/**
 * What came, what went and what is another one, piece by piece: pieces are the same by their addresses, and alike where a
 * list would tell them alike.
 *
 * ```ts
 * const { same, differences } = compareReleased(releasedPieces(model), releasedPieces(model)); // all the same, none
 * ```
 * @returns those of the later side in its order, then those that went
 */
export function compareReleased(before: ReleasedPieces, after: ReleasedPieces): Compared {
	// Pieces of two lists may hang on one site.
	const named = ({ texts: { list, address } }: ReleasedPieces, k: number) => `${list[k]!} ${address[k]!}`;
	const places = new Map<string, number>();
	before.texts.address.forEach((_, k) => places.set(named(before, k), k));
	const differences: Difference[] = [];
	let same = 0;
	const one = (side: ReleasedPieces, k: number) => ({
		list: side.texts.list[k]!,
		address: side.texts.address[k]!,
		mark: side.texts.mark[k]!
	});
	for (let a = 0; a < after.texts.address.length; a++) {
		const name = named(after, a);
		const b = places.get(name);
		places.delete(name);
		if (b === undefined) {
			differences.push({ is: 'added', ...one(after, a), what: [], told: '' });
			continue;
		}
		const found = changesOf(before, b, after, a);
		if (found) differences.push({ is: 'changed', ...one(after, a), ...found });
		else same++;
	}
	for (const b of places.values()) differences.push({ is: 'removed', ...one(before, b), what: [], told: '' });
	return { same, differences };
}
