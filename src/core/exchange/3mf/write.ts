import type { Model } from '../../cladding/model';
import type { Vector } from '../../geometry/vector';
import type { Material } from '../../project/material-schema';
import { Archive, platformPacking, type Packing } from '../archive';
import { bytesOf } from '../bytes';
import { likeBodiesOf, type Frame, type LikeBody } from '../like-bodies';
import { bodiesOf, madePieces, type PartBody } from '../piece-bodies';
import { xmlText } from '../xml';

const MODEL = 'http://schemas.microsoft.com/3dmanufacturing/core/2015/02';
const PACKAGE = 'http://schemas.openxmlformats.org/package/2006';
const MATERIALS = 1;
/** Texts are put together until they are so long. */
const AT_ONCE = 1 << 18;

const tidy = (value: number) => Math.round(value * 1e6) / 1e6 + 0;

/** The resources and the build of the file, piece by piece. */
class ModelXml {
	private readonly materials: Material[];
	private readonly objects = new Map<LikeBody, number>();
	private last = MATERIALS;
	private readonly items: string[] = [];

	constructor(private readonly model: Model) {
		this.materials = [
			...new Set(
				model.zones.flatMap(
					({ model: zone }) => zone?.groups.flatMap(({ group }) => group.ready.materials) ?? []
				)
			)
		];
	}

	private object(name: string, parts: readonly PartBody[], materials: readonly Material[]): string {
		const vertices: string[] = [];
		const triangles: string[] = [];
		for (const { element, places, triangles: own } of parts) {
			const first = vertices.length;
			const material = this.materials.indexOf(materials[element]!);
			for (let k = 0; k < places.length; k += 3)
				vertices.push(
					`<vertex x="${tidy(places[k]!)}" y="${tidy(places[k + 1]!)}" z="${tidy(places[k + 2]!)}"/>`
				);
			for (let t = 0; t < own.length; t += 3)
				triangles.push(
					`<triangle v1="${first + own[t]!}" v2="${first + own[t + 1]!}" v3="${first + own[t + 2]!}" pid="${MATERIALS}" p1="${material}"/>`
				);
		}
		return (
			`<object id="${++this.last}" type="model" name="${xmlText(name)}" pid="${MATERIALS}" pindex="0">` +
			`<mesh><vertices>${vertices.join('')}</vertices><triangles>${triangles.join('')}</triangles></mesh></object>`
		);
	}

	private item(id: number, mark: string, { x, y, z, origin }: Frame, from: Vector): void {
		const at = origin.map((value, a) => value + from[a]!);
		const transform = [...x, ...y, ...z, ...at].map((value) => Math.round(value * 1e9) / 1e9 + 0).join(' ');
		this.items.push(`<item objectid="${id}" partnumber="${xmlText(mark)}" transform="${transform}"/>`);
	}

	*texts(): Generator<string> {
		const { model, materials } = this;
		yield `<model unit="millimeter" xml:lang="en" xmlns="${MODEL}"><metadata name="Title">${xmlText(model.project.name)}</metadata>`;
		const bases = materials.map(({ label, colour, opacity }) => {
			const alpha = Math.round(255 * opacity)
				.toString(16)
				.padStart(2, '0');
			return `<base name="${xmlText(label)}" displaycolor="${`${colour}${alpha}`.toUpperCase()}"/>`;
		});
		yield `<resources><basematerials id="${MATERIALS}">${bases.join('') || '<base name="none" displaycolor="#808080"/>'}</basematerials>`;
		const like = likeBodiesOf(model);
		for (const { clause, row, mark, origin } of madePieces(model)) {
			const { ready } = clause.group;
			const found = like.get(clause, row);
			if (!found) {
				yield this.object(mark, bodiesOf(clause, row), ready.materials);
				this.item(this.last, mark, HERE, origin);
				continue;
			}
			let id = this.objects.get(found.body);
			if (id === undefined) {
				yield this.object(`${ready.part.label} ${ready.variant.name}`, found.body.parts, ready.materials);
				this.objects.set(found.body, (id = this.last));
			}
			this.item(id, mark, found.frame, origin);
		}
		yield '</resources><build>';
		yield* this.items;
		yield '</build></model>';
	}
}
const HERE: Frame = { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] };

function* inPieces(texts: Iterable<string>): Generator<Uint8Array<ArrayBuffer>> {
	let held = '';
	for (const text of texts) {
		held += text;
		if (held.length < AT_ONCE) continue;
		yield bytesOf(held);
		held = '';
	}
	yield bytesOf(held);
}

/**
 * All pieces as 3MF (3D Manufacturing Format, core specification 1.3): millimetres, each piece an item called by its
 * mark; pieces that are the same but for where they stand are items of one object.
 * @param at the moment that its files say they are of @param packing of its files @throws what that fails with
 */
export async function write3mf(
	model: Model,
	at: string,
	packing: Packing = platformPacking
): Promise<Uint8Array> {
	const archive = new Archive(new Date(at), packing);
	await archive.add('3D/3dmodel.model', inPieces(new ModelXml(model).texts()));
	await archive.add('_rels/.rels', [
		bytesOf(
			`<Relationships xmlns="${PACKAGE}/relationships"><Relationship Target="/3D/3dmodel.model" Id="rel0" Type="http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel"/></Relationships>`
		)
	]);
	await archive.add('[Content_Types].xml', [
		bytesOf(
			`<Types xmlns="${PACKAGE}/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="model" ContentType="application/vnd.ms-package.3dmanufacturing-3dmodel+xml"/></Types>`
		)
	]);
	return archive.end();
}
