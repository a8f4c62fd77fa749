import type { LiveRows } from './element-sink';
import { INSIDE_OUT, NO_BODY } from './flag-list';
import type { ElementTable } from './element-table';
import { ownShape } from './own-shape';

/** One thing whose mesh is made for it alone. */
export interface OwnMesh {
	/** mm from the run's origin. */
	readonly vertices: Float32Array;
	readonly triangles: Uint32Array;
	/** mm³; the area of its face (mm²) and its thickness (mm), or 0. */
	readonly volume: number;
	readonly area: number;
	readonly thickness: number;
}

interface Made extends OwnMesh {
	readonly row: number;
	readonly turn: number;
}

/** Collects elements that have meshes of their own. */
export abstract class OwnMeshSink {
	/** How many there are; set back when a block of rows is run again. */
	get count(): number {
		return this.made.length;
	}
	set count(count: number) {
		this.made.length = count;
	}
	private readonly made: Made[] = [];

	constructor(
		private readonly of: { readonly element: number; readonly firstTurn: number },
		private readonly stock: 'plate' | null
	) {}

	/** @param value of a slot, in the row's block @param row among all of the run */
	protected abstract make(
		value: (slot: number) => number,
		row: number,
		origin: readonly [number, number, number]
	): OwnMesh;

	/** @param raise a flag of a row @param lose a row whose piece cannot be made after all */
	abstract look(raise: (row: number, flag: number) => void, lose: (row: number, flag: number) => void): void;

	/** @param lose a row whose piece cannot be made after all: a mesh of it is inside out */
	lookInside(lose: (row: number, flag: number) => void): void {
		for (const { row, volume } of this.made) if (volume < NO_BODY) lose(row, INSIDE_OUT);
	}

	/** Take the rows of a block that are alive. */
	take(frame: LiveRows, origin: readonly [number, number, number]): void {
		for (let n = 0; n < frame.aliveCount; n++) {
			const r = frame.alive[n]!;
			const row = frame.piece[r]!;
			const turn = this.of.firstTurn + frame.turn[r]!;
			this.made.push({ row, turn, ...this.make((slot) => frame.slots[slot]![r]!, row, origin) });
		}
	}

	/** One table of all. @param lost rows that cannot be made after all */
	tables(lost: ReadonlySet<number>): ElementTable[] {
		const made = this.made.filter(({ row }) => !lost.has(row));
		const numbers = (of: (one: Made) => number) => Float64Array.from(made, of);
		return [
			{
				element: this.of.element,
				count: made.length,
				row: Uint32Array.from(made, ({ row }) => row),
				turn: Uint32Array.from(made, ({ turn }) => turn),
				volume: numbers(({ volume }) => volume),
				area: numbers(({ area }) => area),
				length: new Float64Array(made.length),
				stock: this.stock && { shape: this.stock, sizes: [numbers(({ thickness }) => thickness)] },
				shape: ownShape(made)
			}
		];
	}
}
