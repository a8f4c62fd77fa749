import { expect } from 'chai';
import fc from '../property';
import { WebIO } from '@gltf-transform/core';
import { evaluate } from 'mathjs';
import * as THREE from 'three';
import { IfcAPI } from 'web-ifc';
import { Chain } from '../../src/core/chain/chain';
import type { Model } from '../../src/core/cladding/model';
import type { PieceGroup } from '../../src/core/cladding/pieces';
import { writeGlb } from '../../src/core/exchange/glb/write';
import { writeIfc } from '../../src/core/exchange/ifc/write';
import { pieceQuantities } from '../../src/core/cladding/quantities';
import { loadSolids } from '../../src/core/geometry/solid/library';
import { MAP, type Made, type Own, type Placed } from '../../src/core/part/element-table';
import { boundsOf, joinedMesh, placesOf } from '../../src/core/part/places';
import { shippedParts } from '../../src/core/part/kit';
import { PlacedMesh, PLACED_AT } from '../../src/lib/model/placed-mesh';
import { ownIndex, WrittenMesh } from '../../src/lib/model/written-mesh';
import type { Vector } from '../../src/core/geometry/vector';
import { count, projectOf, sheet } from '../faces';
import { cornersOf, facesOf, runOnce, triedPart, volumeWithin } from '../trial-run';

/** Hollow blocks side by side, every one of another shape, every second one mirrored. */
function blocksInARow(count: number): Placed {
	const hollow = shippedParts.find(({ id }) => id === 'hollow-block')!;
	const shapes = Array.from({ length: count }, (_, n) => {
		const lean = 150 * Math.sin(n);
		const ring = (y: number): Vector[] => [
			[1100 * n, y, 0],
			[1100 * n + 1000, y + lean, 0],
			[1100 * n + 1000, y, 1000 + lean],
			[1100 * n + lean, y, 1000]
		];
		return runOnce(hollow, [...ring(800), ...ring(0)]).elements[0]!.shape as Placed;
	});
	const mirrored = Uint8Array.from(shapes, (_, n) => n % 2);
	return { ...shapes[0]!, mirrored, maps: Float32Array.from(shapes.flatMap(({ maps }) => [...maps])) };
}

