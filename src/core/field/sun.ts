import { reckon, type ColumnReader } from './column';
import { field, type Field, type FaceSun, type Read } from './field';

/** The sun where nobody has said where it stands: over the middle of the south. */
export const SOME_SUN: FaceSun = { direction: [0, -Math.SQRT1_2, Math.SQRT1_2], hours: null };

/** Faces that look up or down less than this off the vertical have no way up on them. */
const LEVEL = 1e-9;

/**
 * An angle of the sun as a face sees it: before it, up it, and aside, to the right of who looks out.
 * Up runs with the steepest rise of the face, to the north on one that is level. Hot: numbers, no points.
 */
const angleOf =
	(angle: (ahead: number, up: number, aside: number) => number): Read<'measures' | 'sun'> =>
	({ measures: { normal }, sun: { direction } }, sites): ColumnReader => {
		const [sx, sy, sz] = direction;
		return reckon(sites, (c) => {
			const nx = normal[3 * c]!;
			const ny = normal[3 * c + 1]!;
			const nz = normal[3 * c + 2]!;
			const ahead = nx * sx + ny * sy + nz * sz;
			const flat = Math.sqrt(nx * nx + ny * ny);
			// Level and to the right of who looks along the normal.
			const isLevel = flat <= LEVEL;
			const rx = isLevel ? (nz >= 0 ? -1 : 1) : ny / flat;
			const ry = isLevel ? 0 : -nx / flat;
			// Right × normal.
			const up = ry * nz * sx - rx * nz * sy + (rx * ny - ry * nx) * sz;
			return angle(ahead, up, rx * sx + ry * sy);
		});
	};

const needs = ['measures', 'sun'] as const;
const ofSun: Field['hangsOn'] = ({ sun }) => sun;

/**
 * Fields of the sun: at its moment the angle to the normal, the angles by which blades and fins are laid out, and the
 * hours of direct sun over its period. rad, h.
 */
export const sunFields: readonly Field[] = [
	field(
		'cell',
		'incidence',
		'angle of the sun to the normal',
		'angle',
		needs,
		angleOf((ahead) => Math.acos(Math.min(1, Math.max(-1, ahead)))),
		ofSun
	),
	field(
		'cell',
		'profile_angle',
		'height of the sun as the face sees it',
		'angle',
		needs,
		angleOf((ahead, up) => Math.atan2(up, ahead)),
		ofSun
	),
	field(
		'cell',
		'plan_angle',
		'sun aside of the face',
		'angle',
		needs,
		angleOf((ahead, _up, aside) => Math.atan2(aside, ahead)),
		ofSun
	),
	field(
		'cell',
		'hours_of_sun',
		'hours of sun',
		'hours',
		['sun'],
		({ sun: { hours } }, sites) => reckon(sites, (c) => hours?.[c] ?? 0),
		ofSun
	)
];

const names = new RegExp(`\\b(?:${sunFields.map(({ name }) => name).join('|')})\\b`);

/**
 * Whether texts of clauses or parts name the sun, and the hours of it.
 *
 * ```ts
 * asksForSun(['90 deg - profile_angle']); // true
 * asksForHours(['90 deg - profile_angle']); // false
 * ```
 */
export const asksForSun = (texts: readonly string[]): boolean => texts.some((text) => names.test(text));
export const asksForHours = (texts: readonly string[]): boolean =>
	texts.some((text) => /\bhours_of_sun\b/.test(text));
