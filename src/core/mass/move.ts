import type { Form } from '../project/form-schema';

type Plan = readonly [number, number];

/**
 * The same form somewhere else in plan.
 *
 * ```ts
 * const beside = movedForm(mass.form, [12_000, 0]);
 * ```
 */
export function movedForm(form: Form, [dx, dy]: Plan): Form {
	const plan = ([x, y]: Plan): [number, number] => [x + dx, y + dy];
	const space = ([x, y, z]: readonly [number, number, number]): [number, number, number] => [
		x + dx,
		y + dy,
		z
	];
	switch (form.kind) {
		case 'revolved':
			return { ...form, axis: plan(form.axis) };
		case 'ruled': {
			const moved = (path: typeof form.foot) => ({ ...path, points: path.points.map(space) });
			return { ...form, foot: moved(form.foot), head: moved(form.head) };
		}
		case 'lofted':
			return {
				...form,
				sections: form.sections.map((section) =>
					'outline' in section
						? { ...section, at: plan(section.at) }
						: { ...section, points: section.points.map(space) }
				)
			};
		case 'vaulted':
		case 'twisted':
		case 'dome':
		case 'prism':
			return { ...form, at: plan(form.at) };
		case 'net':
			return { ...form, rows: form.rows.map((row) => row.map(space)) };
		case 'waves':
			return { ...form, from: plan(form.from) };
		case 'imported':
			return { ...form, at: space(form.at) };
	}
}
