import { Primitive, WebIO, type Document } from '@gltf-transform/core';
import { MeshFault, refuseMany, type Triangles } from './triangles';

/**
 * All triangles of a GLB file where its nodes put them, y up as the format has it.
 * @param most triangles that are taken @returns corners in metres
 * @throws MeshFault
 */
export async function readGlbMesh(bytes: Uint8Array, most: number): Promise<Triangles> {
	let document: Document;
	try {
		document = await new WebIO().readBinary(bytes);
	} catch (error) {
		throw new MeshFault(`it cannot be read as GLB: ${(error as Error).message}`);
	}
	const placed = document
		.getRoot()
		.listNodes()
		.flatMap((node) =>
			(node.getMesh()?.listPrimitives() ?? []).map((primitive) => ({
				primitive,
				matrix: node.getWorldMatrix()
			}))
		)
		.filter(({ primitive }) => primitive.getMode() === Primitive.Mode.TRIANGLES);
	const cornersOf = (primitive: Primitive) =>
		(primitive.getIndices() ?? primitive.getAttribute('POSITION'))?.getCount() ?? 0;
	const count = placed.reduce((sum, { primitive }) => sum + cornersOf(primitive) / 3, 0);
	if (!count) throw new MeshFault('it holds no triangles');
	refuseMany(count, most);
	const corners: number[] = [];
	const place: number[] = [];
	for (const { primitive, matrix } of placed) {
		const positions = primitive.getAttribute('POSITION');
		const indices = primitive.getIndices();
		for (let k = 0; k < cornersOf(primitive); k++) {
			positions!.getElement(indices ? indices.getScalar(k) : k, place);
			const [x, y, z] = place as [number, number, number];
			for (let a = 0; a < 3; a++)
				corners.push(matrix[a]! * x + matrix[4 + a]! * y + matrix[8 + a]! * z + matrix[12 + a]!);
		}
	}
	return { corners: Float64Array.from(corners) };
}
