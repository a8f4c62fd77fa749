import type { ClauseGroup, FaceModel, Model, ZoneModel } from '../../cladding/model';
import type { PieceGroup } from '../../cladding/pieces';
import { columnValues } from '../../field/column';
import { fieldOf } from '../../field/fields';
import type { Material } from '../../project/material-schema';
import { instancesOf } from '../../part/element-table';
import { placesOf, trianglesOf } from '../../part/places';
import { pieceAddress, pieceMark, pieceQuantities } from '../../schedule/pieces';
import { globalId } from './global-id';
import { pieceKind } from './piece-kinds';
import { inStoreys, storeysOf } from './storeys';
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

/** A zone that faces the sky more than the horizon is a roof. */
const ROOF_SLOPE = 0.5;

/** A storey, and what stands in it. */
interface Storey {
	readonly id: string;
	readonly name: string;
	/** mm above the origin */
	readonly height: number;
	readonly placement: StepValue;
	readonly assemblies: StepValue[];
}

/** A group of pieces within a storey. */
interface Frame {
	readonly storey: Storey;
	readonly placement: StepValue;
	readonly rows: readonly number[];
}

/** Fields of the sites that pieces hang on, by row; each column is read when it is first asked for. */
function siteMeasures(face: FaceModel, { over, sites }: PieceGroup): (name: string, row: number) => number {
	const columns = new Map<string, Float64Array>();
	return (name, row) => {
		const known = columns.get(name) ?? columnValues(fieldOf(over, name).column(face, sites), sites.length);
		columns.set(name, known);
		return known[row]!;
	};
}

class IfcBuilder {
	readonly step = new StepWriter();
	/** By the id of their variant. */
	private readonly types = new Map<string, { type: StepValue; name: string; pieces: StepValue[] }>();
	private readonly styles = new Map<Material, StepValue>();
	/** By the ids of their materials. */
	private readonly byMaterial = new Map<string, { material: StepValue; name: string; pieces: StepValue[] }>();
	private context: StepValue = NONE;

	constructor(private readonly model: Model) {}

	/** From what is there for good: renaming changes none. */
	private id(role: string): StepValue {
		return text(globalId(`${this.model.project.id}|${role}`));
	}

	/** Attributes every rooted entity starts with. */
	private root(role: string, name: string): StepValue[] {
		return [this.id(role), NONE, text(name), NONE];
	}

