import type { ClauseGroup } from '../../cladding/model';
import type { Material } from '../../project/material-schema';
import { enumeration, NONE, real, text, typed, type StepRef } from '../step/text';
import { rounded } from '../../units/quantity';
import type { IfcFile } from './file';
import type { Layer } from './layers';
import { pieceKind } from './piece-kinds';

/** What many pieces have together, and those that have it. */
interface Shared {
	readonly entity: StepRef;
	readonly name: string;
	readonly pieces: StepRef[];
}

/** Types and common properties by variant, materials by what a part is made of, looks: written once, related to all pieces at the end. */
export class SharedThings {
	private readonly types = new Map<string, Shared>();
	private readonly common = new Map<string, Shared>();
	private readonly styles = new Map<Material, StepRef>();
	/** By the ids of their materials. */
	private readonly byMaterial = new Map<string, Shared>();

	constructor(private readonly file: IfcFile) {}

	style(material: Material): StepRef {
		const { step } = this.file;
		const known = this.styles.get(material);
		if (known) return known;
		const rgb = [1, 3, 5].map((k) => real(parseInt(material.colour.slice(k, k + 2), 16) / 255));
		const colour = step.once('IFCCOLOURRGB', NONE, ...rgb);
		const shading = step.once('IFCSURFACESTYLESHADING', colour, real(1 - material.opacity));
		const style = step.once('IFCSURFACESTYLE', text(material.label), enumeration('BOTH'), [shading]);
		this.styles.set(material, style);
		return style;
	}

	typeOf(clause: ClauseGroup): Shared {
		const { part, variant } = clause.group.ready;
		const name = `${part.label} ${variant.name}`;
		let known = this.types.get(variant.id);
		if (!known) {
			const { entity, predefined, objectType } = pieceKind(clause.group.over, part.role);
			const type = this.file.rooted(
				`${entity}TYPE`,
				`type ${variant.id}`,
				name,
				NONE,
				NONE,
				NONE,
				text(variant.id),
				objectType ? text(objectType) : NONE,
				enumeration(predefined)
			);
			known = { entity: type, name, pieces: [] };
			this.types.set(variant.id, known);
		}
		return known;
	}

	/** Layers with their thickness, the outer ones as the part has them. */
	layered(layers: readonly Layer[]): Shared {
		const { step } = this.file;
		const name = layers
			.map(({ label, material, thickness }) => `${label}: ${material.label} ${rounded(thickness, 2)} mm`)
			.join(', ');
		const key = `layers ${layers.map(({ label, material, thickness }) => `${label}: ${material.id} ${rounded(thickness, 2)}`).join(', ')}`;
		let known = this.byMaterial.get(key);
		if (!known) {
			const made = layers.map(({ label, material, thickness }) =>
				step.add(
					'IFCMATERIALLAYER',
					step.once('IFCMATERIAL', text(material.label), NONE, NONE),
					real(thickness),
					NONE,
					text(label),
					NONE,
					NONE,
					NONE
				)
			);
			const set = step.add('IFCMATERIALLAYERSET', made, text(name), NONE);
			known = { entity: set, name, pieces: [] };
			this.byMaterial.set(key, known);
		}
		return known;
	}

	/** One material, or a set of constituents named after the elements. */
	materialOf(clause: ClauseGroup): Shared {
		const { step } = this.file;
		const { elements, materials } = clause.group.ready;
		const name = elements.map((element, k) => `${element.label}: ${materials[k]!.label}`).join(', ');
		const key = elements.map((element, k) => `${element.label}: ${materials[k]!.id}`).join(', ');
		let known = this.byMaterial.get(key);
		if (!known) {
			const plain = (material: Material) => step.once('IFCMATERIAL', text(material.label), NONE, NONE);
			const material =
				elements.length === 1
					? plain(materials[0]!)
					: step.add(
							'IFCMATERIALCONSTITUENTSET',
							text(name),
							NONE,
							elements.map((element, k) =>
								step.add(
									'IFCMATERIALCONSTITUENT',
									text(element.label),
									NONE,
									plain(materials[k]!),
									NONE,
									NONE
								)
							)
						);
			known = { entity: material, name, pieces: [] };
			this.byMaterial.set(key, known);
		}
		return known;
	}

	/** What the standard says of pieces, as far as it is the same for all of a variant. */
	commonOf(clause: ClauseGroup): Shared {
		const { part, variant } = clause.group.ready;
		const { properties: name, saysExternal } = pieceKind(clause.group.over, part.role);
		const key = `${name} of ${variant.id}`;
		let known = this.common.get(key);
		if (!known) {
			const values: [string, string][] = [
				['Reference', typed('IFCIDENTIFIER', text(`${part.label} ${variant.name}`))]
			];
			if (saysExternal) values.push(['IsExternal', typed('IFCBOOLEAN', enumeration('T'))]);
			known = { entity: this.file.propertySet(key, name, values), name, pieces: [] };
			this.common.set(key, known);
		}
		return known;
	}

	/** Say which pieces have what. */
	relate(): void {
		const { file } = this;
		for (const [key, { entity, pieces }] of this.common)
			if (pieces.length) file.define(`common ${key}`, pieces, entity);
		for (const [key, { entity, name, pieces }] of this.types)
			if (pieces.length) file.rooted('IFCRELDEFINESBYTYPE', `typed ${key}`, name, pieces, entity);
		for (const [key, { entity, name, pieces }] of this.byMaterial)
			if (pieces.length) file.rooted('IFCRELASSOCIATESMATERIAL', `material ${key}`, name, pieces, entity);
	}
}
