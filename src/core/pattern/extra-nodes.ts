import type { Lattice } from '../grid/lattice';
import type { NodeGrid } from '../grid/node-grid';
import type { Place } from '../geometry/polygon';
import { pointAt, type Vector } from '../geometry/vector';

/** Nodes between those of the grid: where patterns have off-lattice corners, and where trims run. */
export class ExtraNodes {
	private readonly known = new Map<string, number>();
	private readonly first: number;
	private readonly i: number[] = [];
	private readonly j: number[] = [];
	private readonly positions: number[] = [];
	private readonly normals: number[] = [];
	private readonly flat: number[] = [];

	constructor(private readonly lattice: Lattice) {
		const { columns, rows, extraI } = lattice.grid;
		this.first = columns * rows + extraI.length;
	}

	/**
	 * @param key the same for the same place, whichever cells meet there
	 * @param at its lattice coordinates, and its parameters where they are known exactly
	 */
	at(key: string, at: () => { place: Place; parameters?: readonly [number, number] }): number {
		const known = this.known.get(key);
		if (known !== undefined) return known;
		const { place, parameters } = at();
		const { point, normal } = this.lattice.evaluate(...(parameters ?? this.lattice.parameters(...place)));
		const node = this.first + this.i.length;
		this.i.push(place[0]);
		this.j.push(place[1]);
		this.positions.push(...point);
		this.normals.push(...normal);
		this.flat.push(...this.lattice.flat(...place));
		this.known.set(key, node);
		return node;
	}

	/** mm */
	position(node: number): Vector {
		const { positions } = this.lattice.grid;
		return node < this.first ? pointAt(positions, node) : pointAt(this.positions, node - this.first);
	}

	/** The grid with these nodes after its own. */
	joined(): NodeGrid {
		const { grid } = this.lattice;
		if (this.i.length === 0) return grid;
		const both = (before: Float64Array, more: readonly number[]) => {
			const whole = new Float64Array(before.length + more.length);
			whole.set(before);
			whole.set(more, before.length);
			return whole;
		};
		return {
			...grid,
			positions: both(grid.positions, this.positions),
			normals: both(grid.normals, this.normals),
			flat: both(grid.flat, this.flat),
			extraI: both(grid.extraI, this.i),
			extraJ: both(grid.extraJ, this.j)
		};
	}
}
