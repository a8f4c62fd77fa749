import { arcControl } from '../geometry/arc';
import type { Form } from '../project/form-schema';
import { refuse } from '../units/problem';
import { makeFace, type Face } from './face';
import { fixedHeight } from './levels';
import { revolveChain } from './revolved';

type Dome = Extract<Form, { kind: 'dome' }>;

/** The part of an ellipsoid above a cut, its rim at the foot: exactly, as a rational surface. */
export function domeFaces(form: Dome, at: string): Face[] {
	const [rx, ry, rz] = form.radii;
	for (const [k, radius] of form.radii.entries())
		if (!(radius > 0)) refuse(`${at}/radii/${k}`, `a radius is ${radius} mm; more than 0 mm is accepted`);
	if (!(Math.abs(form.cut) < rz))
		refuse(
			`${at}/cut`,
			`the cut at ${form.cut} mm misses the ellipsoid; it lies between ${-rz} and ${rz} mm from its middle`
		);
	const rim = Math.asin(form.cut / rz);
	const { control, pieces } = arcControl([0, 0], [1, rz], rim, Math.PI / 2 - rim);
	// The pole lies on the axis to the last digit.
	const pole = control.at(-1)!;
	const points = [...control.slice(0, -1), [0, pole[1], 0, pole[3]] as const];
	const breaks = Array.from({ length: pieces + 1 }, (_, k) => k / pieces);
	const unit = revolveChain({ breaks, points }, [0, 0], fixedHeight(form.foot) - form.cut, 0, 2 * Math.PI);
	const net = unit.net.map((value, k) => {
		const weight = unit.net[k - (k % 4) + 3]!;
		if (k % 4 === 0) return value * rx + form.at[0] * weight;
		return k % 4 === 1 ? value * ry + form.at[1] * weight : value;
	});
	return [makeFace('shell', { ...unit, net })];
}
