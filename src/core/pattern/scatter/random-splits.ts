import type { Lattice } from '../../grid/lattice';
import type { PatternOf } from '../../project/pattern-schema';
import { refuse } from '../../units/problem';
import { CellMaker, extentOf } from '../cell-maker';
import { ExtraNodes } from '../extra-nodes';
import type { LaidCells } from '../lay-tiles';
import type { OutlinePoint } from '../tile';
import { randomFrom } from './random';
import { SAME_STEP } from '../../geometry/tolerance';

interface Box {
	readonly left: number;
	readonly right: number;
	readonly foot: number;
	readonly head: number;
}

const MOST_ROUNDS = 8;
const SLOTS = 256;

/** Lines at the end of a ring are those at its start. */
interface Wrap {
	readonly across: (x: number) => number;
	readonly up: (y: number) => number;
}

/** Corners of all boxes by the line they lie on, to find those on a side. */
class Corners {
	private readonly lines = new Map<string, number[]>();
	private readonly name = (axis: number, at: number) => `${axis} ${Math.round(at / SAME_STEP)}`;

	add({ left, right, foot, head }: Box, wrap: Wrap): void {
		for (const x of [left, right]) this.push(0, wrap.across(x), foot, head);
		for (const y of [foot, head]) this.push(1, wrap.up(y), left, right);
	}
	private push(axis: number, at: number, ...along: number[]): void {
		const name = this.name(axis, at);
		const line = this.lines.get(name);
		if (line) line.push(...along);
		else this.lines.set(name, [...along]);
	}
	/** Places strictly between two of a line, ascending, each once. */
	between(axis: number, at: number, from: number, to: number): number[] {
		const found = (this.lines.get(this.name(axis, at)) ?? [])
			.filter((t) => t > from + SAME_STEP && t < to - SAME_STEP)
			.sort((a, b) => a - b);
		return found.filter((t, k) => k === 0 || t - found[k - 1]! > SAME_STEP);
	}
}

/** The rim of a box with the corners of others that lie on its sides. */
function outlineOf({ left, right, foot, head }: Box, corners: Corners, wrap: Wrap): OutlinePoint[] {
	const through = (x: number, y: number): OutlinePoint => ({ at: [x, y], through: true });
	const own = (x: number, y: number): OutlinePoint => ({ at: [x, y], through: false });
	const upAt = (x: number) => corners.between(0, wrap.across(x), foot, head);
	const acrossAt = (y: number) => corners.between(1, wrap.up(y), left, right);
	return [
		own(left, foot),
		...acrossAt(foot).map((x) => through(x, foot)),
		own(right, foot),
		...upAt(right).map((y) => through(right, y)),
		own(right, head),
		...acrossAt(head)
			.reverse()
			.map((x) => through(x, head)),
		own(left, head),
		...upAt(left)
			.reverse()
			.map((y) => through(left, y))
	];
}

/**
 * Rectangles of the grid split at random, sizes measured on the face by true length. Every step has its own
 * row of random numbers, so that its cells stay when the grid grows.
 * @throws ProblemError for values that cannot be
 */
export function randomSplits(lattice: Lattice, choice: PatternOf<'random splits'>, at: string): LaidCells {
	const { smallest, often, along, seed } = choice;
	if (!(smallest > 0))
		refuse(`${at}/smallest`, `a smallest size of ${smallest} mm is none; more than 0 mm is accepted`);
	if (!(often >= 0 && often <= 1)) refuse(`${at}/often`, `a chance of ${often} is none; 0 to 1 is accepted`);
	const { grid } = lattice;
	const { across, up } = grid;
	const sizeOf = ({ left, right, foot, head }: Box): [number, number] => {
		const [middleI, middleJ] = [(left + right) / 2, (foot + head) / 2];
		return [
			lattice.flat(right, middleJ)[0] - lattice.flat(left, middleJ)[0],
			lattice.flat(middleI, head)[1] - lattice.flat(middleI, foot)[1]
		];
	};
	const split = (box: Box, random: () => number, left: number): Box[] => {
		const [width, height] = sizeOf(box);
		const can = [width >= 2 * smallest && along !== 'up', height >= 2 * smallest && along !== 'across'];
		if (left === 0 || !(can[0] || can[1]) || random() >= often) return [box];
		const upright = can[0] && (!can[1] || width > height);
		const room = upright ? width : height;
		const share = (smallest + random() * (room - 2 * smallest)) / room;
		const [one, other]: [Box, Box] = upright
			? [
					{ ...box, right: box.left + share * (box.right - box.left) },
					{ ...box, left: box.left + share * (box.right - box.left) }
				]
			: [
					{ ...box, head: box.foot + share * (box.head - box.foot) },
					{ ...box, foot: box.foot + share * (box.head - box.foot) }
				];
		return [...split(one, random, left - 1), ...split(other, random, left - 1)];
	};
	const back = (steps: number, closed: boolean) => (at: number) =>
		closed && Math.abs(at - steps) < SAME_STEP ? 0 : at;
	const wrap: Wrap = { across: back(across.steps, across.closed), up: back(up.steps, up.closed) };
	const corners = new Corners();
	const boxes: { box: Box; slot: number }[] = [];
	for (let j = 0; j < up.steps; j++)
		for (let i = 0; i < across.steps; i++) {
			const step: Box = { left: i, right: i + 1, foot: j, head: j + 1 };
			split(step, randomFrom(seed, i, j), MOST_ROUNDS).forEach((box, slot) => {
				boxes.push({ box, slot });
				corners.add(box, wrap);
			});
		}
	const extra = new ExtraNodes(lattice);
	const maker = new CellMaker(grid, SLOTS, extra);
	for (const { box, slot } of boxes) {
		const outline = outlineOf(box, corners, wrap);
		maker.put(outline, extentOf(outline), 0, 0, slot);
	}
	const cells = maker.cells();
	return { grid: extra.joined(), cells: { ...cells, polygon: cells.polygon.fill(0) } };
}
