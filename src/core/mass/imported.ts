import type { Surface } from '../geometry/surface';
import type { Form, PatchDefinition } from '../project/form-schema';
import { refuse } from '../units/problem';
import { makeFace, type Face } from './face';

type Imported = Extract<Form, { kind: 'imported' }>;

/** A patch as the document keeps it. */
export function patchDefinition(name: string, surface: Surface): PatchDefinition {
	return {
		name,
		degrees: [surface.degreeU, surface.degreeV],
		knotsU: [...surface.knotsU],
		knotsV: [...surface.knotsV],
		net: [...surface.net]
	};
}

/** The faces of a file, moved to their place. @throws ProblemError when a patch does not hold together */
export function importedFaces(form: Imported, at: string): Face[] {
	if (form.faces.length === 0) refuse(`${at}/faces`, 'the file gave no face that can be taken');
	const names = new Set<string>();
	return form.faces.map(({ name, degrees, knotsU, knotsV, net }, k) => {
		const countU = knotsU.length - degrees[0] - 1;
		const countV = knotsV.length - degrees[1] - 1;
		if (countU < 2 || countV < 2 || net.length !== 4 * countU * countV)
			refuse(
				`${at}/faces/${k}`,
				`face ${k + 1} has ${net.length / 4} points where its knots want ${countU} by ${countV}`
			);
		if (names.has(name))
			refuse(`${at}/faces/${k}`, `two faces are called "${name}"; every face has its own name`);
		names.add(name);
		const moved = Float64Array.from(net, (value, n) =>
			n % 4 === 3 ? value : value + form.at[n % 4]! * net[n - (n % 4) + 3]!
		);
		return makeFace(name, {
			degreeU: degrees[0],
			degreeV: degrees[1],
			knotsU: Float64Array.from(knotsU),
			knotsV: Float64Array.from(knotsV),
			countU,
			countV,
			net: moved
		});
	});
}
