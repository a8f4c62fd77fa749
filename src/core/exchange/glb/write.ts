import type { ClauseGroup, Model, ZoneModel } from '../../cladding/model';
import type { Vector } from '../../geometry/vector';
import type { Material } from '../../project/material-schema';
import { instancesOf, type ElementShape } from '../../part/element-table';
import { joinedMesh, placesOf, trianglesOf } from '../../part/places';
import { pieceMarks } from '../../mark/marks-of';
import { pieceAddress } from '../../schedule/pieces';
import { likeBodiesOf, type Frame, type LikeBodies, type LikeBody } from '../like-bodies';
import type { PartBody } from '../piece-bodies';
import type { Bytes } from '../bytes';
import { GlbContainer } from './container';
import { JsonList } from './json-list';

/** sRGB hex to the linear factors of the format. */
function linear(hex: string): [number, number, number] {
	return [1, 3, 5].map((k) => {
		const c = parseInt(hex.slice(k, k + 2), 16) / 255;
		return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
	}) as [number, number, number];
}

/** The triangle indices of the pieces of one element: pieces of one topology share theirs. */
class SharedIndices {
	private readonly known = new Map<ArrayLike<number>, Map<number, number>>();

	constructor(
		private readonly container: GlbContainer,
		private readonly shape: ElementShape
	) {}

	/** @returns the accessor */
	of(instances: Uint32Array): number {
		const { shape } = this;
		const first = trianglesOf(shape, instances[0]!);
		for (const k of instances) if (trianglesOf(shape, k) !== first) return this.make(instances);
		let byCount = this.known.get(first);
		if (!byCount) this.known.set(first, (byCount = new Map()));
		let accessor = byCount.get(instances.length);
		if (accessor === undefined) byCount.set(instances.length, (accessor = this.make(instances)));
		return accessor;
	}

	private make(instances: Uint32Array): number {
		const { places, triangles } = joinedMesh(this.shape, instances);
		return this.container.indices(triangles, places.length / 3);
	}
}

class GlbBuilder {
	readonly container = new GlbContainer();
	readonly nodes = new JsonList('nodes');
	readonly meshes = new JsonList('meshes');
	readonly materials = new JsonList('materials');
	private readonly known = new Map<string, number>();

	private readonly bodies = new Map<LikeBody, number>();

	constructor(
		private readonly markOf: ReturnType<typeof pieceMarks>,
		private readonly like: LikeBodies
	) {}

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
			made = this.materials.add(text);
			this.known.set(material.id, made);
		}
		return made;
	}

	/** @returns its node */
	zone(zone: ZoneModel): number {
		const { name, code } = zone.zone;
		const children = zone.groups.flatMap((clause) => this.pieces(zone, clause));
		const own = children.length ? { children } : {};
		return this.nodes.add(JSON.stringify({ name, extras: { code }, ...own }));
	}

	/** One after the other in a mesh that is begun. */
	private primitive(into: Bytes, isFirst: boolean, position: number, index: number, material: number): void {
		into.text(`${isFirst ? '' : ','}{"attributes":{"POSITION":${position}},`);
		into.text(`"indices":${index},"material":${material}}`);
	}

	/** Begin a mesh; its primitives are to follow. */
	private mesh(name: string): Bytes {
		const into = this.meshes.next();
		into.text(`{"name":${JSON.stringify(name)},"primitives":[`);
		return into;
	}

	/** The mesh of a body that several pieces have, with a primitive per element. */
	private bodyMesh(body: LikeBody): number {
		const known = this.bodies.get(body);
		if (known !== undefined) return known;
		const { container } = this;
		const { ready } = body.clause.group;
		const into = this.mesh(`${ready.part.label} ${ready.variant.name}`);
		const elements = [...new Set(body.parts.map(({ element }) => element))];
		elements.forEach((element, k) => {
			const { places, triangles } = joinedBodies(body.parts.filter((part) => part.element === element));
			container.begin();
			container.add(places);
			const index = container.indices(triangles, places.length / 3);
			this.primitive(into, !k, container.positions(), index, this.material(ready.materials[element]!));
		});
		into.text(']}');
		this.bodies.set(body, this.meshes.at);
		return this.meshes.at;
	}

	/** How the mesh of a piece that has its own is written: a primitive per element, however often the piece has it. */
	private ownMeshes({ group }: ClauseGroup): (row: number, mark: string) => number | null {
		const { container } = this;
		const tables = group.run.elements.map((table) => ({
			shape: table.shape,
			byRow: instancesOf(table),
			material: this.material(group.ready.materials[table.element]!),
			indices: new SharedIndices(container, table.shape)
		}));
		return (row, mark) => {
			let into: Bytes | null = null;
			for (const { shape, byRow, material, indices } of tables) {
				const instances = byRow.of(row);
				if (!instances.length) continue;
				container.begin();
				for (const k of instances) container.add(placesOf(shape, k));
				const isFirst = into === null;
				into ??= this.mesh(mark);
				this.primitive(into, isFirst, container.positions(), indices.of(instances), material);
			}
			into?.text(']}');
			return into && this.meshes.at;
		};
	}

	/** One node per piece. What several pieces have is one mesh, turned and moved by the node. */
	private pieces(zone: ZoneModel, clause: ClauseGroup): number[] {
		const { group } = clause;
		const { origin } = zone.faces[clause.face]!;
		const ownMesh = this.ownMeshes(clause);
		const translation = `"translation":${JSON.stringify([origin[0] / 1000, origin[2] / 1000, -origin[1] / 1000])}`;
		const [part, variant] = [group.ready.part.label, group.ready.variant.name].map((text) =>
			JSON.stringify(text)
		);
		const kind = `,"part":${part},"variant":${variant}}}`;
		const made: number[] = [];
		for (let row = 0; row < group.sites.length; row++) {
			const mark = this.markOf(zone, clause, row);
			const found = this.like.get(clause, row);
			const mesh = found ? this.bodyMesh(found.body) : ownMesh(row, mark);
			if (mesh === null) continue;
			const name = JSON.stringify(mark);
			const into = this.nodes.next();
			into.text('{"name":');
			into.text(name);
			into.text(',');
			if (found) putMatrix(into, found.frame, origin);
			else into.text(translation);
			into.text(',"mesh":');
			into.count(mesh);
			into.text(',"extras":{"address":');
			into.text(JSON.stringify(pieceAddress(zone, clause, row)));
			into.text(',"mark":');
			into.text(name);
			into.text(kind);
			made.push(this.nodes.at);
		}
		return made;
	}
}

