import type { Vector } from '$core/geometry/vector';
import { insertAt, pathTo } from '$core/project/typed-path';
import { formatLength } from '$core/units/quantity';
import type { Desk } from '$lib/state/desk.svelte';
import { freshId } from './fresh-id';

/** A length as it is told. */
export const lengthText = (mm: number, { display }: Pick<Desk, 'display'>) =>
	formatLength(Math.round(mm * 10) / 10, display);

export const apart = (from: Vector, to: Vector) => Math.hypot(...from.map((value, k) => value - to[k]!));

/** Keep a length as a note. @param from to mm */
export function keepLength(desk: Desk, from: Vector, to: Vector): void {
	const { notes } = desk.project.document;
	const micron = (value: number) => Math.round(value * 1000) / 1000;
	const round = ([x, y, z]: Vector): [number, number, number] => [micron(x), micron(y), micron(z)];
	desk.do(
		`${lengthText(apart(from, to), desk)} measured`,
		insertAt(pathTo('notes'), notes.length, {
			id: freshId('note', notes),
			name: `Length ${notes.length + 1}`,
			from: round(from),
			to: round(to)
		})
	);
}
