/** All instances of one element: its quantities and its mesh, instance after instance. */
export interface ElementTable {
	readonly element: number;
	readonly count: number;
	/** The row (piece) each instance belongs to, and its turn when the element is in a repeated group. */
	readonly row: Uint32Array;
	readonly turn: Uint32Array;
	/** mm³, mm², mm. */
	readonly volume: Float64Array;
	readonly area: Float64Array;
	readonly length: Float64Array;
	/** x y z of every vertex, mm from the run's origin; `verticesEach` per instance. */
	readonly positions: Float32Array;
	readonly verticesEach: number;
	/** Triangles of one instance, by vertex within it; outward. */
	readonly triangles: readonly number[];
}
