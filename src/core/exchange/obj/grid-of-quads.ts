import type { ObjGroup } from './read-text';
import { CodedError } from '../../units/coded-error';

/** A group that is no rectangular grid of quads; the message says why. */
export class NoGrid extends CodedError {
	readonly code = 'file.no-grid';
}

/** Vertices of a grid of quads, row by row from the foot; a ring repeats its first column or row. */
export interface QuadGrid {
	readonly rows: readonly (readonly number[])[];
}

/** A quad looked at with its corner `first` at the lower left. */
interface Step {
	readonly quad: number;
	readonly first: number;
}

/** Finds the neighbours of quads over their sides. */
class Quads {
	private readonly sides = new Map<string, Step>();

	constructor(private readonly group: ObjGroup) {
		group.faces.forEach((face, quad) => {
			const where = `line ${group.lines[quad]!}`;
			if (face.length !== 4)
				throw new NoGrid(
					`${where}: a face has ${face.length} corners; grids of four-cornered faces can be taken`
				);
			face.forEach((a, first) => {
				const key = `${a} ${face[(first + 1) % 4]!}`;
				if (this.sides.has(key))
					throw new NoGrid(`${where}: two faces run along one edge the same way; turn one of them round`);
				this.sides.set(key, { quad, first });
			});
		});
	}

	/** Corner k of a step, counted from its lower left. */
	corner({ quad, first }: Step, k: number): number {
		return this.group.faces[quad]![(first + k) % 4]!;
	}

	private beyond(step: Step, side: number, turn: number): Step | null {
		const [a, b] = [this.corner(step, side), this.corner(step, side + 1)];
		const found = this.sides.get(`${b} ${a}`);
		return found ? { quad: found.quad, first: (found.first + turn) % 4 } : null;
	}
	// The neighbour has the shared side as its own: to the right as its left one, corner 4 to 1, and so on.
	right = (step: Step) => this.beyond(step, 1, 1);
	left = (step: Step) => this.beyond(step, 3, 3);
	up = (step: Step) => this.beyond(step, 2, 0);
	down = (step: Step) => this.beyond(step, 0, 2);

	/** The steps from one on in a direction, to the rim or once round. */
	march(from: Step, way: (step: Step) => Step | null): { steps: Step[]; closed: boolean } {
		const steps = [from];
		const seen = new Set([from.quad]);
		for (let next = way(from); next; next = way(next)) {
			if (seen.has(next.quad)) return { steps, closed: next.quad === from.quad && next.first === from.first };
			seen.add(next.quad);
			steps.push(next);
		}
		return { steps, closed: false };
	}
}

/**
 * The rows of a group that is a rectangular grid of quads.
 * @param height of a vertex; rows run upward where the grid has an up
 * @throws NoGrid
 */
export function gridOfQuads(group: ObjGroup, height: (vertex: number) => number): QuadGrid {
	const quads = new Quads(group);
	const rise = (first: number) => {
		const at = (k: number) => height(quads.corner({ quad: 0, first }, k));
		return at(3) + at(2) - at(0) - at(1);
	};
	const first = [0, 1, 2, 3].reduce((best, k) => (rise(k) > rise(best) + 1e-9 ? k : best), 0);
	const start: Step = { quad: 0, first };
	/** The first step of a row or column, and all from there on. */
	const whole = (from: Step, forward: (s: Step) => Step | null, back: (s: Step) => Step | null) => {
		const run = quads.march(from, forward);
		return run.closed ? run : quads.march(quads.march(from, back).steps.at(-1)!, forward);
	};
	const across = whole(start, quads.right, quads.left);
	const columns = whole(across.steps[0]!, quads.up, quads.down);
	const rows = columns.steps.map((step) => quads.march(step, quads.right));
	const count = rows.reduce((sum, row) => sum + row.steps.length, 0);
	const used = new Set(rows.flatMap((row) => row.steps.map(({ quad }) => quad)));
	if (
		rows.some((row) => row.steps.length !== across.steps.length || row.closed !== across.closed) ||
		used.size !== count ||
		count !== group.faces.length
	)
		throw new NoGrid(
			`line ${group.lines[0]!}: its ${group.faces.length} faces are no rectangular grid: rows of ${across.steps.length} were found from its first face`
		);
	const line = (steps: readonly Step[], [a, b]: readonly [number, number]) => [
		...steps.map((step) => quads.corner(step, a)),
		quads.corner(steps.at(-1)!, b)
	];
	return { rows: [...rows.map((row) => line(row.steps, [0, 1])), line(rows.at(-1)!.steps, [3, 2])] };
}
