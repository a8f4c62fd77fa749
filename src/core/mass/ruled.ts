import { alignChains, chainKnots } from '../geometry/path';
import { distance } from '../geometry/vector';
import type { Form } from '../project/schema';
import { refuse } from '../units/problem';
import { makeFace, type Face } from './face';
import { chainOf } from './path';

type Ruled = Extract<Form, { kind: 'ruled' }>;

/** Straight lines between two paths, joined where they are equally far along. */
export function ruledFaces(form: Ruled, at: string): Face[] {
	const [foot, head] = alignChains([chainOf(form.foot, `${at}/foot`), chainOf(form.head, `${at}/head`)]) as [
		ReturnType<typeof chainOf>,
		ReturnType<typeof chainOf>
	];
	if (form.foot.closed !== form.head.closed)
		refuse(at, 'one path is closed and the other is open; close both or neither');
	if (foot.points.every((p, k) => distance(p, head.points[k]!) < 1e-6))
		refuse(`${at}/head`, 'the head path lies on the foot path; move it away');
	const countU = foot.points.length;
	return [
		makeFace('wall', {
			degreeU: 3,
			degreeV: 1,
			knotsU: chainKnots(foot.breaks),
			knotsV: Float64Array.of(0, 0, 1, 1),
			countU,
			countV: 2,
			net: Float64Array.from([...foot.points, ...head.points].flatMap((p) => [...p, 1]))
		})
	];
}
