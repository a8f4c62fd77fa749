import type { ClauseGroup, Model, ZoneModel } from '../../cladding/model';
import type { Material } from '../../project/material-schema';
import { instancesOf, type ElementTable } from '../../part/element-table';
import { joinedMesh, trianglesOf } from '../../part/places';
import { pieceMarks } from '../../mark/marks-of';
import { pieceAddress } from '../../schedule/pieces';
import { GlbContainer } from './container';

/** sRGB hex to the linear factors of the format. */
function linear(hex: string): [number, number, number] {
	return [1, 3, 5].map((k) => {
		const c = parseInt(hex.slice(k, k + 2), 16) / 255;
		return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
	}) as [number, number, number];
}

/** mm with z up to metres with y up, in place. */
function toMetres(places: Float32Array): Float32Array {
	for (let k = 0; k < places.length; k += 3) {
		const up = places[k + 2]! / 1000;
		places[k + 2] = -places[k + 1]! / 1000;
		places[k] = places[k]! / 1000;
		places[k + 1] = up;
	}
	return places;
}

/** The triangle indices of the pieces of one element: pieces of one topology share theirs. */
class SharedIndices {
	private readonly known = new Map<ArrayLike<number>, Map<number, number>>();

	constructor(
		private readonly container: GlbContainer,
		private readonly table: ElementTable
	) {}

	/** @returns the accessor */
	of(instances: readonly number[], triangles: Uint32Array, vertices: number): number {
		const [first, ...others] = instances.map((k) => trianglesOf(this.table.shape, k));
		const make = () => this.container.indices(triangles, vertices);
		if (others.some((list) => list !== first)) return make();
		const byCount = this.known.get(first!) ?? new Map<number, number>();
		this.known.set(first!, byCount);
		const accessor = byCount.get(instances.length) ?? make();
		byCount.set(instances.length, accessor);
		return accessor;
	}
}

class GlbBuilder {
	readonly container = new GlbContainer();
	readonly nodes: string[] = [];
	readonly meshes: string[] = [];
	readonly materials: string[] = [];
	private readonly known = new Map<string, number>();

	constructor(private readonly markOf: ReturnType<typeof pieceMarks>) {}

	private material(material: Material): number {
		let made = this.known.get(material.id);
		if (made === undefined) {
			const { label, colour, opacity, metalness, roughness } = material;
			const text = JSON.stringify({
				name: label,
				pbrMetallicRoughness: {
					baseColorFactor: [...linear(colour), opacity],
					metallicFactor: metalness,
					roughnessFactor: roughness
				},
				...(opacity < 1 && { alphaMode: 'BLEND' })
			});
			made = this.materials.push(text) - 1;
			this.known.set(material.id, made);
		}
		return made;
	}

	/** @returns its node */
	zone(zone: ZoneModel): number {
		const { name, code } = zone.zone;
		const children = zone.groups.flatMap((clause) => this.pieces(zone, clause));
		const own = children.length ? { children } : {};
		return this.nodes.push(JSON.stringify({ name, extras: { code }, ...own })) - 1;
	}

	/** One node per piece, with a primitive per element, however often the piece has it; they share their triangles. */
	private pieces(zone: ZoneModel, clause: ClauseGroup): number[] {
		const { group } = clause;
		const [x, y, z] = zone.faces[clause.face]!.origin;
		const primitives = new Map<number, string[]>();
		for (const table of group.run.elements) {
			const material = this.material(group.ready.materials[table.element]!);
			const indices = new SharedIndices(this.container, table);
			for (const [row, instances] of instancesOf(table)) {
				const { places, triangles } = joinedMesh(table.shape, instances);
				const position = this.container.positions(toMetres(places));
				const index = indices.of(instances, triangles, places.length / 3);
				const text = `{"attributes":{"POSITION":${position}},"indices":${index},"material":${material}}`;
				const known = primitives.get(row);
				if (known) known.push(text);
				else primitives.set(row, [text]);
			}
		}
		const translation = [x / 1000, z / 1000, -y / 1000];
		const [part, variant] = [group.ready.part.label, group.ready.variant.name];
		return Array.from(primitives, ([row, own]) => {
			const mark = this.markOf(zone, clause, row);
			const mesh = this.meshes.push(`{"name":${JSON.stringify(mark)},"primitives":[${own}]}`) - 1;
			const extras = { address: pieceAddress(zone, clause, row), mark, part, variant };
			return this.nodes.push(JSON.stringify({ name: mark, translation, mesh, extras })) - 1;
		});
	}
}

/**
 * The clad model as binary glTF 2.0: metres, Y up, one node per piece with its address and mark in extras.
 * Source: Khronos glTF 2.0 specification.
 */
export function writeGlb(model: Model): Uint8Array {
	const builder = new GlbBuilder(pieceMarks(model));
	const zones = model.zones.flatMap(({ model: zone }) => (zone ? [builder.zone(zone)] : []));
	const { container, nodes, meshes, materials } = builder;
	const lists = { nodes, meshes, materials };
	return container.file([
		'"asset":{"version":"2.0","generator":"Zygaster"}',
		`"scene":0,"scenes":[${JSON.stringify({ name: model.project.name, ...(zones.length && { nodes: zones }) })}]`,
		// A list of nothing is not allowed.
		...Object.entries(lists).flatMap(([name, texts]) => (texts.length ? [`"${name}":[${texts}]`] : []))
	]);
}
