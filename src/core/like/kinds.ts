import type { Model } from '../cladding/model';
import type { PieceGroup } from '../cladding/pieces';
import type { LikeSettings } from '../project/like-schema';
import { letters } from '../units/letters';
import type { Steps } from '../units/steps';
import { joinedRings, ringsOf } from './rings';
import { likeSets } from './sets';

/** Cells whose pieces are the same within the tolerance. */
export interface Kind {
	/** A1, A2 …: a letter for what is put there on cells of as many corners, most of a kind first. */
	readonly name: string;
	readonly size: number;
	/** How far its cells are from the first one at most (mm). */
	readonly spread: number;
	/** What is put there; null where nothing is. */
	readonly variant: string | null;
	readonly corners: number;
}

/** The cells of a model by what is alike. */
export interface Kinds {
	readonly kinds: readonly Kind[];
	/** The kind of every cell, by zone and face; places in `kinds`. */
	readonly of: readonly (readonly Uint32Array[])[];
}

/** Values set piece by piece are the same when they agree to so many decimals (mm, rad, plain). */
const DECIMALS = 3;

/**
 * What makes pieces of a group others than those of other groups, whatever their cells are: by row, or one for all where
 * nothing is set piece by piece.
 */
export function signatures({
	ready,
	perPiece,
	lie,
	left,
	sites
}: PieceGroup): string | ((row: number) => string) {
	const { turn, flip, mirror } = lie;
	const common = `${ready.variant.id} ${turn} ${flip} ${mirror}`;
	const columns = [...perPiece.values()];
	if (!columns.length && !left) return common;
	return (row) => {
		const own = columns.map((values) => values[row]!.toFixed(DECIMALS)).join(' ');
		// A piece that a trim has clipped is like no other.
		const clipped = left && left[row]! < 1 ? ` clipped ${sites[row]!}` : '';
		return `${common} ${own}${clipped}`;
	};
}

/** Cells of one face. */
interface Part {
	readonly zone: number;
	readonly face: number;
	readonly cells: number[];
}

/** Cells with as many corners and the same put on them. */
class Class {
	readonly parts: Part[] = [];

	constructor(
		readonly variant: string | null,
		readonly corners: number
	) {}

	add(zone: number, face: number, cell: number): void {
		let part = this.parts.at(-1);
		if (part?.zone !== zone || part.face !== face) this.parts.push((part = { zone, face, cells: [] }));
		part.cells.push(cell);
	}
}

/** The classes of the cells of all zones. */
function classesOf(zones: Model['zones']): Class[] {
	const classes = new Map<string, Class>();
	const classOf = (text: string, variant: string | null, corners: number): Class => {
		const name = `${corners} ${text}`;
		const known = classes.get(name) ?? new Class(variant, corners);
		classes.set(name, known);
		return known;
	};
	for (const [zone, { model }] of zones.entries())
		for (const [face, { cells }] of (model?.faces ?? []).entries()) {
			const taken = new Uint8Array(cells.count);
			for (const { group, face: own, clause } of model!.groups) {
				if (own !== face || group.over !== 'cell' || (clause.kind === 'rule' && clause.rule.also)) continue;
				const { sites, corners, ready } = group;
				const signature = signatures(group);
				const one = typeof signature === 'string' ? classOf(signature, ready.variant.id, corners) : null;
				for (let row = 0; row < sites.length; row++) {
					taken[sites[row]!] = 1;
					const of = one ?? classOf((signature as (row: number) => string)(row), ready.variant.id, corners);
					of.add(zone, face, sites[row]!);
				}
			}
			for (let cell = 0; cell < cells.count; cell++)
				if (!taken[cell])
					classOf('', null, cells.start[cell + 1]! - cells.start[cell]!).add(zone, face, cell);
		}
	// What is put on most cells has the first letter; bare cells come last.
	const order = [...classes.values()];
	const sizes = new Map(
		order.map((one) => [one, one.parts.reduce((sum, { cells }) => sum + cells.length, 0)])
	);
	const isBare = ({ variant }: Class) => Number(variant === null);
	return order.sort((a, b) => isBare(a) - isBare(b) || sizes.get(b)! - sizes.get(a)!);
}

/**
 * The cells of all zones by what is alike: of one size and shape within the tolerance, with the same put on them.
 *
 * ```ts
 * const { kinds } = atOnce(kindsOf(model, project.like));
 * ```
 */
export function* kindsOf({ zones }: Model, { tolerance, mirrored }: LikeSettings): Steps<Kinds> {
	const of = zones.map(({ model }) => (model?.faces ?? []).map(({ cells }) => new Uint32Array(cells.count)));
	const kinds: Kind[] = [];
	const letterOf = new Map<string, { letter: string; count: number }>();
	for (const { variant, corners, parts } of classesOf(zones)) {
		const rings = joinedRings(
			parts.map(({ zone, face, cells: some }) => {
				const { cells, grid } = zones[zone]!.model!.faces[face]!;
				return ringsOf(cells, grid.positions, Uint32Array.from(some), corners);
			})
		);
		const { set, sizes, spread } = yield* likeSets(rings, tolerance, mirrored === 'together');
		const called = `${variant ?? ''} ${corners}`;
		const letter = letterOf.get(called) ?? { letter: letters(letterOf.size), count: 0 };
		letterOf.set(called, letter);
		const first = kinds.length;
		for (const [k, size] of sizes.entries())
			kinds.push({ name: `${letter.letter}${++letter.count}`, size, spread: spread[k]!, variant, corners });
		let ring = 0;
		for (const { zone, face, cells } of parts)
			for (const cell of cells) of[zone]![face]![cell] = first + set[ring++]!;
	}
	return { kinds, of };
}
