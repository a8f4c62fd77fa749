/** The package has no types of its own. */
declare module 'cdt2d' {
	/** A constrained Delaunay triangulation: triples of points. */
	export default function cdt2d(
		points: readonly (readonly [number, number])[],
		edges: readonly (readonly [number, number])[]
	): [number, number, number][];
}
