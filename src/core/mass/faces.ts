import { turnOutside } from '../geometry/surface';
import type { Form, Mass } from '../project/schema';
import { makeFace, type Face } from './face';
import { loftedFaces } from './lofted';
import { revolvedFaces } from './revolved';
import { ruledFaces } from './ruled';

function formFaces(form: Form, at: string): Face[] {
	switch (form.kind) {
		case 'revolved':
			return revolvedFaces(form, at);
		case 'ruled':
			return ruledFaces(form, at);
		case 'lofted':
			return loftedFaces(form, at);
	}
}

/** The faces of a mass. @throws ProblemError at the clause of the mass */
export function massFaces(mass: Mass): Face[] {
	const faces = formFaces(mass.form, `masses/${mass.id}/form`);
	if (mass.outside === 'as drawn') return faces;
	return faces.map((face) => makeFace(face.name, turnOutside(face.surface)));
}
