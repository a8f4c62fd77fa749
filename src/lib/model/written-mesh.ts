import type { Written } from '$core/part/element-table';
import type { ElementView } from '$lib/worker/views';
import * as THREE from 'three';
import { raycastSorted } from './raycast';

/** Instances of an element whose vertices are all written out. */
export class WrittenMesh extends THREE.Mesh<THREE.BufferGeometry, THREE.Material> {
	override raycast = raycastSorted;

	/** @param index the triangles of all instances */
	constructor(
		private readonly element: ElementView,
		{ positions }: Written,
		private readonly index: THREE.BufferAttribute,
		material: THREE.Material
	) {
		super(new THREE.BufferGeometry(), material);
		this.geometry.setAttribute('position', new THREE.BufferAttribute(positions, 3));
		this.geometry.setIndex(index);
	}

	/** Draw and pick only some of the instances. */
	drawOnly(wanted: ((instance: number) => boolean) | null): void {
		const { geometry, index } = this;
		if (!wanted && geometry.index === index) return;
		const each = this.element.triangles.length;
		geometry.setIndex(
			wanted ? Array.from(index.array).filter((_, k) => wanted(Math.floor(k / each))) : index
		);
		delete geometry.boundsTree;
	}

	instanceAt(hit: THREE.Intersection): number {
		return Math.floor(hit.face!.a / this.element.verticesEach);
	}
}
