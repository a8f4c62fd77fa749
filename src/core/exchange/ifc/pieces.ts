import { anchorPoints, type AnchorPoint } from '../../cladding/anchor-points';
import type { ClauseGroup, FaceModel, ZoneModel } from '../../cladding/model';
import type { PieceGroup } from '../../cladding/pieces';
import { columnValues } from '../../field/column';
import { fieldOf } from '../../field/fields';
import { pieceQuantities } from '../../cladding/quantities';
import { anchorMark } from '../../schedule/anchors';
import type { pieceMarks } from '../../mark/marks-of';
import { flagTexts, pieceAddress } from '../../schedule/pieces';
import { once } from '../../units/once';
import { enumeration, NONE, real, text, typed, type StepRef } from '../step/text';
import { volumeOf, type BodyWriter } from './bodies';
import type { IfcFile, Properties, Quantities } from './file';
import { layersOf, type Layer } from './layers';
import { pieceKind } from './piece-kinds';
import type { SharedThings } from './shared';

/** A group of pieces within a storey. */
export interface Frame {
	readonly placement: StepRef;
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

/** Anchor points are told to a tenth of a millionth of a millimetre: what is rebuilt from them is exact to 1e-6. */
const ANCHOR_DECIMALS = 7;

/** Nodes as they are told, by face: each is told for all that hangs on it. */
const nodesTold = new WeakMap<FaceModel, { readonly names: string[]; readonly places: string[] }>();

/** What is written of the points that pieces hang on: what the node is called, and the three coordinates. */
function toldPoints(zone: ZoneModel, clause: ClauseGroup, face: FaceModel) {
	const nodeCalled = anchorMark({ zone, clause, face });
	const { names, places } = nodesTold.get(face) ?? { names: [], places: [] };
	nodesTold.set(face, { names, places });
	const { positions } = face.grid;
	const isOnNode = ({ node, isBehind, at }: AnchorPoint) =>
		!isBehind && at.every((value, a) => value === positions[3 * node + a]);
	const name = (point: AnchorPoint) => typed('IFCIDENTIFIER', text(nodeCalled(point)));
	const place = ({ at }: AnchorPoint) =>
		at.map((value) => typed('IFCLENGTHMEASURE', real(value, ANCHOR_DECIMALS))).join(',');
	return {
		node: (point: AnchorPoint) => (point.isBehind ? name(point) : (names[point.node] ??= name(point))),
		place: (point: AnchorPoint) => (isOnNode(point) ? (places[point.node] ??= place(point)) : place(point))
	};
}

type Quantity = Quantities[number];

/** Volume and mass before anything is cut away, and as it stands. m³, kg */
const bothOf = (volume: number, mass: number, share: number): Quantity[] => [
	['VOLUME', 'GrossVolume', volume / share],
	['VOLUME', 'NetVolume', volume],
	['WEIGHT', 'GrossWeight', mass / share],
	['WEIGHT', 'NetWeight', mass]
];

/** How thick all layers are together (mm). */
const widthOf = (layers: readonly Layer[] | null): Quantity[] =>
	layers ? [['LENGTH', 'Width', layers.reduce((sum, { thickness }) => sum + thickness, 0)]] : [];

/**
 * The pieces of a group that stand in a storey, with their properties and quantities.
 */
export function writePieces(
	file: IfcFile,
	shared: SharedThings,
	bodies: BodyWriter,
	zone: ZoneModel,
	clause: ClauseGroup,
	frame: Frame
): StepRef[] {
	const { step } = file;
	const { group } = clause;
	const { part } = group.ready;
	const face = zone.faces[clause.face]!;
	const { entity, predefined, objectType, quantities: sums } = pieceKind(group.over, part.role);
	const quantities = pieceQuantities(group);
	const measured = siteMeasures(face, group);
	const type = shared.typeOf(clause);
	const layers = layersOf(group);
	const common = shared.commonOf(clause);
	const material = once(() => shared.materialOf(clause));
	const [x, y, z] = face.origin;
	const placement = step.add('IFCLOCALPLACEMENT', frame.placement, file.axesAt([x, y, z - frame.height]));
	const told = toldPoints(zone, clause, face);
	const flagged = new Set(group.flags.rows());
	const made: StepRef[] = [];
	for (const row of frame.rows) {
		const shape = bodies.shapeOf(clause, row);
		if (!shape) continue;
		const address = pieceAddress(zone, clause, row);
		const mark = frame.markOf(zone, clause, row);
		const piece = file.rooted(
			entity,
			`piece ${address}`,
			address,
			objectType ? text(objectType) : NONE,
			placement,
			step.add('IFCPRODUCTDEFINITIONSHAPE', NONE, NONE, [shape]),
			text(mark),
			enumeration(predefined)
		);
		made.push(piece);
		type.pieces.push(piece);
		const layered = layers?.(row) ?? null;
		(layered ? shared.layered(layered) : material()).pieces.push(piece);
		common.pieces.push(piece);
		const [mass, volume] = [quantities.mass[row]!, volumeOf(clause, row)];
		// What trims clip is less than what it is made of.
		const share = group.left?.[row] || 1;
		if (sums === 'Qto_MemberBaseQuantities')
			file.quantities(piece, address, sums, [
				['LENGTH', 'Length', quantities.cutLength[row]!],
				...bothOf(volume, mass, share)
			]);
		if (sums === 'Qto_PlateBaseQuantities')
			file.quantities(piece, address, sums, [
				...widthOf(layered),
				['LENGTH', 'Perimeter', measured('perimeter', row)],
				['AREA', 'GrossArea', measured('area', row) / 1e6],
				...bothOf(volume, mass, share)
			]);
		const points = anchorPoints(face, group, row);
		const [nodes, coordinates]: [string[], string[]] = [[], []];
		for (const point of points) {
			nodes.push(told.node(point));
			coordinates.push(told.place(point));
		}
		const own: [...Properties] = [
			['Address', typed('IFCIDENTIFIER', text(address))],
			['Mark', typed('IFCIDENTIFIER', text(mark))],
			['Mass', { type: 'IFCMASSMEASURE', value: mass }],
			['AnchorNodes', nodes],
			['AnchorCoordinates', coordinates]
		];
		if (group.over === 'cell')
			own.push(
				['CellArea', { type: 'IFCAREAMEASURE', value: measured('area', row) / 1e6 }],
				['Warp', { type: 'IFCLENGTHMEASURE', value: measured('warp', row) }]
			);
		if (group.over === 'node') own.push(['Lines', typed('IFCCOUNTMEASURE', real(group.corners))]);
		if (flagged.has(row)) {
			const flags = flagTexts(group, row);
			own.push(['Flags', flags.map((flag) => typed('IFCTEXT', text(flag)))]);
		}
		file.properties(piece, address, 'Zygaster_Piece', own);
	}
	return made;
}
