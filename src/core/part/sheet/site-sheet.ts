/** The surface of a cell as a pierced sheet takes it: without the openings there are in it. */
export interface SiteSheet {
	/** Flat x y z (mm); those of the rim come first, counter-clockwise from outside. */
	readonly points: Float64Array;
	/** Of the face at every point, length 1, pointing outside. */
	readonly normals: Float64Array;
	readonly rim: number;
	/** Numbers of points, three for each triangle, outward. */
	readonly triangles: ArrayLike<number>;
}

/** The surface of every row's cell. */
export type SheetOf = (row: number) => SiteSheet;
