import Module, { type Manifold, type ManifoldToplevel } from 'manifold-3d';
import type { Place } from '../polygon';

/** Closed bodies by a library of robust booleans, which has to be loaded before. */

let library: ManifoldToplevel | null = null;
let loading: Promise<void> | null = null;

/**
 * Load the library, once: whoever makes blocks, clips pieces or cuts masses does it first.
 *
 * ```ts
 * await loadSolids(); // once, before parts with blocks run
 * ```
 * @throws what the platform says when its file cannot be had; it may be tried again
 */
export function loadSolids(): Promise<void> {
	loading ??= Module().then(
		(loaded) => {
			loaded.setup();
			library = loaded;
		},
		(error: unknown) => {
			// What could not be fetched may be had the next time.
			loading = null;
			throw error;
		}
	);
	return loading;
}

/**
 * The library itself.
 *
 * ```ts
 * const { Manifold } = solidLibrary();
 * ```
 * @throws Error when `loadSolids` has not been awaited
 */
export function solidLibrary(): ManifoldToplevel {
	if (!library) throw new Error('solids are made before their library is loaded: await loadSolids() first');
	return library;
}

/** Vertices x y z, and triangles by them that run anticlockwise seen from outside. */
export interface ClosedMesh {
	readonly vertices: ArrayLike<number>;
	readonly triangles: ArrayLike<number>;
}

/**
 * A closed mesh as a solid; give it back with `delete`.
 *
 * ```ts
 * const solid = solidOf({ vertices: [0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0, 1], triangles: [0, 2, 1, 0, 1, 3, 1, 2, 3, 2, 0, 3] });
 * solid.delete();
 * ```
 * @throws what the library says of a mesh that does not close
 */
export function solidOf({ vertices, triangles }: ClosedMesh): Manifold {
	const { Manifold: Solid, Mesh } = solidLibrary();
	return Solid.ofMesh(
		new Mesh({
			numProp: 3,
			vertProperties: new Float32Array(vertices),
			triVerts: new Uint32Array(triangles)
		})
	);
}

/**
 * The same of a mesh that may not close, or be turned inside out: null then.
 *
 * ```ts
 * solidIfClosed({ vertices: [0, 0, 0, 1, 0, 0, 0, 1, 0], triangles: [0, 1, 2] }); // null
 * ```
 * @throws Error when `loadSolids` has not been awaited
 */
export function solidIfClosed(mesh: ClosedMesh): Manifold | null {
	solidLibrary();
	let solid: Manifold;
	try {
		solid = solidOf(mesh);
	} catch {
		return null;
	}
	if (solid.volume() > 0) return solid;
	solid.delete();
	return null;
}

/**
 * What an outline sweeps out straight along z; where it crosses itself, what it goes round counter-clockwise. Give it
 * back with `delete`.
 *
 * ```ts
 * const bar = sweptOutline([[0, 0], [60, 0], [60, 40]], -10, 90); // 100 mm long
 * ```
 * @param from, to mm
 */
export function sweptOutline(outline: readonly Place[], from: number, to: number): Manifold {
	const section = new (solidLibrary().CrossSection)(
		[outline.map(([x, y]): [number, number] => [x, y])],
		'Positive'
	);
	const straight = section.extrude(to - from);
	const moved = straight.translate([0, 0, from]);
	section.delete();
	straight.delete();
	return moved;
}

/**
 * The mesh of a solid.
 *
 * ```ts
 * const { vertices, triangles } = meshOfSolid(solidLibrary().Manifold.cube([1, 1, 1]));
 * ```
 */
export function meshOfSolid(solid: Manifold): {
	readonly vertices: Float32Array;
	readonly triangles: Uint32Array;
} {
	const { vertProperties, triVerts, numProp } = solid.getMesh();
	const count = vertProperties.length / numProp;
	const vertices = new Float32Array(3 * count);
	for (let k = 0; k < count; k++)
		for (let a = 0; a < 3; a++) vertices[3 * k + a] = vertProperties[k * numProp + a]!;
	return { vertices, triangles: triVerts };
}
