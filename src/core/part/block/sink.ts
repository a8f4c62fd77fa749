import type { BlockOutput } from '../program';
import type { ElementTable } from '../element-table';
import { ownShape } from '../own-shape';
import { placesUnder } from '../evaluate/fit-loop';
import { turnedOver } from '../../geometry/triangulate';
import { fitBlock, SPACE } from './fit';
import { cornersLaid, WAYS, wayOf } from './lie';
import { MOST_SHAPES } from './recipe';
import { blockOf, type MadeBlock } from './solids';
import type { UnitMesh } from './unit-mesh';

/** Values that differ by less make the same block. */
const GRAIN = 1e6;

/** Which corner of a space each corner of a block comes to, for every way to lie. */
const LAID = WAYS.map(cornersLaid);

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
	private mirrored: boolean[] = [];
	private spaces = new Float64Array(SPACE * 64);
	/** What each row of the current block of rows is made of; null where it cannot be. */
	private readonly made: (MadeBlock | null)[] = [];
	/** How the block of each of them lies. */
	private readonly ways: number[] = [];
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
		const { output, values, made, ways } = this;
		const { flags, lie } = output;
		let last: MadeBlock | null = null;
		for (let r = 0; r < rows; r++) {
			let changed = false;
			for (let k = 0; k < values.length; k++) {
				const value = Math.round(slots[output.values[k]!]![r]! * GRAIN) / GRAIN;
				if (value !== values[k]) changed = true;
				values[k] = value;
			}
			const way = wayOf(slots[lie.turns]![r]!, slots[lie.flip]![r] !== 0, slots[lie.mirror]![r] !== 0);
			made[r] = null;
			// Rows with what is no number fail by themselves.
			if (!values.every(Number.isFinite) || Number.isNaN(way)) continue;
			if (changed || !last) last = this.blockOf();
			if (!last) {
				raise(r, flags.tooMany);
				continue;
			}
			made[r] = last;
			ways[r] = way;
			if (!last.mesh) raise(r, flags.nothingLeft);
			if (last.reachesOut) raise(r, flags.reachesOut);
			for (const cutter of last.idle) raise(r, flags.idle.get(cutter)!);
		}
	}

	/** The block of the values that stand now; null when it would be one too many. */
	private blockOf(): MadeBlock | null {
		const key = this.values.join(' ');
		const known = this.seen.get(key);
		if (known) return known;
		if (this.seen.size >= MOST_SHAPES) return null;
		const block = blockOf(this.output.recipe, this.values);
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
			this.mirrored[first + n] = WAYS[this.ways[r]!]!.mirror;
		}
		const { spaces } = this;
		for (let n = 0, at = SPACE * first; n < aliveCount; n++) {
			const r = alive[n]!;
			for (const k of LAID[this.ways[r]!]!) {
				const { x, y, z } = corners[k]!;
				spaces[at++] = slots[x]![r]! - origin[0];
				spaces[at++] = slots[y]![r]! - origin[1];
				spaces[at++] = slots[z]![r]! - origin[2];
			}
		}
	}

	/**
	 * A table of placed copies for each mesh that stands often, and one of rows that are their own for those that stand
	 * once: what is drawn, picked and written goes by tables.
	 * @param lost rows that cannot be made after all
	 */
	tables(lost: ReadonlySet<number>): ElementTable[] {
		const groups = new Map<UnitMesh, number[]>();
		for (let k = 0; k < this.count; k++) {
			if (lost.has(this.row[k]!)) continue;
			const mesh = this.meshes[k]!;
			const group = groups.get(mesh);
			if (group) group.push(k);
			else groups.set(mesh, [k]);
		}
		const once = [...groups].flatMap(([mesh, [k, ...others]]) => (others.length ? [] : [{ mesh, k: k! }]));
		if (once.length > 1) for (const { mesh } of once) groups.delete(mesh);
		const placed = [...groups].map(([mesh, group]) => this.placed(mesh, group));
		return once.length > 1 ? [...placed, this.own(once)] : placed;
	}

	/** The columns that every table has of some of the spaces. */
	private columns(group: readonly number[]): Omit<ElementTable, 'shape' | 'volume'> {
		const pick = (values: readonly number[]) => Uint32Array.from(group, (k) => values[k]!);
		return {
			element: this.output.element,
			count: group.length,
			row: pick(this.row),
			turn: pick(this.turn),
			area: new Float64Array(group.length),
			length: new Float64Array(group.length),
			stock: null
		};
	}

	private fit(mesh: UnitMesh, group: readonly number[]) {
		const spaces = new Float64Array(SPACE * group.length);
		for (const [n, k] of group.entries()) spaces.set(this.space(k), SPACE * n);
		const mirrored = Uint8Array.from(group, (k) => Number(this.mirrored[k]));
		return { mirrored, ...fitBlock(mesh, spaces, mirrored) };
	}

	private placed(mesh: UnitMesh, group: readonly number[]): ElementTable {
		const { maps, mirrored, volume } = this.fit(mesh, group);
		const { vertices: unit, triangles } = mesh;
		return { ...this.columns(group), volume, shape: { is: 'placed', unit, triangles, maps, mirrored } };
	}

	private own(rows: readonly { readonly mesh: UnitMesh; readonly k: number }[]): ElementTable {
		const volume = new Float64Array(rows.length);
		const meshes = rows.map(({ mesh, k }, n) => {
			const fitted = this.fit(mesh, [k]);
			volume[n] = fitted.volume[0]!;
			return {
				vertices: placesUnder(mesh.vertices, fitted.maps).slice(),
				triangles: this.mirrored[k] ? turnedOver(mesh.triangles) : mesh.triangles
			};
		});
		const shape = ownShape(meshes);
		return { ...this.columns(rows.map(({ k }) => k)), volume, shape };
	}

	private space(k: number): Float64Array {
		return this.spaces.subarray(SPACE * k, SPACE * (k + 1));
	}
}