/** Turns to so many decimals, places (m) to a thousandth of a millimetre. */
const [TURN_DECIMALS, PLACE_DECIMALS] = [9, 6];

/** What turns and moves a body from its own frame to where it stands, column by column: metres, y up. */
function putMatrix(into: Bytes, { origin, x, y, z }: Frame, [ox, oy, oz]: Vector): void {
	const column = ([across, along, up]: Vector, way: number) => {
		into.number(way * across, TURN_DECIMALS);
		into.text(',');
		into.number(way * up, TURN_DECIMALS);
		into.text(',');
		into.number(-way * along, TURN_DECIMALS);
		into.text(',0,');
	};
	into.text('"matrix":[');
	column(x, 1);
	column(z, 1);
	column(y, -1);
	into.number((origin[0] + ox) / 1000, PLACE_DECIMALS);
	into.text(',');
	into.number((origin[2] + oz) / 1000, PLACE_DECIMALS);
	into.text(',');
	into.number(-(origin[1] + oy) / 1000, PLACE_DECIMALS);
	into.text(',1]');
}

/** Several bodies as one mesh. */
function joinedBodies(parts: readonly PartBody[]): { places: Float32Array; triangles: Uint32Array } {
	const places = new Float32Array(parts.reduce((sum, part) => sum + part.places.length, 0));
	const triangles = new Uint32Array(parts.reduce((sum, part) => sum + part.triangles.length, 0));
	let [at, corner] = [0, 0];
	for (const part of parts) {
		places.set(part.places, at);
		for (let t = 0; t < part.triangles.length; t++) triangles[corner++] = at / 3 + part.triangles[t]!;
		at += part.places.length;
	}
	return { places, triangles };
}

/**
 * The clad model as binary glTF 2.0: metres, Y up, one node per piece with its address and mark in extras; pieces
 * that are the same but for where they stand share a mesh.
 * Source: Khronos glTF 2.0 specification.
 */
export function writeGlb(model: Model): Uint8Array {
	const builder = new GlbBuilder(pieceMarks(model), likeBodiesOf(model));
	const zones = model.zones.flatMap(({ model: zone }) => (zone ? [builder.zone(zone)] : []));
	const { container, nodes, meshes, materials } = builder;
	return container.file([
		'"asset":{"version":"2.0","generator":"Zygaster"}',
		`"scene":0,"scenes":[${JSON.stringify({ name: model.project.name, ...(zones.length && { nodes: zones }) })}]`,
		nodes,
		meshes,
		materials
	]);
}
