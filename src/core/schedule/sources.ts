import type { ElementTable } from '../part/element-table';
import { besideName } from '../cladding/beside';
import type { ClauseGroup, FaceModel, Model, ZoneModel } from '../cladding/model';
import { siteSetOf, type SiteSet } from '../cladding/sites';
import { pieceKindsOf, type PieceKinds } from '../like/bars-and-nodes';
import { kindsOf, type Kinds } from '../like/kinds';
import { pieceMarks } from '../mark/marks-of';
import { once } from '../units/once';
import { atOnce } from '../units/steps';
import { anchorTable, type AnchorTable } from './anchor-table';
import { pieceQuantities, type PieceQuantities } from '../cladding/quantities';
import { failedRows } from './pieces';

/** What is known of a model beyond its groups, each when it is first asked for. */
interface ModelSource {
	/** The cells of the model by what is alike; its bars, and its pieces on nodes. */
	readonly kinds: () => Kinds;
	readonly barKinds: () => PieceKinds;
	readonly nodeKinds: () => PieceKinds;
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
	/** What its pieces are called, and the full addresses of what they hang on. */
	readonly marks: () => readonly string[];
	readonly addresses: () => readonly string[];
	readonly anchors: () => AnchorTable;
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

function groupSource(
	zone: ZoneModel,
	z: number,
	clause: ClauseGroup,
	model: ModelSource,
	markOf: ReturnType<typeof pieceMarks>
): GroupSource {
	const { group } = clause;
	const face = zone.faces[clause.face]!;
	const sites = siteSetOf(face, group.over);
	const [before, beside] = [`${zone.zone.id}/`, besideName(clause)];
	return {
		...model,
		zone,
		z,
		face,
		clause,
		group,
		sites,
		marks: once(() => Array.from(group.sites, (_, row) => markOf(zone, clause, row))),
		addresses: once(() => Array.from(group.sites, (site) => before + sites.address(site) + beside)),
		anchors: once(() => anchorTable(face, group)),
		quantities: () => pieceQuantities(group),
		failed: once(() => new Set(failedRows(group)))
	};
}

const known = new WeakMap<Model, readonly GroupSource[]>();

/**
 * The groups of all zones of a model. What is reckoned for one list is there for the next: marks, addresses, kinds and
 * quantities stand in most of them.
 *
 * ```ts
 * const marks = sourcesOf(model).flatMap((source) => source.marks());
 * ```
 */
export function sourcesOf(model: Model): readonly GroupSource[] {
	const before = known.get(model);
	if (before) return before;
	const { like } = model.project;
	const source: ModelSource = {
		kinds: once(() => atOnce(kindsOf(model, like))),
		barKinds: once(() => atOnce(pieceKindsOf(model, 'line', like))),
		nodeKinds: once(() => atOnce(pieceKindsOf(model, 'node', like)))
	};
	const markOf = pieceMarks(model);
	const sources = model.zones.flatMap(
		({ model: zone }, z) => zone?.groups.map((clause) => groupSource(zone, z, clause, source, markOf)) ?? []
	);
	known.set(model, sources);
	return sources;
}
