import type { Made, Own } from '$core/part/element-table';
import * as THREE from 'three';
import { raycastSorted } from './raycast';

/** Which stretch a place lies in, of stretches that begin one after another. */
function stretchOf(first: Uint32Array, place: number): number {
	let low = 0;
	let high = first.length - 1;
	while (high - low > 1) {
		const middle = (low + high) >> 1;
		if (first[middle]! <= place) low = middle;
		else high = middle;
	}
	return low;
}

/** The triangle indices of instances that have each a mesh of their own. */
export function ownIndex({ triangles, firstCorner, firstVertex }: Own): Uint32Array {
	const index = new Uint32Array(triangles.length);
	for (let k = 0; k + 1 < firstCorner.length; k++)
		for (let t = firstCorner[k]!; t < firstCorner[k + 1]!; t++) index[t] = triangles[t]! + firstVertex[k]!;
	return index;
}

/** Instances of an element whose vertices are all written out. */
export class WrittenMesh extends THREE.Mesh<THREE.BufferGeometry, THREE.Material> {
	override raycast = raycastSorted;

	/** @param index the triangles of all instances */
	constructor(
		private readonly shape: Made | Own,
		private readonly index: THREE.BufferAttribute,
		material: THREE.Material
	) {
		super(new THREE.BufferGeometry(), material);
		this.geometry.setAttribute('position', new THREE.BufferAttribute(shape.positions, 3));
		this.geometry.setIndex(index);
	}

	/** Draw and pick only some of the instances. */
	drawOnly(wanted: ((instance: number) => boolean) | null): void {
		const { geometry, index } = this;
		if (!wanted && geometry.index === index) return;
		geometry.setIndex(
			wanted ? Array.from(index.array).filter((vertex) => wanted(this.instanceOf(vertex))) : index
		);
	}

	private instanceOf(vertex: number): number {
		const { shape } = this;
		return shape.is === 'made'
			? Math.floor(vertex / shape.verticesEach)
			: stretchOf(shape.firstVertex, vertex);
	}

	instanceAt(hit: THREE.Intersection): number {
		return this.instanceOf(hit.face!.a);
	}
}
