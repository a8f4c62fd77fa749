import type { BlockOutput } from '../program';
import type { ElementTable } from '../element-table';
import { fitBlock, SPACE } from './fit';
import { MOST_SHAPES, wayOf, type Lie } from './recipe';
import { blockOf, type MadeBlock } from './solids';
import type { UnitMesh } from './unit-mesh';

/** Values that differ by less make the same block. */
const GRAIN = 1e6;

/** What the rows of a run need of the block they are made of. */
export interface BlockRows {
	readonly slots: readonly Float64Array[];
	readonly piece: Uint32Array;
	readonly turn: Uint32Array;
}

/** Collects the spaces that a block is fitted into, and fits it when all are there. */
export class BlockSink {
	/** How many spaces there are; set back when a block of rows is run again. */
	count = 0;
	private row: number[] = [];
	private turn: number[] = [];
	private meshes: UnitMesh[] = [];
	private spaces = new Float64Array(SPACE * 64);
	/** What each row of the current block of rows is made of; null where it cannot be. */
	private readonly made: (MadeBlock | null)[] = [];
	private readonly seen = new Map<string, MadeBlock>();
	private readonly values: Float64Array;

	constructor(readonly output: BlockOutput) {
		this.values = new Float64Array(output.values.length);
	}

	/**
	 * Find or make the block of every row; solids are made anew only where values differ.
	 * @param raise a flag of a row's piece
	 */
	prepare({ slots }: BlockRows, rows: number, raise: (row: number, flag: number) => void): void {
		const { output, values, made } = this;
		const { flags } = output;
		let last: MadeBlock | null = null;
		let lastWay = -1;
		for (let r = 0; r < rows; r++) {
			let changed = false;
			for (let k = 0; k < values.length; k++) {
				const value = Math.round(slots[output.values[k]!]![r]! * GRAIN) / GRAIN;
				if (value !== values[k]) changed = true;
				values[k] = value;
			}
			const lie: Lie = {
				turns: ((Math.round(slots[output.lie.turns]![r]!) % 4) + 4) % 4,
				flip: slots[output.lie.flip]![r] !== 0,
				mirror: slots[output.lie.mirror]![r] !== 0
			};
			const way = wayOf(lie);
			made[r] = null;
			// Rows with what is no number fail by themselves.
			if (!values.every(Number.isFinite) || Number.isNaN(way)) continue;
			if (changed || way !== lastWay || !last) last = this.blockOf(lie, way);
			lastWay = way;
			if (!last) {
				raise(r, flags.tooMany);
				continue;
			}
			made[r] = last;
			if (!last.mesh) raise(r, flags.nothingLeft);
			if (last.reachesOut) raise(r, flags.reachesOut);
			for (const cutter of last.idle) raise(r, flags.idle.get(cutter)!);
		}
	}

	/** The block of the values that stand now; null when it would be one too many. */
	private blockOf(lie: Lie, way: number): MadeBlock | null {
		const key = `${way} ${this.values.join(' ')}`;
		const known = this.seen.get(key);
		if (known) return known;
		if (this.seen.size >= MOST_SHAPES) return null;
		const block = blockOf(this.output.recipe, this.values, lie);
		this.seen.set(key, block);
		return block;
	}

	/** Take the spaces of rows that are alive. */
	take(
		{ slots, piece, turn }: BlockRows,
		alive: Uint32Array,
		aliveCount: number,
		origin: readonly [number, number, number]
	): void {
		const { corners, firstTurn } = this.output;
		if (SPACE * (this.count + aliveCount) > this.spaces.length) {
			const wider = new Float64Array(
				SPACE * Math.max(this.count + aliveCount, (2 * this.spaces.length) / SPACE)
			);
			wider.set(this.spaces);
			this.spaces = wider;
		}
		const first = this.count;
		this.count += aliveCount;
		for (let n = 0; n < aliveCount; n++) {
			const r = alive[n]!;
			this.row[first + n] = piece[r]!;
			this.turn[first + n] = firstTurn + turn[r]!;
			this.meshes[first + n] = this.made[r]!.mesh!;
		}
		const { spaces } = this;
		for (const [k, corner] of corners.entries())
			for (const [a, axis] of (['x', 'y', 'z'] as const).entries()) {
				const values = slots[corner[axis]]!;
				const from = origin[a]!;
				let at = SPACE * first + 3 * k + a;
				for (let n = 0; n < aliveCount; n++, at += SPACE) spaces[at] = values[alive[n]!]! - from;
			}
	}

	/** One table for each mesh. @param lost rows that cannot be made after all */
	tables(lost: ReadonlySet<number>): ElementTable[] {
		const groups = new Map<UnitMesh, number[]>();
		for (let k = 0; k < this.count; k++) {
			if (lost.has(this.row[k]!)) continue;
			const mesh = this.meshes[k]!;
			const group = groups.get(mesh);
			if (group) group.push(k);
			else groups.set(mesh, [k]);
		}
		return [...groups].map(([mesh, group]) => {
			const spaces =
				group.length === this.count
					? this.spaces
					: Float64Array.from(group.flatMap((k) => [...this.space(k)]));
			const { maps, volume } = fitBlock(mesh, spaces, group.length);
			const pick = (values: readonly number[]) => Uint32Array.from(group, (k) => values[k]!);
			return {
				element: this.output.element,
				count: group.length,
				row: pick(this.row),
				turn: pick(this.turn),
				volume,
				area: new Float64Array(group.length),
				length: new Float64Array(group.length),
				stock: null,
				vertices: { is: 'fitted', unit: mesh.vertices, maps },
				verticesEach: mesh.vertices.length / 3,
				triangles: mesh.triangles
			};
		});
	}

	private space(k: number): Float64Array {
		return this.spaces.subarray(SPACE * k, SPACE * (k + 1));
	}
}
