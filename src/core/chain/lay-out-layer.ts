import type { SetOutFace } from '../cladding/model';
import { shiftedOffsets } from '../grid/displaced';
import { shiftedGrid } from '../grid/shifted';
import { guidesOfPattern } from '../pattern/lay-cells';
import type { Zone } from '../project/schema';
import type { StandingOf } from '../project/standing-schema';
import { pathTo } from '../project/typed-path';
import { refuse } from '../units/problem';
import { layOutFace, type SetOutFaces } from './lay-out-face';
import { guidesNamed } from './masses';
import type { Kept } from './memo';
import { rootOf, zoneNamed } from './other-zones';
import type { Run } from './stage';

/**
 * A grid behind or before the one of another zone, with a pattern of its own.
 *
 * @param setOutFaces the faces of a zone with the grids on them @throws ProblemError
 */
export async function layOutLayer(
	run: Run,
	zone: Zone,
	on: StandingOf<'layer'>,
	setOutFaces: (parent: Zone) => SetOutFaces
): Promise<Kept<SetOutFace>[]> {
	const at = pathTo('zones', zone.id) + '/on/of';
	const parent = zoneNamed(run, on.of, at);
	if (parent.on.is !== 'faces') {
		const root = rootOf(run.project, parent);
		refuse(
			at,
			`${parent.name} does not stand on faces itself; a grid lies behind a zone that does, at a depth from there`,
			root && root !== zone ? [{ label: root.name, path: at, value: root.id }] : []
		);
	}
	const { found, grids, offsets } = setOutFaces(parent);
	const follow = { levels: [], guides: guidesNamed(run, guidesOfPattern(zone.pattern)) };
	const laid: Kept<SetOutFace>[] = [];
	for (const [k, one] of found.entries()) {
		await run.pause();
		const slot = [zone.id, one.mass, one.face.name];
		const { across, up } = grids[k]!.value;
		if (on.shifted && ((across.steps < 2 && !across.closed) || (up.steps < 2 && !up.closed)))
			refuse(
				pathTo('zones', zone.id) + '/on/shifted',
				`a shifted grid needs two steps each way; ${one.face.name} has ${across.steps} by ${up.steps}`
			);
		const grid = on.shifted
			? run.memo.use(['shifted', ...slot], [grids[k]!], () =>
					run.timed('grid', () => shiftedGrid(one.face.surface, grids[k]!.value))
				)
			: grids[k]!;
		const moved = offsets[k]!;
		const own = moved && on.shifted ? shiftedOffsets(grids[k]!.value, grid.value, moved) : moved;
		laid.push(layOutFace(run, zone, { ...one, slot }, grid, own, follow, on.depth));
	}
	return laid;
}
