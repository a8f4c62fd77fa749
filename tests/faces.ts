import type { Face } from '../src/core/mass/face';
import { massFaces } from '../src/core/mass/faces';
import { readProject } from '../src/core/project/read';
import type { Form } from '../src/core/project/form-schema';
import type { Project, SettingOut, ZoneInput } from '../src/core/project/schema';
import { patternSchema } from '../src/core/project/pattern-schema';
import { settingOutSchema, type SettingOutInput } from '../src/core/project/setting-out-schema';

/** A project of one mass and one zone on it, for tests; defaults are those of a project file. */
export function projectOf(
	form: Form,
	settingOut: SettingOutInput,
	zone: Partial<Omit<ZoneInput, 'settingOut'>> = {},
	rest: Partial<Project> = {}
): Project {
	const face = onlyFace(form).name;
	return readProject({
		format: 'zygaster project',
		version: 1,
		name: 'Test',
		masses: [{ id: 'm', name: 'Mass', form }],
		zones: [
			{
				id: 'z',
				code: 'Z',
				name: 'Zone',
				faces: [{ mass: 'm', face }],
				settingOut,
				pattern: { kind: 'rectangles' },
				...zone
			}
		],
		...rest
	});
}

/** With its defaults filled in. */
export const settingOutOf = (input: SettingOutInput): SettingOut => settingOutSchema.parse(input);

export function onlyFace(form: Form): Face {
	return massFaces({ id: 'm', name: 'Mass', form, faces: [], evened: null, trims: [] })[0]!;
}

/** A profile about the z axis, lengths as given. */
export const revolved = (
	points: [number, number][],
	joins: 'line' | 'smooth' = 'line',
	turn = 360
): Form => ({ kind: 'revolved', axis: [0, 0], foot: 0, profile: { points, joins }, from: 0, turn });

/** A flat sheet in the xz plane, facing −y. */
export const sheet = (width: number, height: number): Form => ({
	kind: 'ruled',
	foot: {
		points: [
			[0, 0, 0],
			[width, 0, 0]
		],
		joins: 'line',
		closed: false
	},
	head: {
		points: [
			[0, 0, height],
			[width, 0, height]
		],
		joins: 'line',
		closed: false
	}
});

/** Scattered cells, with the defaults of a project file. */
export const scattered = (cells: number) =>
	patternSchema.parse({ kind: 'voronoi', seed: 3, count: cells, smallest: 120 });

export const count = (across: number, up: number) => ({
	across: { by: 'count' as const, count: across },
	up: { by: 'count' as const, count: up }
});
