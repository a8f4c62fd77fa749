import { expect } from 'chai';
import * as THREE from 'three';
import { raycastSorted } from '../../src/lib/model/raycast';
import fc from '../property';

/** Small triangles on a wavy roof, course by course, as pieces lie; moved and turned as a whole. */
function roof(bays: number, courses: number, indexed: boolean): THREE.Mesh {
	const at = (u: number, v: number) => [u, v, 3 * Math.sin(u / 9) + 2 * Math.cos(v / 7)];
	const places: number[] = [];
	for (let v = 0; v < courses; v++)
		for (let u = 0; u < bays; u++)
			places.push(
				...at(u, v),
				...at(u + 1, v),
				...at(u, v + 1),
				...at(u + 1, v),
				...at(u + 1, v + 1),
				...at(u, v + 1)
			);
	const geometry = new THREE.BufferGeometry();
	geometry.setAttribute('position', new THREE.Float32BufferAttribute(places, 3));
	if (indexed) geometry.setIndex(Array.from({ length: places.length / 3 }, (_, k) => k));
	const mesh = new THREE.Mesh(geometry, new THREE.MeshBasicMaterial({ side: THREE.DoubleSide }));
	mesh.position.set(-40, 12, 3);
	mesh.rotation.set(0.3, -0.2, 1);
	mesh.scale.setScalar(0.7);
	mesh.updateMatrixWorld();
	return mesh;
}

/** What is hit, from the nearest on, as one of the two ways finds it. */
function found(mesh: THREE.Mesh, ray: THREE.Ray, way: THREE.Mesh['raycast']): [number, number][] {
	const hits: THREE.Intersection[] = [];
	way.call(mesh, new THREE.Raycaster(ray.origin, ray.direction), hits);
	return hits
		.map(({ faceIndex, distance }): [number, number] => [faceIndex!, distance])
		.sort(([a], [b]) => a - b);
}

describe('what a ray meets', () => {
	it('is what it meets triangle by triangle, also when only some are drawn', () => {
		for (const indexed of [false, true]) {
			const mesh = roof(160, 90, indexed);
			const whole = mesh.geometry.index;
			const coordinate = fc.double({ min: -60, max: 60, noNaN: true });
			let met = 0;
			const compare = () =>
				fc.assert(
					fc.property(
						fc.tuple(coordinate, coordinate, coordinate),
						fc.tuple(coordinate, coordinate),
						(from, to) => {
							const origin = new THREE.Vector3(...from).addScalar(80);
							const target = mesh.localToWorld(new THREE.Vector3(80 + to[0], 45 + to[1] * 0.7, 0));
							const ray = new THREE.Ray(origin, target.sub(origin).normalize());
							const [sorted, plain] = [
								found(mesh, ray, raycastSorted),
								found(mesh, ray, THREE.Mesh.prototype.raycast)
							];
							expect(sorted.map(([face]) => face)).to.deep.equal(plain.map(([face]) => face));
							for (const [k, [, distance]] of sorted.entries())
								expect(distance).to.be.closeTo(plain[k]![1], 1e-6);
							met += sorted.length;
						}
					),
					{ numRuns: 60 }
				);
			compare();
			expect(met).to.be.above(30);
			const { count } = mesh.geometry.getAttribute('position');
			mesh.geometry.setIndex(Array.from({ length: count }, (_, k) => k).filter((k) => k % 18 < 6));
			compare();
			mesh.geometry.setIndex(whole);
			compare();
		}
	});
});
