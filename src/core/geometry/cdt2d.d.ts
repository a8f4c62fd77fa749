/** The package has no types of its own. */
declare module 'cdt2d' {
	/** A triangulation that keeps to edges: triples of points, all turning the same way. */
	export default function cdt2d(
		points: readonly (readonly [number, number])[],
		edges: readonly (readonly [number, number])[],
		options: { readonly delaunay: boolean }
	): [number, number, number][];
}
