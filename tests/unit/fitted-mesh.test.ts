import { expect } from 'chai';
import fc from '../property';
import { evaluate } from 'mathjs';
import * as THREE from 'three';
import { loadSolids } from '../../src/core/part/block/solids';
import { MAP, type ElementTable, type Fitted } from '../../src/core/part/element-table';
import { placesOf } from '../../src/core/part/places';
import { shippedParts } from '../../src/core/part/kit';
import { FittedMesh, FITTED_PLACE } from '../../src/lib/model/fitted-mesh';
import { WrittenMesh } from '../../src/lib/model/written-mesh';
import type { ElementView } from '../../src/lib/worker/views';
import type { Vector } from '../../src/core/geometry/vector';
import { runOnce } from '../trial-run';

/** Hollow blocks side by side, every one of another shape. */
function blocksInARow(count: number): ElementTable {
	const hollow = shippedParts.find(({ id }) => id === 'hollow-block')!;
	const tables = Array.from({ length: count }, (_, n) => {
		const lean = 150 * Math.sin(n);
		const ring = (y: number): Vector[] => [
			[1100 * n, y, 0],
			[1100 * n + 1000, y + lean, 0],
			[1100 * n + 1000, y, 1000 + lean],
			[1100 * n + lean, y, 1000]
		];
		return runOnce(hollow, [...ring(800), ...ring(0)]).elements[0]!;
	});
	const [first] = tables;
	const maps = tables.flatMap(({ vertices }) => [...(vertices.is === 'fitted' ? vertices.maps : [])]);
	const { unit } = first!.vertices as Fitted;
	return { ...first!, count, vertices: { is: 'fitted', unit, maps: Float32Array.from(maps) } };
}

describe('blocks that the card maps', () => {
	before(loadSolids);

	it('are drawn where the files have them: the shader’s sum, read as arithmetic', () => {
		const table = blocksInARow(3);
		const { unit, maps } = table.vertices as Fitted;
		for (let k = 0; k < table.count; k++)
			for (let v = 0; v < unit.length; v += 51)
				for (let a = 0; a < 3; a++) {
					const scope: Record<string, unknown> = {
						position: { x: unit[v]!, y: unit[v + 1]!, z: unit[v + 2]! }
					};
					for (let m = 0; m < 8; m++) scope[`map${m}`] = maps[MAP * k + 4 * m + a]!;
					expect(evaluate(FITTED_PLACE, scope)).to.be.closeTo(placesOf(table, k)[v + a]!, 1e-3);
				}
	});

	it('are picked where the same triangles, written out, are', () => {
		const table = blocksInARow(5);
		const each = 3 * table.verticesEach;
		const positions = new Float32Array(each * table.count);
		for (let k = 0; k < table.count; k++) positions.set(placesOf(table, k), each * k);
		const index = Uint32Array.from({ length: table.count * table.triangles.length }, (_, k) => {
			const [copy, t] = [Math.floor(k / table.triangles.length), k % table.triangles.length];
			return copy * table.verticesEach + table.triangles[t]!;
		});
		const element = table as unknown as ElementView;
		const material = new THREE.MeshBasicMaterial({ side: THREE.DoubleSide });
		const fitted = new FittedMesh(element, table.vertices as Fitted, material);
		const written = new WrittenMesh(
			element,
			{ is: 'written', positions },
			new THREE.BufferAttribute(index, 1),
			material
		);
		// As the model stands: in metres, away from the origin.
		for (const mesh of [fitted, written]) {
			mesh.scale.setScalar(0.001);
			mesh.position.set(3, -2, 1);
			mesh.updateMatrixWorld();
		}
		const raycaster = new THREE.Raycaster();
		const nearest = (mesh: FittedMesh | WrittenMesh) => {
			const hit = raycaster.intersectObject(mesh, false)[0];
			return hit ? { instance: mesh.instanceAt(hit), distance: hit.distance } : null;
		};
		let hits = 0;
		const share = fc.integer({ min: -100, max: 1100 }).map((n) => (n + Math.SQRT2 / 3) / 1000);
		fc.assert(
			fc.property(share, share, share, share, fc.boolean(), (x, z, dx, dz, some) => {
				const odd = (instance: number) => instance % 2 === 1;
				for (const mesh of [fitted, written]) mesh.drawOnly(some ? odd : null);
				const from = new THREE.Vector3(3 + 5.4 * x, -7, 1 + z);
				const to = new THREE.Vector3(3 + 5.4 * x + dx - 0.5, -2, 1 + dz);
				raycaster.set(from, to.sub(from).normalize());
				const [one, other] = [nearest(fitted), nearest(written)];
				expect(one?.instance).to.equal(other?.instance);
				if (!one) return;
				hits++;
				if (some) expect(odd(one.instance)).to.equal(true);
				expect(one.distance).to.be.closeTo(other!.distance, 1e-4);
			}),
			{ numRuns: 400 }
		);
		expect(hits).to.be.above(100);
	});
});