describe('blocks that the card maps', () => {
	before(loadSolids);

	it('are drawn where the files have them: the shader’s sum, read as arithmetic', () => {
		const placed = blocksInARow(3);
		const { unit, maps } = placed;
		for (let k = 0; k < 3; k++)
			for (let v = 0; v < unit.length; v += 51)
				for (let a = 0; a < 3; a++) {
					const scope: Record<string, unknown> = {
						position: { x: unit[v]!, y: unit[v + 1]!, z: unit[v + 2]! }
					};
					for (let m = 0; m < 8; m++) scope[`map${m}`] = maps[MAP * k + 4 * m + a]!;
					expect(evaluate(PLACED_AT, scope)).to.be.closeTo(placesOf(placed, k)[v + a]!, 1e-3);
				}
	});

	it('are picked where the same triangles, written out, are', () => {
		const shape = blocksInARow(5);
		const { places: positions, triangles: index } = joinedMesh(shape, [0, 1, 2, 3, 4]);
		const material = new THREE.MeshBasicMaterial({ side: THREE.DoubleSide });
		const placed = new PlacedMesh(shape, 5, material);
		const made: Made = { ...shape, is: 'made', positions, verticesEach: shape.unit.length / 3 };
		const written = new WrittenMesh(made, new THREE.BufferAttribute(index, 1), material);
		// As the model stands: in metres, away from the origin.
		for (const mesh of [placed, written]) {
			mesh.scale.setScalar(0.001);
			mesh.position.set(3, -2, 1);
			mesh.updateMatrixWorld();
		}
		const raycaster = new THREE.Raycaster();
		const nearest = (mesh: PlacedMesh | WrittenMesh) => {
			const hit = raycaster.intersectObject(mesh, false)[0];
			return hit ? { instance: mesh.instanceAt(hit), distance: hit.distance } : null;
		};
		let hits = 0;
		const share = fc.integer({ min: -100, max: 1100 }).map((n) => (n + Math.SQRT2 / 3) / 1000);
		fc.assert(
			fc.property(share, share, share, share, fc.boolean(), (x, z, dx, dz, some) => {
				const odd = (instance: number) => instance % 2 === 1;
				for (const mesh of [placed, written]) mesh.drawOnly(some ? odd : null);
				const from = new THREE.Vector3(3 + 5.4 * x, -7, 1 + z);
				const to = new THREE.Vector3(3 + 5.4 * x + dx - 0.5, -2, 1 + dz);
				raycaster.set(from, to.sub(from).normalize());
				const [one, other] = [nearest(placed), nearest(written)];
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

describe('rows of a part of blocks: mirrored by the cell, alike on the left, all different on the right', () => {
	/** A ball that is nearer to the left end of its block, so that a mirrored one is another body. */
	const part = triedPart(
		[
			{ name: 'whole', do: 'block box', from: ['0', '0', '0'], to: ['1', '1', '1'] },
			{ name: 'ball', do: 'block sphere', centre: ['0.25', '0.5', '0.5'], radius: 'radius' },
			{ name: 'shaped', do: 'block difference', whole: 'whole', less: ['ball'] },
			{
				name: 'body',
				do: 'fit block',
				block: 'shaped',
				first: 'cell',
				second: 'far',
				mirror: 'turned > 0.5'
			}
		],
		{
			anchor: { kind: 'double ring', corners: 4 },
			inputs: [
				{ name: 'radius', label: 'Radius', kind: 'ratio', default: 0.1, min: 0, max: 1, scope: 'per piece' },
				{ name: 'turned', label: 'Turned', kind: 'count', default: 0, min: 0, max: 1, scope: 'per piece' }
			],
			elements: [{ name: 'element', label: 'Block', category: 'other', of: ['body'], material: 'concrete' }]
		}
	);
	const [BAYS, SIDE, DEPTH] = [12, 1000, 600];
	const isMirrored = (cell: number) => cell % 2 === 1;
	const radiusAt = (cell: number) => (cell < 6 ? 0.15 : 0.1 + 0.01 * cell);
	const volumeAt = (cell: number) => 1 - (4 / 3) * Math.PI * radiusAt(cell) ** 3;
	let model: Model;
	let group: PieceGroup;
	before(async () => {
		await loadSolids();
		const values = {
			radius: 'bay <= 6 ? 0.15 : 0.1 + 0.01 * (bay - 1)',
			turned: 'bay / 2 == floor(bay / 2) ? 1 : 0'
		};
		const project = projectOf(
			sheet(BAYS * SIDE, SIDE),
			count(BAYS, 1),
			{
				layer: { depth: `${DEPTH} mm` },
				rules: [{ id: 'all', put: { variant: 'block', values } }]
			},
			{ parts: [part], variants: [{ id: 'block', name: 'Block', part: 'tried', values: {} }] }
		);
		model = await new Chain().run(project);
		expect(model.problems).to.deep.equal([]);
		({ group } = model.zones[0]!.model!.groups[0]!);
	});
	/** How far the hollow lies from the left end of the block, by its mesh's own centre of mass: share of the width. */
	const leans = (corners: ArrayLike<number>, triangles: ArrayLike<number>): number => {
		let [volume, moment] = [0, 0];
		for (let t = 0; t < triangles.length; t += 3) {
			const [p, q, r] = [0, 1, 2].map((k) =>
				[0, 1, 2].map((a) => corners[3 * triangles[t + k]! + a]! - corners[a]!)
			) as [number[], number[], number[]];
			const six =
				p[0]! * (q[1]! * r[2]! - q[2]! * r[1]!) +
				p[1]! * (q[2]! * r[0]! - q[0]! * r[2]!) +
				p[2]! * (q[0]! * r[1]! - q[1]! * r[0]!);
			volume += six;
			moment += (six * (p[0]! + q[0]! + r[0]!)) / 4;
		}
		return moment / volume + corners[0]!;
	};

	it('are placed where one mesh stands often, mirrored by their map, and own where each has another', () => {
		const shapes = group.run.elements.map(({ shape, count: many }) => [shape.is, many]);
		expect(shapes).to.deep.equal([
			['placed', 6],
			['own', 6]
		]);
		const seen = new Set<number>();
		for (const table of group.run.elements)
			for (let n = 0; n < table.count; n++) {
				const cell = group.sites[table.row[n]!]!;
				seen.add(cell);
				const [corners, triangles] = [cornersOf(table, n), facesOf(table, n)];
				const whole = SIDE * SIDE * DEPTH;
				// Closed form: a box less a ball that is squeezed with it.
				expect(table.volume[n]! / whole).to.be.closeTo(volumeAt(cell), 2e-6);
				// Turned outward, whatever its map does to left and right.
				expect(volumeWithin(corners, triangles) / whole).to.be.closeTo(volumeAt(cell), 2e-5);
				// What is taken away on one side moves the centre of mass to the other, as far as it weighs.
				const taken = 1 - volumeAt(cell);
				const off = (taken * 0.25) / volumeAt(cell);
				const middle = (cell + 0.5 + (isMirrored(cell) ? -off : off)) * SIDE;
				const { origin } = model.zones[0]!.model!.faces[0]!;
				expect(leans(corners, triangles) + origin[0]).to.be.closeTo(middle, 0.2);
			}
		expect(seen.size).to.equal(BAYS);
	});

	it('stand the same in GLB, read by another reader', async () => {
		const document = await new WebIO().readBinary(writeGlb(model));
		const marked = document
			.getRoot()
			.listNodes()
			.filter((node) => node.getMesh());
		expect(marked.length).to.equal(BAYS);
		for (const node of marked) {
			const [primitive] = node.getMesh()!.listPrimitives();
			const places = primitive!.getAttribute('POSITION')!.getArray()!;
			const triangles = primitive!.getIndices()!.getArray()!;
			const cell = Number(/B(\d+)/.exec(node.getExtras()['address'] as string)![1]) - 1;
			const volume = volumeWithin(places, triangles) / ((SIDE * SIDE * DEPTH) / 1e9);
			expect(volume, node.getName()).to.be.closeTo(volumeAt(cell), 1e-4);
			const [x] = node.getTranslation();
			const [taken, side] = [1 - volumeAt(cell), isMirrored(cell) ? -1 : 1];
			const middle = cell + 0.5 + (side * taken * 0.25) / volumeAt(cell);
			expect(leans(places, triangles) + x).to.be.closeTo(middle, 2e-4);
		}
	});

	it('stand the same in IFC, read by another reader', async () => {
		const api = new IfcAPI();
		await api.Init();
		const file = api.OpenModel(Buffer.concat(writeIfc(model, '2026-01-01T00:00:00')));
		const volumes: number[] = [];
		api.StreamAllMeshes(file, (mesh) => {
			const { geometryExpressID } = mesh.geometries.get(0);
			const geometry = api.GetGeometry(file, geometryExpressID);
			const values = api.GetVertexArray(geometry.GetVertexData(), geometry.GetVertexDataSize());
			const places = Array.from(
				{ length: values.length / 2 },
				(_, k) => values[6 * Math.floor(k / 3) + (k % 3)]!
			);
			const triangles = api.GetIndexArray(geometry.GetIndexData(), geometry.GetIndexDataSize());
			// As the file has it, in mm.
			volumes.push(volumeWithin(places, triangles) / (SIDE * SIDE * DEPTH));
		});
		api.CloseModel(file);
		const wanted = Array.from({ length: BAYS }, (_, cell) => volumeAt(cell));
		const sorted = (list: number[]) => [...list].sort((a, b) => a - b);
		expect(volumes.length).to.equal(BAYS);
		sorted(volumes).forEach((volume, k) => expect(volume).to.be.closeTo(sorted(wanted)[k]!, 1e-4));
	});

	it('lie within their bounds, which are no larger than they need be', () => {
		for (const table of group.run.elements) {
			const bounds = boundsOf(table);
			const { places } = joinedMesh(
				table.shape,
				Array.from({ length: table.count }, (_, k) => k)
			);
			for (let a = 0; a < 3; a++) {
				const values = places.filter((_, k) => k % 3 === a);
				// These blocks reach to the sides of their boxes.
				expect(bounds[a]!).to.be.closeTo(
					values.reduce((x, y) => Math.min(x, y)),
					1e-3
				);
				expect(bounds[3 + a]!).to.be.closeTo(
					values.reduce((x, y) => Math.max(x, y)),
					1e-3
				);
			}
		}
	});

	it('are counted, weighed and picked by their rows', () => {
		const density = group.ready.materials[0]!.density;
		const mass = pieceQuantities(group).mass;
		const whole = (SIDE * SIDE * DEPTH) / 1e9;
		group.sites.forEach((cell, row) =>
			expect(mass[row]! / density / whole).to.be.closeTo(volumeAt(cell), 2e-6)
		);
		const raycaster = new THREE.Raycaster();
		for (const { shape, count: many, row } of group.run.elements) {
			const material = new THREE.MeshBasicMaterial({ side: THREE.DoubleSide });
			const mesh =
				shape.is === 'placed'
					? new PlacedMesh(shape, many, material)
					: new WrittenMesh(shape as Own, new THREE.BufferAttribute(ownIndex(shape as Own), 1), material);
			const { origin } = model.zones[0]!.model!.faces[0]!;
			mesh.position.set(...origin);
			mesh.updateMatrixWorld();
			for (let cell = 0; cell < BAYS; cell++) {
				raycaster.set(new THREE.Vector3((cell + 0.5) * SIDE, -5000, 100), new THREE.Vector3(0, 1, 0));
				const [hit] = raycaster.intersectObject(mesh, false);
				const here = Array.from(row).some((r) => group.sites[r] === cell);
				expect(Boolean(hit), `cell ${cell}`).to.equal(here);
				if (hit) expect(group.sites[row[mesh.instanceAt(hit)]!]).to.equal(cell);
			}
			// Only some of them are drawn and picked.
			mesh.drawOnly((instance) => instance === 1);
			const first = group.sites[row[0]!]!;
			raycaster.set(new THREE.Vector3((first + 0.5) * SIDE, -5000, 100), new THREE.Vector3(0, 1, 0));
			expect(raycaster.intersectObject(mesh, false)).to.deep.equal([]);
		}
	});
});
