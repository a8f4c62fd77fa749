/** Copies of one mesh that lie one after another in a buffer. */
export interface Copies {
	readonly count: number;
	readonly verticesEach: number;
	readonly triangles: readonly number[];
}

/** The triangle indices of all copies. */
function drawIndex({ count, verticesEach, triangles }: Copies): Uint32Array {
	const once = Uint32Array.from(triangles);
	const each = once.length;
	const index = new Uint32Array(count * each);
	for (let k = 0, o = 0, base = 0; k < count; k++, base += verticesEach)
		for (let t = 0; t < each; t++) index[o++] = base + once[t]!;
	return index;
}

/** What triangles are called, reckoned once for each list of them. */
const names = new WeakMap<readonly number[], string>();
function nameOf(triangles: readonly number[]): string {
	const known = names.get(triangles) ?? triangles.join();
	names.set(triangles, known);
	return known;
}

/** Indices depend on counts only, so pieces that change their shape keep theirs. */
export class MeshIndices<Made> {
	private kept = new Map<string, Made>();
	private used = new Map<string, Made>();

	/** @param wrap what is kept of an index, for instance a buffer on the graphics card */
	constructor(private readonly wrap: (index: Uint32Array) => Made) {}

	of(copies: Copies): Made {
		const key = `${copies.count} ${copies.verticesEach} ${nameOf(copies.triangles)}`;
		const made = this.used.get(key) ?? this.kept.get(key) ?? this.wrap(drawIndex(copies));
		this.used.set(key, made);
		return made;
	}

	/** Forget the indices that were not asked for since the last call. */
	forgetUnused(): void {
		this.kept = this.used;
		this.used = new Map();
	}
}
