import type { JoinedFaces } from '../cladding/join-rims';
import { joinWebs } from '../cladding/join-webs';
import type { FaceModel, ZoneModel } from '../cladding/model';
import type { MetNet } from '../pattern/nodes';
import type { Zone } from '../project/schema';
import { websAt } from '../project/webs-at';
import type { Kept } from './memo';
import type { Run } from './stage';

/** Webs that end at the nodes of a zone which asks for them. */
export const websMet = (zones: readonly Zone[], zone: Zone): readonly Zone[] =>
	zone.meetsWebs ? websAt(zones, zone.id) : [];

/** A zone's faces with the lines of webs at their nodes, and the webs as they are clad, in the order of those lines. */
export interface WithWebs {
	readonly joined: Kept<JoinedFaces>;
	readonly webs: readonly { readonly face: FaceModel; readonly model: ZoneModel; readonly f: number }[];
}

/** @param webs that end at its nodes, as they are clad */
export function withWebs(
	{ memo }: Run,
	zone: Zone,
	joined: Kept<JoinedFaces>,
	webs: readonly ZoneModel[]
): WithWebs {
	if (!webs.length) return { joined, webs: [] };
	const nets = webs.flatMap((model) => model.faces.map((face, f) => ({ face, model, f })));
	const met = nets.map(({ face: net, model: { zone: web }, f }): MetNet => {
		const isFirst = web.on.is === 'web' && web.on.from === zone.id;
		const own = joined.value.faces[f]!.grid.positions.length / 3;
		return { net, face: f, from: isFirst ? 0 : net.grid.positions.length / 3 - own };
	});
	const serials = nets.map(({ face }) => face.serial);
	return {
		joined: memo.use(['with webs', zone.id], [joined, serials], () =>
			joinWebs(joined.value, met, () => memo.nextSerial())
		),
		webs: nets
	};
}
