import { Document, WebIO, type Accessor, type Material as GltfMaterial } from '@gltf-transform/core';
import type { ClauseGroup, Model, ZoneModel } from '../../cladding/model';
import type { Material } from '../../project/material-schema';
import { instancesOf, type ElementTable } from '../../part/element-table';
import { placesOf } from '../../part/places';
import { pieceAddress, pieceMark } from '../../schedule/pieces';

/** sRGB hex to the linear factors of the format. */
function linear(hex: string): [number, number, number] {
	return [1, 3, 5].map((k) => {
		const c = parseInt(hex.slice(k, k + 2), 16) / 255;
		return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
	}) as [number, number, number];
}

/** mm with z up to metres with y up. */
function toMetres(places: Float32Array): Float32Array {
	const out = new Float32Array(places.length);
	for (let k = 0; k < out.length; k += 3) {
		out[k] = places[k]! / 1000;
		out[k + 1] = places[k + 2]! / 1000;
		out[k + 2] = -places[k + 1]! / 1000;
	}
	return out;
}

/** Triangles of an element that a piece has so many times, by vertex within all of them. */
function repeated({ triangles, verticesEach }: ElementTable, many: number): Uint16Array | Uint32Array {
	const each = triangles.length;
	const all = new (verticesEach * many > 65_535 ? Uint32Array : Uint16Array)(each * many);
	for (let n = 0; n < many; n++)
		for (let t = 0; t < each; t++) all[n * each + t] = triangles[t]! + n * verticesEach;
	return all;
}

class GlbBuilder {
	readonly document = new Document();
	private readonly buffer = this.document.createBuffer();
	private readonly materials = new Map<string, GltfMaterial>();

	private material(material: Material): GltfMaterial {
		let made = this.materials.get(material.id);
		if (!made) {
			made = this.document
				.createMaterial(material.label)
				.setBaseColorFactor([...linear(material.colour), material.opacity])
				.setMetallicFactor(material.metalness)
				.setRoughnessFactor(material.roughness)
				.setAlphaMode(material.opacity < 1 ? 'BLEND' : 'OPAQUE');
			this.materials.set(material.id, made);
		}
		return made;
	}

	private accessor(type: 'SCALAR' | 'VEC3', array: Float32Array | Uint16Array | Uint32Array): Accessor {
		return this.document
			.createAccessor()
			.setType(type)
			.setArray(array as Float32Array<ArrayBuffer> | Uint16Array<ArrayBuffer> | Uint32Array<ArrayBuffer>)
			.setBuffer(this.buffer);
	}

	zone(zone: ZoneModel) {
		const node = this.document.createNode(zone.zone.name).setExtras({ code: zone.zone.code });
		for (const clause of zone.groups) for (const piece of this.pieces(zone, clause)) node.addChild(piece);
		return node;
	}

	/** One node per piece, with a primitive per element, however often the piece has it; they share their triangles. */
	private pieces(zone: ZoneModel, clause: ClauseGroup) {
		const { group } = clause;
		const [x, y, z] = zone.faces[clause.face]!.origin;
		const meshes = new Map<number, ReturnType<Document['createMesh']>>();
		const meshOf = (row: number) => {
			const mesh = meshes.get(row) ?? this.document.createMesh(pieceMark(zone, clause, row));
			meshes.set(row, mesh);
			return mesh;
		};
		for (const table of group.run.elements) {
			const material = this.material(group.ready.materials[table.element]!);
			const triangles = new Map<number, Accessor>();
			for (const [row, instances] of instancesOf(table)) {
				const many = instances.length;
				const indices = triangles.get(many) ?? this.accessor('SCALAR', repeated(table, many));
				triangles.set(many, indices);
				const places = new Float32Array(3 * table.verticesEach * many);
				instances.forEach((k, n) => places.set(placesOf(table, k), 3 * table.verticesEach * n));
				const primitive = this.document
					.createPrimitive()
					.setAttribute('POSITION', this.accessor('VEC3', toMetres(places)))
					.setIndices(indices)
					.setMaterial(material);
				meshOf(row).addPrimitive(primitive);
			}
		}
		return [...meshes].map(([row, mesh]) =>
			this.document
				.createNode(pieceMark(zone, clause, row))
				.setTranslation([x / 1000, z / 1000, -y / 1000])
				.setMesh(mesh)
				.setExtras({
					address: pieceAddress(zone, clause, row),
					mark: pieceMark(zone, clause, row),
					part: group.ready.part.label,
					variant: group.ready.variant.name
				})
		);
	}
}

/**
 * The clad model as binary glTF 2.0: metres, Y up, one node per piece with its address and mark in extras.
 * Source: Khronos glTF 2.0 specification.
 */
export async function writeGlb(model: Model): Promise<Uint8Array> {
	const builder = new GlbBuilder();
	const scene = builder.document.createScene(model.project.name);
	for (const { model: zone } of model.zones) if (zone) scene.addChild(builder.zone(zone));
	builder.document.getRoot().setDefaultScene(scene).getAsset().generator = 'Zygaster';
	return new WebIO().writeBinary(builder.document);
}
