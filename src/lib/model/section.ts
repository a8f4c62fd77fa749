import type { Vector } from '$core/geometry/vector';
import type { Section } from '$core/project/view-schema';
import { MM } from './metres';
import * as THREE from 'three';

export const AXES = ['x', 'y', 'z'] as const;
/** What a section leaves of the picture (m). */
export function planeOf({ axis, at, keeps }: Section): THREE.Plane {
	const side = keeps === 'low' ? -1 : 1;
	const normal = new THREE.Vector3();
	normal[axis] = side;
	return new THREE.Plane(normal, -side * at * MM);
}

/** The corners of a section through a box, a little wider than it. @param box m @returns mm */
export function ringOf({ axis, at }: Section, box: THREE.Box3): Vector[] {
	const wide = box.clone().expandByScalar(0.06 * box.getSize(new THREE.Vector3()).length());
	const [a, b] = AXES.filter((one) => one !== axis) as [(typeof AXES)[number], (typeof AXES)[number]];
	return [
		[wide.min[a], wide.min[b]],
		[wide.max[a], wide.min[b]],
		[wide.max[a], wide.max[b]],
		[wide.min[a], wide.max[b]]
	].map(([p, q]) => {
		const corner = new THREE.Vector3();
		corner[axis] = at * MM;
		corner[a] = p!;
		corner[b] = q!;
		return corner.divideScalar(MM).toArray();
	});
}
