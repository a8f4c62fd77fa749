import type { Material } from '$core/project/material-schema';
import type { Lie } from '$core/cladding/lie';
import { isBare, type Assignment } from '$core/cladding/assign';
import type { GridSite } from '$core/cladding/sites';
import { pieceQuantities } from '$core/cladding/quantities';
import { besideName } from '$core/cladding/beside';
import type { FlagTable } from '$core/cladding/flag-table';
import { failedRows } from '$core/schedule/pieces';
import type { ClauseGroup, FaceModel, Model, ZoneModel } from '$core/cladding/model';
import type { NodeGrid } from '$core/grid/node-grid';
import { shapeOf, type FaceShape } from '$core/measure/face-shape';
import { shareWithin, type Box, type Place } from '$core/geometry/polygon';
import type { FaceSun } from '$core/field/field';
import type { Face } from '$core/mass/face';
import { inputKind, setKey } from '$core/part/inputs';
import { boundsOf } from '$core/part/places';
import { inSharedMemory } from '$core/part/shared-memory';
import type { ElementShape } from '$core/part/element-table';
import { columnValues } from '$core/field/column';
import { fieldOf } from '$core/field/fields';
import type { Role } from '$core/project/part-definition';
import { onFace } from '$core/mass/trim/project';
import type { RimMeeting } from '$core/pattern/shared-rims';
import { measureKey } from '$core/schedule/table';
import type { NumberKind } from '$core/units/dimension';
import type { Problem } from '$core/units/problem';

/** What the interface needs of a face: its cells, lines and nodes, and what fields are read from. */
export interface FaceView extends Pick<
	FaceModel,
	| 'serial'
	| 'address'
	| 'cells'
	| 'edges'
	| 'chains'
	| 'folds'
	| 'measures'
	| 'usedNodes'
	| 'slots'
	| 'slivers'
	| 'layer'
	| 'sharedEdges'
> {
	/** Nodes that trims and patterns made come after those of the grid. */
	readonly grid: Omit<NodeGrid, 'u' | 'v' | 'absent' | 'rims'>;
}

/** One element of a group, ready to draw: mm from `origin`. */
export interface ElementView {
	readonly material: Material;
	readonly shape: ElementShape;
	readonly count: number;
	/** A box round all of them: low x y z, then high. */
	readonly bounds: Float32Array;
	readonly row: Uint32Array;
}

export interface GroupView {
	readonly serial: number;
	readonly clause: { readonly kind: 'rule' | 'run' | 'nodes' | 'exception'; readonly id: string };
	/** It is put beside others on the same sites. */
	readonly beside: boolean;
	readonly face: number;
	readonly part: string;
	readonly role: Role;
	readonly variant: string;
	readonly variantId: string;
	/** What its pieces hang on, and the site of each. */
	readonly over: GridSite;
	readonly sites: Uint32Array;
	/** Of their cells; lines that meet at their nodes. */
	readonly corners: number;
	/** How its pieces lie on their cells. */
	readonly lie: Lie;
	readonly origin: readonly [number, number, number];
	readonly elements: readonly ElementView[];
	readonly mass: Float64Array;
	/** Sites whose pieces could not be made. */
	readonly failed: Uint32Array;
	readonly perPiece: ReadonlyMap<string, Float64Array>;
	/** How much of each piece is left where trims clip it, by volume; null where none does. */
	readonly left: Float64Array | null;
	/** The lines of each piece, where several are joined to one bar. */
	readonly bars: readonly (readonly number[])[] | null;
	/** Of the lines and chains that its pieces run along (mm). */
	readonly length: number;
	/** What the part measures, NaN where a piece could not be made, and what its inputs are set to piece by piece. */
	readonly measures: readonly {
		readonly key: string;
		readonly label: string;
		readonly kind: NumberKind;
		readonly values: Float64Array;
	}[];
}

/** What is told of the pieces of a group. */
export interface ToldView {
	readonly serial: number;
	readonly flags: FlagTable;
}

/** A part of the model that the interface has already. */
export interface Unchanged {
	readonly serial: number;
	readonly unchanged: true;
}

export interface ZoneMessage {
	readonly id: string;
	readonly behind: boolean;
	readonly faces: readonly (FaceView | Unchanged)[];
	readonly groups: readonly (GroupView | Unchanged)[];
	/** Of each group. */
	readonly told: readonly (ToldView | Unchanged)[];
	/** The sun over each face. */
	readonly suns: readonly FaceSun[];
	readonly assignments: readonly Assignment[];
	/** It stands behind another and no rule puts anything on its cells: they are no cells of the facade. */
	readonly bare: boolean;
	readonly meetings: readonly RimMeeting[];
}

