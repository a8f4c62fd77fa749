import { MAP, type Placed } from '$core/part/element-table';
import { cornersOfBox, placesOf, trianglesOf } from '$core/part/places';
import * as THREE from 'three';

/** Where the shader makes a vertex's place; see three's chunk `begin_vertex`. */
const PLACE = '#include <begin_vertex>';
/** The sum over a map's eight vectors, as the card makes it; see `Placed`. */
export const PLACED_AT = [
	'map0 + position.x * (map1 + position.y * map4)',
	'position.y * (map2 + position.z * map5)',
	'position.z * (map3 + position.x * (map6 + position.y * map7))'
].join(' + ');
const ATTRIBUTES = Array.from({ length: MAP / 4 }, (_, k) => `map${k}`);

/** A vertex shader that draws every instance under its map. */
export function placedAt(shader: string): string {
	const declared = ATTRIBUTES.map((name) => `attribute vec3 ${name};`).join('\n');
	return `${declared}\n${shader.replace(PLACE, `vec3 transformed = ${PLACED_AT};`)}`;
}

/** Instances of one mesh, fitted by the graphics card: it is given the mesh once, and a map for each. */
export class PlacedMesh extends THREE.Mesh<THREE.InstancedBufferGeometry, THREE.Material> {
	/** The instances that are drawn; null for all. */
	private drawn: readonly number[] | null = null;
	private boxes: THREE.Box3[] | null = null;

	/** @param material one that is given as placed */
	constructor(
		private readonly placed: Placed,
		private readonly instances: number,
		material: THREE.Material
	) {
		super(new THREE.InstancedBufferGeometry(), material);
		this.geometry.setAttribute('position', new THREE.BufferAttribute(placed.unit, 3));
		this.geometry.setIndex([...placed.triangles]);
		this.setMaps(placed.maps);
	}

	private setMaps(maps: Float32Array): void {
		const buffer = new THREE.InstancedInterleavedBuffer(maps, MAP);
		for (const [k, name] of ATTRIBUTES.entries())
			this.geometry.setAttribute(name, new THREE.InterleavedBufferAttribute(buffer, 3, 4 * k));
		this.geometry.instanceCount = maps.length / MAP;
	}

	/** Draw and pick only some of the instances. */
	drawOnly(wanted: ((instance: number) => boolean) | null): void {
		if (!wanted && !this.drawn) return;
		const { maps } = this.placed;
		const all = Array.from({ length: this.instances }, (_, k) => k);
		this.drawn = wanted && all.filter(wanted);
		const some = this.drawn?.map((k) => maps.subarray(MAP * k, MAP * (k + 1)));
		// The geometry's buffers are made anew with their number.
		this.geometry.dispose();
		this.setMaps(some ? Float32Array.from(some.flatMap((map) => [...map])) : maps);
	}

	/** A box round each instance: that of the mesh, mapped, lies within the hull of its corners. */
	private boxOf(instance: number): THREE.Box3 {
		if (!this.boxes) {
			const corners = { ...this.placed, unit: cornersOfBox(this.placed.unit) };
			this.boxes = Array.from({ length: this.instances }, (_, k) =>
				new THREE.Box3().setFromArray(placesOf(corners, k))
			);
		}
		return this.boxes[instance]!;
	}

	/** The nearest hit of each instance. */
	override raycast(raycaster: THREE.Raycaster, hits: THREE.Intersection[]): void {
		const toLocal = this.matrixWorld.clone().invert();
		const ray = raycaster.ray.clone().applyMatrix4(toLocal);
		const [a, b, c, at] = [
			new THREE.Vector3(),
			new THREE.Vector3(),
			new THREE.Vector3(),
			new THREE.Vector3()
		];
		const { placed, instances } = this;
		for (const instance of this.drawn ?? Array.from({ length: instances }, (_, k) => k)) {
			if (!ray.intersectsBox(this.boxOf(instance))) continue;
			const places = placesOf(placed, instance);
			const triangles = trianglesOf(placed, instance);
			let nearest: THREE.Vector3 | null = null;
			for (let t = 0; t < triangles.length; t += 3) {
				a.fromArray(places, 3 * triangles[t]!);
				b.fromArray(places, 3 * triangles[t + 1]!);
				c.fromArray(places, 3 * triangles[t + 2]!);
				if (!ray.intersectTriangle(a, b, c, false, at)) continue;
				if (!nearest || ray.origin.distanceToSquared(at) < ray.origin.distanceToSquared(nearest))
					nearest = at.clone();
			}
			if (!nearest) continue;
			const point = nearest.applyMatrix4(this.matrixWorld);
			const distance = raycaster.ray.origin.distanceTo(point);
			if (distance >= raycaster.near && distance <= raycaster.far)
				hits.push({ distance, point, object: this, instanceId: instance });
		}
	}

	instanceAt(hit: THREE.Intersection): number {
		return hit.instanceId!;
	}
}
