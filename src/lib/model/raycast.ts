import * as THREE from 'three';
import { MeshBVH } from 'three-mesh-bvh';

/**
 * Triangles that are sorted in space at once. Those of a large model took a second, at each first look after an edit;
 * what is written one after the other lies together too, so that a ray meets a few stretches.
 */
const STRETCH = 1024;

/** Triangles that follow one another. */
interface Stretch {
	/** Of the geometry's index, or of its vertices where it has none. */
	readonly range: { readonly start: number; readonly count: number };
	readonly box: THREE.Box3;
	sorted: MeshBVH | null;
}

/** The stretches of a geometry, as long as it draws by the same index. */
const known = new WeakMap<
	THREE.BufferGeometry,
	{ readonly index: THREE.BufferAttribute | null; readonly stretches: readonly Stretch[] }
>();

function boxOf(positions: ArrayLike<number>, index: ArrayLike<number> | null, start: number, count: number) {
	let [lx, ly, lz] = [Infinity, Infinity, Infinity];
	let [hx, hy, hz] = [-Infinity, -Infinity, -Infinity];
	for (let k = start; k < start + count; k++) {
		const at = 3 * (index ? index[k]! : k);
		const x = positions[at]!;
		const y = positions[at + 1]!;
		const z = positions[at + 2]!;
		if (x < lx) lx = x;
		if (x > hx) hx = x;
		if (y < ly) ly = y;
		if (y > hy) hy = y;
		if (z < lz) lz = z;
		if (z > hz) hz = z;
	}
	return new THREE.Box3(new THREE.Vector3(lx, ly, lz), new THREE.Vector3(hx, hy, hz));
}

function stretchesOf(geometry: THREE.BufferGeometry): readonly Stretch[] {
	const before = known.get(geometry);
	if (before?.index === geometry.index) return before.stretches;
	const { index } = geometry;
	const { array, count } = geometry.getAttribute('position');
	const all = index?.count ?? count;
	const stretches: Stretch[] = [];
	for (let start = 0; start < all; start += 3 * STRETCH) {
		const range = { start, count: Math.min(3 * STRETCH, all - start) };
		stretches.push({ range, box: boxOf(array, index?.array ?? null, start, range.count), sorted: null });
	}
	known.set(geometry, { index, stretches });
	return stretches;
}

const toLocal = new THREE.Matrix4();
const local = new THREE.Ray();

/** A mesh's `raycast` that sorts its triangles in space, those that a ray comes near to when the first one does. */
export function raycastSorted(
	this: THREE.Mesh,
	raycaster: THREE.Raycaster,
	hits: THREE.Intersection[]
): void {
	local.copy(raycaster.ray).applyMatrix4(toLocal.copy(this.matrixWorld).invert());
	for (const stretch of stretchesOf(this.geometry)) {
		if (!local.intersectsBox(stretch.box)) continue;
		stretch.sorted ??= new MeshBVH(this.geometry, {
			indirect: true,
			range: stretch.range,
			setBoundingBox: false
		});
		stretch.sorted.raycastObject3D(this, raycaster, hits);
	}
}
