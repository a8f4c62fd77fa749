import { mapChain, type BezierChain } from '../geometry/path';
import type { Surface } from '../geometry/surface';
import { unweighted, type Vector } from '../geometry/vector';
import type { Form } from '../project/form-schema';
import { refuse } from '../units/problem';
import { outlineChain } from './drawn-curve';
import { capFace } from './cap';
import { makeFace, type Face } from './face';
import { fixedHeight } from './levels';
import { strip } from './patch';
import { compassNames, sidesOf } from './sides';

type Prism = Extract<Form, { kind: 'prism' }>;

/** A flat side swollen by so much in its middle, its rims staying where they are. */
function swollen(side: BezierChain, foot: number, head: number, out: number): Surface {
	const [from, to] = [unweighted(side.points[0]!), unweighted(side.points.at(-1)!)];
	const size = Math.hypot(to[0] - from[0], to[1] - from[1]);
	// The middle control point of a patch of degree 2 pulls the middle by a quarter of its own way.
	const push: Vector = [(4 * out * (to[1] - from[1])) / size, (-4 * out * (to[0] - from[0])) / size, 0];
	const net: number[] = [];
	for (const t of [0, 0.5, 1])
		for (const s of [0, 0.5, 1]) {
			const middle = s === 0.5 && t === 0.5 ? 1 : 0;
			net.push(
				from[0] + s * (to[0] - from[0]) + middle * push[0],
				from[1] + s * (to[1] - from[1]) + middle * push[1],
				foot + t * (head - foot),
				1
			);
		}
	const knots = Float64Array.of(0, 0, 0, 1, 1, 1);
	return {
		degreeU: 2,
		degreeV: 2,
		knotsU: knots,
		knotsV: knots,
		countU: 3,
		countV: 3,
		net: Float64Array.from(net)
	};
}

/** A plan outline with upright faces, named by where they look, any straight one may swell; and the cap. */
export function prismFaces(form: Prism, at: string): Face[] {
	const [foot, head] = [fixedHeight(form.foot), fixedHeight(form.head)];
	if (!(head > foot))
		refuse(`${at}/head`, `the head at ${head} mm is not above the foot at ${foot} mm; lift it`);
	const chain = mapChain(outlineChain(form.outline, `${at}/outline`), ([x, y]) => [
		x + form.at[0],
		y + form.at[1],
		0
	]);
	const sides = sidesOf(chain);
	const names = sides.length === 1 ? ['shell'] : compassNames(sides);
	for (const { id } of form.curved)
		if (!names.includes(id))
			refuse(`${at}/curved/${id}`, `there is no side "${id}"; the sides are ${names.join(', ')}`);
	const lifted = (side: BezierChain, height: number) => mapChain(side, ([x, y]) => [x, y, height]);
	const walls = sides.map((side, k) => {
		const out = form.curved.find((one) => one.id === names[k])?.out ?? 0;
		if (out !== 0 && side.breaks.length !== 2)
			refuse(
				`${at}/curved/${names[k]!}`,
				`the side "${names[k]!}" is curved in plan already; only flat sides can swell`
			);
		const surface = out ? swollen(side, foot, head, out) : strip(lifted(side, foot), lifted(side, head));
		return makeFace(names[k]!, surface);
	});
	return [...walls, capFace(chain, (outline) => lifted(outline, head))];
}
