import type { ClauseGroup, FaceModel } from '../cladding/model';
import type { FlagRows, PieceFlags } from '../cladding/piece-flags';
import type { PieceGroup } from '../cladding/pieces';
import type { Limit } from '../project/limit-schema';
import type { Material } from '../project/material-schema';
import type { Zone } from '../project/schema';
import type { NumberKind } from '../units/dimension';
import type { Flag } from '../units/flag';
import { inRadians } from '../units/scale';
import type { PieceMeasure } from './measure';

/** A value beyond its bound by less than this share of it is at it. */
const ALMOST = 1e-9;

/** A bound as measures have it: angles in rad. */
export const boundOf = ({ bound }: Limit, kind: NumberKind): number =>
	kind === 'angle' ? inRadians(bound) : bound;

/** Glass is glass, whatever a project calls its own. */
const isMaterial = (wanted: string) => (material: Material) =>
	material.id === wanted || (wanted === 'glass' && material.glass);

/**
 * Whether a limit is about things of some materials.
 *
 * ```ts
 * isAboutMaterials({ material: 'glass' }, group.group.ready.materials); // of some glass
 * ```
 */
export const isAboutMaterials = (
	{ material }: Pick<Limit, 'material'>,
	materials: readonly Material[]
): boolean => material === null || materials.some(isMaterial(material));

/**
 * Whether a limit is about pieces of a group.
 *
 * ```ts
 * const own = limitsOfProject(project).filter((limit) => isAbout(limit, zone, group.group));
 * ```
 */
export function isAbout(limit: Limit, { id }: Pick<Zone, 'id'>, { ready }: PieceGroup): boolean {
	const { muted, zone, part } = limit;
	if (muted || (zone !== null && zone !== id) || (part !== null && part !== ready.part.id)) return false;
	return isAboutMaterials(limit, ready.materials);
}

/** The first value outside a range, or how many there are; what is no number is outside nothing. */
function firstOutside(values: Float64Array, low: number, high: number): number {
	const count = values.length;
	let row = 0;
	if (low === -Infinity) while (row < count && !(values[row]! > high)) row++;
	else while (row < count && !(values[row]! > high) && !(values[row]! < low)) row++;
	return row;
}

/** Pieces of a group that go beyond a limit; null where none does. */
function rowsBeyond(
	limit: Limit,
	measure: PieceMeasure,
	face: FaceModel,
	group: PieceGroup
): FlagRows | null {
	if (measure.over !== null && measure.over !== group.over) return null;
	const bound = boundOf(limit, measure.kind);
	const within = { than: limit.than, bound };
	if (measure.isWithin?.(face, group, within)) return null;
	const isOf = limit.material === null ? () => true : isMaterial(limit.material);
	const values = measure.read(face, group, within, isOf);
	const room = ALMOST * Math.abs(bound);
	const [low, high] = limit.than === 'most' ? [-Infinity, bound + room] : [bound - room, Infinity];
	const first = firstOutside(values, low, high);
	if (first === values.length) return null;
	const is = new Uint8Array(values.length);
	for (let row = first; row < values.length; row++) {
		const value = values[row]!;
		if ((value > high || value < low) && !group.flags.hasFailed(row)) is[row] = 1;
	}
	const says = `the ${measure.label} is beyond its limit`;
	const flag: Flag = {
		code: 'limit.beyond',
		level: 'flagged',
		subject: limit.id,
		says,
		kind: measure.kind,
		value: bound,
		bound
	};
	return { is, values, flag };
}

/**
 * What is told of the pieces of a group, and which of them go beyond limits.
 *
 * ```ts
 * const measures = measuresFor([part], project);
 * const flags = withLimits(limitsOfProject(project), measures, faceModel, group.group);
 * ```
 * @param limits those that are about the group @param measures what they can be of
 */
export function withLimits(
	limits: readonly Limit[],
	measures: readonly PieceMeasure[],
	face: FaceModel,
	group: ClauseGroup['group']
): PieceFlags {
	const beyond = limits.flatMap((limit) => {
		const measure = measures.find(({ id }) => id === limit.of);
		return (measure && rowsBeyond(limit, measure, face, group)) ?? [];
	});
	return beyond.length ? group.flags.withColumns(beyond) : group.flags;
}
