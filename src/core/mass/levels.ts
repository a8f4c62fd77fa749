import type { Form, Height, Level, SectionDefinition } from '../project/form-schema';
import { refuse } from '../units/problem';

/**
 * A height in mm.
 *
 * ```ts
 * heightOf({ level: 'eaves', plus: 300 }, project.levels, at); // mm over the ground
 * ```
 * @throws ProblemError when its level is gone
 */
export function heightOf(height: Height, levels: readonly Level[], at: string): number {
	if (typeof height === 'number') return height;
	const level = levels.find((one) => one.id === height.level);
	if (!level) {
		const known = levels.map((one) => one.name).join(', ') || 'none yet';
		return refuse(at, `the level "${height.level}" does not exist; known: ${known}`);
	}
	return level.height + height.plus;
}

/** The form with every height that follows a level as a number, so that it depends on nothing else. */
export function atLevels(form: Form, levels: readonly Level[], at: string): Form {
	const fixed = (height: Height, key: string) => heightOf(height, levels, `${at}/${key}`);
	switch (form.kind) {
		case 'revolved':
		case 'vaulted':
		case 'dome':
		case 'waves':
			return { ...form, foot: fixed(form.foot, 'foot') };
		case 'twisted':
		case 'prism':
			return { ...form, foot: fixed(form.foot, 'foot'), head: fixed(form.head, 'head') };
		case 'lofted': {
			const sections = form.sections.map((section, k): SectionDefinition =>
				'outline' in section ? { ...section, height: fixed(section.height, `sections/${k}/height`) } : section
			);
			return { ...form, sections };
		}
		case 'ruled':
		case 'net':
		case 'imported':
			return form;
	}
}

/** A height that `atLevels` has made a number. */
export const fixedHeight = (height: Height): number => (typeof height === 'number' ? height : Number.NaN);