/** The face of a mass as it is shaped, mm from `origin`. */
export interface ShapeView extends Omit<FaceShape, 'samples' | 'deviations'> {
	readonly columns: number;
	readonly rows: number;
	readonly origin: readonly [number, number, number];
	readonly positions: Float32Array;
	readonly normals: Float32Array;
	readonly gaussians: Float32Array;
	readonly means: Float32Array;
	readonly deviations: Float32Array | null;
	/** Segments along the trims, mm from `origin`. */
	readonly trimLines: Float32Array;
}

export interface MassShapes {
	readonly serial: number;
	readonly faces: readonly ShapeView[];
}

export interface MassMessage {
	readonly id: string;
	readonly behind: boolean;
	readonly shapes: MassShapes | Unchanged;
}

export interface ModelMessage {
	/** More of the same run is to come. */
	readonly partial: boolean;
	readonly masses: readonly MassMessage[];
	readonly zones: readonly ZoneMessage[];
	/** Points of every guide that follow one another, flat x y z (mm). */
	readonly guides: readonly { readonly id: string; readonly points: Float64Array }[];
	readonly problems: readonly Problem[];
	readonly ms: Model['ms'];
	/** Milliseconds of the whole run, drawing buffers included. */
	readonly total: number;
}

export function faceView(face: FaceModel): FaceView {
	const {
		serial,
		address,
		cells,
		edges,
		chains,
		folds,
		measures,
		usedNodes,
		slots,
		slivers,
		layer,
		sharedEdges
	} = face;
	const { across, up, columns, rows, positions, normals, courseLengths, extraI, extraJ, flat, off, poles } =
		face.grid;
	return {
		serial,
		address,
		cells,
		edges,
		chains,
		folds,
		measures,
		usedNodes,
		slots,
		slivers,
		layer,
		sharedEdges,
		grid: {
			across,
			up,
			columns,
			rows,
			positions,
			normals,
			courseLengths,
			extraI,
			extraJ,
			flat,
			off,
			poles
		}
	};
}

/** Curves of trims are drawn in so many straight pieces between two of their corners. */
const TRIM_PIECES = 3;

/** The trims of a face as segments in space, as far as they lie on it. */
function trimSegments(face: Face, origin: readonly number[]): Float32Array {
	const segments: number[] = [];
	const { knotsU, knotsV } = face.surface;
	const across = face.closedAcross ? [-Infinity, Infinity] : [knotsU[0]!, knotsU.at(-1)!];
	const box: Box = { low: [across[0]!, knotsV[0]!], high: [across[1]!, knotsV.at(-1)!] };
	const push = (place: Place) => segments.push(...onFace(face, place).map((value, k) => value - origin[k]!));
	for (const { curves } of face.trims)
		for (const { places, run } of curves)
			for (let k = 0; k < (run === 'closed' ? places.length : places.length - 1); k++) {
				const [[ax, ay], [bx, by]] = [places[k]!, places[(k + 1) % places.length]!];
				const on = shareWithin([ax, ay], [bx, by], box);
				if (!on) continue;
				for (let s = 0; s < TRIM_PIECES; s++)
					for (const step of [s, s + 1]) {
						const t = on[0] + (step / TRIM_PIECES) * (on[1] - on[0]);
						push([ax + t * (bx - ax), ay + t * (by - ay)]);
					}
			}
	return Float32Array.from(segments);
}

function shapeView(face: Face): ShapeView {
	const { samples, deviations, ...shape } = shapeOf(face);
	const origin = [0, 1, 2].map((k) => Math.round(samples.points[k]!)) as [number, number, number];
	const { points } = samples;
	const positions = new Float32Array(points.length);
	for (let k = 0; k < points.length; k += 3) {
		positions[k] = points[k]! - origin[0];
		positions[k + 1] = points[k + 1]! - origin[1];
		positions[k + 2] = points[k + 2]! - origin[2];
	}
	return {
		...shape,
		trimLines: trimSegments(face, origin),
		columns: samples.columns,
		rows: samples.rows,
		origin,
		positions,
		normals: new Float32Array(samples.normals),
		gaussians: new Float32Array(samples.gaussian),
		means: new Float32Array(samples.mean),
		deviations: deviations && new Float32Array(deviations)
	};
}

function clauseOf(clause: ClauseGroup['clause']): GroupView['clause'] {
	if (clause.kind === 'rule') return { kind: 'rule', id: clause.rule.id };
	if (clause.kind === 'run') return { kind: 'run', id: clause.run.id };
	if (clause.kind === 'nodes') return { kind: 'nodes', id: clause.placing.id };
	return { kind: 'exception', id: clause.id };
}

