import { Document, WebIO } from '@gltf-transform/core';
import { expect } from 'chai';
import { checkPart } from '../../src/core/part/compile/compile';
import { meshStep, partOfMesh } from '../../src/core/part/kit/of-mesh';
import { readBlockMesh } from '../../src/core/exchange/mesh/read-block';

/** A wedge with z up, seen from −y: low at its front. Corners in any unit. */
const corners = [
	[0, 0, 0],
	[4, 0, 0],
	[4, 6, 0],
	[0, 6, 0],
	[0, 6, 2],
	[4, 6, 2]
];
const faces = [
	[0, 3, 2],
	[0, 2, 1],
	[0, 1, 5],
	[0, 5, 4],
	[0, 4, 3],
	[1, 2, 5],
	[2, 3, 4],
	[2, 4, 5]
];
const text = (value: string) => new TextEncoder().encode(value);
const obj = (list = faces) =>
	text(
		[
			...corners.map((p) => `v ${p.join(' ')}`),
			...list.map((f) => `f ${f.map((k) => k + 1).join(' ')}`),
			''
		].join('\n')
	);
const stlText = (list = faces) =>
	text(
		[
			'solid wedge',
			...list.map(
				(face) =>
					`facet normal 0 0 0\nouter loop\n${face.map((k) => `vertex ${corners[k]!.join(' ')}`).join('\n')}\nendloop\nendfacet`
			),
			'endsolid wedge'
		].join('\n')
	);
function stlBinary(list = faces, stated = list.length): Uint8Array {
	const bytes = new Uint8Array(84 + 50 * list.length);
	// A header may begin like a text's.
	bytes.set(text('solid by a program'));
	const view = new DataView(bytes.buffer);
	view.setUint32(80, stated, true);
	list.forEach((face, t) =>
		face.forEach((k, n) =>
			corners[k]!.forEach((value, a) => view.setFloat32(84 + 50 * t + 12 + 12 * n + 4 * a, value, true))
		)
	);
	return bytes;
}
/** As the format has it: y up; half as large, under a node that doubles it. */
async function glb(): Promise<Uint8Array> {
	const document = new Document();
	const buffer = document.createBuffer();
	const positions = corners.flatMap(([x, y, z]) => [x! / 2, z! / 2, -y! / 2]);
	const primitive = document
		.createPrimitive()
		.setAttribute(
			'POSITION',
			document.createAccessor().setType('VEC3').setArray(Float32Array.from(positions)).setBuffer(buffer)
		)
		.setIndices(document.createAccessor().setArray(Uint16Array.from(faces.flat())).setBuffer(buffer));
	const node = document
		.createNode()
		.setMesh(document.createMesh().addPrimitive(primitive))
		.setScale([2, 2, 2])
		.setTranslation([7, 1, -3]);
	document.createScene().addChild(node);
	return new WebIO().writeBinary(document);
}
const problemOf = async (name: string, bytes: Uint8Array): Promise<string> => {
	try {
		await readBlockMesh(name, bytes);
	} catch (error) {
		return (error as Error).message;
	}
	throw new Error(`${name} was taken`);
};

