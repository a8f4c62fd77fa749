import { inRadians } from '$core/units/scale';
import type { Edit } from '$core/project/edits';
import type { Form, Height, Level, Mass } from '$core/project/form-schema';
import { heightOf } from '$core/mass/levels';
import { below, pathTo, setAt, type Path } from '$core/project/typed-path';

export type Vector = readonly [number, number, number];
type Triple = [number, number, number];
type Pair = [number, number];

/** A point of a form that can be dragged in the model. */
export interface Handle {
	readonly path: string;
	/** What it is, for the name of the command. */
	readonly label: string;
	readonly at: Vector;
	/** The directions it may move in: one, two or all three; each of length 1. */
	readonly axes: readonly Vector[];
	/** The edits that bring it to a place. */
	moved(to: Vector): Edit[];
}

export interface Handles {
	readonly points: readonly Handle[];
	/** Lines drawn between handles. */
	readonly lines: readonly (readonly Vector[])[];
}

const X: Vector = [1, 0, 0];
const Y: Vector = [0, 1, 0];
const Z: Vector = [0, 0, 1];
const FREE = [X, Y, Z];

/** Whole millimetres, as a hand cannot do better. */
const mm = Math.round;

/** A height moved to a place; one that follows a level keeps following it. */
function movedHeight(height: Height, levels: readonly Level[], to: number): Height {
	if (typeof height === 'number') return mm(to);
	const level = levels.find((one) => one.id === height.level);
	return { ...height, plus: mm(to - (level?.height ?? 0)) };
}

class Collector implements Handles {
	readonly points: Handle[] = [];
	readonly lines: (readonly Vector[])[] = [];

	constructor(private readonly levels: readonly Level[]) {}

	/** A height's value, or the ground when its level is gone: the clause says so. */
	height(height: Height): number {
		try {
			return heightOf(height, this.levels, '');
		} catch {
			return 0;
		}
	}

	/** Points in space that may go anywhere. */
	space(points: readonly Vector[], path: Path<Triple[]>, label: string, closed = false): void {
		points.forEach((at, k) => this.free(at, below(path, k), `${label} point ${k + 1}`));
		this.lines.push(closed && points[0] ? [...points, points[0]] : points);
	}

	/** Points drawn in a plane: origin + x · u + y · v. */
	plane(
		points: readonly (readonly [number, number])[],
		path: Path<Pair[]>,
		label: string,
		origin: Vector,
		u: Vector,
		v: Vector,
		closed: boolean
	): void {
		const along = (a: Vector, b: Vector) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
		const placed = points.map(
			([x, y]) => [0, 1, 2].map((k) => origin[k]! + x * u[k]! + y * v[k]!) as unknown as Vector
		);
		placed.forEach((at, k) =>
			this.points.push({
				path: below(path, k),
				label: `${label} point ${k + 1}`,
				at,
				axes: [u, v],
				moved: (to) => {
					const from = to.map((value, a) => value - origin[a]!) as unknown as Vector;
					return [setAt(below(path, k), [mm(along(from, u)), mm(along(from, v))])];
				}
			})
		);
		this.lines.push(closed && placed[0] ? [...placed, placed[0]] : placed);
	}

	/** A place that may go anywhere. */
	free(at: Vector, path: Path<Triple>, label: string): void {
		this.points.push({
			path,
			label,
			at,
			axes: FREE,
			moved: (to) => [setAt(path, [mm(to[0]), mm(to[1]), mm(to[2])])]
		});
	}

	/** The place of a form in plan. */
	place(at: readonly [number, number], z: number, path: Path<Pair>, label: string): void {
		this.points.push({
			path,
			label,
			at: [at[0], at[1], z],
			axes: [X, Y],
			moved: (to) => [setAt(path, [mm(to[0]), mm(to[1])])]
		});
	}

	/** A height over a point in plan. */
	lift(at: readonly [number, number], height: Height, path: Path<Height>, label: string): void {
		this.points.push({
			path,
			label,
			at: [at[0], at[1], this.height(height)],
			axes: [Z],
			moved: (to) => [setAt(path, movedHeight(height, this.levels, to[2]))]
		});
	}

