import { anchorPoints } from '../../cladding/anchor-points';
import type { ClauseGroup, FaceModel, ZoneModel } from '../../cladding/model';
import type { PieceGroup } from '../../cladding/pieces';
import { columnValues } from '../../field/column';
import { fieldOf } from '../../field/fields';
import { pieceQuantities } from '../../cladding/quantities';
import { anchorMark } from '../../schedule/anchors';
import type { pieceMarks } from '../../mark/marks-of';
import { pieceAddress } from '../../schedule/pieces';
import { enumeration, exactReal, list, NONE, real, text, typed, type StepValue } from '../step/text';
import { bodiesOf, volumeOf } from './bodies';
import type { IfcFile } from './file';
import { pieceKind } from './piece-kinds';
import type { SharedThings } from './shared';

/** A group of pieces within a storey. */
export interface Frame {
	readonly placement: StepValue;
	/** Of the storey, mm. */
	readonly height: number;
	readonly rows: readonly number[];
	readonly markOf: ReturnType<typeof pieceMarks>;
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

/**
 * The pieces of a group that stand in a storey, with their properties and quantities.
 * @param context of their bodies
 */
export function writePieces(
	file: IfcFile,
	shared: SharedThings,
	context: StepValue,
	zone: ZoneModel,
	clause: ClauseGroup,
	frame: Frame
): StepValue[] {
	const { step } = file;
	const { group } = clause;
	const { part, variant } = group.ready;
	const face = zone.faces[clause.face]!;
	const { entity, predefined, objectType, ...kind } = pieceKind(group.over, part.role);
	const quantities = pieceQuantities(group);
	const measured = siteMeasures(face, group);
	const type = shared.typeOf(clause);
	const material = shared.materialOf(clause);
	const [x, y, z] = face.origin;
	const placement = step.add('IFCLOCALPLACEMENT', frame.placement, file.axesAt([x, y, z - frame.height]));
	const nodeCalled = anchorMark({ zone, clause, face });
	const made: StepValue[] = [];
	for (const row of frame.rows) {
		const items = bodiesOf(file, shared, clause, row);
		if (!items.length) continue;
		const address = pieceAddress(zone, clause, row);
		const mark = frame.markOf(zone, clause, row);
		const shape = step.add(
			'IFCSHAPEREPRESENTATION',
			context,
			text('Body'),
			text('Tessellation'),
			list(items)
		);
		const piece = step.add(
			entity,
			...file.root(`piece ${address}`, address),
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
		file.properties(piece, address, kind.properties, common);
		const [mass, volume] = [quantities.mass[row]!, volumeOf(clause, row)];
		if (kind.quantities === 'Qto_MemberBaseQuantities')
			file.quantities(piece, address, kind.quantities, [
				['LENGTH', 'Length', quantities.cutLength[row]!],
				['VOLUME', 'NetVolume', volume],
				['WEIGHT', 'NetWeight', mass]
			]);
		if (kind.quantities === 'Qto_PlateBaseQuantities')
			file.quantities(piece, address, kind.quantities, [
				['LENGTH', 'Perimeter', measured('perimeter', row)],
				['AREA', 'GrossArea', measured('area', row) / 1e6],
				['VOLUME', 'NetVolume', volume],
				['WEIGHT', 'NetWeight', mass]
			]);
		const points = anchorPoints(face, group, row);
		const own: [string, StepValue | StepValue[]][] = [
			['Address', typed('IFCIDENTIFIER', text(address))],
			['Mark', typed('IFCIDENTIFIER', text(mark))],
			['Mass', typed('IFCMASSMEASURE', real(mass))],
			['AnchorNodes', points.map((point) => typed('IFCIDENTIFIER', text(nodeCalled(point))))],
			[
				'AnchorCoordinates',
				points.flatMap(({ at }) => at.map((value) => typed('IFCLENGTHMEASURE', exactReal(value))))
			]
		];
		if (group.over === 'cell')
			own.push(
				['CellArea', typed('IFCAREAMEASURE', real(measured('area', row) / 1e6))],
				['Warp', typed('IFCLENGTHMEASURE', real(measured('warp', row)))]
			);
		if (group.over === 'node') own.push(['Lines', typed('IFCCOUNTMEASURE', real(group.corners))]);
		file.properties(piece, address, 'Zygaster_Piece', own);
	}
	return made;
}
