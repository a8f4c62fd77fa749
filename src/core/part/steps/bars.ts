import type { StepOf } from '../../project/part-definition';
import type { PointRegisters, Register } from '../builder';
import { StepFault } from '../compile/fault';
import { prism, tube } from '../solids';
import { piecesOf, type Solid, type Value, type Vectors } from '../values';
import { refuseNothing, type StepContext } from './context';
import { sectionOf, stockOf, type Section, type SectionCorner } from './profile';

/** One straight piece of a bar's run: its axis, and where the section's own directions point. */
interface Run {
	readonly from: PointRegisters;
	readonly axis: PointRegisters;
	readonly length: Register;
	/** Unit directions of the section: across and along its depth. */
	readonly across: PointRegisters;
	readonly along: PointRegisters;
}

/** How far a corner of the section is along the axis where an end cuts it (mm from the run's start). */
type End = (corner: SectionCorner) => Register;

const square =
	(at: Register): End =>
	() =>
		at;

/** An end cut by a plane through the axis at a distance, whose normal is `m`. */
function mitre(v: Vectors, { axis, across, along }: Run, at: Register, m: PointRegisters): End {
	const { b } = v;
	const inverse = b.divide(b.constant(-1), v.dot(axis, m));
	const [x, y] = [b.multiply(v.dot(across, m), inverse), b.multiply(v.dot(along, m), inverse)];
	return (corner) => b.add(at, b.add(b.multiply(corner[0], x), b.multiply(corner[1], y)));
}

function cornersAt(v: Vectors, run: Run, corners: readonly SectionCorner[], end: End): PointRegisters[] {
	return corners.map((corner) => {
		const beside = v.along(v.along(run.from, run.across, corner[0]), run.along, corner[1]);
		return v.along(beside, run.axis, end(corner));
	});
}

/** The volume of a piece: its section times its length through the section's middle. Exact for flat cuts. */
function volumeOf(v: Vectors, section: Section, start: End, end: End): Register {
	return v.b.multiply(section.area, v.b.subtract(end(section.centre), start(section.centre)));
}

/** Flag pieces whose cuts meet before the far corner of the section. */
function refuseShort(v: Vectors, section: Section, start: End, end: End): void {
	const { b } = v;
	const left = section.outer.map((corner) => b.subtract(end(corner), start(corner)));
	refuseNothing(
		b,
		left.reduce((p, q) => b.apply('min', p, q)),
		'its cuts leave nothing of a bar'
	);
}

