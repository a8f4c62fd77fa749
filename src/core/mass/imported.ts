import type { Surface } from '../geometry/surface';
import { add, scale, type Vector } from '../geometry/vector';
import type { Form, PatchDefinition } from '../project/form-schema';
import { isInFile } from '../project/stored';
import { refuse } from '../units/problem';
import { makeFace, type Face } from './face';

type Imported = Extract<Form, { kind: 'imported' }>;

/**
 * A patch as the document keeps it.
 *
 * ```ts
 * const patch = patchDefinition('skin', surface, { deviation: 0.02 });
 * ```
 */
export function patchDefinition(
	name: string,
	surface: Surface,
	{ ends = [], deviation = null }: { ends?: readonly (readonly Vector[])[]; deviation?: number | null } = {}
): PatchDefinition {
	return {
		name,
		degrees: [surface.degreeU, surface.degreeV],
		knotsU: [...surface.knotsU],
		knotsV: [...surface.knotsV],
		net: [...surface.net],
		ends: ends.map((end) => end.map(([x, y, z]) => [x, y, z])),
		deviation
	};
}

/** The faces of a file, moved to their place. @throws ProblemError when a patch does not hold together */
export function importedFaces(form: Imported, at: string): Face[] {
	const { faces } = form;
	if (isInFile(faces))
		return refuse(`${at}/faces`, `what was read from ${form.source} has not come from the server yet`);
	if (faces.length === 0) refuse(`${at}/faces`, 'the file gave no face that can be taken');
	const names = new Set<string>();
	if (!(form.scale > 0))
		refuse(`${at}/scale`, `a scale of ${form.scale} leaves nothing of it; more than 0 is accepted`);
	const place = ([x, y, z]: Vector): Vector =>
		add(scale(form.up === 'y' ? [x, -z, y] : [x, y, z], form.scale), form.at);
	return faces.map(({ name, degrees, knotsU, knotsV, net, ends, deviation }, k) => {
		const countU = knotsU.length - degrees[0] - 1;
		const countV = knotsV.length - degrees[1] - 1;
		const whole = [...degrees, countU, countV].every((count) => count > 0);
		if (!whole || net.length !== 4 * countU * countV)
			refuse(
				`${at}/faces/${k}`,
				`face ${k + 1} has ${net.length / 4} points where its knots want ${countU} by ${countV}`
			);
		if (names.has(name))
			refuse(`${at}/faces/${k}`, `two faces are called "${name}"; every face has its own name`);
		names.add(name);
		const moved = new Float64Array(net.length);
		for (let n = 0; n < net.length; n += 4) {
			const w = net[n + 3]!;
			const p = place([net[n]! / w, net[n + 1]! / w, net[n + 2]! / w]);
			moved.set([p[0] * w, p[1] * w, p[2] * w, w], n);
		}
		const face = makeFace(name, {
			degreeU: degrees[0],
			degreeV: degrees[1],
			knotsU: Float64Array.from(knotsU),
			knotsV: Float64Array.from(knotsV),
			countU,
			countV,
			net: moved
		});
		return {
			...face,
			// A loop of fewer corners bounds nothing.
			ends: ends.filter((end) => end.length >= 3).map((end) => end.map(place)),
			...(deviation !== null && { deviation: deviation * form.scale })
		};
	});
}
