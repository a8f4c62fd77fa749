import type { ClauseGroup, Model, ZoneModel } from '../../cladding/model';
import type { Material } from '../../project/material-schema';
import type { ElementTable } from '../../part/element-table';
import { placesOf } from '../../part/places';
import { pieceAddress, pieceMark, pieceQuantities } from '../../schedule/pieces';
import { globalId } from './global-id';
import {
	DERIVED,
	NONE,
	StepWriter,
	enumeration,
	list,
	exactReal,
	real,
	text,
	typed,
	type StepValue
} from '../step/text';

/** What a family of parts becomes. */
const entities = {
	panel: { entity: 'IFCPLATE', predefined: 'CURTAIN_PANEL', objectType: null },
	mullion: { entity: 'IFCMEMBER', predefined: 'MULLION', objectType: null },
	louver: { entity: 'IFCSHADINGDEVICE', predefined: 'USERDEFINED', objectType: 'LOUVER' },
	structure: { entity: 'IFCMEMBER', predefined: 'MEMBER', objectType: null }
} as const;

/** A zone that faces the sky more than the horizon is a roof. */
const ROOF_SLOPE = 0.5;

interface Frame {
	readonly placement: StepValue;
	readonly context: StepValue;
}

class IfcBuilder {
	readonly step = new StepWriter();
	private readonly types = new Map<string, { type: StepValue; pieces: StepValue[] }>();
	private readonly byMaterial = new Map<string, { material: StepValue; pieces: StepValue[] }>();

	constructor(private readonly model: Model) {}

	private id(role: string): StepValue {
		return text(globalId(`${this.model.project.name}|${role}`));
	}

	/** Attributes every rooted entity starts with. */
	private root(role: string, name: string): StepValue[] {
		return [this.id(role), NONE, text(name), NONE];
	}

	write(): void {
		const { step, model } = this;
		const origin = step.add('IFCCARTESIANPOINT', list([real(0), real(0), real(0)]));
		const axes = step.add('IFCAXIS2PLACEMENT3D', origin, NONE, NONE);
		const context = step.add(
			'IFCGEOMETRICREPRESENTATIONCONTEXT',
			NONE,
			text('Model'),
			'3',
			real(0.01),
			axes,
			NONE
		);
		const unit = (kind: string, prefix: string | null, name: string) =>
			step.add(
				'IFCSIUNIT',
				DERIVED,
				enumeration(kind),
				prefix ? enumeration(prefix) : NONE,
				enumeration(name)
			);
		const units = step.add(
			'IFCUNITASSIGNMENT',
			list([
				unit('LENGTHUNIT', 'MILLI', 'METRE'),
				unit('AREAUNIT', null, 'SQUARE_METRE'),
				unit('VOLUMEUNIT', null, 'CUBIC_METRE'),
				unit('PLANEANGLEUNIT', null, 'RADIAN'),
				unit('MASSUNIT', 'KILO', 'GRAM')
			])
		);
		const project = step.add(
			'IFCPROJECT',
			...this.root('project', model.project.name),
			NONE,
			NONE,
			NONE,
			list([context]),
			units
		);
		const place = (relative: StepValue) => step.add('IFCLOCALPLACEMENT', relative, axes);
		const sitePlace = place(NONE);
		const buildingPlace = place(sitePlace);
		const storeyPlace = place(buildingPlace);
		const element = enumeration('ELEMENT');
		const site = step.add(
			'IFCSITE',
			...this.root('site', 'Site'),
			NONE,
			sitePlace,
			NONE,
			NONE,
			element,
			NONE,
			NONE,
			NONE,
			NONE,
			NONE
		);
		const building = step.add(
			'IFCBUILDING',
			...this.root('building', model.project.name),
			NONE,
			buildingPlace,
			NONE,
			NONE,
			element,
			NONE,
			NONE,
			NONE
		);
		const storey = step.add(
			'IFCBUILDINGSTOREY',
			...this.root('storey', 'Ground level'),
			NONE,
			storeyPlace,
			NONE,
			NONE,
			element,
			real(0)
		);
		this.aggregate('project', project, [site]);
		this.aggregate('site', site, [building]);
		this.aggregate('building', building, [storey]);

		const zones = model.zones.flatMap(({ model: zone }) =>
			zone ? [this.zone(zone, { placement: storeyPlace, context })] : []
		);
		if (zones.length)
			step.add(
				'IFCRELCONTAINEDINSPATIALSTRUCTURE',
				...this.root('storey contains', 'Envelope'),
				list(zones),
				storey
			);
		for (const [key, { type, pieces }] of this.types)
			step.add('IFCRELDEFINESBYTYPE', ...this.root(`typed ${key}`, key), list(pieces), type);
		for (const [key, { material, pieces }] of this.byMaterial)
			step.add('IFCRELASSOCIATESMATERIAL', ...this.root(`material ${key}`, key), list(pieces), material);
	}