/** A bar along a path or a ring: one for each straight piece, or one that bends with it. */
export function bars(step: StepOf<'bar'>, context: StepContext): Value {
	const { v, lookup, number } = context;
	const { b } = v;
	const path = lookup(step.path, 'path', 'ring');
	const closed = path.is === 'ring';
	if (closed && step.joints === 'swept')
		throw new StepFault('one bar that bends runs along an open path; a ring takes mitred joints');
	const orZero = (text: string | undefined, kind: 'length' | 'angle') =>
		text === undefined ? b.constant(0) : number(text, kind);
	const section = sectionOf(step.profile, step.placed, context);
	const stock = stockOf(step.profile, context);
	const facing = lookup(step.facing, 'direction').at;
	const turn = orZero(step.turn, 'angle');
	const [cos, sin] = [b.apply('cos', turn), b.apply('sin', turn)];

	const pieces = piecesOf(path).map(([from, to]) => ({
		from,
		length: v.distance(from, to),
		axis: v.unit(v.subtract(to, from))
	}));
	const facingRun = (piece: (typeof pieces)[number]): Run => {
		const upright = v.squareTo(facing, piece.axis);
		const aside = v.cross(upright, piece.axis);
		return {
			...piece,
			along: v.add(v.scale(upright, cos), v.scale(aside, sin)),
			across: v.subtract(v.scale(aside, cos), v.scale(upright, sin))
		};
	};
	const runs: Run[] = [];
	for (const [k, piece] of pieces.entries()) {
		const before = runs[k - 1];
		if (!before || step.joints === 'mitred') {
			runs.push(facingRun(piece));
			continue;
		}
		// Mirrored in the plane of the joint, both sections are cut by it in the same corners.
		const m = v.add(before.axis, piece.axis);
		const twice = b.divide(b.constant(2), v.dot(m, m));
		const mirrored = (p: PointRegisters) => v.along(p, m, b.apply('negate', b.multiply(v.dot(p, m), twice)));
		runs.push({ ...piece, along: mirrored(before.along), across: mirrored(before.across) });
	}

	const count = runs.length;
	const ends = runs.map((run, k): { start: End; end: End } => {
		const before = runs[k - 1] ?? (closed ? runs[count - 1] : undefined);
		const after = runs[k + 1] ?? (closed ? runs[0] : undefined);
		return {
			start: before
				? mitre(v, run, b.constant(0), v.add(before.axis, run.axis))
				: square(orZero(step.start_setback, 'length')),
			end: after
				? mitre(v, run, run.length, v.add(run.axis, after.axis))
				: square(b.subtract(run.length, orZero(step.end_setback, 'length')))
		};
	});
	ends.forEach(({ start, end }) => refuseShort(v, section, start, end));
	const none = b.constant(0);
	const quantities = runs.map((run, k) => {
		const { start, end } = ends[k]!;
		const length =
			count === 1
				? b.subtract(end(section.centre), start(section.centre))
				: b.subtract(
						run.length,
						b.add(
							k === 0 && !closed ? orZero(step.start_setback, 'length') : none,
							k === count - 1 && !closed ? orZero(step.end_setback, 'length') : none
						)
					);
		return { volume: volumeOf(v, section, start, end), area: none, length };
	});
	if (step.joints === 'mitred' || count === 1)
		return {
			is: 'solid',
			stock,
			solids: runs.map((run, k) => {
				const at = (corners: readonly SectionCorner[]) => ({
					foot: cornersAt(v, run, corners, ends[k]!.start),
					head: cornersAt(v, run, corners, ends[k]!.end)
				});
				const outer = at(section.outer);
				return section.inner
					? tube(outer, at(section.inner), quantities[k]!)
					: prism(outer.foot, outer.head, quantities[k]!, [...section.cap]);
			})
		};
	return { is: 'solid', stock, solids: [sweptSolid(v, section, runs, ends, quantities)] };
}

/** Rings of corners from joint to joint, as one mesh. */
function sweptSolid(
	v: Vectors,
	{ outer, inner, cap }: Section,
	runs: readonly Run[],
	ends: readonly { readonly start: End; readonly end: End }[],
	quantities: readonly { readonly volume: Register; readonly length: Register }[]
): Solid {
	const { b } = v;
	const rings = (corners: readonly SectionCorner[]) => [
		cornersAt(v, runs[0]!, corners, ends[0]!.start),
		...runs.map((run, k) => cornersAt(v, run, corners, ends[k]!.end))
	];
	const n = outer.length;
	const outside = rings(outer);
	const vertices = outside.flat();
	const last = outside.length - 1;
	const triangles: number[] = [];
	const wall = (below: number, above: number, outward: boolean) => {
		for (let k = 0; k < n; k++) {
			const [p, q, r, s] = [below + k, below + ((k + 1) % n), above + ((k + 1) % n), above + k];
			triangles.push(...(outward ? [p, q, r, p, r, s] : [p, r, q, p, s, r]));
		}
	};
	for (let j = 0; j < last; j++) wall(j * n, (j + 1) * n, true);
	if (inner) {
		const first = vertices.length;
		vertices.push(...rings(inner).flat());
		for (let j = 0; j < last; j++) wall(first + j * n, first + (j + 1) * n, false);
		wall(0, first, false);
		wall(last * n, first + last * n, true);
	} else {
		for (let t = 0; t < cap.length; t += 3) {
			const [p, q, r] = cap.slice(t, t + 3) as [number, number, number];
			triangles.push(p, r, q, last * n + p, last * n + q, last * n + r);
		}
	}
	return {
		vertices,
		triangles,
		caps: [],
		volume: b.sum(quantities.map(({ volume }) => volume)),
		area: b.constant(0),
		length: b.sum(quantities.map(({ length }) => length))
	};
}
