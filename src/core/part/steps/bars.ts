import type { StepOf } from '../../project/part-definition';
import type { CutSection, PointRegisters, Register } from '../builder';
import { StepFault } from '../compile/fault';
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

/** How far a corner of the section is along the axis where an end cuts it (mm from the run's start): at + across x + along y. */
interface End {
	readonly at: Register;
	/** Null where it is cut square. */
	readonly slant: { readonly x: Register; readonly y: Register } | null;
}

const square = (at: Register): End => ({ at, slant: null });

/** An end cut by a plane through the axis at a distance, whose normal is `m`. */
function mitre(v: Vectors, { axis, across, along }: Run, at: Register, m: PointRegisters): End {
	const { b } = v;
	const inverse = b.divide(b.constant(-1), v.dot(axis, m));
	return {
		at,
		slant: { x: b.multiply(v.dot(across, m), inverse), y: b.multiply(v.dot(along, m), inverse) }
	};
}

function cutAt({ b }: Vectors, { at, slant }: End, corner: SectionCorner): Register {
	if (!slant) return at;
	return b.add(at, b.add(b.multiply(corner[0], slant.x), b.multiply(corner[1], slant.y)));
}

/** The section as an end cuts it. */
function sectionAt(v: Vectors, run: Run, corners: readonly SectionCorner[], { at, slant }: End): CutSection {
	return {
		at: v.along(run.from, run.axis, at),
		x: slant ? v.along(run.across, run.axis, slant.x) : run.across,
		y: slant ? v.along(run.along, run.axis, slant.y) : run.along,
		corners
	};
}

/** The volume of a piece: its section times its length through the section's middle. Exact for flat cuts. */
function volumeOf(v: Vectors, section: Section, start: End, end: End): Register {
	const { b } = v;
	return b.multiply(section.area, b.subtract(cutAt(v, end, section.centre), cutAt(v, start, section.centre)));
}

/** Sections of more corners are round: their rim is reckoned as a circle. */
const MANY_CORNERS = 12;

/** Flag pieces whose cuts meet before the far corner of the section. */
function refuseShort(v: Vectors, section: Section, start: End, end: End): void {
	const { b } = v;
	const left = (corner: SectionCorner) => b.subtract(cutAt(v, end, corner), cutAt(v, start, corner));
	refuseNothing(b, leastLeft(), 'its cuts leave nothing of a bar');

	function leastLeft(): Register {
		if (!start.slant && !end.slant) return left(section.centre);
		if (section.outer.length <= MANY_CORNERS)
			return section.outer.map(left).reduce((p, q) => b.apply('min', p, q));
		const zero = b.constant(0);
		const slope = (axis: 'x' | 'y') => b.subtract(end.slant?.[axis] ?? zero, start.slant?.[axis] ?? zero);
		const [x, y] = [slope('x'), slope('y')];
		const steepest = b.apply('sqrt', b.add(b.multiply(x, x), b.multiply(y, y)));
		const [corner, middle] = [section.outer[0]!, section.centre];
		const [across, along] = [b.subtract(corner[0], middle[0]), b.subtract(corner[1], middle[1])];
		const radius = b.apply('sqrt', b.add(b.multiply(across, across), b.multiply(along, along)));
		return b.subtract(left(middle), b.multiply(radius, steepest));
	}
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
				? b.subtract(cutAt(v, end, section.centre), cutAt(v, start, section.centre))
				: b.subtract(
						run.length,
						b.add(
							k === 0 && !closed ? orZero(step.start_setback, 'length') : none,
							k === count - 1 && !closed ? orZero(step.end_setback, 'length') : none
						)
					);
		return { volume: volumeOf(v, section, start, end), area: none, length };
	});
	const solids =
		step.joints === 'mitred' || count === 1
			? runs.map((run, k) => sweptSolid(v, section, [run], [ends[k]!], [quantities[k]!]))
			: [sweptSolid(v, section, runs, ends, quantities)];
	return { is: 'solid', stock, solids };
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
		sectionAt(v, runs[0]!, corners, ends[0]!.start),
		...runs.map((run, k) => sectionAt(v, run, corners, ends[k]!.end))
	];
	const n = outer.length;
	const outside = rings(outer);
	const last = outside.length - 1;
	const triangles: number[] = [];
	const wall = (below: number, above: number, outward: boolean) => {
		for (let k = 0; k < n; k++) {
			const [p, q, r, s] = [below + k, below + ((k + 1) % n), above + ((k + 1) % n), above + k];
			triangles.push(...(outward ? [p, q, r, p, r, s] : [p, r, q, p, s, r]));
		}
	};
	if (!inner)
		for (let t = 0; t < cap.length; t += 3) {
			const [p, q, r] = cap.slice(t, t + 3) as [number, number, number];
			triangles.push(p, r, q, last * n + p, last * n + q, last * n + r);
		}
	for (let j = 0; j < last; j++) wall(j * n, (j + 1) * n, true);
	if (inner) {
		const first = outside.length * n;
		for (let j = 0; j < last; j++) wall(first + j * n, first + (j + 1) * n, false);
		wall(0, first, false);
		wall(last * n, first + last * n, true);
	}
	return {
		vertices: [],
		sections: inner ? [...outside, ...rings(inner)] : outside,
		triangles,
		caps: [],
		volume: b.sum(quantities.map(({ volume }) => volume)),
		area: b.constant(0),
		length: b.sum(quantities.map(({ length }) => length))
	};
}
