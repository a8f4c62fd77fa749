import type { Edit } from '$core/project/edits';
import type { FaceChoice, Mass } from '$core/project/form-schema';
import type { Project } from '$core/project/schema';
import { pathTo, setAt } from '$core/project/typed-path';

/** A face named as mass/face. */
export function splitFace(name: string): { mass: string; face: string } {
	const slash = name.indexOf('/');
	return { mass: name.slice(0, slash), face: name.slice(slash + 1) };
}

export function choiceOf(mass: Mass, face: string): FaceChoice {
	return mass.faces.find((one) => one.id === face) ?? { id: face, outside: 'as drawn', corner: 0 };
}

/** The edits that change how faces are looked at; a face as it was drawn needs no words. */
export function changeFaces(
	document: Project,
	names: readonly string[],
	change: (choice: FaceChoice) => FaceChoice
): Edit[] {
	const wanted = names.map(splitFace);
	return document.masses.flatMap((mass): Edit[] => {
		const faces = wanted.filter((one) => one.mass === mass.id).map((one) => one.face);
		if (!faces.length) return [];
		const changed = faces.map((face) => change(choiceOf(mass, face)));
		const others = mass.faces.filter((one) => !faces.includes(one.id));
		const value = [...others, ...changed].filter((one) => one.outside !== 'as drawn' || one.corner !== 0);
		return [setAt(pathTo('masses', mass.id, 'faces'), value)];
	});
}

/** The edit that lets a zone cover faces too. */
export function coverToo(document: Project, zoneId: string, names: readonly string[]): Edit[] {
	const zone = document.zones.find((one) => one.id === zoneId);
	if (!zone) return [];
	const known = new Set(zone.faces.map(({ mass, face }) => `${mass}/${face}`));
	const added = names.filter((name) => !known.has(name)).map(splitFace);
	if (!added.length) return [];
	return [setAt(pathTo('zones', zoneId, 'faces'), [...zone.faces, ...added])];
}
