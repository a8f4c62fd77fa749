/** A closed mesh in the unit box. */
export interface UnitMesh {
	/** x y z of every vertex, 0..1. */
	readonly vertices: Float32Array;
	/** By vertex, outward. */
	readonly triangles: readonly number[];
	/** The triples of products of coordinates that a fitted mesh's volume is a sum over; see `moments`. */
	readonly moments: Float64Array;
}

/** x, y, z, xy, yz, xz, xyz of every vertex: what a trilinear map is a sum of, beside its constant. */
const PRODUCTS = 7;
/** Every three of the seven products, once. */
const TRIPLES: readonly (readonly [number, number, number])[] = Array.from(
	{ length: PRODUCTS },
	(_, a) => a
).flatMap((a) =>
	Array.from({ length: PRODUCTS - a - 1 }, (_, k) => a + 1 + k).flatMap((b) =>
		Array.from({ length: PRODUCTS - b - 1 }, (_, k): [number, number, number] => [a, b, b + 1 + k])
	)
);

/**
 * A mesh's volume is a sixth of the sum of det(p, q, r) over its triangles. Under a map p = Σ cₘ φₘ of products
 * φ of coordinates this becomes Σ det(cₐ, c_b, c_c) Mₐ_b_c over triples, where M adds up det of the products
 * over all triangles: reckoned once for the mesh, whatever it is fitted into. A closed mesh has no part from
 * the constant.
 */
function momentsOf(vertices: Float32Array, triangles: readonly number[]): Float64Array {
	const products = (k: number): number[] => {
		const [x, y, z] = [vertices[3 * k]!, vertices[3 * k + 1]!, vertices[3 * k + 2]!];
		return [x, y, z, x * y, y * z, x * z, x * y * z];
	};
	const moments = new Float64Array(TRIPLES.length);
	for (let t = 0; t < triangles.length; t += 3) {
		const [p, q, r] = [0, 1, 2].map((k) => products(triangles[t + k]!)) as [number[], number[], number[]];
		TRIPLES.forEach(([a, b, c], m) => {
			moments[m]! +=
				p[a]! * (q[b]! * r[c]! - q[c]! * r[b]!) -
				p[b]! * (q[a]! * r[c]! - q[c]! * r[a]!) +
				p[c]! * (q[a]! * r[b]! - q[b]! * r[a]!);
		});
	}
	return moments;
}

/** A mesh with its moments. @param vertices x y z of each, 0..1 @param triangles by vertex, outward, closed */
export function unitMesh(vertices: Float32Array, triangles: readonly number[]): UnitMesh {
	return { vertices, triangles, moments: momentsOf(vertices, triangles) };
}
