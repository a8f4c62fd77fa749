import { MM } from '$lib/model/metres';
import { joinedMesh } from '$core/part/places';
import { BEHIND_LINES, Matter } from '$lib/model/matter';
import { shadowOf } from '$lib/model/shadow';
import * as THREE from 'three';
import type { MadeElement } from './hang';

const INK = 0x1d2126;
/** Edges between faces that meet flatter than this are not drawn (degrees). */
const EDGE_ANGLE = 22;

/** Makes the meshes of pieces, in their materials, with thin lines along their edges. */
export class PieceMeshes {
	private readonly matter: Matter;
	private readonly ink = new THREE.LineBasicMaterial({ color: INK, transparent: true, opacity: 0.4 });

	constructor(plain: boolean) {
		this.matter = new Matter(plain, (made) => {
			Object.assign(made, BEHIND_LINES);
		});
	}

	of(elements: readonly MadeElement[]): THREE.Group {
		const group = new THREE.Group();
		group.scale.setScalar(MM);
		for (const { material, table } of elements) {
			const geometry = new THREE.BufferGeometry();
			const { places, triangles } = joinedMesh(
				table.shape,
				Array.from({ length: table.count }, (_, k) => k)
			);
			geometry.setAttribute('position', new THREE.BufferAttribute(places, 3));
			geometry.setIndex(new THREE.BufferAttribute(triangles, 1));
			const mesh = new THREE.Mesh(geometry, this.matter.of(material));
			mesh.castShadow = mesh.receiveShadow = true;
			mesh.customDepthMaterial = shadowOf('written', material.opacity < 1);
			group.add(mesh, new THREE.LineSegments(new THREE.EdgesGeometry(geometry, EDGE_ANGLE), this.ink));
		}
		return group;
	}

	dispose(): void {
		this.matter.dispose();
		this.ink.dispose();
	}
}

/** Let the graphics card forget what a group draws; its materials stay. */
export function forgetShapes(group: THREE.Group): void {
	group.traverse((child) => {
		if (child instanceof THREE.Mesh || child instanceof THREE.LineSegments || child instanceof THREE.Points)
			(child.geometry as THREE.BufferGeometry).dispose();
	});
}