	private aggregate(role: string, whole: StepValue, parts: readonly StepValue[]): void {
		if (parts.length)
			this.step.add(
				'IFCRELAGGREGATES',
				...this.root(`${role} parts`, `Parts of the ${role}`),
				whole,
				list(parts)
			);
	}

	private zone(zone: ZoneModel, frame: Frame): StepValue {
		const { step } = this;
		const { id, name, code } = zone.zone;
		const roof = slopeOf(zone) > ROOF_SLOPE;
		const placement = step.add('IFCLOCALPLACEMENT', frame.placement, this.axesAt([0, 0, 0]));
		const assembly = step.add(
			roof ? 'IFCROOF' : 'IFCCURTAINWALL',
			...this.root(`zone ${id}`, name),
			NONE,
			placement,
			NONE,
			text(code),
			enumeration('NOTDEFINED')
		);
		const pieces = zone.groups.flatMap((clause) => this.pieces(zone, clause, { ...frame, placement }));
		this.aggregate(`zone ${id}`, assembly, pieces);
		if (!roof) {
			const area = zone.faces.reduce((sum, face) => sum + face.area(), 0) / 1e6;
			this.properties(assembly, `zone ${id}`, 'Pset_CurtainWallCommon', [
				['Reference', typed('IFCIDENTIFIER', text(code))],
				['IsExternal', typed('IFCBOOLEAN', enumeration('T'))]
			]);
			this.quantities(assembly, `zone ${id}`, 'Qto_CurtainWallQuantities', [['AREA', 'GrossSideArea', area]]);
		}
		return assembly;
	}

	private axesAt(origin: readonly number[]): StepValue {
		const point = this.step.once('IFCCARTESIANPOINT', list(origin.map(real)));
		return this.step.once('IFCAXIS2PLACEMENT3D', point, NONE, NONE);
	}

