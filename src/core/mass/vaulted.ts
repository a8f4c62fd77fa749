import { inRadians } from '../units/scale';
import { mapChain } from '../geometry/path';
import type { Form } from '../project/form-schema';
import { refuse } from '../units/problem';
import { profileChain } from './drawn-curve';
import { makeFace, type Face } from './face';
import { fixedHeight } from './levels';
import { strip } from './patch';

type Vaulted = Extract<Form, { kind: 'vaulted' }>;

/** A profile run along a horizontal direction. Outside is above the profile, drawn from left to right. */
export function vaultedFaces(form: Vaulted, at: string): Face[] {
	if (!(form.length > 0))
		refuse(`${at}/length`, `the length is ${form.length} mm; more than 0 mm is accepted`);
	const chain = profileChain(form.profile, `${at}/profile`);
	const angle = inRadians(form.direction);
	// The way it runs, and the way to the right of it.
	const along = [-Math.sin(angle), Math.cos(angle)] as const;
	const aside = [along[1], -along[0]] as const;
	const foot = fixedHeight(form.foot);
	const end = (distance: number) =>
		mapChain(chain, ([x, z]) => [
			form.at[0] + aside[0] * x + along[0] * distance,
			form.at[1] + aside[1] * x + along[1] * distance,
			foot + z
		]);
	return [makeFace('vault', strip(end(0), end(form.length)))];
}
