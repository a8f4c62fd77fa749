import type { Chain } from '$core/chain/chain';
import { worstBeyond } from '$core/cladding/flag-table';
import type { Model } from '$core/cladding/model';
import { findMoves, type FoundMoves } from '$core/moves/find-moves';
import type { Project, Zone } from '$core/project/schema';
import { pathTo } from '$core/project/typed-path';
import { cladFigures, type CladFigures } from '$core/schedule/clad-figures';
import { layoutFigures, type LayoutFigures } from '$core/schedule/layout-figures';
import { ProblemError, type Problem } from '$core/units/problem';
import { withPauses } from '$core/units/steps';
import { faceView, type FaceView } from './views';

/** Waits between the steps of what is tried, and may tell there how far it is. */
type Pause = (tell?: () => void) => Promise<void>;

/** What a project comes to that is tried: of one zone. */
export type ProjectTrial =
	| {
			/** Pieces that go beyond the limit, and all that something is told of. */
			readonly beyond: number;
			readonly flagged: number;
			readonly pieces: number;
	  }
	| { readonly problem: string };

/** Moves of nodes as they were found, or what is wrong with the clause that asks for them. */
export type MovesFound = FoundMoves | { readonly problem: Problem };

/** A zone laid out on trial. */
export type LayoutTrial =
	{ readonly faces: readonly FaceView[]; readonly figures: LayoutFigures } | { readonly problem: string };

/** A zone with nothing on it. */
const bare = (zone: Zone): Zone => ({ ...zone, rules: [], runs: [], nodes: [], exceptions: [] });

/** Those that a zone is set out as, with nothing on them. */
const setOutBefore = (project: Project, zone: Zone): Zone[] =>
	project.zones.filter(({ id }) => id === zone.setOutAs).map(bare);

/** Count what is told of the pieces of a zone, of a limit among it. */
function countTold({ zones, problems }: Model, zone: string, limit: string): ProjectTrial {
	const made = zones.find(({ model }) => model?.zone.id === zone);
	if (!made?.model || made.behind) return { problem: problems[0]?.text ?? 'it cannot be made' };
	let [beyond, flagged, pieces] = [0, 0, 0];
	for (const { group } of made.model.groups) {
		pieces += group.sites.length;
		const flags = group.flags.table();
		flagged += group.flags.rows().length;
		beyond += worstBeyond(flags, limit).rows.length;
	}
	return { beyond, flagged, pieces };
}

/** What a zone comes to in another project. */
export async function tryProject(
	chain: Chain,
	project: Project,
	zone: string,
	limit: string,
	pause: Pause
): Promise<ProjectTrial> {
	return countTold(await chain.run(project, { step: () => pause() }), zone, limit);
}

/** One zone with other settings, set out by itself: its cells and what they come to, or what is wrong. */
export async function tryLayout(chain: Chain, project: Project, zone: Zone): Promise<LayoutTrial> {
	const { zones, problems } = await chain.run({ ...project, zones: [bare(zone)] });
	const faces = zones[0]?.behind ? null : zones[0]?.model?.faces;
	if (!faces) return { problem: problems[0]?.text ?? 'it cannot be made' };
	return { faces: faces.map(faceView), figures: layoutFigures(faces) };
}

/** What a zone comes to with other settings and all that is put on it. */
export async function tryCladding(
	chain: Chain,
	project: Project,
	zone: Zone,
	pause: Pause
): Promise<CladFigures> {
	const alone = { ...project, zones: [zone, ...setOutBefore(project, zone)] };
	const made = await chain.run(alone, { step: () => pause() });
	return withPauses(cladFigures(made), () => pause());
}

/** How the nodes of a zone are moved best for one of its clauses. @param progress takes the share that is done */
export async function tryMoves(
	chain: Chain,
	project: Project,
	zone: Zone,
	clause: string,
	pause: Pause,
	progress: (share: number) => void
): Promise<MovesFound> {
	const before = zone.moves.findIndex(({ id }) => id === clause);
	const asBefore = { ...bare(zone), layer: null, moves: zone.moves.slice(0, before) };
	const alone = { ...project, zones: [asBefore, ...setOutBefore(project, zone)] };
	const { zones, problems } = await chain.run(alone, { step: () => pause() });
	const faces = zones[0]?.behind ? undefined : zones[0]?.model?.faces;
	if (!faces) return { problem: problems[0]! };
	const levels = project.levels.map(({ height }) => height);
	const at = pathTo('zones', zone.id, 'moves', clause);
	try {
		return await withPauses(findMoves(faces, zone.moves[before]!, project.like, levels, at), (share) =>
			pause(() => progress(share))
		);
	} catch (error) {
		if (error instanceof ProblemError) return { problem: error.problem };
		throw error;
	}
}
