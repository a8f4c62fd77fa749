import { nodeAddress } from '../cladding/address';
import { markPrefix, nodeMark } from '../cladding/marks';
import type { FaceModel, ZoneModel } from '../cladding/model';
import { outlineOf } from '../pattern/cells';
import { columnOf, numberHead, textHead, type Cell, type ColumnHead } from './column';

/** A setting-out point. mm; the normal has length 1 and points outside. */
export interface NodeRow {
	readonly node: number;
	readonly mark: string;
	/** zone/face/N/course line/bay line; further points of a trim or pattern are counted. */
	readonly address: string;
	/** Lines count from 1, from the left and the foot; points between have none. */
	readonly course: number | null;
	readonly bay: number | null;
	readonly point: readonly [number, number, number];
	readonly normal: readonly [number, number, number];
}

const triple = (list: Float64Array, k: number) => [list[3 * k]!, list[3 * k + 1]!, list[3 * k + 2]!] as const;

/** The points of a face that its cells hang on, course line by course line. */
export function nodeRows(zone: ZoneModel, f: number): NodeRow[] {
	const { grid, cells, address }: FaceModel = zone.faces[f]!;
	const own = grid.columns * grid.rows;
	const prefix = markPrefix(zone.zone.code, zone.faces.length, f);
	return Array.from(new Set<number>(outlineOf(cells).nodes))
		.sort((a, b) => a - b)
		.map((node): NodeRow => {
			const between = node >= own;
			return {
				node,
				mark: nodeMark(prefix, grid, node),
				address: `${zone.zone.id}/${nodeAddress(address, grid, node)}`,
				course: between ? null : Math.floor(node / grid.columns) + 1,
				bay: between ? null : (node % grid.columns) + 1,
				point: triple(grid.positions, node),
				normal: triple(grid.normals, node)
			};
		});
}

type NodeColumn = ColumnHead & { readonly read: (row: NodeRow, zone: ZoneModel) => Cell };
const columns: readonly NodeColumn[] = [
	{ ...textHead('mark', 'Mark'), read: ({ mark }) => mark },
	{ ...textHead('address', 'Address'), read: ({ address }) => address },
	{ ...textHead('zone', 'Zone'), read: (_, { zone }) => zone.name },
	{ ...numberHead('course', 'Course line', 'count'), read: ({ course }) => course },
	{ ...numberHead('bay', 'Bay line', 'count'), read: ({ bay }) => bay },
	...['x', 'y', 'z'].map((axis, k): NodeColumn => ({
		...numberHead(axis, axis, 'length'),
		read: ({ point }) => point[k]!
	})),
	...['x', 'y', 'z'].map((axis, k): NodeColumn => ({
		...numberHead(`normal_${axis}`, `Normal ${axis}`, 'ratio'),
		read: ({ normal }) => normal[k]!
	}))
];

/** The setting-out points of all zones, zone by zone and face by face. */
export function nodeTable(zones: readonly (ZoneModel | null)[]) {
	const rows = zones.flatMap((zone) =>
		zone ? zone.faces.flatMap((_, f) => nodeRows(zone, f).map((row) => ({ row, zone }))) : []
	);
	return {
		rows: rows.length,
		columns: columns.map(({ read, ...head }) =>
			columnOf(
				head,
				rows.map(({ row, zone }) => read(row, zone))
			)
		)
	};
}
