import { turnOutside, type Surface } from '../geometry/surface';
import { refuse } from '../units/problem';
import { together } from './trim/together';
import { endsOf, trimOf } from './trim/trims';
import type { Form, Level, Mass } from '../project/form-schema';
import { domeFaces } from './dome';
import { evenedFace } from './evened';
import { makeFace, type Face } from './face';
import { atLevels, heightOf } from './levels';
import { importedFaces } from './imported';
import { loftedFaces } from './lofted';
import { netFaces } from './net';
import { quarterTurned } from './patch';
import { prismFaces } from './prism';
import { revolvedFaces } from './revolved';
import { ruledFaces } from './ruled';
import { checkSound } from './sound';
import { twistedFaces } from './twisted';
import { vaultedFaces } from './vaulted';
import { wavesFaces } from './waves';
import { pathTo } from '../project/typed-path';

function formFaces(form: Form, at: string): Face[] {
	switch (form.kind) {
		case 'revolved':
			return revolvedFaces(form, at);
		case 'ruled':
			return ruledFaces(form, at);
		case 'lofted':
			return loftedFaces(form, at);
		case 'vaulted':
			return vaultedFaces(form, at);
		case 'twisted':
			return twistedFaces(form, at);
		case 'dome':
			return domeFaces(form, at);
		case 'net':
			return netFaces(form, at);
		case 'waves':
			return wavesFaces(form, at);
		case 'prism':
			return prismFaces(form, at);
		case 'imported':
			return importedFaces(form, at);
	}
}

/**
 * The mass with its heights fixed: all that its faces hang on.
 *
 * ```ts
 * const faces = massFaces(massAtLevels(mass, project.levels));
 * ```
 * @throws ProblemError when a level is gone
 */
export function massAtLevels(mass: Mass, levels: readonly Level[]): Mass {
	const at = pathTo('masses', mass.id);
	const trims = mass.trims.map((trim) =>
		trim.by === 'level'
			? { ...trim, height: heightOf(trim.height, levels, `${at}/trims/${trim.id}/height`) }
			: trim
	);
	return { ...mass, form: atLevels(mass.form, levels, `${at}/form`), trims };
}

/**
 * The faces of a mass whose heights are fixed.
 *
 * ```ts
 * const [skin] = massFaces(mass);
 * ```
 * @throws ProblemError at the clause of the mass
 */
export function massFaces(mass: Mass): Face[] {
	const { evened } = mass;
	const at = pathTo('masses', mass.id);
	const faces = formFaces(mass.form, `${at}/form`).map((made) => {
		checkSound(made.name, made.surface, `${at}/form`);
		const face = evened === null ? made : evenedFace(made, evened, `${at}/evened`);
		return trimmed(chosen(face, mass), mass);
	});
	for (const trim of mass.trims)
		if (!faces.some((face) => face.name === trim.face))
			refuse(
				`${at}/trims/${trim.id}`,
				`there is no face "${trim.face}"; the faces are ${faces.map((face) => face.name).join(', ')}`
			);
	return faces;
}

/** The face with its outside and its first corner as they are chosen. */
function chosen(face: Face, mass: Mass): Face {
	const choice = mass.faces.find((one) => one.id === face.name);
	if (!choice) return face;
	const turned = (surface: Surface) =>
		quarterTurned(choice.outside === 'turned' ? turnOutside(surface) : surface, choice.corner);
	return {
		...face,
		...makeFace(face.name, turned(face.surface)),
		ends: choice.outside === 'turned' ? face.ends.map((end) => [...end].reverse()) : face.ends,
		...(face.original && { original: turned(face.original) })
	};
}

function trimmed(face: Face, mass: Mass): Face {
	const at = pathTo('masses', mass.id);
	const own = endsOf(face, face.ends, `${at}/form`);
	const trims = mass.trims
		.filter((trim) => trim.face === face.name)
		.map((trim) => trimOf(face, trim, `${at}/trims/${trim.id}`));
	return { ...face, trims: together(face, [...own, ...trims]) };
}
