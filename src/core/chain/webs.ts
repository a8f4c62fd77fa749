import { joinWebs } from '../cladding/join-webs';
import type { JoinedFaces } from '../cladding/join-rims';
import type { ClauseGroup, FaceModel } from '../cladding/model';
import type { OtherBar } from '../cladding/cut-ends';
import { chordsOf } from '../cladding/other-bars';
import type { MetNet } from '../pattern/nodes';
import type { Zone } from '../project/schema';
import { websAt } from '../project/webs-at';
import type { Kept } from './memo';
import type { Run } from './stage';

export const isWeb = ({ on }: Zone): boolean => on.is === 'web';

/** A web as it is laid out. */
export interface LaidWeb {
	readonly web: Zone;
	readonly laid: Kept<JoinedFaces>;
}

/** Webs that end at the nodes of a zone which asks for them. @param laidOut all zones, in their order */
export const websMet = (
	zones: readonly Zone[],
	zone: Zone,
	laidOut: readonly (Kept<JoinedFaces> | null)[]
): LaidWeb[] =>
	(zone.meetsWebs ? websAt(zones, zone.id) : []).flatMap((web) => {
		const laid = laidOut[zones.indexOf(web)];
		return laid ? [{ web, laid }] : [];
	});

/** A face of a web whose lines end at the nodes of another zone. */
export interface MetWeb {
	readonly face: FaceModel;
	readonly web: Zone['id'];
	readonly f: number;
}

/** A zone's faces with the lines of webs at their nodes, and these webs in the order of their lines. */
export interface WithWebs {
	readonly joined: Kept<JoinedFaces>;
	readonly nets: readonly MetWeb[];
}

/** The number in a web of the first node of the second grid, on a face: it comes behind those of the first. */
const secondFrom = (web: FaceModel, grid: FaceModel): number =>
	(web.grid.positions.length - grid.grid.positions.length) / 3;

/** @param webs that end at its nodes */
export function withWebs(
	{ memo }: Run,
	zone: Zone,
	joined: Kept<JoinedFaces>,
	webs: readonly LaidWeb[]
): WithWebs {
	if (!webs.length) return { joined, nets: [] };
	const met = webs.flatMap(({ web: { id, on }, laid }) =>
		laid.value.faces.map((face, f): MetWeb & { net: MetNet } => {
			const isFirst = on.is === 'web' && on.from === zone.id;
			const from = isFirst ? 0 : secondFrom(face, joined.value.faces[f]!);
			return { face, web: id, f, net: { net: face, face: f, from } };
		})
	);
	const serials = met.map(({ face }) => face.serial);
	return {
		joined: memo.use(['with webs', zone.id], [joined, serials], () =>
			joinWebs(
				joined.value,
				met.map(({ net }) => net),
				() => memo.nextSerial()
			)
		),
		nets: met
	};
}

/** One of the two grids that a web joins, and what stands on its lines by face. */
export interface Chords {
	readonly isFirst: boolean;
	readonly joined: JoinedFaces;
	readonly onLines: readonly (readonly ClauseGroup[])[];
}

/** The two grids that a web joins, as far as they stand; none of a zone that is no web. @param begun by their zones */
export const chordsOfWeb = ({ on }: Zone, begun: ReadonlyMap<string, Omit<Chords, 'isFirst'>>): Chords[] =>
	on.is !== 'web'
		? []
		: [on.from, on.to].flatMap((id, k) => {
				const grid = begun.get(id);
				return grid ? [{ ...grid, isFirst: k === 0 }] : [];
			});

/** The bars of both grids as a face of the web between them meets them. */
export const chordsAt = (web: FaceModel, f: number, chords: readonly Chords[]): OtherBar[] =>
	chords.flatMap(({ isFirst, joined, onLines }) =>
		chordsOf(joined, f, onLines, isFirst ? 0 : secondFrom(web, joined.faces[f]!))
	);
