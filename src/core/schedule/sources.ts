import type { ElementTable } from '../part/element-table';
import type { ClauseGroup, FaceModel, ZoneModel } from '../cladding/model';
import { siteSetOf, type SiteSet } from '../cladding/sites';
import type { PieceKinds } from '../like/bars-and-nodes';
import type { Kinds } from '../like/kinds';
import type { pieceMarks } from '../mark/marks-of';
import { once } from '../units/once';
import { pieceQuantities, type PieceQuantities } from '../cladding/quantities';
import { failedRows } from './pieces';

/** What is known of a model beyond its groups, each when it is first asked for. */
export interface ModelSource {
	/** The cells of the model by what is alike; its bars, and its pieces on nodes. */
	readonly kinds: () => Kinds;
	readonly barKinds: () => PieceKinds;
	readonly nodeKinds: () => PieceKinds;
	/** What pieces are called. */
	readonly markOf: ReturnType<typeof pieceMarks>;
}

/** A group of pieces, as the columns of a schedule are read from it. */
export interface GroupSource extends ModelSource {
	readonly zone: ZoneModel;
	/** Its zone's place in the project. */
	readonly z: number;
	readonly face: FaceModel;
	readonly clause: ClauseGroup;
	readonly group: ClauseGroup['group'];
	readonly sites: SiteSet;
	readonly quantities: () => PieceQuantities;
	/** Rows of pieces that could not be made. */
	readonly failed: () => ReadonlySet<number>;
}

/** Rows of one group: of its pieces, or of what is ordered for them. */
export interface Refs {
	readonly tables: readonly ElementTable[];
	/** Which of the tables, which place in it; of pieces themselves neither means anything. */
	readonly table: Uint32Array;
	readonly at: Uint32Array;
	/** The piece. */
	readonly row: Uint32Array;
	/** Counts the elements of a piece from 1. */
	readonly count: Uint32Array;
}

export function groupSource(
	zone: ZoneModel,
	z: number,
	clause: ClauseGroup,
	model: ModelSource
): GroupSource {
	const { group } = clause;
	const face = zone.faces[clause.face]!;
	return {
		...model,
		zone,
		z,
		face,
		clause,
		group,
		sites: siteSetOf(face, group.over),
		quantities: once(() => pieceQuantities(group)),
		failed: once(() => new Set(failedRows(group)))
	};
}