/** What the parts of pieces report as numbers. */
function measuresOf(group: ClauseGroup['group'], failed: readonly number[]): GroupView['measures'] {
	return group.ready.part.measures.flatMap(({ name, label, kind }) => {
		if (kind === 'switch') return [];
		const values = group.run.results.get(name)!.slice();
		for (const row of failed) values[row] = NaN;
		return [{ key: measureKey(label, kind), label, kind, values }];
	});
}

/** What the clause set piece by piece, as numbers that can be looked at in colour. */
function setValues(group: ClauseGroup['group']): GroupView['measures'] {
	return [...group.perPiece].flatMap(([name, values]) => {
		const input = group.ready.part.inputs.find((one) => one.name === name)!;
		const kind = inputKind(input);
		if (!kind || kind === 'switch' || input.options) return [];
		return [{ key: setKey(input.label, kind), label: `${input.label}, as it is set`, kind, values }];
	});
}

/** How long the lines and chains are that pieces run along, all in all (mm). */
function lengthOf(face: FaceModel, { over, sites, bars }: ClauseGroup['group']): number {
	if (over !== 'line' && over !== 'chain') return 0;
	const along = bars ? Uint32Array.from(bars.flat()) : sites;
	const lengths = columnValues(fieldOf(over, 'length').column(face, along), along.length);
	return lengths.reduce((sum, one) => sum + one, 0);
}

function groupView(zone: ZoneModel, clause: ClauseGroup): GroupView {
	const { group, serial } = clause;
	const failed = failedRows(group);
	return {
		serial,
		clause: clauseOf(clause.clause),
		beside: besideName(clause) !== '',
		face: clause.face,
		part: group.ready.part.label,
		role: group.ready.part.role,
		variant: group.ready.variant.name,
		variantId: group.ready.variant.id,
		over: group.over,
		sites: group.sites,
		corners: group.corners,
		lie: group.lie,
		origin: zone.faces[clause.face]!.origin,
		elements: group.run.elements.map((table) => ({
			material: group.ready.materials[table.element]!,
			shape: table.shape,
			count: table.count,
			bounds: boundsOf(table),
			row: table.row
		})),
		mass: pieceQuantities(group).mass,
		failed: Uint32Array.from(failed, (row) => group.sites[row]!),
		measures: [...measuresOf(group, failed), ...setValues(group)],
		perPiece: group.perPiece,
		left: group.left,
		bars: group.bars,
		length: lengthOf(zone.faces[clause.face]!, group)
	};
}

/**
 * The cells of a model whose pieces are still being made, for a page that shows nothing yet. What masses look like is
 * left for later: it takes longer than setting them out.
 */
export const cellsMessage = (model: Model, known: Set<string>, started: number): ModelMessage => ({
	...modelMessage({ ...model, masses: [] }, known, started),
	partial: true
});

/** What changed since the interface was last told; `known` is brought up to date. */
export function modelMessage(model: Model, known: Set<string>, started: number): ModelMessage {
	const sent = new Set<string>();
	const once = <T extends { serial: number }>(kind: string, serial: number, make: () => T): T | Unchanged => {
		const key = `${kind} ${serial}`;
		sent.add(key);
		return known.has(key) ? { serial, unchanged: true } : inSharedMemory(make());
	};
	const masses = model.masses.map(({ id, behind, serial, faces }): MassMessage => ({
		id,
		behind,
		shapes: once('mass', serial, () => ({ serial, faces: faces.map(shapeView) }))
	}));
	const zones = model.zones.map(({ id, model: zone, behind }): ZoneMessage => ({
		id,
		behind,
		faces: (zone?.faces ?? []).map((face) => once('face', face.serial, () => faceView(face))),
		groups: (zone?.groups ?? []).map((group) => once('group', group.serial, () => groupView(zone!, group))),
		told: (zone?.groups ?? []).map((group) =>
			once('told', group.told, () => ({
				serial: group.told,
				flags: group.group.flags.table()
			}))
		),
		suns: inSharedMemory(zone?.suns ?? []),
		assignments: inSharedMemory(zone?.assignments ?? []),
		bare: zone !== null && isBare(zone.zone),
		meetings: zone?.meetings ?? []
	}));
	known.clear();
	for (const key of sent) known.add(key);
	const guides = [...model.guides].map(([id, points]) => ({ id, points: Float64Array.from(points.flat()) }));
	return {
		partial: false,
		masses,
		zones,
		guides,
		problems: model.problems,
		ms: model.ms,
		total: performance.now() - started
	};
}