describe('meshes brought in as blocks', () => {
	it('OBJ, STL as text and binary, and GLB give the same block: upright, outward, stretched to the box', async () => {
		const read = await Promise.all([
			readBlockMesh('wedge.obj', obj()),
			readBlockMesh('wedge.STL', stlText()),
			readBlockMesh('wedge.stl', stlBinary()),
			readBlockMesh('wedge.glb', await glb())
		]);
		for (const { vertices, triangles } of read) {
			const places = new Set(
				Array.from({ length: vertices.length / 3 }, (_, k) => vertices.slice(3 * k, 3 * k + 3).join(' '))
			);
			// Across, up, outward: its edge stands up at the back, its front is the foot.
			expect([...places].sort()).to.deep.equal(['0 0 0', '0 0 1', '0 1 0', '1 0 0', '1 0 1', '1 1 0']);
			expect(triangles.length).to.equal(24);
			let six = 0;
			for (let t = 0; t < triangles.length; t += 3) {
				const [p, q, r] = [0, 1, 2].map((k) =>
					vertices.slice(3 * triangles[t + k]!, 3 * triangles[t + k]! + 3)
				);
				six +=
					p![0]! * (q![1]! * r![2]! - q![2]! * r![1]!) -
					p![1]! * (q![0]! * r![2]! - q![2]! * r![0]!) +
					p![2]! * (q![0]! * r![1]! - q![1]! * r![0]!);
			}
			expect(six / 6).to.be.closeTo(0.5, 1e-9);
		}
	});

	it('an open one is a sheet, with the sizes of the box it was drawn in', async () => {
		const solid = await readBlockMesh('a.obj', obj());
		expect(solid.open).to.equal(null);
		const sheet = await readBlockMesh('a.obj', obj(faces.slice(1)));
		const box = [0, 1, 2].map((a) => {
			const values = corners.map((corner) => corner[a]!);
			return Math.max(...values) - Math.min(...values);
		});
		// Files have z up; a block's second direction is up, its third outward.
		expect(sheet.open).to.deep.equal([box[0], box[2], box[1]]);
		const placesOf = (list: readonly number[]) =>
			Array.from({ length: list.length / 3 }, (_, k) => list.slice(3 * k, 3 * k + 3).join(' ')).sort();
		expect(placesOf(sheet.vertices)).to.deep.equal(placesOf(solid.vertices));
		const part = partOfMesh('p', 'P', 'a.obj', sheet);
		expect(checkPart(part, 4, []).faults).to.deep.equal([]);
		const [step] = part.steps;
		const again = meshStep('shape', 'b.obj', solid, '0.02');
		expect([step!.do, again.do]).to.deep.equal(['block sheet', 'block mesh']);
	});

	it('faces that all look inward are turned', async () => {
		const inward = faces.map((face) => face.toReversed());
		const [turned, given] = [await readBlockMesh('a.obj', obj(inward)), await readBlockMesh('a.obj', obj())];
		const rings = (triangles: readonly number[]) =>
			Array.from({ length: triangles.length / 3 }, (_, t) => {
				const ring = triangles.slice(3 * t, 3 * t + 3);
				const first = ring.indexOf(Math.min(...ring));
				return [...ring.slice(first), ...ring.slice(0, first)].join(' ');
			});
		const at = (mesh: typeof given) =>
			rings(mesh.triangles)
				.map((ring) =>
					ring
						.split(' ')
						.map((k) => mesh.vertices.slice(3 * +k, 3 * +k + 3).join())
						.join('|')
				)
				.map((ring) => {
					const parts = ring.split('|');
					const first = parts.indexOf([...parts].sort()[0]!);
					return [...parts.slice(first), ...parts.slice(0, first)].join('|');
				})
				.sort();
		expect(at(turned)).to.deep.equal(at(given));
	});

	it('faces against each other, flat and empty ones are refused in words, with the place', async () => {
		const against = faces.map((face, k) => (k === 2 ? face.toReversed() : face));
		expect(await problemOf('a.stl', stlText(against))).to.match(/run against each other; .* \(near/);
		expect(await problemOf('a.obj', obj(faces.slice(0, 2)))).to.match(/^it is flat/);
		expect(await problemOf('a.obj', text('v 0 0 0\n'))).to.match(/holds no faces/);
		expect(await problemOf('a.stl', text('solid nothing\nendsolid'))).to.match(/holds no triangles/);
		expect(await problemOf('a.stl', text('solid a\nvertex 1 2 x\n'))).to.match(/^line 2: /);
		expect(await problemOf('a.stl', stlBinary(faces, 9))).to.match(/cut short .* 9 triangles/);
		expect(await problemOf('a.glb', text('glTF nothing of it'))).to.match(/cannot be read as GLB/);
		expect(await problemOf('a.ply', obj())).to.match(/\.obj, \.stl or \.glb/);
	});

	it('two million triangles are refused by their number, before they are read', async () => {
		const huge = new Uint8Array(84 + 50 * 2_000_000);
		new DataView(huge.buffer).setUint32(80, 2_000_000, true);
		const before = process.memoryUsage().heapUsed;
		expect(await problemOf('huge.stl', huge)).to.match(
			/^it has 2\s000\s000 triangles; a block has at most 5\s000/
		);
		expect(process.memoryUsage().heapUsed - before).to.be.below(50e6);
	});
});