	private pieces(zone: ZoneModel, clause: ClauseGroup, frame: Frame): StepValue[] {
		const { step } = this;
		const { group } = clause;
		const { part, variant } = group.ready;
		const face = zone.faces[clause.face]!;
		const { entity, predefined, objectType } = entities[part.family];
		const quantities = pieceQuantities(group);
		const bodies = this.bodies(clause);
		const type = this.typeOf(clause);
		const material = this.materialOf(clause);
		const placement = step.add('IFCLOCALPLACEMENT', frame.placement, this.axesAt(face.origin));
		const made: StepValue[] = [];
		for (let row = 0; row < group.anchors.length; row++) {
			const items = bodies.get(row);
			if (!items) continue;
			const address = pieceAddress(zone, clause, row);
			const mark = pieceMark(zone, clause, row);
			const shape = step.add(
				'IFCSHAPEREPRESENTATION',
				frame.context,
				text('Body'),
				text('Tessellation'),
				list(items)
			);
			const piece = step.add(
				entity,
				...this.root(`piece ${address}`, address),
				objectType ? text(objectType) : NONE,
				placement,
				step.add('IFCPRODUCTDEFINITIONSHAPE', NONE, NONE, list([shape])),
				text(mark),
				enumeration(predefined)
			);
			made.push(piece);
			type.pieces.push(piece);
			material.pieces.push(piece);
			const anchor = group.anchors[row]!;
			const common: [string, StepValue][] = [
				['Reference', typed('IFCIDENTIFIER', text(`${part.label} ${variant.name}`))],
				['IsExternal', typed('IFCBOOLEAN', enumeration('T'))]
			];
			const own: [string, StepValue][] = [
				['Address', typed('IFCIDENTIFIER', text(address))],
				['Mark', typed('IFCIDENTIFIER', text(mark))],
				['Mass', typed('IFCMASSMEASURE', real(quantities.mass[row]!))]
			];
			if (clause.clause.kind === 'run') {
				this.properties(piece, address, 'Pset_MemberCommon', common);
				this.quantities(piece, address, 'Qto_MemberBaseQuantities', [
					['LENGTH', 'Length', quantities.barLength[row]!],
					['VOLUME', 'NetVolume', this.volume(clause, row)],
					['WEIGHT', 'NetWeight', quantities.mass[row]!]
				]);
			} else {
				own.push(
					['CellArea', typed('IFCAREAMEASURE', real(face.measures.area[anchor]! / 1e6))],
					['Warp', typed('IFCLENGTHMEASURE', real(face.measures.warp[anchor]!))]
				);
				if (part.family === 'panel') {
					this.properties(piece, address, 'Pset_PlateCommon', common);
					this.quantities(piece, address, 'Qto_PlateBaseQuantities', [
						['LENGTH', 'Perimeter', face.measures.perimeter[anchor]!],
						['AREA', 'GrossArea', face.measures.area[anchor]! / 1e6],
						['VOLUME', 'NetVolume', this.volume(clause, row)],
						['WEIGHT', 'NetWeight', quantities.mass[row]!]
					]);
				} else if (part.family === 'louver')
					this.properties(piece, address, 'Pset_ShadingDeviceCommon', common);
				else this.properties(piece, address, 'Pset_MemberCommon', common);
			}
			this.properties(piece, address, 'Zygaster_Piece', own);
		}
		return made;
	}

	/** m³ */
	private volume(clause: ClauseGroup, row: number): number {
		let sum = 0;
		for (const table of clause.group.run.elements)
			for (const k of instancesOf(table).get(row) ?? []) sum += table.volume[k]!;
		return sum / 1e9;
	}

	/** The tessellated bodies of every piece of a group, by row. */
	private bodies(clause: ClauseGroup): Map<number, StepValue[]> {
		const { step } = this;
		const { group } = clause;
		const byRow = new Map<number, StepValue[]>();
		for (const table of group.run.elements) {
			const triangles: StepValue[] = [];
			for (let t = 0; t < table.triangles.length; t += 3)
				triangles.push(list([0, 1, 2].map((k) => String(table.triangles[t + k]! + 1))));
			const faces = list(triangles);
			const style = this.style(group.ready.materials[table.element]!);
			for (let k = 0; k < table.count; k++) {
				const points: StepValue[] = [];
				const places = placesOf(table, k);
				for (let o = 0; o < places.length; o += 3)
					points.push(list([0, 1, 2].map((a) => real(Number(places[o + a]!.toFixed(3))))));
				const item = step.add(
					'IFCTRIANGULATEDFACESET',
					step.add('IFCCARTESIANPOINTLIST3D', list(points)),
					NONE,
					enumeration('T'),
					faces,
					NONE
				);
				step.add('IFCSTYLEDITEM', item, list([style]), NONE);
				const row = table.row[k]!;
				const items = byRow.get(row);
				if (items) items.push(item);
				else byRow.set(row, [item]);
			}
		}
		return byRow;
	}

	private style(material: Material): StepValue {
		const { step } = this;
		const rgb = [1, 3, 5].map((k) => real(parseInt(material.colour.slice(k, k + 2), 16) / 255));
		const colour = step.once('IFCCOLOURRGB', NONE, ...rgb);
		const shading = step.once('IFCSURFACESTYLESHADING', colour, real(1 - material.opacity));
		return step.once('IFCSURFACESTYLE', text(material.label), enumeration('BOTH'), list([shading]));
	}