	/** One number that grows along a direction from a point. */
	reach(from: Vector, value: number, axis: Vector, path: Path<number>, label: string): void {
		const place = (n: number) => [0, 1, 2].map((k) => from[k]! + n * axis[k]!) as unknown as Vector;
		this.points.push({
			path,
			label,
			at: place(value),
			axes: [axis],
			moved: (to) => {
				const way = to.reduce((sum, p, k) => sum + (p - from[k]!) * axis[k]!, 0);
				return [setAt(path, mm(way))];
			}
		});
	}
}

function collect(form: Form, path: Path<Form>, into: Collector): void {
	switch (form.kind) {
		case 'revolved': {
			const angle = inRadians(form.from);
			const out: Vector = [Math.cos(angle), Math.sin(angle), 0];
			const origin: Vector = [form.axis[0], form.axis[1], into.height(form.foot)];
			into.plane(form.profile.points, below(path, 'profile', 'points'), 'profile', origin, out, Z, false);
			into.place(form.axis, origin[2], below(path, 'axis'), 'axis');
			return;
		}
		case 'ruled':
			into.space(form.foot.points, below(path, 'foot', 'points'), 'foot', form.foot.closed);
			into.space(form.head.points, below(path, 'head', 'points'), 'head', form.head.closed);
			return;
		case 'lofted':
			form.sections.forEach((section, k) => {
				if (!('outline' in section)) {
					into.space(
						section.points,
						below(path, 'sections', k, 'points'),
						`section ${k + 1}`,
						section.closed
					);
					return;
				}
				into.place(
					section.at,
					into.height(section.height),
					below(path, 'sections', k, 'at'),
					`section ${k + 1}`
				);
			});
			return;
		case 'vaulted': {
			const angle = inRadians(form.direction);
			const along: Vector = [-Math.sin(angle), Math.cos(angle), 0];
			const aside: Vector = [along[1], -along[0], 0];
			const origin: Vector = [form.at[0], form.at[1], into.height(form.foot)];
			into.plane(form.profile.points, below(path, 'profile', 'points'), 'profile', origin, aside, Z, false);
			into.reach(origin, form.length, along, below(path, 'length'), 'length');
			return;
		}
		case 'twisted':
		case 'prism': {
			const foot = into.height(form.foot);
			if (form.outline.shape === 'drawn') {
				const origin: Vector = [form.at[0], form.at[1], foot];
				into.plane(
					form.outline.points,
					below(path, 'outline', 'points'),
					'outline',
					origin,
					X,
					Y,
					!form.outline.mirrored
				);
			} else into.place(form.at, foot, below(path, 'at'), 'place');
			into.lift(form.at, form.head, below(path, 'head'), 'head');
			return;
		}
		case 'dome': {
			const foot = into.height(form.foot);
			const middle: Vector = [form.at[0], form.at[1], foot - form.cut];
			into.place(form.at, foot, below(path, 'at'), 'place');
			into.reach(middle, form.radii[0], X, below(path, 'radii', 0), 'radius along x');
			into.reach(middle, form.radii[1], Y, below(path, 'radii', 1), 'radius along y');
			into.reach(middle, form.radii[2], Z, below(path, 'radii', 2), 'rise');
			return;
		}
		case 'net': {
			form.rows.forEach((row, j) => into.space(row, below(path, 'rows', j), `row ${j + 1}`));
			form.rows[0]?.forEach((_, i) => into.lines.push(form.rows.flatMap((row) => (row[i] ? [row[i]] : []))));
			return;
		}
		case 'imported':
			into.free(form.at, below(path, 'at'), 'place');
			return;
		case 'waves': {
			const foot = into.height(form.foot);
			const from: Vector = [form.from[0], form.from[1], foot];
			into.place(form.from, foot, below(path, 'from'), 'corner');
			into.reach(
				[from[0], from[1] + form.size[1] / 2, foot],
				form.size[0],
				X,
				below(path, 'size', 0),
				'size along x'
			);
			into.reach(
				[from[0] + form.size[0] / 2, from[1], foot],
				form.size[1],
				Y,
				below(path, 'size', 1),
				'size along y'
			);
			return;
		}
	}
}

/** What can be dragged of a mass. */
export function handlesOf(mass: Mass, levels: readonly Level[]): Handles {
	const into = new Collector(levels);
	collect(mass.form, pathTo('masses', mass.id, 'form'), into);
	return into;
}
