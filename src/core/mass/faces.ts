import { turnOutside, type Surface } from '../geometry/surface';
import { refuse } from '../units/problem';
import { together } from './trim/together';
import type { Trim } from './trim/trim';
import { endsOf, trimByMass, trimOf } from './trim/trims';
import { EVERY_FACE, type Form, type Level, type Mass, type TrimDefinition } from '../project/form-schema';
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
 * The faces of a mass whose heights are fixed, before anything trims them but where they end by themselves.
 *
 * ```ts
 * const [skin] = untrimmedFaces(mass);
 * ```
 * @throws ProblemError at the clause of the mass
 */
export function untrimmedFaces(mass: Mass): Face[] {
	const { evened } = mass;
	const at = pathTo('masses', mass.id);
	return formFaces(mass.form, `${at}/form`).map((made) => {
		checkSound(made.name, made.surface, `${at}/form`);
		const face = evened === null ? made : evenedFace(made, evened, `${at}/evened`);
		const own = chosen(face, mass);
		return { ...own, trims: endsOf(own, own.ends, `${at}/form`) };
	});
}

/** The faces of other masses as their forms make them. */
export type OtherFaces = (mass: string, at: string) => readonly Face[];

/** A mass by itself meets no other. */
const noOthers: OtherFaces = (mass, at) => refuse(at, `the mass "${mass}" does not exist`);

/**
 * The faces of a mass whose heights are fixed.
 *
 * ```ts
 * const [skin] = massFaces(mass);
 * ```
 * @param others the faces of other masses, untrimmed, for trims that follow them
 * @throws ProblemError at the clause of the mass
 */
export function massFaces(mass: Mass, others: OtherFaces = noOthers): Face[] {
	const at = pathTo('masses', mass.id);
	const faces = untrimmedFaces(mass);
	const everyFace = (trim: TrimDefinition) => trim.by === 'mass' && trim.face === EVERY_FACE;
	for (const trim of mass.trims)
		if (!everyFace(trim) && !faces.some((face) => face.name === trim.face))
			refuse(
				`${at}/trims/${trim.id}`,
				`there is no face "${trim.face}"; the faces are ${faces.map((face) => face.name).join(', ')}`
			);
	const left = faces.flatMap((face) => {
		const wanted = mass.trims.filter((trim) => trim.face === face.name || everyFace(trim));
		return trimmed(face, wanted, others, at) ?? [];
	});
	if (!left.length)
		refuse(
			`${at}/trims`,
			`${mass.name} lies within what it is cut by: nothing of it is left; keep what is within`
		);
	return left;
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

/** The face as trims leave it; null where another mass leaves nothing of it. @throws ProblemError */
function trimmed(
	face: Face,
	wanted: readonly TrimDefinition[],
	others: OtherFaces,
	mass: string
): Face | null {
	const trims: Trim[] = [...face.trims];
	for (const trim of wanted) {
		const at = `${mass}/trims/${trim.id}`;
		if (trim.by !== 'mass') {
			trims.push(trimOf(face, trim, at));
			continue;
		}
		const made = trimByMass(face, trim, others(trim.mass, `${at}/mass`), at);
		if (made === 'nothing' && trim.face === EVERY_FACE) return null;
		if (made === 'nothing')
			return refuse(
				at,
				`${face.name} lies on the other side all over: nothing would be left; keep what is there`
			);
		if (made !== 'all of it') trims.push(made);
		else if (trim.face !== EVERY_FACE)
			return refuse(at, `the masses do not meet on ${face.name}; move one of them, or take this away`);
	}
	return { ...face, trims: together(face, trims) };
}
