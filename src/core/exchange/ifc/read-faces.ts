import type { IfcAPI } from 'web-ifc';
import { cross, distance, pointAt, subtract, unit, type Vector } from '../../geometry/vector';
import { volumeWithin } from '../../geometry/volume';
import { flatFaces, type FlatFace } from '../mesh/flat-faces';
import { roundFaces } from '../mesh/round-faces';
import { planePatch } from '../step/analytic-patches';
import type { ReadProgress } from '../step/part21';
import type { ReadFace, ReadFaces } from '../step/read-surfaces';

/** A body of more faces is round two ways, told in facets. */
const MOST_FACES = 300;
/** Facets of a full circle that the file tells as one: five degrees each. */
const CIRCLE_SEGMENTS = 72;
const MM = 1000;
/** Within so many bytes a file says what it is. */
const HEAD = 20_000;

/** What a face of a body is called, by where it looks. */
function sideOf({ normal: [, , up] }: FlatFace): string {
	if (up > 0.7) return 'top';
	return up < -0.7 ? 'underside' : 'side';
}

/** Shares of an area up to this are rounding: vertices come in 32 bits. */
const WHOLE = 1e-4;

function faceOf(name: string, face: FlatFace): ReadFace {
	const [loop] = face.loops as readonly [readonly Vector[]];
	const x = unit(subtract(loop[1]!, loop[0]!));
	const frame = { origin: loop[0]!, x, y: cross(face.normal, x), z: face.normal };
	const surface = planePatch(frame, [...face.loops.flat(), loop[0]!]);
	const corner = (k: number) =>
		pointAt(
			surface.net.filter((_, n) => n % 4 < 3),
			k
		);
	const patch = distance(corner(0), corner(1)) * distance(corner(0), corner(2));
	const fills = Math.abs(face.area / patch - 1) < WHOLE;
	return { name: `${name} ${sideOf(face)}`, surface, ends: fills ? [] : face.loops };
}

/** The mesh of a product in the model's own axes: mm, z up. The reader tells metres, y up. */
function meshOf(api: IfcAPI, model: number, id: number): { vertices: number[]; triangles: number[] } {
	const vertices: number[] = [];
	const triangles: number[] = [];
	const flat = api.GetFlatMesh(model, id);
	for (let k = 0; k < flat.geometries.size(); k++) {
		const { geometryExpressID, flatTransformation: m } = flat.geometries.get(k);
		const geometry = api.GetGeometry(model, geometryExpressID);
		const own = api.GetVertexArray(geometry.GetVertexData(), geometry.GetVertexDataSize());
		const index = api.GetIndexArray(geometry.GetIndexData(), geometry.GetIndexDataSize());
		const first = vertices.length / 3;
		// Each vertex has its normal behind it.
		for (let v = 0; v < own.length; v += 6) {
			const [x, y, z] = [own[v]!, own[v + 1]!, own[v + 2]!];
			const at = (a: number) => m[a]! * x + m[4 + a]! * y + m[8 + a]! * z + m[12 + a]!;
			vertices.push(MM * at(0), -MM * at(2), MM * at(1));
		}
		for (const corner of index) triangles.push(first + corner);
		geometry.delete();
	}
	return { vertices, triangles };
}

/**
 * The faces of the bodies in an IFC file, seen from outside: flat ones, and round ones that are told in facets.
 *
 * ```ts
 * const { faces, refused } = await readIfcFaces(bytes, async () => new (await import('web-ifc')).IfcAPI(), () => {});
 * ```
 * @param open starts the reader @throws Error with a sentence where there are none
 */
export async function readIfcFaces(
	bytes: Uint8Array,
	open: () => Promise<IfcAPI>,
	progress: ReadProgress
): Promise<ReadFaces> {
	const head = new TextDecoder().decode(bytes.subarray(0, HEAD));
	if (!/^\s*ISO-10303-21/.test(head) || !/FILE_SCHEMA\s*\(\s*\(\s*'IFC/i.test(head))
		throw new Error('it is no IFC file in text (ISO 10303-21)');
	const api = await open();
	const model = api.OpenModel(bytes, { CIRCLE_SEGMENTS });
	try {
		const ids: number[] = [];
		api.StreamAllMeshes(model, ({ expressID }) => ids.push(expressID));
		if (!ids.length) throw new Error('there are no bodies in it');
		const faces: ReadFace[] = [];
		const refused: string[] = [];
		for (const [k, id] of ids.entries()) {
			await progress(k / ids.length);
			const { Name: named } = api.GetLine(model, id) as { Name?: { value?: string } | null };
			const name = named?.value || `body ${k + 1}`;
			const { vertices, triangles } = meshOf(api, model, id);
			const outward = volumeWithin(vertices, triangles) < 0 ? triangles.reverse() : triangles;
			const { flat, round } = roundFaces(flatFaces(vertices, outward));
			if (flat.length > MOST_FACES)
				refused.push(
					`${name}: its body has ${flat.length} flat faces; up to ${MOST_FACES} are taken. Bodies that are round two ways come in as STEP`
				);
			else
				faces.push(
					...flat.map((face) => faceOf(name, face)),
					...round.map((surface) => ({ name: `${name} round side`, surface, ends: [] }))
				);
		}
		return { faces, refused };
	} finally {
		api.CloseModel(model);
	}
}
