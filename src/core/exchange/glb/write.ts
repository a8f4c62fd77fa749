import type { ClauseGroup, Model, ZoneModel } from '../../cladding/model';
import type { Vector } from '../../geometry/vector';
import type { Material } from '../../project/material-schema';
import { instancesOf, type ElementTable } from '../../part/element-table';
import { joinedMesh, trianglesOf } from '../../part/places';
import { pieceMarks } from '../../mark/marks-of';
import { pieceAddress } from '../../schedule/pieces';
import { likeBodiesOf, type Frame, type LikeBodies, type LikeBody } from '../like-bodies';
import type { PartBody } from '../piece-bodies';
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

	private primitive(position: number, index: number, material: number): string {
		return `{"attributes":{"POSITION":${position}},"indices":${index},"material":${material}}`;
	}

	private mesh(name: string, primitives: readonly string[]): number {
		return this.meshes.push(`{"name":${JSON.stringify(name)},"primitives":[${primitives.join()}]}`) - 1;
	}

	/** The mesh of a body that several pieces have, with a primitive per element. */
	private bodyMesh(body: LikeBody): number {
		const { ready } = body.clause.group;
		const elements = [...new Set(body.parts.map(({ element }) => element))];
		const primitives = elements.map((element) => {
			const { places, triangles } = joinedBodies(body.parts.filter((part) => part.element === element));
			return this.primitive(
				this.container.positions(toMetres(places)),
				this.container.indices(triangles, places.length / 3),
				this.material(ready.materials[element]!)
			);
		});
		return this.mesh(`${ready.part.label} ${ready.variant.name}`, primitives);
	}

	/**
	 * One node per piece. What several pieces have is one mesh, turned and moved by the node; others have a mesh of their
	 * own with a primitive per element, however often the piece has it; they share their triangles.
	 */
	private pieces(zone: ZoneModel, clause: ClauseGroup): number[] {
		const { group } = clause;
		const { origin } = zone.faces[clause.face]!;
		const own = new Map<number, string[]>();
		const alike = Array.from(group.sites, (_, row) => this.like.get(clause, row));
		for (const table of group.run.elements) {
			const material = this.material(group.ready.materials[table.element]!);
			const indices = new SharedIndices(this.container, table);
			for (const [row, instances] of instancesOf(table)) {
				if (alike[row]) continue;
				const { places, triangles } = joinedMesh(table.shape, instances);
				const position = this.container.positions(toMetres(places));
				const text = this.primitive(position, indices.of(instances, triangles, places.length / 3), material);
				const known = own.get(row);
				if (known) known.push(text);
				else own.set(row, [text]);
			}
		}
		const translation = JSON.stringify([origin[0] / 1000, origin[2] / 1000, -origin[1] / 1000]);
		const [part, variant] = [group.ready.part.label, group.ready.variant.name].map((text) =>
			JSON.stringify(text)
		);
		const made: number[] = [];
		alike.forEach((found, row) => {
			const primitives = own.get(row);
			if (!found && !primitives) return;
			const mark = this.markOf(zone, clause, row);
			let mesh = found ? this.bodies.get(found.body) : this.mesh(mark, primitives!);
			if (mesh === undefined) this.bodies.set(found!.body, (mesh = this.bodyMesh(found!.body)));
			const name = JSON.stringify(mark);
			const place = found ? `"matrix":[${matrixOf(found.frame, origin)}]` : `"translation":${translation}`;
			const address = JSON.stringify(pieceAddress(zone, clause, row));
			const extras = `{"address":${address},"mark":${name},"part":${part},"variant":${variant}}`;
			made.push(this.nodes.push(`{"name":${name},${place},"mesh":${mesh},"extras":${extras}}`) - 1);
		});
		return made;
	}
}

/** Turns are told to so many parts, places to a thousandth of a millimetre. */
const EXACT = 1e9;
const FINE = 1e6;

const turn = (value: number) => Math.round(value * EXACT) / EXACT;
const place = (mm: number) => Math.round(mm * (FINE / 1000)) / FINE;

/** What turns and moves a body from its own frame to where it stands, column by column: metres, Y up. */
const matrixOf = ({ origin, x, y, z }: Frame, [ox, oy, oz]: Vector): string =>
	`${turn(x[0])},${turn(x[2])},${turn(-x[1])},0,${turn(z[0])},${turn(z[2])},${turn(-z[1])},0,` +
	`${turn(-y[0])},${turn(-y[2])},${turn(y[1])},0,${place(origin[0] + ox)},${place(origin[2] + oz)},${place(-origin[1] - oy)},1`;

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
	const lists = { nodes, meshes, materials };
	return container.file([
		'"asset":{"version":"2.0","generator":"Zygaster"}',
		`"scene":0,"scenes":[${JSON.stringify({ name: model.project.name, ...(zones.length && { nodes: zones }) })}]`,
		// A list of nothing is not allowed.
		...Object.entries(lists).flatMap(([name, texts]) => (texts.length ? [`"${name}":[${texts}]`] : []))
	]);
}