	private typeOf(clause: ClauseGroup) {
		const { part, variant } = clause.group.ready;
		const key = `${part.label} ${variant.name}`;
		let known = this.types.get(key);
		if (!known) {
			const { entity, predefined, objectType } = entities[part.family];
			const type = this.step.add(
				`${entity}TYPE`,
				...this.root(`type ${key}`, key),
				NONE,
				NONE,
				NONE,
				text(variant.id),
				objectType ? text(objectType) : NONE,
				enumeration(predefined)
			);
			known = { type, pieces: [] };
			this.types.set(key, known);
		}
		return known;
	}

	/** One material, or a set of constituents named after the elements. */
	private materialOf(clause: ClauseGroup) {
		const { step } = this;
		const { elements, materials } = clause.group.ready;
		const key = elements.map((element, k) => `${element.label}: ${materials[k]!.label}`).join(', ');
		let known = this.byMaterial.get(key);
		if (!known) {
			const plain = (material: Material) => step.once('IFCMATERIAL', text(material.label), NONE, NONE);
			const material =
				elements.length === 1
					? plain(materials[0]!)
					: step.add(
							'IFCMATERIALCONSTITUENTSET',
							text(key),
							NONE,
							list(
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
							)
						);
			known = { material, pieces: [] };
			this.byMaterial.set(key, known);
		}
		return known;
	}

	private properties(
		of: StepValue,
		role: string,
		name: string,
		values: readonly (readonly [string, StepValue])[]
	): void {
		const { step } = this;
		const singles = values.map(([key, value]) =>
			step.once('IFCPROPERTYSINGLEVALUE', text(key), NONE, value, NONE)
		);
		const set = step.add('IFCPROPERTYSET', ...this.root(`${name} of ${role}`, name), list(singles));
		step.add('IFCRELDEFINESBYPROPERTIES', this.id(`${name} to ${role}`), NONE, NONE, NONE, list([of]), set);
	}

	private quantities(
		of: StepValue,
		role: string,
		name: string,
		values: readonly (readonly [string, string, number])[]
	): void {
		const { step } = this;
		const all = values.map(([kind, key, value]) =>
			step.add(`IFCQUANTITY${kind}`, text(key), NONE, NONE, exactReal(Number(value.toPrecision(9))), NONE)
		);
		const set = step.add('IFCELEMENTQUANTITY', ...this.root(`${name} of ${role}`, name), NONE, list(all));
		step.add('IFCRELDEFINESBYPROPERTIES', this.id(`${name} to ${role}`), NONE, NONE, NONE, list([of]), set);
	}
}

const instances = new WeakMap<ElementTable, Map<number, number[]>>();
/** Instances of an element by the row of their piece. */
function instancesOf(table: ElementTable): Map<number, number[]> {
	let byRow = instances.get(table);
	if (!byRow) {
		byRow = new Map();
		for (let k = 0; k < table.count; k++) {
			const list = byRow.get(table.row[k]!);
			if (list) list.push(k);
			else byRow.set(table.row[k]!, [k]);
		}
		instances.set(table, byRow);
	}
	return byRow;
}

/** How much the zone looks to the sky: the area-weighted z of its normals. */
function slopeOf(zone: ZoneModel): number {
	let up = 0;
	let total = 0;
	for (const { measures, cells } of zone.faces)
		for (let c = 0; c < cells.count; c++) {
			up += measures.area[c]! * measures.normal[3 * c + 2]!;
			total += measures.area[c]!;
		}
	return total > 0 ? up / total : 0;
}

/**
 * The clad model as IFC4 ADD2 (ISO 16739-1) in a STEP physical file (ISO 10303-21).
 * @param written the file's time stamp, ISO 8601; the same stamp gives the same bytes
 */
export function writeIfc(model: Model, written: string): string {
	const builder = new IfcBuilder(model);
	builder.write();
	const name = text(`${model.project.name}.ifc`);
	return builder.step.file([
		"FILE_DESCRIPTION(('ViewDefinition [ReferenceView_V1.2]'),'2;1');",
		`FILE_NAME(${name},${text(written)},(''),(''),'Zygaster','Zygaster','');`,
		"FILE_SCHEMA(('IFC4'));"
	]);
}
