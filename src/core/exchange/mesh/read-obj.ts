import { ObjFault, readObjText } from '../obj/read-text';
import { MeshFault, refuseMany, standing, type Triangles } from './triangles';

/**
 * All faces of an OBJ file as triangles, larger ones from their first corner.
 * @param most triangles that are taken @returns corners with y up, in the file's unit
 * @throws MeshFault
 */
export async function readObjMesh(text: string, most: number): Promise<Triangles> {
	const { vertices, groups } = await readObjText(text).catch((error: unknown) => {
		throw error instanceof ObjFault ? new MeshFault(error.message) : error;
	});
	const faces = groups.flatMap((group) => group.faces);
	refuseMany(
		faces.reduce((sum, face) => sum + Math.max(0, face.length - 2), 0),
		most
	);
	const corners = faces.flatMap((face) =>
		face
			.slice(1, -1)
			.flatMap((b, k) => [face[0]!, b, face[k + 2]!])
			.flatMap((vertex) => [...vertices.subarray(3 * vertex, 3 * vertex + 3)])
	);
	return standing(Float64Array.from(corners));
}
