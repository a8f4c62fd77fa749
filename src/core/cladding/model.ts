import type { Assignment } from './assign';
import type { CladFace } from './given-columns';
import type { PieceGroup } from './pieces';
import type { FaceSun } from '../field/field';
import type { Vector } from '../geometry/vector';
import type { Face } from '../mass/face';
import type { LayerGrid } from '../grid/layer';
import type { RimMeeting } from '../pattern/shared-rims';
import type { Slivers } from '../pattern/slivers';
import type { NodePlacing, Project, Rule, Run, Zone } from '../project/schema';
import type { Problem } from '../units/problem';

/** A face of a zone, set out and joined to cells. Area mm². */
export interface FaceModel extends CladFace {
	/** Nets of lines have none. */
	readonly face: Face | null;
	/** Its place in every address: the mass and the face. */
	readonly address: string;
	/** Computed when it is first asked for. */
	readonly area: () => number;
	/** What its net leaves without cells along the rims (mm²). */
	readonly bare: number;
	/** The same cells as they were before trims cut them, for parts that are made whole first. */
	readonly uncut: () => Pick<CladFace, 'cells' | 'measures' | 'centresOnFace'>;
	/** Names of the pattern's slots. */
	readonly slots: readonly string[];
	readonly slivers: Slivers;
	readonly layer: LayerGrid | null;
	/** Edges that are one with an edge of another face: 1 where it is counted here, 2 where it is there. */
	readonly sharedEdges: Uint8Array | null;
	readonly usedNodes: number;
	/** What is to be said of how it was laid behind another, or between two. */
	readonly said: readonly string[];
	/** Changes whenever nodes or cells are made anew. */
	readonly serial: number;
}

/** A face before it is joined to others: whose its nodes are is not known yet. */
export type SetOutFace = Omit<FaceModel, 'nodes'>;

/** Pieces made by one clause on one face. */
export interface ClauseGroup {
	readonly clause:
		| { readonly kind: 'rule'; readonly rule: Rule }
		| { readonly kind: 'run'; readonly run: Run }
		| { readonly kind: 'nodes'; readonly placing: NodePlacing }
		| { readonly kind: 'exception'; readonly id: string };
	readonly face: number;
	readonly group: PieceGroup;
	readonly serial: number;
	/** Changes whenever something else is told of its pieces. */
	readonly told: number;
}

export interface ZoneModel {
	readonly zone: Zone;
	readonly faces: readonly FaceModel[];
	/** The sun over each of them; none while it cannot stand as the project says. */
	readonly suns: readonly FaceSun[];
	readonly assignments: readonly Assignment[];
	readonly groups: readonly ClauseGroup[];
	/** How the rims of its faces get on. */
	readonly meetings: readonly RimMeeting[];
	/** What is to be said at its clauses, though all of it could be made. */
	readonly remarks: readonly Problem[];
}

/** A zone as it stands: its last good model, behind when the document has moved on without it. */
export interface ZoneState {
	readonly id: string;
	readonly model: ZoneModel | null;
	readonly behind: boolean;
}

/** A mass as it stands: the faces of its last good form. */
export interface MassState {
	readonly id: string;
	readonly faces: readonly Face[];
	/** Changes whenever the faces are made anew. */
	readonly serial: number;
	readonly behind: boolean;
}

export const stageNames = ['surface', 'grid', 'cells', 'measures', 'parts'] as const;
export type StageName = (typeof stageNames)[number];

export interface Model {
	readonly project: Project;
	readonly masses: readonly MassState[];
	readonly zones: readonly ZoneState[];
	/** Guides as points in space that follow one another (mm), those that can be followed. */
	readonly guides: ReadonlyMap<string, readonly Vector[]>;
	readonly problems: readonly Problem[];
	/** Milliseconds spent in this run; results that were kept cost nothing. */
	readonly ms: Readonly<Record<StageName, number>>;
}
