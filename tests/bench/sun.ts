import {
	DoubleSide,
	BufferAttribute,
	BufferGeometry,
	Mesh,
	MeshBasicMaterial,
	Raycaster,
	Vector3
} from 'three';
import { makeBvh } from '../../src/core/geometry/bvh';
import { sunSchema } from '../../src/core/project/sun-schema';
import { directHours } from '../../src/core/sun/direct-hours';
import { sunRays } from '../../src/core/sun/rays';

/** A roof in waves, 30 m by 30 m, of 20,000 triangles: hills hide valleys. */
const STEPS = 100;
const heightAt = (i: number, j: number) => 3000 * Math.sin(i / 9) * Math.cos(j / 7) + 4000;

function roof() {
	const points: number[] = [];
	const index: number[] = [];
	for (let j = 0; j <= STEPS; j++)
		for (let i = 0; i <= STEPS; i++) points.push(300 * i, 300 * j, heightAt(i, j));
	for (let j = 0; j < STEPS; j++)
		for (let i = 0; i < STEPS; i++) {
			const a = j * (STEPS + 1) + i;
			const c = a + STEPS + 1;
			index.push(a, a + 1, c + 1, a, c + 1, c);
		}
	return { points: Float64Array.from(points), index: Uint32Array.from(index) };
}

function placesOn(count: number) {
	const middles = new Float64Array(3 * count);
	const normals = new Float64Array(3 * count);
	for (let p = 0; p < count; p++) {
		const [i, j] = [((p * 37) % 99) + 0.5, ((p * 53) % 97) + 0.5];
		const x = (heightAt(i + 0.1, j) - heightAt(i - 0.1, j)) / 60;
		const y = (heightAt(i, j + 0.1) - heightAt(i, j - 0.1)) / 60;
		const size = Math.hypot(x, y, 1);
		middles.set([300 * i, 300 * j, heightAt(i, j)], 3 * p);
		normals.set([-x / size, -y / size, 1 / size], 3 * p);
	}
	return { middles, normals, before: new Float64Array(count).fill(60) };
}

/** A year in hourly steps on 10,000 places, from the days to the hours: one thread, milliseconds. */
export function sunOfAYear(): number {
	const { points, index } = roof();
	const places = placesOn(10_000);
	const started = performance.now();
	directHours(makeBvh(points, index), sunRays(sunSchema.parse({})), places, 0, 10_000);
	return performance.now() - started;
}

/** The same by a plain loop over a general ray caster, as far as it would take for all: milliseconds. */
export function sunByRaycaster(): number {
	const { points, index } = roof();
	const geometry = new BufferGeometry();
	geometry.setAttribute('position', new BufferAttribute(Float32Array.from(points), 3));
	geometry.setIndex(new BufferAttribute(index, 1));
	const mesh = new Mesh(geometry, new MeshBasicMaterial({ side: DoubleSide }));
	const { directions, hours } = sunRays(sunSchema.parse({}));
	const TRIED = 40;
	const { middles, normals } = placesOn(TRIED);
	const caster = new Raycaster();
	const [from, way, normal] = [new Vector3(), new Vector3(), new Vector3()];
	let rays = 0;
	const started = performance.now();
	for (let p = 0; p < TRIED; p++)
		for (let r = 0; r < hours.length; r += 50) {
			normal.fromArray(normals, 3 * p);
			way.fromArray(directions, 3 * r);
			rays++;
			if (way.dot(normal) <= 0) continue;
			caster.set(from.fromArray(middles, 3 * p).addScaledVector(normal, 60), way);
			caster.intersectObject(mesh);
		}
	return ((performance.now() - started) / rays) * 10_000 * hours.length;
}
