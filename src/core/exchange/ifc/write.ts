import type { Model, ZoneModel } from '../../cladding/model';
import { pieceMarks } from '../../mark/marks-of';
import { DERIVED, enumeration, NONE, real, text, typed, type StepRef } from '../step/text';
import { BodyWriter } from './bodies';
import { IfcFile } from './file';
import { likeBodiesOf } from '../like-bodies';
import { writePieces } from './pieces';
import { SharedThings } from './shared';
import { inStoreys, storeysOf } from './storeys';

/** A zone that faces the sky more than the horizon is a roof. */
const ROOF_SLOPE = 0.5;

/** A storey, and what stands in it. */
interface Storey {
	readonly id: string;
	readonly name: string;
	/** mm above the origin */
	readonly height: number;
	readonly placement: StepRef;
	readonly assemblies: StepRef[];
}

/** The tree of project, site, building and storeys, and the zones in it. */
class IfcTree {
	private readonly file: IfcFile;
	private readonly shared: SharedThings;
	private bodies: BodyWriter | null = null;

	private readonly markOf: ReturnType<typeof pieceMarks>;

	constructor(
		private readonly model: Model,
		header: readonly string[]
	) {
		this.markOf = pieceMarks(model);
		this.file = new IfcFile(model.project.id, header);
		this.shared = new SharedThings(this.file);
	}

	write(): readonly Uint8Array<ArrayBuffer>[] {
		const { model, file } = this;
		const { step } = file;
		const origin = step.add('IFCCARTESIANPOINT', [real(0), real(0), real(0)]);
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
		this.bodies = new BodyWriter(step, this.shared, context, likeBodiesOf(model));
		const unit = (kind: string, prefix: string | null, name: string) =>
			step.add(
				'IFCSIUNIT',
				DERIVED,
				enumeration(kind),
				prefix ? enumeration(prefix) : NONE,
				enumeration(name)
			);
		const units = step.add('IFCUNITASSIGNMENT', [
			unit('LENGTHUNIT', 'MILLI', 'METRE'),
			unit('AREAUNIT', null, 'SQUARE_METRE'),
			unit('VOLUMEUNIT', null, 'CUBIC_METRE'),
			unit('PLANEANGLEUNIT', null, 'RADIAN'),
			unit('MASSUNIT', 'KILO', 'GRAM')
		]);
		const project = this.file.rooted(
			'IFCPROJECT',
			'project',
			model.project.name,
			NONE,
			NONE,
			NONE,
			[context],
			units
		);
		const sitePlace = step.add('IFCLOCALPLACEMENT', NONE, axes);
		const buildingPlace = step.add('IFCLOCALPLACEMENT', sitePlace, axes);
		const element = enumeration('ELEMENT');
		const site = this.file.rooted(
			'IFCSITE',
			'site',
			'Site',
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
		const building = this.file.rooted(
			'IFCBUILDING',
			'building',
			model.project.name,
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
			({ id, name, height }): Storey & { entity: StepRef } => {
				const placement = step.add('IFCLOCALPLACEMENT', buildingPlace, this.file.axesAt([0, 0, height]));
				const entity = this.file.rooted(
					'IFCBUILDINGSTOREY',
					`storey ${id}`,
					name,
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
		this.file.aggregate('project', project, [site]);
		this.file.aggregate('site', site, [building]);
		this.file.aggregate(
			'building',
			building,
			storeys.map(({ entity }) => entity)
		);

		for (const { model: zone } of model.zones) if (zone) this.zone(zone, storeys);
		for (const { id, assemblies, entity } of storeys)
			if (assemblies.length)
				this.file.rooted(
					'IFCRELCONTAINEDINSPATIALSTRUCTURE',
					`storey ${id} contains`,
					'Envelope',
					assemblies,
					entity
				);
		this.shared.relate();
		this.file.relate();
		return step.file();
	}

	/** A zone is a group of assemblies, one in every storey that it reaches. */
	private zone(zone: ZoneModel, storeys: readonly Storey[]): void {
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
		const group = this.file.rooted('IFCGROUP', `zone ${id}`, name, text(code));
		this.file.rooted('IFCRELASSIGNSTOGROUP', `zone ${id} parts`, `Parts of ${name}`, made, NONE, group);
	}

	/** What a zone has in a storey. @param area of its cells there (mm²) */
	private assembly(
		zone: ZoneModel,
		storey: Storey,
		rows: readonly (readonly number[])[],
		area: number
	): StepRef {
		const { step } = this.file;
		const { id, name, code } = zone.zone;
		const roof = slopeOf(zone) > ROOF_SLOPE;
		const role = `zone ${id} in storey ${storey.id}`;
		const placement = step.add('IFCLOCALPLACEMENT', storey.placement, this.file.axesAt([0, 0, 0]));
		const assembly = this.file.rooted(
			roof ? 'IFCROOF' : 'IFCCURTAINWALL',
			role,
			name,
			NONE,
			placement,
			NONE,
			text(code),
			enumeration('NOTDEFINED')
		);
		const pieces = zone.groups.flatMap((clause, k) =>
			writePieces(this.file, this.shared, this.bodies!, zone, clause, {
				placement,
				height: storey.height,
				rows: rows[k]!,
				markOf: this.markOf
			})
		);
		this.file.aggregate(role, assembly, pieces);
		if (!roof) {
			this.file.properties(assembly, role, 'Pset_CurtainWallCommon', [
				['Reference', typed('IFCIDENTIFIER', text(code))],
				['IsExternal', typed('IFCBOOLEAN', enumeration('T'))]
			]);
			this.file.quantities(assembly, role, 'Qto_CurtainWallQuantities', [
				['AREA', 'GrossSideArea', area / 1e6]
			]);
		}
		storey.assemblies.push(assembly);
		return assembly;
	}
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
export function writeIfc(model: Model, written: string): readonly Uint8Array<ArrayBuffer>[] {
	const name = text(`${model.project.name}.ifc`);
	return new IfcTree(model, [
		"FILE_DESCRIPTION(('ViewDefinition [ReferenceView_V1.2]'),'2;1');",
		`FILE_NAME(${name},${text(written)},(''),(''),'Zygaster','Zygaster','');`,
		"FILE_SCHEMA(('IFC4'));"
	]).write();
}
