/** The first of many that has room enough: a tree over them, in which each knows the most room below it. */
export class Rooms {
	private readonly most: Float64Array;
	private readonly leaves: number;

	constructor(count: number, room: number) {
		this.leaves = 2 ** Math.ceil(Math.log2(Math.max(1, count)));
		this.most = new Float64Array(2 * this.leaves).fill(room);
	}

	/** Take so much of the first that has it. @returns which one */
	take(wanted: number): number {
		const { most, leaves } = this;
		let at = 1;
		while (at < leaves) at = most[2 * at]! >= wanted ? 2 * at : 2 * at + 1;
		most[at]! -= wanted;
		for (let up = at >> 1; up >= 1; up >>= 1) most[up] = Math.max(most[2 * up]!, most[2 * up + 1]!);
		return at - leaves;
	}
}
