import { alignChains, type BezierChain } from '../geometry/path';
import type { Form } from '../project/form-schema';
import { refuse } from '../units/problem';
import { makeFace, type Face } from './face';
import { strip } from './patch';
import { chainOf } from './path';
import { SAME_POINT } from '../geometry/tolerance';

type Ruled = Extract<Form, { kind: 'ruled' }>;

/** Straight lines between two paths, joined where they are equally far along. */
export function ruledFaces(form: Ruled, at: string): Face[] {
	const chains = [chainOf(form.foot, `${at}/foot`), chainOf(form.head, `${at}/head`)];
	const [foot, head] = alignChains(chains) as [BezierChain, BezierChain];
	if (form.foot.closed !== form.head.closed)
		refuse(at, 'one path is closed and the other is open; close both or neither');
	const apart = (k: number) =>
		foot.points[k]!.some((value, a) => Math.abs(value - head.points[k]![a]!) > SAME_POINT);
	if (!foot.points.some((_, k) => apart(k)))
		refuse(`${at}/head`, 'the head path lies on the foot path; move it away');
	return [makeFace('wall', strip(foot, head))];
}
