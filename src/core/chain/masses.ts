import type { Vector } from '../geometry/vector';
import type { Face } from '../mass/face';
import { massAtLevels, massFaces, untrimmedFaces } from '../mass/faces';
import type { Mass } from '../project/form-schema';
import { guidePoints } from '../mass/guides';
import { refuse } from '../units/problem';
import type { Kept } from './memo';
import type { Run } from './stage';
import { pathTo } from '../project/typed-path';

/** @param at the clause that asks for it @throws ProblemError */
function massNamed({ project }: Run, id: string, at: string): Mass {
	const mass = project.masses.find((one) => one.id === id);
	if (mass) return massAtLevels(mass, project.levels);
	const known = project.masses.map((one) => one.id).join(', ') || 'none yet';
	return refuse(at, `the mass "${id}" does not exist; known: ${known}`);
}

/** The faces of a mass as its form makes them: what cuts other masses. @throws ProblemError */
function untrimmed(run: Run, id: string, at: string): Kept<Face[]> {
	const { files, memo, timed } = run;
	const mass = { ...massNamed(run, id, at), trims: [] };
	return memo.use(['untrimmed', id], [mass], () => timed('surface', () => untrimmedFaces(files.whole(mass))));
}

/** The faces of a mass. @param at the clause that asks for them @throws ProblemError */
export function facesOfMass(run: Run, id: string, at: string): Kept<Face[]> {
	const { files, memo, timed } = run;
	const mass = massNamed(run, id, at);
	const others = new Map(
		mass.trims.flatMap((trim) => {
			if (trim.by !== 'mass') return [];
			const own = `${pathTo('masses', id)}/trims/${trim.id}/mass`;
			if (trim.mass === id) refuse(own, `${mass.name} cannot be cut by itself; choose another mass`);
			return [[trim.mass, untrimmed(run, trim.mass, own)] as const];
		})
	);
	return memo.use(['mass', id], [mass, ...others.values()], () =>
		timed('surface', () => massFaces(files.whole(mass), (other) => others.get(other)!.value))
	);
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
