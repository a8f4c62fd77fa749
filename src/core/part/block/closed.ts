/** Why triangles do not enclose a solid, and a vertex near where it shows. */
export interface Flaw {
	readonly text: string;
	readonly vertex: number;
}

/**
 * Whether every edge of a mesh has one face on each side of it, running opposite ways; an open one may end.
 *
 * ```ts
 * if (flawOf([0, 1, 2]) !== null) tell('the mesh is open');
 * ```
 * @param triangles by vertex
 */
export function flawOf(triangles: readonly number[], mayEnd = false): Flaw | null {
	const edges = new Map<string, number>();
	for (let t = 0; t < triangles.length; t += 3)
		for (let k = 0; k < 3; k++) {
			const edge = `${triangles[t + k]} ${triangles[t + ((k + 1) % 3)]}`;
			edges.set(edge, (edges.get(edge) ?? 0) + 1);
		}
	const firstOf = (edge: string) => Number(edge.split(' ')[0]);
	const open: string[] = [];
	for (const [edge, times] of edges) {
		const [a, b] = edge.split(' ');
		if (times > 1)
			return {
				text: 'more than two of its faces meet at an edge, or run against each other; a block needs a mesh whose faces all look outward',
				vertex: firstOf(edge)
			};
		if (!edges.has(`${b} ${a}`)) open.push(edge);
	}
	if (!open.length || mayEnd) return null;
	const many = open.length === 1 ? 'edge has' : 'edges have';
	return {
		text: `it has holes: ${open.length} ${many} a face on one side only; close it first`,
		vertex: firstOf(open[0]!)
	};
}