	write(): void {
		const { step, model } = this;
		const origin = step.add('IFCCARTESIANPOINT', list([real(0), real(0), real(0)]));
		const axes = step.add('IFCAXIS2PLACEMENT3D', origin, NONE, NONE);
		this.context = step.add(
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
			list([this.context]),
			units
		);
		const sitePlace = step.add('IFCLOCALPLACEMENT', NONE, axes);
		const buildingPlace = step.add('IFCLOCALPLACEMENT', sitePlace, axes);
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
		const storeys = storeysOf(model.project.levels).map(
			({ id, name, height }): Storey & { entity: StepValue } => {
				const placement = step.add('IFCLOCALPLACEMENT', buildingPlace, this.axesAt([0, 0, height]));
				const entity = step.add(
					'IFCBUILDINGSTOREY',
					...this.root(`storey ${id}`, name),
					NONE,
					placement,
					NONE,
					NONE,
					element,
					real(height)
				);
				return { id, name, height, placement, assemblies: [], entity };
			}
		);
		this.aggregate('project', project, [site]);
		this.aggregate('site', site, [building]);
		this.aggregate(
			'building',
			building,
			storeys.map(({ entity }) => entity)
		);

		for (const { model: zone } of model.zones) if (zone) this.zone(zone, storeys);
		for (const { id, assemblies, entity } of storeys)
			if (assemblies.length)
				step.add(
					'IFCRELCONTAINEDINSPATIALSTRUCTURE',
					...this.root(`storey ${id} contains`, 'Envelope'),
					list(assemblies),
					entity
				);
		for (const [key, { type, name, pieces }] of this.types)
			if (pieces.length)
				step.add('IFCRELDEFINESBYTYPE', ...this.root(`typed ${key}`, name), list(pieces), type);
		for (const [key, { material, name, pieces }] of this.byMaterial)
			if (pieces.length)
				step.add('IFCRELASSOCIATESMATERIAL', ...this.root(`material ${key}`, name), list(pieces), material);
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

	/** A zone is a group of assemblies, one in every storey that it reaches. */
	private zone(zone: ZoneModel, storeys: readonly Storey[]): void {
		const { step } = this;
		const { id, name, code } = zone.zone;
		const { areas, rows } = inStoreys(
			zone,
			storeys.map(({ height }) => height)
		);
		const reached = storeys.filter((_, s) => areas[s] || rows.some((one) => one[s]!.length));
		const made = (reached.length ? reached : storeys.slice(0, 1)).map((storey) => {
			const s = storeys.indexOf(storey);
			return this.assembly(
				zone,
				storey,
				rows.map((one) => one[s]!),
				areas[s]!
			);
		});
		const group = step.add('IFCGROUP', ...this.root(`zone ${id}`, name), text(code));
		step.add(
			'IFCRELASSIGNSTOGROUP',
			...this.root(`zone ${id} parts`, `Parts of ${name}`),
			list(made),
			NONE,
			group
		);
	}

	/** What a zone has in a storey. @param area of its cells there (mm²) */
	private assembly(
		zone: ZoneModel,
		storey: Storey,
		rows: readonly (readonly number[])[],
		area: number
	): StepValue {
		const { step } = this;
		const { id, name, code } = zone.zone;
		const roof = slopeOf(zone) > ROOF_SLOPE;
		const role = `zone ${id} in storey ${storey.id}`;
		const placement = step.add('IFCLOCALPLACEMENT', storey.placement, this.axesAt([0, 0, 0]));
		const assembly = step.add(
			roof ? 'IFCROOF' : 'IFCCURTAINWALL',
			...this.root(role, name),
			NONE,
			placement,
			NONE,
			text(code),
			enumeration('NOTDEFINED')
		);
		const pieces = zone.groups.flatMap((clause, k) =>
			this.pieces(zone, clause, { storey, placement, rows: rows[k]! })
		);
		this.aggregate(role, assembly, pieces);
		if (!roof) {
			this.properties(assembly, role, 'Pset_CurtainWallCommon', [
				['Reference', typed('IFCIDENTIFIER', text(code))],
				['IsExternal', typed('IFCBOOLEAN', enumeration('T'))]
			]);
			this.quantities(assembly, role, 'Qto_CurtainWallQuantities', [['AREA', 'GrossSideArea', area / 1e6]]);
		}
		storey.assemblies.push(assembly);
		return assembly;
	}

	private axesAt(origin: readonly number[]): StepValue {
		const point = this.step.once('IFCCARTESIANPOINT', list(origin.map((value) => real(value))));
		return this.step.once('IFCAXIS2PLACEMENT3D', point, NONE, NONE);
	}

	private pieces(zone: ZoneModel, clause: ClauseGroup, frame: Frame): StepValue[] {
		const { step } = this;
		const { group } = clause;
		const { part, variant } = group.ready;
		const face = zone.faces[clause.face]!;
		const { entity, predefined, objectType, ...kind } = pieceKind(group.over, part.role);
		const quantities = pieceQuantities(group);
		const measured = siteMeasures(face, group);
		const type = this.typeOf(clause);
		const material = this.materialOf(clause);
		const [x, y, z] = face.origin;
		const placement = step.add(
			'IFCLOCALPLACEMENT',
			frame.placement,
			this.axesAt([x, y, z - frame.storey.height])
		);
		const made: StepValue[] = [];
		for (const row of frame.rows) {
			const items = this.body(clause, row);
			if (!items.length) continue;
			const address = pieceAddress(zone, clause, row);
			const mark = pieceMark(zone, clause, row);
			const shape = step.add(
				'IFCSHAPEREPRESENTATION',
				this.context,
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
			const common: [string, StepValue][] = [
				['Reference', typed('IFCIDENTIFIER', text(`${part.label} ${variant.name}`))]
			];
			if (kind.saysExternal) common.push(['IsExternal', typed('IFCBOOLEAN', enumeration('T'))]);
			this.properties(piece, address, kind.properties, common);
			const [mass, volume] = [quantities.mass[row]!, this.volume(clause, row)];
			if (kind.quantities === 'Qto_MemberBaseQuantities')
				this.quantities(piece, address, kind.quantities, [
					['LENGTH', 'Length', quantities.cutLength[row]!],
					['VOLUME', 'NetVolume', volume],
					['WEIGHT', 'NetWeight', mass]
				]);
			if (kind.quantities === 'Qto_PlateBaseQuantities')
				this.quantities(piece, address, kind.quantities, [
					['LENGTH', 'Perimeter', measured('perimeter', row)],
					['AREA', 'GrossArea', measured('area', row) / 1e6],
					['VOLUME', 'NetVolume', volume],
					['WEIGHT', 'NetWeight', mass]
				]);
			const own: [string, StepValue][] = [
				['Address', typed('IFCIDENTIFIER', text(address))],
				['Mark', typed('IFCIDENTIFIER', text(mark))],
				['Mass', typed('IFCMASSMEASURE', real(mass))]
			];
			if (group.over === 'cell')
				own.push(
					['CellArea', typed('IFCAREAMEASURE', real(measured('area', row) / 1e6))],
					['Warp', typed('IFCLENGTHMEASURE', real(measured('warp', row)))]
				);
			if (group.over === 'node') own.push(['Lines', typed('IFCCOUNTMEASURE', real(group.corners))]);
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

	/** The tessellated bodies of a piece. */
	private body(clause: ClauseGroup, row: number): StepValue[] {
		const { step } = this;
		const { materials } = clause.group.ready;
		return clause.group.run.elements.flatMap((table) => {
			return (instancesOf(table).get(row) ?? []).map((k) => {
				const points: StepValue[] = [];
				const places = placesOf(table.shape, k);
				for (let o = 0; o < places.length; o += 3)
					points.push(`(${real(places[o]!, 3)},${real(places[o + 1]!, 3)},${real(places[o + 2]!, 3)})`);
				const item = step.add(
					'IFCTRIANGULATEDFACESET',
					step.add('IFCCARTESIANPOINTLIST3D', list(points)),
					NONE,
					enumeration('T'),
					facesOf(trianglesOf(table.shape, k)),
					NONE
				);
				step.add('IFCSTYLEDITEM', item, list([this.style(materials[table.element]!)]), NONE);
				return item;
			});
		});
	}

	private style(material: Material): StepValue {
		const { step } = this;
		const known = this.styles.get(material);
		if (known) return known;
		const rgb = [1, 3, 5].map((k) => real(parseInt(material.colour.slice(k, k + 2), 16) / 255));
		const colour = step.once('IFCCOLOURRGB', NONE, ...rgb);
		const shading = step.once('IFCSURFACESTYLESHADING', colour, real(1 - material.opacity));
		const style = step.once('IFCSURFACESTYLE', text(material.label), enumeration('BOTH'), list([shading]));
		this.styles.set(material, style);
		return style;
	}

	private typeOf(clause: ClauseGroup) {
		const { part, variant } = clause.group.ready;
		const name = `${part.label} ${variant.name}`;
		let known = this.types.get(variant.id);
		if (!known) {
			const { entity, predefined, objectType } = pieceKind(clause.group.over, part.role);
			const type = this.step.add(
				`${entity}TYPE`,
				...this.root(`type ${variant.id}`, name),
				NONE,
				NONE,
				NONE,
				text(variant.id),
				objectType ? text(objectType) : NONE,
				enumeration(predefined)
			);
			known = { type, name, pieces: [] };
			this.types.set(variant.id, known);
		}
		return known;
	}

	/** One material, or a set of constituents named after the elements. */
	private materialOf(clause: ClauseGroup) {
		const { step } = this;
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
			known = { material, name, pieces: [] };
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

const faceLists = new WeakMap<ArrayLike<number>, StepValue>();
/** Triangles as the format counts them, from 1; instances with the same ones share the text. */
function facesOf(triangles: ArrayLike<number>): StepValue {
	let faces = faceLists.get(triangles);
	if (!faces) {
		const texts: StepValue[] = [];
		for (let t = 0; t < triangles.length; t += 3)
			texts.push(list([0, 1, 2].map((k) => String(triangles[t + k]! + 1))));
		faces = list(texts);
		faceLists.set(triangles, faces);
	}
	return faces;
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
