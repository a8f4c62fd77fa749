import type { Vector } from '../geometry/vector';
import type { Face } from '../mass/face';
import { massAtLevels, massFaces } from '../mass/faces';
import { guidePoints } from '../mass/guides';
import { refuse } from '../units/problem';
import type { Kept } from './memo';
import type { Run } from './stage';
import { pathTo } from '../project/typed-path';

/** The faces of a mass. @param at the clause that asks for them @throws ProblemError */
export function facesOfMass({ project, files, memo, timed }: Run, id: string, at: string): Kept<Face[]> {
	const mass = project.masses.find((one) => one.id === id);
	if (!mass) {
		const known = project.masses.map((one) => one.id).join(', ') || 'none yet';
		return refuse(at, `the mass "${id}" does not exist; known: ${known}`);
	}
	const fixed = massAtLevels(mass, project.levels);
	return memo.use(['mass', id], [fixed], () => timed('surface', () => massFaces(files.whole(fixed))));
}

export type Guides = ReadonlyMap<string, readonly Vector[]>;

/** The guides of some names, as points (mm); names that are not there are left out. @throws ProblemError */
export function guidesNamed(run: Run, ids: readonly string[]): Guides {
	const found = new Map<string, readonly Vector[]>();
	for (const guide of run.project.guides) {
		if (!ids.includes(guide.id)) continue;
		const faces = guide.on === 'map' ? facesOfMass(run, guide.mass, pathTo('guides', guide.id)) : null;
		const points = run.memo.use(['guide', guide.id], [guide, faces], () =>
			guidePoints(guide, (_, name) => faces?.value.find((one) => one.name === name))
		);
		found.set(guide.id, points.value);
	}
	return found;
}
