import * as THREE from 'three';
import { acceleratedRaycast, MeshBVH } from 'three-mesh-bvh';

/** A mesh's `raycast` that sorts its triangles in space when it is first asked. */
export function raycastSorted(
	this: THREE.Mesh,
	raycaster: THREE.Raycaster,
	hits: THREE.Intersection[]
): void {
	this.geometry.boundsTree ??= new MeshBVH(this.geometry, { indirect: true });
	acceleratedRaycast.call(this, raycaster, hits);
}
